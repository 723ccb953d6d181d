"""Where pins sit around a package for which there is no land pattern: good enough to weigh track
lengths, not to solder on.
"""

import re

from loquet.core.geometry import Seat
from loquet.core.parts import Chip
from loquet.core.pins.problem import Places
from loquet.core.quantities.lengths import nm_from_mm

BALL = re.compile(r"^([A-Z]{1,2})(\d{1,2})$")
BALL_ROWS = "ABCDEFGHJKLMNPRTUVWY"
BALL_PITCH_MM, LEAD_PITCH_MM, MODULE_PITCH_MM, MODULE_WIDTH_MM = 0.5, 0.5, 2.54, 17.78


def package_places(chip: Chip, seat: Seat) -> Places:
    """The place of every pin about the seat: balls by their letters and numbers, a module in two
    rows, others around four sides.
    """
    names = [pin.number for pin in chip.pins]
    if chip.module or chip.package.startswith("DIP"):
        spots = two_rows(names, MODULE_PITCH_MM, MODULE_WIDTH_MM)
    elif all(BALL.match(name) for name in names):
        spots = balls(names)
    elif chip.package.startswith(("TSSOP", "SO")):
        spots = two_rows(names, 0.65, 6.4)
    else:
        spots = four_sides(names)
    return {name: seat.point(nm_from_mm(x), nm_from_mm(y)) for name, (x, y) in spots.items()}


def balls(names: list[str]) -> dict[str, tuple[float, float]]:
    """Rows by letter from the top, columns by number from the left."""
    cells = {}
    for name in names:
        found = BALL.match(name)
        if found:
            letters = found[1]
            row = BALL_ROWS.find(letters[-1]) + len(BALL_ROWS) * (len(letters) - 1)
            cells[name] = (int(found[2]), row)
    columns, rows = max(c for c, _ in cells.values()), max(r for _, r in cells.values())
    return {
        n: ((c - (columns + 1) / 2) * BALL_PITCH_MM, (rows / 2 - r) * BALL_PITCH_MM)
        for n, (c, r) in cells.items()
    }


def two_rows(names: list[str], pitch: float, width: float) -> dict[str, tuple[float, float]]:
    """Down the left side, up the right side."""
    half = -(-len(names) // 2)
    spots = {}
    for index, name in enumerate(names):
        along = index if index < half else len(names) - 1 - index
        spots[name] = (-width / 2 if index < half else width / 2, ((half - 1) / 2 - along) * pitch)
    return spots


def four_sides(names: list[str]) -> dict[str, tuple[float, float]]:
    """Anticlockwise from the top of the left side."""
    each = -(-len(names) // 4)
    reach = (each + 1) * LEAD_PITCH_MM / 2
    spots = {}
    for index, name in enumerate(names):
        along = (index % each - (each - 1) / 2) * LEAD_PITCH_MM
        spots[name] = ((-reach, -along), (along, -reach), (reach, along), (-along, reach))[
            min(index // each, 3)
        ]
    return spots
