"""Writing the parts list and the placement list: CSV with a header row, UTF-8, decimal point, units in the column names."""

import csv
import io
import re
from collections.abc import Iterable

from loquet.core.board import BoardView
from loquet.core.circuit import Component
from loquet.core.geometry import middle_of
from loquet.core.library import Library
from loquet.core.parts import PartError

FORMULA = re.compile(r"^[=+@\t\r]|^-(?![0-9.])")
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
    "Turn (deg)",
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


VALUED = frozenset(
    ("resistor", "capacitor", "inductor", "crystal", "clock crystal", "fuse", "linear regulator")
)


def value_of(component: Component, library: Library) -> str:
    """What tells parts of one kind apart that are bought by their value; of all others the value is only a name."""
    if component.is_chip:
        return component.value
    return component.value if library.parts[component.part].kind in VALUED else ""


def part_cells(part_id: str, value: str, library: Library) -> tuple[str, ...]:
    """Description, value, size, height, who fits it, price and evidence."""
    if part_id.startswith("chip:"):
        chip = library.find_chip(part_id[5:])
        what = "Ready module" if chip.module else "Microcontroller"
        return (
            f"{what} {chip.name}",
            value,
            chip.package,
            f"{library.package(chip.package)[1]:.2f}",
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
    """One row a part, by reference; places from the lower left corner seen from the near side, turns anticlockwise."""
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


def mm(length_nm: int) -> str:
    """Millimetres to the micrometre."""
    return f"{length_nm / 1e6:.3f}"


def table(columns: tuple[str, ...], rows: Iterable[tuple[str, ...]]) -> bytes:
    """CSV text; cells that a spreadsheet would take for a formula get a leading apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(columns)
    for row in rows:
        writer.writerow([f"'{cell}" if FORMULA.match(cell) else cell for cell in row])
    return out.getvalue().encode("utf-8")
