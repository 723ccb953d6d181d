"""The board's outline in nanometres: exact pieces for the profile, a polygon for measuring."""

from collections.abc import Iterator
from dataclasses import dataclass

from shapely.geometry import Polygon

from loquet.core.brief import Outline, PolygonOutline
from loquet.core.geometry.arcs import along_arc, centre_of
from loquet.core.quantities.lengths import nm_from_mm

CHORDS = 24  # a quarter turn


@dataclass(frozen=True)
class Line:
    """A straight piece of the profile."""

    x1: int
    y1: int
    x2: int
    y2: int


@dataclass(frozen=True)
class Arc:
    """An arc of the profile about (`cx`, `cy`), anticlockwise unless said."""

    x1: int
    y1: int
    x2: int
    y2: int
    cx: int
    cy: int
    clockwise: bool = False


Piece = Line | Arc


def profile_of(outline: Outline) -> tuple[Piece, ...]:
    """The closed profile, anticlockwise, piece by piece."""
    if isinstance(outline, PolygonOutline):
        return profile_of_polygon(outline)
    w, h, r = (
        nm_from_mm(outline.width_mm),
        nm_from_mm(outline.height_mm),
        nm_from_mm(outline.corner_mm),
    )
    return rounded_rectangle(w, h, r)


def profile_of_polygon(outline: PolygonOutline) -> tuple[Piece, ...]:
    """The sides of a free outline, turned round where they are drawn clockwise."""
    sides = [
        ((nm_from_mm(a[0]), nm_from_mm(a[1])), (nm_from_mm(b[0]), nm_from_mm(b[1])), bulge)
        for a, b, bulge in outline.sides()
    ]
    pieces = [piece_of(*side) for side in sides]
    if not Polygon(corners_of(pieces, False)).exterior.is_ccw:
        pieces = [piece_of(b, a, -bulge) for a, b, bulge in reversed(sides)]
    return tuple(pieces)


def piece_of(first: tuple[int, int], last: tuple[int, int], bulge: float) -> Piece:
    """A side as a piece of the profile; the middle of an arc is rounded to a nanometre."""
    if bulge == 0:
        return Line(*first, *last)
    cx, cy = centre_of(first, last, bulge)
    return Arc(*first, *last, round(cx), round(cy), bulge < 0)


def rounded_rectangle(w: int, h: int, r: int) -> tuple[Piece, ...]:
    """The closed line of a rectangle from (0, 0) to (`w`, `h`) with corners of radius `r`,
    anticlockwise; a side that its corners use up is left out.
    """
    if r == 0:
        return Line(0, 0, w, 0), Line(w, 0, w, h), Line(w, h, 0, h), Line(0, h, 0, 0)
    pieces = (
        Line(r, 0, w - r, 0),
        Arc(w - r, 0, w, r, w - r, r),
        Line(w, r, w, h - r),
        Arc(w, h - r, w - r, h, w - r, h - r),
        Line(w - r, h, r, h),
        Arc(r, h, 0, h - r, r, h - r),
        Line(0, h - r, 0, r),
        Arc(0, r, r, 0, r, r),
    )
    return tuple(p for p in pieces if (p.x1, p.y1) != (p.x2, p.y2))


def corners_of(
    pieces: Iterator[Piece] | list[Piece] | tuple[Piece, ...], grown: bool
) -> Iterator[tuple[float, float]]:
    """The corners of a polygon that replaces a closed anticlockwise line: no smaller than the true
    one where it is `grown`, else no larger.
    """
    for piece in pieces:
        first, last = (piece.x1, piece.y1), (piece.x2, piece.y2)
        if isinstance(piece, Line):
            yield first
        else:
            centre = (piece.cx, piece.cy)
            outside = grown is not piece.clockwise
            yield from along_arc(first, last, centre, piece.clockwise, CHORDS, outside)


def polygon_nm(outline: Outline) -> Polygon:
    """The outline as a polygon; arcs are cut into 24 pieces a quarter, so that the board is nowhere
    larger than the true one.
    """
    return Polygon(corners_of(profile_of(outline), False))
