"""What devices cost with houses and suppliers, of one's own and simulated ones, from the files that
the houses read.
"""

from dataclasses import dataclass
from datetime import UTC, datetime

from loquet.core.buying.kit import kit_key, kit_to_buy
from loquet.core.design import Design, slice_of
from loquet.core.drawers.lines import DrawerLine, part_lines
from loquet.core.library import Library
from loquet.core.ordering.house import Asked, House
from loquet.core.ordering.landed import (
    Bought,
    Landed,
    OptionCost,
    Stencil,
    Wanted,
    landed,
)
from loquet.core.ordering.market import Cart, Market, Needed, carts_of
from loquet.core.ordering.offer import Offer, best_of
from loquet.core.pipeline import board_view
from loquet.core.shelf.pack import OWN
from loquet.standins.board_house import quote
from loquet.standins.file_inspection import Inspection
from loquet.standins.part_supplier import offers_of, stock_offer

STENCILS: dict[Stencil, str] = {"none": "none", "sheet": "a sheet", "framed": "in a frame"}
OWN_PRICES = "own prices"
"""What stands for the supplier of a part of one's own that no price list has."""


def landed_at(
    house: House,
    seen: Inspection,
    design: Design,
    library: Library,
    market: Market,
    wanted: Wanted,
    number: int,
) -> Landed:
    """What so many devices cost with a house, whose prices are in euro."""
    asked = asked_of(house, design)
    given_ = quote(house, seen, number, asked, datetime.now(UTC).date())
    ways = {way.name: way.cents for way in house.shipping}
    shipping = ways.get(asked.shipping, house.shipping[0].cents)
    return landed(
        house,
        wanted,
        number,
        given_.total_cents - round(shipping),
        round(shipping),
        bought_of(design, library, market, number),
        placed_parts(design, library),
        stencils_of(design, library),
    )


def asked_of(house: House, design: Design) -> Asked:
    """What a project asks of a house."""
    choices = design.choices
    return house.asked(design.brief.making, choices.shipping, choices.house == house.id)


def bought_of(design: Design, library: Library, market: Market, number: int) -> Bought:
    """Parts and kit as the sum wants them."""
    parts = parts_cost(design, library, market, number)
    words = (f"{parts.kit_unpriced} lines of the kit",) if parts.kit_unpriced else ()
    return Bought(
        parts_cents=parts.whole_cents,
        shipping_cents=parts.shipping_cents,
        duty_cents=parts.duty_cents,
        tax_cents=parts.tax_cents,
        unpriced=(*parts.unpriced, *words),
        short=parts.short,
        old=parts.old,
        priced_by=parts.priced_by,
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
    house: House,
    seen: Inspection,
    design: Design,
    library: Library,
    market: Market,
    wanted: Wanted,
    number: int,
) -> tuple[OptionCost, ...]:
    """Every other option of a house with what it changes in all; what costs nothing more or less is
    left out.
    """
    choices = design.choices.model_copy(update={"house": house.id})
    near = asked_of(house, design)
    as_made = {"finish": near.finish, "colour": near.colour, "copper_um": near.copper_um}
    brief = design.brief.model_copy(
        update={
            "making": design.brief.making.model_copy(
                update={**as_made, "thickness_mm": near.thickness_um / 1000}
            )
        }
    )

    def total(asked: Wanted = wanted, shipping: str = near.shipping, **change: object) -> int:
        making = brief.making.model_copy(update=change)
        other = design.model_copy(
            update={
                "brief": brief.model_copy(update={"making": making}),
                "choices": choices.model_copy(update={"shipping": shipping}),
            }
        )
        return landed_at(house, seen, other, library, market, asked, number).total_cents

    now = total()
    rows = [("finish", name, total(finish=name)) for name in house.finishes]
    rows += [("colour", name, total(colour=name)) for name in house.colours]
    rows += [
        ("thickness", f"{um / 1000:.1f} mm", total(thickness_mm=um / 1000))
        for um in house.thickness_um
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
    """The parts and the kit of so many devices: cents of a euro by supplier, their shipping, duty
    and tax, the lines without a price, how many such lines the kit has, those that no supplier has
    in that number, and those whose price was seen long ago; `simulated` where any price is of a
    supplier that ships with Loquet, `own` where any is of a price list of one's own.
    """

    cents: dict[str, float]
    shipping_cents: int
    duty_cents: int
    tax_cents: int
    unpriced: tuple[str, ...]
    kit_unpriced: int
    short: tuple[str, ...]
    old: tuple[str, ...]
    simulated: bool
    own: bool

    @property
    def whole_cents(self) -> int:
        """What is known of it, in all."""
        return round(sum(self.cents.values()))

    @property
    def priced_by(self) -> str:
        """Where the prices are from."""
        some = ["price lists of one's own suppliers"] if self.own else []
        some += ["own prices"] if OWN_PRICES in self.cents else []
        some += ["part suppliers (simulated, invented)"] if self.simulated else []
        return " and ".join(some) or "no part has a price"


def offers_for(line: DrawerLine, library: Library, market: Market) -> tuple[Offer, ...]:
    """What is asked for a line: by one's own suppliers where any sells it, by the simulated ones
    for what ships with Loquet; nothing for a part without a price.
    """
    own = market.offers(line.part, library.parts.get(line.part))
    if own:
        return own
    if line.part.startswith("chip:"):
        found = (row for row in library.list_chips() if row.name == line.part[5:])
        chip = next(found, None)
        return (stock_offer(library.stock_of(chip)),) if chip else ()
    if line.price_cents is None or line.part.startswith(OWN):
        return ()
    return offers_of(line.part, line.price_cents)


def parts_cost(design: Design, library: Library, market: Market, number: int) -> PartsCost:
    """The parts of so many devices with spares, and what of their kit is still to buy, each line at
    the cheapest offer of those that have so many, or at the cheapest.
    """
    cents: dict[str, float] = {}
    unpriced, short, old, kit_unpriced = [], [], [], 0
    today = datetime.now(UTC).date()
    for line in part_lines(slice_of(design.circuit), library, number):
        offers = offers_for(line, library, market)
        if offers:
            best, there = best_of(offers, line.to_buy)
            cents[best.supplier] = cents.get(best.supplier, 0.0) + best.cents_for(line.to_buy)
            short += [] if there else [line.line]
            old += [line.line] if best.old(today) else []
        elif line.price_cents is not None and line.part.startswith(OWN):
            cents[OWN_PRICES] = cents.get(OWN_PRICES, 0.0) + line.price_cents * line.to_buy
        else:
            unpriced.append(line.line)
    for item in kit_to_buy(design, library, number):
        offers = market.offers(kit_key(item.what), None)
        if not offers:
            kit_unpriced += 1
            continue
        best, there = best_of(offers, item.count)
        cents[best.supplier] = cents.get(best.supplier, 0.0) + best.cents_for(item.count)
        short += [] if there else [item.what]
        old += [item.what] if best.old(today) else []
    known = {s.name: s for s in (*library.suppliers.values(), *market.suppliers.values())}
    shipping, duty, tax = 0.0, 0.0, 0.0
    for name, goods in cents.items():
        supplier = known.get(name)
        if supplier is None:
            continue
        road = supplier.euro(supplier.shipping_cents(goods / supplier.euro_each))
        toll = supplier.duty_share * goods
        shipping, duty = shipping + road, duty + toll
        tax += supplier.vat_share * (goods + road + toll)
    return PartsCost(
        cents,
        round(shipping),
        round(duty),
        round(tax),
        tuple(unpriced),
        kit_unpriced,
        tuple(short),
        tuple(old),
        any(name in known and known[name].known == "simulated" for name in cents),
        any(name in known and known[name].known != "simulated" for name in cents),
    )


def parts_days(design: Design, library: Library, market: Market, number: int) -> tuple[int, str]:
    """The days until the last part is there, each line from the supplier that has so many of it
    soonest; and which line that is. A line that nobody offers counts for nothing and is named with
    the costs.
    """
    days = [(0, "none")]
    for line in part_lines(slice_of(design.circuit), library, number):
        offers = offers_for(line, library, market)
        if offers:
            days.append((min(o.days_for(o.buys(line.to_buy)) for o in offers), line.line))
    return max(days)


def carts(
    design: Design, library: Library, market: Market, number: int
) -> tuple[tuple[Cart, ...], tuple[Needed, ...]]:
    """A cart for every supplier of one's own for so many devices, and what none of them sells."""
    needed = [
        Needed(
            part=line.part,
            pieces=line.to_buy,
            references=" ".join(line.refs),
            description=line.what,
        )
        for line in part_lines(slice_of(design.circuit), library, number)
    ]
    needed += [
        Needed(
            part=kit_key(item.what),
            pieces=item.count,
            references="kit",
            description=item.what,
        )
        for item in kit_to_buy(design, library, number)
    ]
    return carts_of(needed, market, library.parts)
