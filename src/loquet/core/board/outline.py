"""The board's outline in nanometres: exact pieces for the profile, a polygon for measuring."""

from dataclasses import dataclass

import shapely
from shapely.geometry import Polygon

from loquet.core.brief import Outline, PolygonOutline
from loquet.core.quantities.lengths import nm_from_mm


@dataclass(frozen=True)
class Line:
    """A straight piece of the profile."""

    x1: int
    y1: int
    x2: int
    y2: int


@dataclass(frozen=True)
class Corner:
    """A quarter arc of the profile, anticlockwise about (`cx`, `cy`)."""

    x1: int
    y1: int
    x2: int
    y2: int
    cx: int
    cy: int


def profile_of(outline: Outline) -> tuple[Line | Corner, ...]:
    """The closed profile, anticlockwise, piece by piece."""
    if isinstance(outline, PolygonOutline):
        points = [(nm_from_mm(x), nm_from_mm(y)) for x, y in outline.points_mm]
        if Polygon(points).exterior.is_ccw is False:
            points.reverse()
        return tuple(Line(*points[i], *points[(i + 1) % len(points)]) for i in range(len(points)))
    w, h, r = (
        nm_from_mm(outline.width_mm),
        nm_from_mm(outline.height_mm),
        nm_from_mm(outline.corner_mm),
    )
    return rounded_rectangle(w, h, r)


def rounded_rectangle(w: int, h: int, r: int) -> tuple[Line | Corner, ...]:
    """The closed line of a rectangle from (0, 0) to (`w`, `h`) with corners of radius `r`, anticlockwise; a side that its corners use up is left out."""
    if r == 0:
        return Line(0, 0, w, 0), Line(w, 0, w, h), Line(w, h, 0, h), Line(0, h, 0, 0)
    pieces = (
        Line(r, 0, w - r, 0),
        Corner(w - r, 0, w, r, w - r, r),
        Line(w, r, w, h - r),
        Corner(w, h - r, w - r, h, w - r, h - r),
        Line(w - r, h, r, h),
        Corner(r, h, 0, h - r, r, h - r),
        Line(0, h - r, 0, r),
        Corner(0, r, r, 0, r, r),
    )
    return tuple(p for p in pieces if (p.x1, p.y1) != (p.x2, p.y2))


def polygon_nm(outline: Outline) -> Polygon:
    """The outline as a polygon; arcs are cut into 24 chords a quarter, inside the true line."""
    if isinstance(outline, PolygonOutline):
        return Polygon([(nm_from_mm(x), nm_from_mm(y)) for x, y in outline.points_mm])
    w, h, r = (
        nm_from_mm(outline.width_mm),
        nm_from_mm(outline.height_mm),
        nm_from_mm(outline.corner_mm),
    )
    if r == 0:
        return Polygon([(0, 0), (w, 0), (w, h), (0, h)])
    grown = shapely.box(r, r, w - r, h - r).buffer(r, quad_segs=24)
    return Polygon(grown.exterior.coords)
