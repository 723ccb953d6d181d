"""What devices cost with the simulated houses and suppliers, from the files that the houses
read.
"""

from dataclasses import dataclass
from datetime import UTC, datetime

from loquet.core.buying.kit import kit_of
from loquet.core.design import Design, slice_of
from loquet.core.drawers.lines import part_lines
from loquet.core.library import Library
from loquet.core.ordering.house import House
from loquet.core.ordering.landed import (
    FREE_SHIPPING_CENTS,
    PARTS_SHIPPING_CENTS,
    Bought,
    Landed,
    OptionCost,
    Stencil,
    Wanted,
    landed,
)
from loquet.core.pipeline import board_view
from loquet.core.shelf.pack import OWN
from loquet.standins.board_house import quote
from loquet.standins.file_inspection import Inspection
from loquet.standins.part_supplier import Offer, offers_of

STENCILS: dict[Stencil, str] = {"none": "none", "sheet": "a sheet", "framed": "in a frame"}
OWN_PRICES = "own prices"
"""What stands for the supplier of parts of one's own: no simulated one sells them."""


def landed_at(
    house: House, seen: Inspection, design: Design, library: Library, wanted: Wanted, number: int
) -> Landed:
    """What so many devices cost with a house."""
    choices = design.choices
    chosen = choices.house == house.id
    finish = choices.finish if chosen and choices.finish in house.finishes else house.finishes[0]
    colour = choices.colour if chosen and choices.colour in house.colours else house.colours[0]
    thick = (
        choices.thickness_um
        if choices.thickness_um in house.thickness_um
        else house.thickness_um[-1]
    )
    copper = choices.copper_um if choices.copper_um in house.copper_um else house.copper_um[0]
    ways = [s.name for s in house.shipping]
    way = choices.shipping if chosen and choices.shipping in ways else ways[0]
    given_ = quote(
        house, seen, number, finish, colour, thick, way, datetime.now(UTC).date(), copper
    )
    shipping = next(s.cents for s in house.shipping if s.name == way)
    return landed(
        house,
        wanted,
        number,
        given_.total_cents - shipping,
        shipping,
        bought_of(design, library, number),
        placed_parts(design, library),
        stencils_of(design, library),
    )


def bought_of(design: Design, library: Library, number: int) -> Bought:
    """Parts and kit as the sum wants them."""
    parts, kit = parts_cost(design, library, number), kit_of(design, library).lines
    waiting = sum(line.state == "missing" for line in kit)
    words = (f"{waiting} lines of the kit",) if waiting else ()
    return Bought(
        parts_cents=parts.whole_cents,
        shipping_cents=parts.shipping_cents,
        unpriced=(*parts.unpriced, *words),
        short=parts.short,
    )


def stencils_of(design: Design, library: Library) -> int:
    """How many stencils the boards ask for: one for each side that has paste."""
    found = 0
    for board in design.brief.boards:
        if board.name in design.placement:
            view = board_view(design, library, board.name)
            found += len({side for pad in view.pads if pad.paste for side in pad.sides})
    return max(found, 1)


def option_costs(
    house: House, seen: Inspection, design: Design, library: Library, wanted: Wanted, number: int
) -> tuple[OptionCost, ...]:
    """Every other option of a house with what it changes in all; what costs nothing more or less is
    left out.
    """
    choices = design.choices.model_copy(update={"house": house.id})

    def total(asked: Wanted = wanted, **change: object) -> int:
        other = design.model_copy(update={"choices": choices.model_copy(update=change)})
        return landed_at(house, seen, other, library, asked, number).total_cents

    now = total()
    rows = [("finish", name, total(finish=name)) for name in house.finishes]
    rows += [("colour", name, total(colour=name)) for name in house.colours]
    rows += [
        ("thickness", f"{um / 1000:.1f} mm", total(thickness_um=um)) for um in house.thickness_um
    ]
    rows += [("copper", f"{um} µm", total(copper_um=um)) for um in house.copper_um]
    rows += [("shipping", way.name, total(shipping=way.name)) for way in house.shipping]
    stencils: tuple[Stencil, ...] = ("none", "sheet", "framed")
    if wanted.fitting == "hand" or not house.fit_cents:
        rows += [
            ("stencil", STENCILS[kind], total(wanted.model_copy(update={"stencil": kind})))
            for kind in stencils
        ]
    if house.fit_cents:
        other = "house" if wanted.fitting == "hand" else "hand"
        rows.append(
            (
                "fitting",
                f"by the {other}" if other == "house" else "by hand",
                total(wanted.model_copy(update={"fitting": other})),
            )
        )
    return tuple(
        OptionCost(sort=sort, words=words, cents=cents - now)
        for sort, words, cents in rows
        if cents != now
    )


def placed_parts(design: Design, library: Library) -> int:
    """Parts of a device that a machine places on paste: what is bought and has no lead through the
    board.
    """
    if not design.circuit:
        return 0
    drilled = {
        part: any(pad.drill_nm for pad in library.pattern(part).pads)
        for part in {c.part for c in slice_of(design.circuit).components}
    }
    return sum(not c.bare and not drilled[c.part] for c in slice_of(design.circuit).components)


def soldered_parts(design: Design) -> int:
    """Parts of a device that somebody solders: everything but bare copper."""
    return sum(not c.bare for c in slice_of(design.circuit).components) if design.circuit else 0


@dataclass(frozen=True)
class PartsCost:
    """The parts of so many devices: cents by supplier, the lines without a price, and those that no
    supplier has in that number.
    """

    cents: dict[str, float]
    unpriced: tuple[str, ...]
    short: tuple[str, ...]

    @property
    def whole_cents(self) -> int:
        """What is known of it, in all."""
        return round(sum(self.cents.values()))

    @property
    def shipping_cents(self) -> int:
        """Every supplier ships by itself, free from a sum on."""
        return sum(
            PARTS_SHIPPING_CENTS for cents in self.cents.values() if 0 < cents < FREE_SHIPPING_CENTS
        )


def parts_cost(design: Design, library: Library, number: int) -> PartsCost:
    """The parts of so many devices with spares, each line at the cheapest of both suppliers that
    has it, or at the cheapest.
    """
    chips = {chip.name: chip for chip in library.list_chips()}
    cents: dict[str, float] = {}
    unpriced, short = [], []
    for line in part_lines(slice_of(design.circuit), library, number):
        if line.part.startswith("chip:"):
            chip = chips.get(line.part[5:])
            if chip is None:
                unpriced.append(line.line)
                continue
            stock = library.stock_of(chip)
            cents[stock.supplier] = cents.get(stock.supplier, 0.0) + stock.price_cents * line.to_buy
            short += [line.line] if stock.pieces < line.to_buy else []
        elif line.price_cents is None:
            unpriced.append(line.line)
        elif line.part.startswith(OWN):
            cents[OWN_PRICES] = cents.get(OWN_PRICES, 0.0) + line.price_cents * line.to_buy
        else:
            offers = offers_of(line.part, line.price_cents)
            there = [o for o in offers if o.pieces >= o.buys(line.to_buy)]
            short += [] if there else [line.line]

            def cost(offer: Offer, wanted: int = line.to_buy) -> float:
                return offer.each_cents(offer.buys(wanted)) * offer.buys(wanted)

            best = min(there or list(offers), key=cost)
            cents[best.supplier] = cents.get(best.supplier, 0.0) + cost(best)
    return PartsCost(cents, tuple(unpriced), tuple(short))


def parts_days(design: Design, library: Library, number: int) -> tuple[int, str]:
    """The days until the last part is there, each line from the supplier that has so many of it
    soonest; and which line that is. A line that nobody offers counts for nothing and is named with
    the costs.
    """
    chips = {chip.name: chip for chip in library.list_chips()}
    days = [(0, "none")]
    for line in part_lines(slice_of(design.circuit), library, number):
        if line.part.startswith("chip:"):
            chip = chips.get(line.part[5:])
            if chip is not None:
                stock = library.stock_of(chip)
                days.append((stock.days_for(line.to_buy), line.line))
        elif line.price_cents is not None and not line.part.startswith(OWN):
            offers = offers_of(line.part, line.price_cents)
            days.append((min(o.days_for(o.buys(line.to_buy)) for o in offers), line.line))
    return max(days)
