"""A small simulated supplier of microcontrollers: price, stock and days, made up from the part's own figures. Nothing here is real."""

import hashlib

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
        supplier=SUPPLIER, price_cents=price, pieces=pieces, days=3 if pieces else 60 + chance % 90
    )
