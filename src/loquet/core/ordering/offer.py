"""What a supplier asks for a part."""

from datetime import date, timedelta
from math import ceil

from pydantic import Field

from loquet.core.plain.frozen import Frozen

OLD_DAYS = 90
"""A price that was seen longer ago is looked at again before anything is ordered by it."""


class Offer(Frozen):
    """What a supplier asks for a part: pieces there, days until they are here, the least that it
    sells and in packs of how many, cents each (in euro) from a quantity on, the days until more
    comes in, its order number, and the day on which somebody saw it.
    """

    supplier: str
    pieces: int
    days: int
    minimum: int = 1
    breaks: tuple[tuple[int, float], ...] = Field(min_length=1)
    back_days: int = 0
    pack: int = 1
    order_number: str = ""
    maker_number: str = ""
    seen_on: date | None = None

    def days_for(self, count: int) -> int:
        """Days until so many are here: those of what lies there, or until more of it comes in."""
        return self.days if self.pieces >= count else max(self.days, self.back_days)

    def buys(self, count: int) -> int:
        """How many have to be taken for so many: the least that it sells, in whole packs."""
        return ceil(max(count, self.minimum) / self.pack) * self.pack

    def each_cents(self, count: int) -> float:
        """Cents each for so many; below its first break those of that break."""
        prices = (cents for least, cents in reversed(self.breaks) if count >= least)
        return next(prices, self.breaks[0][1])

    def cents_for(self, count: int) -> float:
        """What so many come to, in cents."""
        return self.each_cents(self.buys(count)) * self.buys(count)

    def old(self, today: date) -> bool:
        """Whether its price was seen too long ago."""
        return self.seen_on is not None and today - self.seen_on > timedelta(days=OLD_DAYS)


def best_of(offers: tuple[Offer, ...], count: int) -> tuple[Offer, bool]:
    """The cheapest offer that has so many, or the cheapest; and whether it has them. Of equal
    prices the first.
    """
    there = [offer for offer in offers if offer.pieces >= offer.buys(count)]
    return min(there or offers, key=lambda offer: offer.cents_for(count)), bool(there)
