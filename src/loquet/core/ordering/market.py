"""Where parts can be bought: suppliers of one's own with their price lists."""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from loquet.core.ordering.offer import Offer, best_of
from loquet.core.ordering.price_list import PriceLine
from loquet.core.ordering.supplier import Holds, Supplier
from loquet.core.parts import Part
from loquet.core.plain.cells import cell_table
from loquet.core.plain.frozen import Frozen

UNSAID_PIECES = 0
"""A list that does not say how many there are promises none."""
RESTOCK_DAYS = 60
"""How long more is waited for where a supplier has too few and does not say; common practice, no
source."""


def number_key(number: str) -> str:
    """A maker's number as numbers are compared: without spaces, dashes and case."""
    return re.sub(r"[\s\-_/.]+", "", number).lower()


def keys_of(part_id: str, part: Part | None) -> tuple[str, ...]:
    """Under which a part is found in a price list: its id, and the numbers under which it is sold;
    a chip by its name.
    """
    numbers = part.sold_as if part else ()
    chip = (number_key(part_id[5:]),) if part_id.startswith("chip:") else ()
    return (part_id, *map(number_key, numbers), *chip)


@dataclass(frozen=True)
class Market:
    """Suppliers of one's own by id, and the lines of their lists by part and by maker's number."""

    suppliers: Mapping[str, Supplier] = field(default_factory=dict)
    lines: Mapping[str, tuple[PriceLine, ...]] = field(default_factory=dict)

    @staticmethod
    def of(suppliers: Iterable[Supplier], lines: Iterable[PriceLine]) -> "Market":
        """Suppliers with all their lines."""
        known = {supplier.id: supplier for supplier in suppliers}
        found: dict[str, list[PriceLine]] = {}
        for line in lines:
            for key in {line.part, number_key(line.maker_number)} - {""}:
                found.setdefault(key, []).append(line)
        return Market(known, {key: tuple(rows) for key, rows in found.items()})

    def lines_for(self, part_id: str, part: Part | None) -> tuple[PriceLine, ...]:
        """The lines of all lists that sell a part, each once."""
        rows = {
            (line.supplier, line.order_number): line
            for key in keys_of(part_id, part)
            for line in self.lines.get(key, ())
            if line.supplier in self.suppliers
        }
        return tuple(rows.values())

    def offers(self, part_id: str, part: Part | None) -> tuple[Offer, ...]:
        """What one's own suppliers ask for a part, in euro."""
        return tuple(
            offer_of(line, self.suppliers[line.supplier]) for line in self.lines_for(part_id, part)
        )

    def named(self, name: str) -> Supplier | None:
        """The supplier of a name."""
        return next((s for s in self.suppliers.values() if s.name == name), None)


NOBODY = Market()


def offer_of(line: PriceLine, supplier: Supplier) -> Offer:
    """A line of a list as an offer in euro."""
    return Offer(
        supplier=supplier.name,
        pieces=UNSAID_PIECES if line.stock is None else line.stock,
        days=supplier.days if line.days is None else line.days,
        minimum=line.minimum,
        breaks=tuple((least, supplier.euro(cents)) for least, cents in line.breaks),
        back_days=max(RESTOCK_DAYS, line.days or 0),
        pack=line.pack,
        order_number=line.order_number,
        maker_number=line.maker_number,
        seen_on=line.seen_on,
    )


class CartRow(Frozen):
    """A line of a cart."""

    order_number: str
    maker_number: str
    pieces: int
    references: str
    description: str
    cents: float


class Cart(Frozen):
    """What is bought at one supplier: its rows, its file in the columns that it wants, and what it
    comes to in cents of a euro.
    """

    supplier: str
    rows: tuple[CartRow, ...]
    text: str
    cents: float


class Needed(Frozen):
    """A line to buy: its part, how many, and for what."""

    part: str
    pieces: int
    references: str
    description: str


def carts_of(
    needed: Sequence[Needed], market: Market, parts: Mapping[str, Part]
) -> tuple[tuple[Cart, ...], tuple[Needed, ...]]:
    """A cart for every supplier of one's own, each line at the best offer; and what none of them
    sells.
    """
    rows: dict[str, list[CartRow]] = {}
    nowhere = []
    for line in needed:
        offers = market.offers(line.part, parts.get(line.part))
        if not offers:
            nowhere.append(line)
            continue
        offer, _ = best_of(offers, line.pieces)
        rows.setdefault(offer.supplier, []).append(
            CartRow(
                order_number=offer.order_number,
                maker_number=offer.maker_number,
                pieces=offer.buys(line.pieces),
                references=line.references,
                description=line.description,
                cents=round(offer.cents_for(line.pieces), 2),
            )
        )
    carts = (cart_of(name, tuple(found), market) for name, found in sorted(rows.items()))
    return tuple(carts), tuple(nowhere)


def cart_of(name: str, rows: tuple[CartRow, ...], market: Market) -> Cart:
    """A cart in the columns that its supplier wants."""
    supplier = market.named(name)
    assert supplier is not None
    headings = [column.heading for column in supplier.cart]
    cells = [[cell_of(row, column.holds) for column in supplier.cart] for row in rows]
    return Cart(
        supplier=name,
        rows=rows,
        text=cell_table(headings, cells, "\r\n"),
        cents=round(sum(row.cents for row in rows), 2),
    )


def cell_of(row: CartRow, holds: Holds) -> str:
    """What stands in a column."""
    return {
        "order number": row.order_number,
        "maker number": row.maker_number,
        "pieces": str(row.pieces),
        "references": row.references,
        "description": row.description,
    }[holds]
