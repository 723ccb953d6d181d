"""The simulated house on its own: prices, breaks, dates, states."""

from datetime import date, timedelta

import pytest

from loquet.core.brief.making import Making
from loquet.core.library import Library
from loquet.core.ordering.house import Asked, House
from loquet.core.release import Release
from loquet.standins.board_house import STATES, Quote, order_state, quote
from loquet.standins.file_inspection import Inspection, Plate, inspect

TODAY = date(2026, 11, 24)
SEEN = Inspection((Plate(64.0, 42.0),), 0.2, 0.3, 98, ())


@pytest.fixture
def house(library: Library) -> House:
    return library.houses["millrace"]


def ask(house: House, quantity: int, **changes: object) -> Quote:
    wanted = {
        "finish": "lead-free solder",
        "colour": "green",
        "thickness_um": 1600,
        "copper_um": 35,
        "shipping": "parcel",
    } | changes
    return quote(house, SEEN, quantity, Asked.model_validate(wanted), TODAY)


def test_the_lines_add_up_and_each_is_a_share(house: House) -> None:
    for quantity in (1, 5, 10, 100, 1000):
        given = ask(house, quantity)
        assert given.total_cents == sum(cents for _, cents in given.lines)
        assert given.each_cents == pytest.approx(given.total_cents / quantity, abs=0.05)


def test_a_board_by_hand(house: House) -> None:
    # 64 x 42 mm is 0.2688 square decimetres; at 260 cents and no break 5 boards cost 349 cents,
    # with 1800 set-up and 950 shipping
    assert ask(house, 5).total_cents == 349 + 1800 + 950


def test_more_boards_never_cost_more_each(house: House) -> None:
    each = [ask(house, quantity).each_cents for quantity in (5, 10, 20, 50, 200, 1000)]
    assert each == sorted(each, reverse=True)
    assert ask(house, 10).next_break == (20, 0.86)
    assert ask(house, 5000).next_break is None


@pytest.mark.parametrize(
    ("change", "more"),
    [
        ({"finish": "gold"}, 1700),
        ({"colour": "black"}, 300),
        ({"thickness_um": 1000}, 400),
        ({"shipping": "express"}, 1650),
    ],
)
def test_choices_cost_what_the_list_says(
    house: House, change: dict[str, object], more: int
) -> None:
    assert ask(house, 10, **change).total_cents - ask(house, 10).total_cents == more


def test_dates_follow_work_and_road(house: House) -> None:
    given = ask(house, 10)
    ready = date.fromisoformat(given.ready_on)
    between = [TODAY + timedelta(days=i + 1) for i in range((ready - TODAY).days)]
    assert sum(day.weekday() < 5 for day in between) == house.work_days
    assert ready.weekday() < 5
    assert given.arrives_on == (ready + timedelta(days=6)).isoformat()
    assert ask(house, 10, shipping="express").arrives_on < given.arrives_on


def test_an_order_goes_through_all_states_in_order(house: House) -> None:
    plain = ask(house, 10).plain()
    states = [order_state(house, plain, TODAY, day)[0] for day in range(15)]
    assert list(dict.fromkeys(states)) == list(STATES)
    assert states.index("delivered") == 13  # Tuesday, five work days, six days on the road


def test_complaints_of_the_files_reach_the_quote(house: House, released: Release) -> None:
    empty = inspect({}, house)
    assert len(empty.complaints) == 10
    given = quote(house, empty, 5, house.asked(Making(), "parcel", True), TODAY)
    assert "copper-near.gbr is missing." in given.complaints
    assert inspect(released.files, house).complaints == ()


def test_a_larger_order_that_costs_less_is_said(house: House) -> None:
    """By the house's own list: at each quantity the cheapest larger break, where it costs less in
    all; nothing at a break's own price.
    """
    for quantity in (4, 5, 17, 18, 19, 20, 45, 49, 190):
        given = ask(house, quantity)
        others = [(ask(house, n).total_cents, n) for n, _ in house.breaks if n > quantity]
        least = min(others, default=(given.total_cents, 0))
        wanted = (least[1], least[0]) if least[0] < given.total_cents else None
        assert given.cheaper == wanted
    assert ask(house, 49).cheaper is not None


def test_no_break_is_named_that_lowers_nothing(house: House) -> None:
    assert ask(house, 1).next_break != (5, 1.0)
    assert ask(house, 1000).next_break is None
