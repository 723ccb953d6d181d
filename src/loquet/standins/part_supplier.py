"""Two small simulated suppliers of parts: prices by quantity, stock, least quantities and days,
made up from the parts' own figures. Nothing here is real.
"""

import hashlib
from dataclasses import dataclass

from loquet.core.parts.listing import ListedChip, Stock

FAMILY_CENTS = {
    "c0": 60,
    "f0": 90,
    "g0": 80,
    "l0": 150,
    "f1": 180,
    "f3": 240,
    "l1": 260,
    "g4": 280,
    "l4": 320,
    "f4": 380,
    "u0": 110,
    "u5": 420,
}
SUPPLIER = "Aldous & Pike, parts (simulated)"


def stock_of(chip: ListedChip) -> Stock:
    """Price, pieces and days of a chip; the same for the same name."""
    chance = int(hashlib.sha256(chip.name.encode()).hexdigest()[:6], 16)
    base = FAMILY_CENTS.get(chip.family, 400)
    price = round(base + 3.2 * chip.ports + chance % 40)
    pieces = 0 if chance % 5 == 0 else 20 + chance % 900
    return Stock(
        supplier=SUPPLIER,
        price_cents=price,
        pieces=pieces,
        days=3 if pieces else 60 + chance % 90,
        back_days=60 + chance % 90,
    )


@dataclass(frozen=True)
class Offer:
    """What a supplier asks for a part: pieces there, days until they are here, the least that it
    sells, cents each from a quantity on, and the days until more comes in.
    """

    supplier: str
    pieces: int
    days: int
    minimum: int
    breaks: tuple[tuple[int, float], ...]
    back_days: int = 0

    def days_for(self, count: int) -> int:
        """Days until so many are here: those of what lies there, or until more of it comes in."""
        return self.days if self.pieces >= count else max(self.days, self.back_days)

    def buys(self, count: int) -> int:
        """How many have to be taken for so many."""
        return max(count, self.minimum)

    def each_cents(self, count: int) -> float:
        """Cents each for so many."""
        return next(cents for least, cents in reversed(self.breaks) if count >= least)


OTHER = "Wharf Street Components (simulated)"
BREAKS = ((1, 1.3), (10, 1.0), (100, 0.8), (1000, 0.62))
RUN_OUT = frozenset({"button-6x6-surface"})
CHEAP_CENTS, CHEAP_LEAST = 5.0, 10
USUAL_DAYS = {SUPPLIER: 3, OTHER: 6}


def offers_of(part: str, price_cents: float) -> tuple[Offer, ...]:
    """Both offers for a part; the same for the same part.

    One part of the catalogue has run out at both.
    """
    return tuple(offer(name, part, price_cents) for name in (SUPPLIER, OTHER))


def offer(name: str, part: str, price_cents: float) -> Offer:
    """What one supplier asks."""
    chance = int(hashlib.sha256(f"{name} {part}".encode()).hexdigest()[:6], 16)
    gone = part in RUN_OUT or chance % 9 == 0
    pieces = 0 if gone else 40 + chance % 9000
    factor = 0.92 + chance % 17 / 100
    return Offer(
        supplier=name,
        pieces=pieces,
        days=USUAL_DAYS[name] + (60 + chance % 50 if gone else 0),
        minimum=CHEAP_LEAST if price_cents < CHEAP_CENTS else 1,
        breaks=tuple((least, round(price_cents * factor * by, 3)) for least, by in BREAKS),
        back_days=USUAL_DAYS[name] + 60 + chance % 50,
    )
