"""The calendar against dates worked out by hand, the cost at the door against totals worked out by
hand.
"""

from datetime import date

import pytest

from loquet.core.library import Library
from loquet.core.ordering.calendar import (
    Leg,
    after_open_days,
    before_open_days,
    calendar,
    open_day,
)
from loquet.core.ordering.landed import CURVE, Bought, Wanted, curve, landed
from loquet.standins.board_house import PART_STATES, parts_state

XMAS = ("12-24", "12-25")


@pytest.mark.parametrize(
    ("start", "days", "closed", "end"),
    [
        ("2026-11-26", 1, (), "2026-11-27"),
        ("2026-11-26", 2, (), "2026-11-30"),
        ("2026-11-27", 5, (), "2026-12-04"),
        ("2026-12-22", 3, XMAS, "2026-12-29"),
        ("2026-11-28", 0, (), "2026-11-28"),
    ],
)
def test_days_of_work_leave_out_weekends_and_holidays(
    start: str, days: int, closed: tuple[str, ...], end: str
) -> None:
    """26 November 2026 is a Thursday; Christmas Eve and Day of that year are Thursday and
    Friday.
    """
    first, last = date.fromisoformat(start), date.fromisoformat(end)
    assert after_open_days(first, days, closed) == last
    again = before_open_days(last, days, closed)
    assert after_open_days(again, days, closed) == last
    assert again >= first
    assert open_day(date(2026, 12, 23), XMAS)
    assert not open_day(date(2026, 12, 24), XMAS)
    assert not open_day(date(2026, 11, 28), ())


LEGS = (
    Leg(name="parts", words="", work_days=0, road_days=6, ordered=True),
    Leg(name="boards", words="", work_days=5, road_days=6, ordered=True),
    Leg(name="soldering", words="", work_days=2, after=("parts", "boards")),
    Leg(name="bring-up", words="", work_days=1, after=("soldering",)),
)


def test_the_calendar_goes_both_ways() -> None:
    """K50.

    From Thursday 26 November: boards 5 days of work to 3 December and 6 on the road, 9 December;
    soldering to the 11th, bring-up to Monday the 14th. Wanted on Friday the 18th: bring-up from the
    17th, soldering from the 15th, boards there by the 15th, so they leave on the 9th and begin on
    the 2nd; parts on the 9th.
    """
    plan = calendar(LEGS, date(2026, 11, 26), date(2026, 12, 18))
    rows = {leg.name: leg for leg in plan.legs}
    assert rows["boards"].earliest_end == date(2026, 12, 9)
    assert rows["soldering"].earliest_start == date(2026, 12, 9)
    assert rows["soldering"].earliest_end == date(2026, 12, 11)
    assert plan.ready == rows["bring-up"].earliest_end == date(2026, 12, 14)
    assert plan.in_time
    assert rows["bring-up"].latest_start == date(2026, 12, 17)
    assert rows["soldering"].latest_start == date(2026, 12, 15)
    assert rows["boards"].latest_start == date(2026, 12, 2)
    assert rows["boards"].slack_days == 6
    assert rows["parts"].latest_start == date(2026, 12, 9)
    assert plan.order_today == ()


def test_what_must_be_ordered_today_and_what_is_late() -> None:
    """Wanted on Monday 14 December the boards have to be ordered on the day itself, the parts have
    a week; four days earlier it is too late.
    """
    plan = calendar(LEGS, date(2026, 11, 26), date(2026, 12, 14))
    assert plan.order_today == ("boards",)
    assert plan.in_time
    late = calendar(LEGS, date(2026, 11, 26), date(2026, 12, 10))
    assert not late.in_time
    assert {leg.slack_days < 0 for leg in late.legs if leg.name == "boards"} == {True}
    with pytest.raises(ValueError, match="waits"):
        calendar(
            (Leg(name="a", words="", work_days=1, after=("b",)),),
            date(2026, 1, 1),
            date(2026, 2, 1),
        )


def test_costs_at_the_door_are_added_up(library: Library) -> None:
    """K49.

    Ropewalk: boards 12.11, stencil 9.00, no fitting there, parts 41.00 with 6.90 of shipping since
    they are under 60, boards shipped for 4.50, duty 3.7 % of 21.11 = 0.78: 74.29.
    """
    ropewalk = library.house("ropewalk")
    made = landed(
        ropewalk,
        Wanted(stencil="sheet", fitting="house"),
        10,
        1211,
        450,
        Bought(parts_cents=4100, shipping_cents=690),
        30,
    )
    assert dict(made.lines) == {
        "Boards": 1211,
        "Stencils": 900,
        "Parts with spares": 4100,
        "Shipping": 1140,
        "Duty": 78,
    }
    assert made.total_cents == 7429
    assert made.each_cents == 742.9


def test_fitting_by_the_house_takes_the_place_of_a_stencil(library: Library) -> None:
    """Millrace: 24.00 and 1.9 cents for each of 30 parts on 10 devices: 29.70; no stencil is
    bought; parts over 60 are shipped free.
    """
    millrace = library.house("millrace")
    made = landed(
        millrace,
        Wanted(stencil="framed", fitting="house"),
        10,
        2499,
        950,
        Bought(parts_cents=6898),
        30,
    )
    assert dict(made.lines) == {
        "Boards": 2499,
        "Fitting by the house": 2970,
        "Parts with spares": 6898,
        "Shipping": 950,
    }
    framed = landed(millrace, Wanted(stencil="framed"), 10, 2499, 950, Bought(parts_cents=6898), 30)
    assert dict(framed.lines)["Stencils"] == 3900
    bare = landed(millrace, Wanted(stencil="none"), 10, 2499, 950, Bought(parts_cents=6898), 30)
    assert "Stencils" not in dict(bare.lines)


def test_the_curve_names_a_larger_number_that_costs_no_more(library: Library) -> None:
    """K60. 100, 90, 90 and 120 for 5, 10, 20 and 50: from 5 and from 10 on 20 cost no more; from 20
    on nothing does.
    """
    cost = {5: 10000, 10: 9000, 20: 9000, 50: 12000}
    house = library.house("millrace")

    def at(n: int):  # type: ignore[no-untyped-def] # a Landed
        return landed(house, Wanted(stencil="none"), n, cost[n], 0, Bought(), 0)

    found = curve([50, 5, 20, 10, 5], at)
    assert [(p.quantity, p.cheaper) for p in found] == [(5, 20), (10, 20), (20, None), (50, None)]
    assert [p.each_cents for p in found] == [2000, 900, 450, 240]


def test_every_line_shows_its_working(library: Library) -> None:
    """The shown sum is its value in euro, and the formula gives it again from its inputs: 24.00 +
    0.019 x 30 x 10, duty of 3.7 %, shipping 9.50 + 6.90.
    """
    millrace, ropewalk = library.house("millrace"), library.house("ropewalk")
    made = landed(
        millrace,
        Wanted(fitting="house"),
        10,
        2499,
        950,
        Bought(parts_cents=5999, shipping_cents=690),
        30,
    )
    rows = {w.title: w for w in made.workings}
    assert {t: w.shown for t, w in rows.items()} == {
        "Boards": "24.99 €",
        "Fitting by the house": "29.70 €",
        "Parts with spares": "59.99 €",
        "Shipping": "16.40 €",
    }
    fitted = {i.name: float(i.value) for i in rows["Fitting by the house"].inputs}
    assert fitted == {"set-up": 2400, "each": 1.9, "parts": 30, "devices": 10}
    assert {i.name: float(i.value) for i in rows["Shipping"].inputs} == {
        "boards": 950,
        "parts": 690,
    }
    free = landed(millrace, Wanted(), 10, 2499, 950, Bought(parts_cents=6000), 30)
    assert dict(free.lines)["Shipping"] == 950
    none = landed(millrace, Wanted(), 10, 2499, 950, Bought(), 30)
    assert dict(none.lines)["Shipping"] == 950
    both = landed(ropewalk, Wanted(), 10, 1211, 450, Bought(), 30, stencils=2)
    assert dict(both.lines)["Stencils"] == 1800
    lacking = landed(ropewalk, Wanted(), 10, 1211, 450, Bought(unpriced=("U1",), short=("D3",)), 30)
    assert (lacking.unpriced, lacking.short) == (("U1",), ("D3",))
    taxed = landed(
        ropewalk, Wanted(), 10, 1211, 450, Bought(parts_cents=4100, shipping_cents=690), 30
    )
    duty = {i.name: float(i.value) for w in taxed.workings if w.title == "Duty" for i in w.inputs}
    assert duty == {"share": 0.037, "boards": 1211, "stencil": 900, "fitting": 0, "parts": 0}
    # own money: 20 % of 12.11 + 9.00 + 4.50 + 0.78 duty = 5.28, and what suppliers ask: 0.50 + 1.00
    own = ropewalk.model_copy(update={"vat_share": 0.2})
    bought = Bought(parts_cents=4100, duty_cents=50, tax_cents=100)
    lines = dict(landed(own, Wanted(), 10, 1211, 450, bought, 30).lines)
    assert (lines["Duty"], lines["Value added tax"]) == (78 + 50, 528 + 100)
    unstencilled = own.model_copy(update={"stencil_cents": 0.0})
    assert landed(unstencilled, Wanted(), 10, 1211, 450, bought, 30).unpriced == (
        "a stencil of Ropewalk Pooling",
    )
    handed = landed(unstencilled, Wanted(stencil="none"), 10, 1211, 450, bought, 30)
    assert handed.unpriced == ()
    # 3.7 % of 24.99 + 29.70 = 2.02; with a stencil instead of fitting 3.7 % of 24.99 + 15.00 = 1.48
    abroad = millrace.model_copy(update={"duty_share": 0.037})
    worked = landed(abroad, Wanted(fitting="house"), 10, 2499, 950, Bought(parts_cents=6000), 30)
    assert dict(worked.lines)["Duty"] == 202
    assert (
        dict(landed(abroad, Wanted(), 10, 2499, 950, Bought(parts_cents=6000), 30).lines)["Duty"]
        == 148
    )


def test_the_curve_goes_from_five_to_a_thousand() -> None:
    """As the work asks: the numbers at which a hobby order and a small series are asked for."""
    assert CURVE == (5, 10, 20, 30, 50, 100, 200, 300, 500, 1000)


QUOTE = {"ready_on": "2026-12-03", "arrives_on": "2026-12-04"}
PLACED = date(2026, 11, 30)


def test_parts_go_their_own_way() -> None:
    states = [parts_state(QUOTE, PLACED, day)[0] for day in (0, 1, 2, 3, 4)]
    assert states == ["received", "packed", "on the road", "on the road", "delivered"]
    assert set(states) == set(PART_STATES)
