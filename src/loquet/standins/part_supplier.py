"""Two small simulated suppliers of parts: prices by quantity, stock, least quantities and days,
made up from the parts' own figures. Nothing here is real.
"""

import hashlib

from loquet.core.ordering.offer import Offer
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


def stock_offer(stock: Stock) -> Offer:
    """What the one supplier of chips asks for one."""
    return Offer(
        supplier=stock.supplier,
        pieces=stock.pieces,
        days=stock.days,
        breaks=((1, float(stock.price_cents)),),
        back_days=stock.back_days,
    )
