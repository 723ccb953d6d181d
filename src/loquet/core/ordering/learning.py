"""What a house asks, learnt from quotes that it sent: prices that are never negative and fit best,
and how far they miss.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Annotated

import numpy as np
from pydantic import Field

from loquet.core.plain.frozen import Frozen

FEWEST, MOST = 3, 60
USUAL_UM = 1600
ROUNDING_CENTS = 1.0
"""Quotes are rounded to whole cents, so no house is known better than this."""


class QuoteSeen(Frozen):
    """A quote that somebody received: so many boards of this size (mm), how they are made, what
    they cost without shipping (cents of the house's money), and where it stands.
    """

    quantity: Annotated[int, Field(ge=1, le=100_000)]
    width_mm: Annotated[float, Field(gt=0, le=1000)]
    height_mm: Annotated[float, Field(gt=0, le=1000)]
    copper_layers: Annotated[int, Field(ge=2, le=4, multiple_of=2)] = 2
    finish: Annotated[str, Field(max_length=40)] = ""
    colour: Annotated[str, Field(max_length=40)] = ""
    thickness_um: Annotated[int, Field(ge=200, le=6400)] = USUAL_UM
    cents: Annotated[float, Field(gt=0, le=1e9)]
    words: Annotated[str, Field(max_length=120)] = ""

    @property
    def area_dm2(self) -> float:
        """The area of all its boards in dm²."""
        return self.quantity * self.width_mm * self.height_mm / 10_000


@dataclass(frozen=True)
class Price:
    """Something that a house may ask for: its name in the list, its words, and how much of it a
    quote holds.
    """

    name: str
    words: str
    amount: Callable[[QuoteSeen], float]


class Learnt(Frozen):
    """Prices in cents by name, what each quote was missed by (asked less worked out, cents), how
    far a quote of the same kind may be missed, and what these quotes do not tell.
    """

    prices: dict[str, float]
    misses: tuple[float, ...]
    within_cents: float
    untold: tuple[str, ...] = ()


class TooFewQuotes(Exception):
    """Fewer than three quotes, or quotes that are all alike: one sentence."""


def learn(quotes: Sequence[QuoteSeen]) -> Learnt:
    """Prices by non-negative least squares (Lawson and Hanson, `scipy.optimize.nnls`).

    `within_cents` is the largest miss where each quote in turn is worked out from all others, as
    far as these tell as many prices; it is never below what rounding takes. Raises TooFewQuotes.
    """
    if len(quotes) < FEWEST:
        raise TooFewQuotes(f"A house is learnt from {FEWEST} quotes or more.")
    asked = prices_in(quotes)
    misses, found = fitted(quotes, asked)
    if len({(q.quantity, q.width_mm, q.height_mm) for q in quotes}) < FEWEST:
        raise TooFewQuotes("Three quotes must differ in size or quantity; these are alike.")
    left_out = list(missed_by_others(quotes, asked))
    within = max([ROUNDING_CENTS, *left_out, *(abs(miss) for miss in misses)])
    untold = untold_of(quotes, asked)
    if not left_out:
        untold = (*untold, "how far a next quote is missed: there are only as many as prices")
    return Learnt(
        prices={price.name: float(cents) for price, cents in zip(asked, found, strict=True)},
        misses=tuple(round(float(miss), 2) for miss in misses),
        within_cents=round(within, 2),
        untold=untold,
    )


def missed_by_others(quotes: Sequence[QuoteSeen], asked: Sequence[Price]) -> Iterator[float]:
    """By how many cents each quote is missed that all others can tell."""
    for at, quote in enumerate(quotes):
        others = [*quotes[:at], *quotes[at + 1 :]]
        if told(others, asked):
            yield abs(quote.cents - worked_out(quote, asked, fitted(others, asked)[1]))


def prices_in(quotes: Sequence[QuoteSeen]) -> tuple[Price, ...]:
    """What these quotes can tell: what every house asks, and the options in which they differ. The
    commonest finish and colour cost nothing more.
    """
    found = [
        Price("setup_cents", "set-up", lambda q: 1.0),
        Price("area_cents_dm2", "a dm² of board", lambda q: q.area_dm2),
        Price("piece_cents", "each board", lambda q: float(q.quantity)),
    ]
    if any(q.copper_layers > 2 for q in quotes):
        inner = "a dm² of inner layers"
        found.append(
            Price("inner_cents_dm2", inner, lambda q: q.area_dm2 if q.copper_layers > 2 else 0.0)
        )
    for what in ("finish", "colour"):
        given = [getattr(q, what) for q in quotes]
        usual = max(dict.fromkeys(given), key=given.count)
        for name in dict.fromkeys(given):
            if name != usual:
                found.append(option(what, name))
    if len({q.thickness_um < USUAL_UM for q in quotes}) > 1:
        found.append(
            Price("thin_cents", "a thin board", lambda q: float(q.thickness_um < USUAL_UM))
        )
    return tuple(found)


def option(what: str, name: str) -> Price:
    """What a finish or colour costs more than the usual one."""
    return Price(f"{what} {name}", f"{what} {name}", lambda q: float(getattr(q, what) == name))


def matrix(quotes: Sequence[QuoteSeen], asked: Sequence[Price]) -> np.ndarray:
    """How much of each price each quote holds."""
    return np.array([[price.amount(quote) for price in asked] for quote in quotes])


def fitted(quotes: Sequence[QuoteSeen], asked: Sequence[Price]) -> tuple[np.ndarray, np.ndarray]:
    """What each quote is missed by, and the prices; columns are weighed to a like size before."""
    from scipy.optimize import nnls  # loaded when first asked for

    amounts = matrix(quotes, asked)
    sizes = np.where(amounts.max(axis=0) > 0, amounts.max(axis=0), 1.0)
    cents = np.array([quote.cents for quote in quotes])
    prices = nnls(amounts / sizes, cents)[0] / sizes
    return cents - amounts @ prices, prices


def worked_out(quote: QuoteSeen, asked: Sequence[Price], prices: np.ndarray) -> float:
    """What a quote comes to, in cents."""
    return float(matrix([quote], asked)[0] @ prices)


def told(quotes: Sequence[QuoteSeen], asked: Sequence[Price]) -> bool:
    """Whether quotes tell every price apart from the others."""
    return bool(np.linalg.matrix_rank(matrix(quotes, asked)) == len(asked))


def untold_of(quotes: Sequence[QuoteSeen], asked: Sequence[Price]) -> tuple[str, ...]:
    """Prices that cannot be told apart from others by these quotes."""
    whole = matrix(quotes, asked)
    rank = np.linalg.matrix_rank(whole)
    if rank == len(asked):
        return ()
    alike = [
        price.words
        for i, price in enumerate(asked)
        if np.linalg.matrix_rank(np.delete(whole, i, axis=1)) == rank
    ]
    return (f"{', '.join(alike)}: not told apart by these quotes",)
