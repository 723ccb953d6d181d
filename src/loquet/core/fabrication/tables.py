"""Writing the parts list and the placement list: CSV with a header row, UTF-8, decimal point, units
in the column names.
"""

from collections.abc import Iterable

from loquet.core.board import BoardView
from loquet.core.circuit import Component
from loquet.core.drawers.lines import value_of
from loquet.core.geometry import middle_of
from loquet.core.library import Library
from loquet.core.parts import PartError
from loquet.core.parts.land import pad_order
from loquet.core.plain.cells import cell_table

# A far part is mirrored left to right first, and then turned.
TURN = "Turn anticlockwise, seen from the near side (deg)"
PARTS_COLUMNS = (
    "Item",
    "Count per board",
    "Where",
    "What",
    "Value",
    "Size",
    "Height (mm)",
    "Fitted by",
    "Price each (cent)",
    "Drawing seen",
)
PLACES_COLUMNS = (
    "Where",
    "What",
    "Value",
    "Board side",
    "Middle X (mm)",
    "Middle Y (mm)",
    TURN,
    "Pad 1 X (mm)",
    "Pad 1 Y (mm)",
)


def write_parts_list(view: BoardView, library: Library) -> bytes:
    """One row for each kind of part and value; test points are bare copper and left out."""
    groups: dict[tuple[str, str], list[Component]] = {}
    for component in view.circuit.components:
        if not component.bare:
            groups.setdefault((component.part, value_of(component, library)), []).append(component)
        for part_id in component.sits_in:
            groups.setdefault((part_id, ""), []).append(component)
    rows = []
    for item, ((part_id, value), members) in enumerate(groups.items(), 1):
        rows.append(
            (
                str(item),
                str(len(members)),
                " ".join(c.ref for c in members),
                *part_cells(part_id, value, library),
            )
        )
    return table(PARTS_COLUMNS, rows)


def part_cells(part_id: str, value: str, library: Library) -> tuple[str, ...]:
    """Description, value, size, height, who fits it, price and evidence."""
    if part_id.startswith("chip:"):
        chip = library.find_chip(part_id[5:])
        what = "Ready module" if chip.module else "Microcontroller"
        return (
            f"{what} {chip.name}",
            value,
            chip.package,
            f"{library.package(chip.package).height_mm:.2f}",
            "hand" if chip.by_hand else "house",
            "not known",
            chip.data_source,
        )
    part = library.parts.get(part_id)
    if part is None:
        raise PartError(part_id, "is not in the catalogue", "Choose a part of the catalogue.")
    fitted = "hand" if part.hand_fitted else "house"
    return (
        part.description,
        value,
        part.size_codes,
        f"{part.height_mm:.2f}",
        fitted,
        f"{part.price_cents:g}",
        part.evidence_text,
    )


def write_places_list(view: BoardView, library: Library) -> bytes:
    """One row a part, by reference; places from the lower left corner seen from the near side,
    turns anticlockwise.
    """
    rows = []
    for component in view.circuit.components:
        if component.bare:
            continue
        seat = view.seats[component.ref]
        first = next(c for c in view.pads if c.ref == component.ref)
        x, y = middle_of(first.shape)
        rows.append(
            (
                component.ref,
                component.part.removeprefix("chip:"),
                value_of(component, library),
                "far" if seat.far else "near",
                mm(seat.x),
                mm(seat.y),
                str(seat.turn_deg),
                mm(x),
                mm(y),
            )
        )
    return table(PLACES_COLUMNS, rows)


CONNECTORS_COLUMNS = ("Where", "What", "Pad", "Carries", "Board side", "X (mm)", "Y (mm)")


def write_connectors(view: BoardView, library: Library) -> bytes:
    """Every contact of every connector by its place: what it carries, and where it lies from the
    lower left corner seen from the near side.
    """
    rows = []
    for component in view.circuit.components:
        pattern, seat = view.patterns[component.ref], view.seats[component.ref]
        part = library.parts.get(component.part)
        if part is None or library.roles.end(part) is None or component.bare:
            continue
        spots = {p.number: seat.point(*middle_of(p.shape)) for p in reversed(pattern.pads)}
        side = "far" if seat.far else "near"
        for pad, (x, y) in sorted(spots.items(), key=lambda row: pad_order(row[0])):
            carries = component.pads.get(pad, "nothing")
            rows.append((component.ref, component.purpose, pad, carries, side, mm(x), mm(y)))
    return table(CONNECTORS_COLUMNS, rows)


def mm(length_nm: int) -> str:
    """Millimetres to the micrometre."""
    return f"{length_nm / 1e6:.3f}"


def table(columns: tuple[str, ...], rows: Iterable[tuple[str, ...]]) -> bytes:
    """A table as the bytes of its file."""
    return cell_table(columns, rows).encode("utf-8")
