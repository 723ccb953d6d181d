"""What devices cost with the simulated houses and suppliers, from the files that the houses read."""

from datetime import UTC, datetime

from loquet.core.design import Design, slice_of
from loquet.core.drawers import part_lines
from loquet.core.library import Library
from loquet.core.ordering.house import House
from loquet.core.ordering.landed import Landed, OptionCost, Stencil, Wanted, landed
from loquet.standins.board_house import quote
from loquet.standins.file_inspection import Inspection
from loquet.standins.part_supplier import offers_of

STENCILS: dict[Stencil, str] = {"none": "none", "sheet": "a sheet", "framed": "in a frame"}


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
        parts_cents(design, library, number),
        surface_parts(design),
    )


def option_costs(
    house: House, seen: Inspection, design: Design, library: Library, wanted: Wanted, number: int
) -> tuple[OptionCost, ...]:
    """Every other option of a house with what it changes in all; what costs nothing more or less is left out."""
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
            ("fitting", f"by the {other}" if other == "house" else "by hand", total(wanted.model_copy(update={"fitting": other})))
        )  # fmt: skip
    return tuple(
        OptionCost(sort=sort, words=words, cents=cents - now)
        for sort, words, cents in rows
        if cents != now
    )


def surface_parts(design: Design) -> int:
    """Parts of a device that a machine can fit: everything but bare copper."""
    return sum(not c.bare for c in slice_of(design.circuit).components) if design.circuit else 0


def parts_cents(design: Design, library: Library, number: int) -> int:
    """The parts of so many devices with spares, each line at the cheapest of both suppliers that has it, or at the cheapest."""
    chips = {chip.name: chip for chip in library.list_chips()}
    whole = 0.0
    for line in part_lines(slice_of(design.circuit), library, number):
        if line.part.startswith("chip:"):
            chip = chips.get(line.part[5:])
            whole += library.stock_of(chip).price_cents * line.to_buy if chip else 0.0
        elif line.price_cents is not None:
            offers = offers_of(line.part, line.price_cents)
            there = [o for o in offers if o.pieces >= line.to_buy] or list(offers)
            whole += min(o.each_cents(o.buys(line.to_buy)) * o.buys(line.to_buy) for o in there)
    return round(whole)


def parts_days(design: Design, library: Library, number: int) -> tuple[int, str]:
    """The days until the last part is there, each line from the quicker supplier that has it; and which line that is."""
    days = [(3, "chips")]
    for line in part_lines(slice_of(design.circuit), library, number):
        if line.price_cents is not None and not line.part.startswith("chip:"):
            days.append((min(o.days for o in offers_of(line.part, line.price_cents)), line.line))
    return max(days)
