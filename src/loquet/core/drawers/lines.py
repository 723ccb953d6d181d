"""The Parts station: what is on the boards, as lines that a purchaser can buy without asking, each
with its evidence and its drawing.
"""

from collections.abc import Mapping
from math import ceil
from typing import Literal

from loquet.core.circuit import Circuit, Component
from loquet.core.design import Bought
from loquet.core.library import Library
from loquet.core.parts.drawn_land import DrawnLand, lands_of
from loquet.core.parts.own import OWN
from loquet.core.parts.part import Part
from loquet.core.plain.frozen import Frozen
from loquet.core.shelf.pack import OWN as SHELF_OWN

Known = Literal["drawing", "measurement", "standard", "data set", "from memory", "none"]
SMALL_MM = 2.5
CHIP_TRIAL = "One of the bag in a socket or on a carrier: it answers the probe."
MODULE_TRIAL = "On its own plug: it answers, and its rail measures what it should."
VALUED = frozenset(
    ("resistor", "capacitor", "inductor", "crystal", "clock crystal", "fuse", "linear regulator")
)


class DrawerLine(Frozen):
    """A line of the parts list (`line` are the words by which it is kept): what it is in all the
    words that a purchaser needs, how many a device, how many to buy with spares, how we know its
    pins, and how one is tried before it is soldered.
    """

    line: str
    part: str
    kind: str
    what: str
    value: str
    size: str
    pins: tuple[tuple[str, str], ...]
    refs: tuple[str, ...]
    count: int
    spares: int
    to_buy: int
    price_cents: float | None
    height_mm: float
    by_hand: bool
    known: Known
    evidence: str
    trial: str = ""
    bought: Bought | None = None
    body_mm: tuple[float, float, float, float]
    lands: tuple[DrawnLand, ...]


def value_of(component: Component, library: Library) -> str:
    """What tells parts of one kind apart that are bought by their value; of all others the value is
    only a name.
    """
    if component.is_chip:
        return component.value
    return component.value if library.parts[component.part].kind in VALUED else ""


def words_of(part: str, value: str) -> str:
    """The words by which a line is kept: its part, and its value where it has one."""
    return f"{part}, {value}" if value else part


def part_lines(
    circuit: Circuit, library: Library, quantity: int, bought: Mapping[str, Bought] | None = None
) -> tuple[DrawerLine, ...]:
    """A line for each part and value, with what was really bought for it; bare copper is nobody's
    to buy.
    """
    groups: dict[tuple[str, str], list[Component]] = {}
    for component in circuit.components:
        if not component.bare:
            groups.setdefault((component.part, value_of(component, library)), []).append(component)
        for under in component.sits_in:
            groups.setdefault((under, ""), []).append(component)
    kept = bought or {}
    lines = (
        line_of(part, value, members, library, quantity)
        for (part, value), members in groups.items()
    )
    return tuple(
        line.model_copy(update={"bought": kept[line.line]}) if line.line in kept else line
        for line in lines
    )


def line_of(
    part_id: str, value: str, members: list[Component], library: Library, quantity: int
) -> DrawerLine:
    """One line."""
    count, refs = len(members), tuple(c.ref for c in members)
    pattern = library.pattern(part_id)
    small = pattern.body.w < SMALL_MM * 1e6
    known = library.parts.get(part_id)
    spare = spares(count * quantity, small, known.values if known else None)
    shared = {
        "refs": refs,
        "count": count,
        "spares": spare,
        "to_buy": count * quantity + spare,
        "value": value,
        "line": words_of(part_id, value),
        "part": part_id,
        "lands": lands_of(pattern),
        "body_mm": tuple(
            v / 1e6 for v in (pattern.body.x, pattern.body.y, pattern.body.w, pattern.body.h)
        ),
    }
    if part_id.startswith("chip:"):
        chip = library.find_chip(part_id[5:])
        memory = chip.pins_from == "memory"
        return DrawerLine(
            kind="ready module" if chip.module else "microcontroller",
            trial=MODULE_TRIAL if chip.module else CHIP_TRIAL,
            what=f"{'Ready module' if chip.module else 'Microcontroller'} {chip.name}",
            size=chip.package,
            pins=(),
            price_cents=chip_cents(part_id[5:], library),
            height_mm=library.package(chip.package).height_mm,
            by_hand=chip.by_hand,
            known="from memory" if memory else "data set",
            evidence=chip.data_source,
            **shared,
        )
    part = library.parts[part_id]
    return DrawerLine(
        kind=part.kind,
        trial=library.roles.trial(part),
        what=part.description,
        size=part.size_codes,
        pins=tuple(part.pin_names.items()),
        price_cents=None if priceless(part) else part.price_cents,
        height_mm=part.height_mm,
        by_hand=part.hand_fitted,
        known=known_by(part),
        evidence=part.evidence_text,
        **shared,
    )


def priceless(part: Part) -> bool:
    """Whether nobody said what a part of one's own costs."""
    return part.id.startswith(OWN) or (part.id.startswith(SHELF_OWN) and not part.price_cents)


def chip_cents(name: str, library: Library) -> float | None:
    """What a chip costs at its supplier, as the sums at Release reckon it; nothing for one that
    nobody sells.
    """
    listed = next((row for row in library.list_chips() if row.name == name), None)
    return library.stock_of(listed).price_cents if listed else None


def known_by(part: Part) -> Known:
    """How its pins and sizes are known; what is written down from memory and has an order of pins
    says so.
    """
    if part.evidence == "standard" and "from memory" in part.evidence_text and part.pin_names:
        return "from memory"
    return part.evidence


def spares(count: int, small: bool, said: Mapping[str, float] | None = None) -> int:
    """Spares for so many: a tenth and at least five of what is smaller than 2.5 mm, a fiftieth and
    at least one of others (common practice), where the part's own figures do not say it.
    """
    share, least = (0.1, 5) if small else (0.02, 1)
    said = said or {}
    return max(
        round(said.get("spare_least", least)),
        ceil(round(count * said.get("spare_share", share), 9)),
    )
