"""A true cut through a stack along a line, seen from the right of the line."""

from dataclasses import dataclass
from math import hypot

import shapely
from shapely.geometry import LineString
from shapely.geometry.base import BaseGeometry

from loquet.core.quantities.lengths import fine_mm
from loquet.core.stack.model import Sort, Stack

Spot = tuple[float, float]
OUTSIDE_MM = 8.0


@dataclass(frozen=True)
class Cut:
    """A cut body: from where to where along the line, and from which to which height, all in mm;
    `shoulder_mm` is where one that comes through a wall has its shoulder.
    """

    name: str
    words: str
    sort: Sort | str
    start_mm: float
    end_mm: float
    low_mm: float
    high_mm: float
    swell_mm: float = 0.0


@dataclass(frozen=True)
class Section:
    """Everything that a line goes through; the line starts at 0 and is `long_mm` long."""

    long_mm: float
    cuts: tuple[Cut, ...]


def section_of(stack: Stack, start: Spot, end: Spot) -> Section:
    """The cut through a stack from one place to another (mm), walls and board included; raises
    ValueError for a line without length.
    """
    if hypot(end[0] - start[0], end[1] - start[1]) < 0.1:
        raise ValueError("the line has no length")
    line = LineString([start, end])
    walls = stack.walls
    inner = stack.outline.envelope if stack.outline.is_empty else hull(stack)
    outer = inner.buffer(walls.wall_mm, join_style="mitre")
    found: list[Cut] = []
    for name, area, low, high in (
        ("back wall", outer, walls.far_mm - walls.wall_mm, walls.far_mm),
        ("front wall", outer, walls.near_mm, walls.near_mm + walls.wall_mm),
        ("side wall", outer.difference(inner), walls.far_mm, walls.near_mm),
        ("board", stack.outline, 0.0, walls.board_mm),
    ):
        found += [
            Cut(name, f"the {name}", name.split()[-1], *span, fine_mm(low), fine_mm(high))
            for span in spans_of(line, area)
        ]
    for piece in stack.pieces:
        found += [
            Cut(
                piece.name,
                piece.words,
                piece.sort,
                *span,
                fine_mm(piece.low_mm),
                fine_mm(piece.high_mm),
                piece.swell_mm,
            )
            for span in spans_of(line, piece.area)
        ]
    return Section(fine_mm(line.length), tuple(found))


def hull(stack: Stack) -> BaseGeometry:
    """The inside of the shell: the board without its openings, and the gap around it."""
    whole = shapely.Polygon(stack.outline.exterior)
    return whole.buffer(stack.walls.side_gap_mm, join_style="mitre")


def spans_of(line: LineString, area: BaseGeometry) -> list[tuple[float, float]]:
    """Where a line runs inside an area, as distances from its start in mm."""
    inside = line.intersection(area)
    found = []
    for part in shapely.get_parts(inside):
        if part.geom_type == "LineString" and part.length > 1e-6:
            ends = sorted(line.project(shapely.Point(p)) for p in (part.coords[0], part.coords[-1]))
            found.append((fine_mm(ends[0]), fine_mm(ends[1])))
    return sorted(found)
