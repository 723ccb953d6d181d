"""A house learnt from its quotes, against fits of other libraries and against a house whose prices
are known.
"""

import random
from itertools import product

import numpy as np
import pytest
from scipy.optimize import lsq_linear

from loquet.core.ordering.house import House
from loquet.core.ordering.learning import (
    QuoteSeen,
    TooFewQuotes,
    learn,
    matrix,
    prices_in,
    worked_out,
)
from tests.making import FELL

SIZES = ((5, 100, 60), (10, 64, 42), (20, 120, 80), (30, 90, 50), (50, 70, 70))


def asked(quantity: int, wide: float, high: float, **more: object) -> QuoteSeen:
    """12.00 set-up, 2.40 a dm², 0.35 a board, 9.00 for gold, 4.00 thin, 1.10 a dm² inside: worked
    out by hand, in whole cents.
    """
    area = quantity * wide * high / 10_000
    cents = 1200 + 240 * area + 35 * quantity
    cents += 900 if more.get("finish") == "gold" else 0
    cents += 400 if int(str(more.get("thickness_um", 1600))) < 1600 else 0
    cents += 110 * area if more.get("copper_layers") == 4 else 0
    plain = {"quantity": quantity, "width_mm": wide, "height_mm": high, "cents": round(cents)}
    return QuoteSeen.model_validate({**plain, **more})


def test_five_quotes_tell_the_prices_and_a_sixth_is_met() -> None:
    learnt = learn([asked(*size) for size in SIZES])
    assert learnt.prices == pytest.approx(
        {"setup_cents": 1200, "area_cents_dm2": 240, "piece_cents": 35}, rel=0.01
    )
    assert 1 <= learnt.within_cents < 5, "whole cents are all that is missed"
    assert learnt.untold == ()
    sixth = asked(15, 85, 55)
    quotes = [asked(*size) for size in SIZES]
    found = worked_out(sixth, prices_in(quotes), np.array(list(learnt.prices.values())))
    assert abs(found - sixth.cents) <= learnt.within_cents


def test_options_are_told_apart() -> None:
    kinds: tuple[dict[str, object], ...] = (
        {"finish": "plain"},
        {"finish": "gold"},
        {"finish": "plain", "thickness_um": 800},
        {"finish": "plain", "copper_layers": 4},
    )
    quotes = [asked(*size, **more) for size, more in product(SIZES, kinds)]
    learnt = learn(quotes)
    assert learnt.prices == pytest.approx(
        {
            "setup_cents": 1200,
            "area_cents_dm2": 240,
            "piece_cents": 35,
            "inner_cents_dm2": 110,
            "finish gold": 900,
            "thin_cents": 400,
        },
        rel=0.01,
    )
    assert len(learnt.misses) == len(quotes)


@pytest.mark.parametrize("seed", range(8))
def test_prices_are_those_of_another_fit(seed: int) -> None:
    """`scipy.optimize.lsq_linear` (a trust-region method with bounds) and, where no price is held
    at nothing, numpy's plain least squares.
    """
    chance = random.Random(seed)
    quotes = [
        QuoteSeen(
            quantity=chance.randint(1, 90),
            width_mm=chance.uniform(20, 180),
            height_mm=chance.uniform(20, 120),
            finish=chance.choice(("plain", "gold")),
            cents=chance.uniform(1000, 30_000),
        )
        for _ in range(chance.randint(5, 14))
    ]
    prices = prices_in(quotes)
    amounts, cents = matrix(quotes, prices), np.array([q.cents for q in quotes])
    found = np.array([learn(quotes).prices[price.name] for price in prices])
    other = lsq_linear(amounts, cents, bounds=(0, np.inf), tol=1e-12).x

    def square(solved: np.ndarray) -> float:
        return float(((amounts @ solved - cents) ** 2).sum())

    assert square(found) <= square(other) * (1 + 1e-6)
    plain = np.linalg.lstsq(amounts, cents, rcond=None)[0]
    if (plain > 0).all():
        assert found == pytest.approx(plain, rel=1e-6, abs=1e-6)
    else:
        assert found.min() == 0


def test_what_a_house_with_breaks_asks_is_missed_by_what_is_said() -> None:
    """Boards of a house whose price falls with the quantity, which the learnt one does not know:
    five quotes, then each of many sixths within what was stated, or nearly.
    """

    def quoted(quantity: int, wide: float, high: float) -> QuoteSeen:
        share = 1.0 if quantity < 20 else 0.86
        cents = 1800 + 260 * share * quantity * wide * high / 10_000
        return QuoteSeen(quantity=quantity, width_mm=wide, height_mm=high, cents=round(cents))

    sizes = ((5, 100, 60), (10, 80, 60), (15, 50, 90), (25, 90, 60), (40, 70, 50))
    quotes = [quoted(*size) for size in sizes]
    learnt, prices = learn(quotes), prices_in(quotes)
    solved = np.array([learnt.prices[p.name] for p in prices])
    assert learnt.within_cents > 50, "breaks are not told, and it says so"
    missed = [
        abs(worked_out(one, prices, solved) - one.cents)
        for one in (quoted(n, 90, 60) for n in range(5, 41, 5))
    ]
    assert max(missed) <= learnt.within_cents


def test_too_few_and_too_alike() -> None:
    with pytest.raises(TooFewQuotes, match="3 quotes"):
        learn([asked(*size) for size in SIZES[:2]])
    with pytest.raises(TooFewQuotes, match="alike"):
        learn([asked(5, 100, 60)] * 4)
    three = learn([asked(*size) for size in SIZES[:3]])
    assert any("next quote" in words for words in three.untold)
    one_size = learn([asked(n, 100, 60) for n in (5, 10, 20, 40)])
    assert any("not told apart" in words for words in one_size.untold), "area and boards rise alike"


def test_prices_in_another_money_are_in_euro() -> None:
    more = {"finish_cents": {"lead-free solder": 30}, "fit_cents": 3}
    house = House.model_validate({**FELL, **more})
    there = house.in_euro
    assert (there.setup_cents, there.area_cents_dm2, there.fit_cents) == (500, 100, 1.5)
    assert there.finish_cents == {"lead-free solder": 15}
    assert there.shipping[0].cents == 250
    assert there.in_euro == there
    assert (there.track_um, there.work_days) == (house.track_um, house.work_days)
    assert "typed" in house.priced_by
    told = house.model_copy(update={"known": "learnt", "within_cents": 120.0})
    assert "within 1.20 USD" in told.priced_by
    assert "within 0.60 EUR" in told.in_euro.priced_by
