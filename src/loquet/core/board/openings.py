"""What is cut out of a board, and what is kept free on it: slots, cut-outs, areas without parts or
copper.
"""

from dataclasses import dataclass

import shapely
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.outline import (
    Arc,
    Line,
    Piece,
    corners_of,
    polygon_nm,
    profile_of,
    profile_of_polygon,
    rounded_rectangle,
)
from loquet.core.brief import Board, Brief, Thing
from loquet.core.brief.seats import seat_of_thing
from loquet.core.geometry import Box, Seat, polygon_of
from loquet.core.quantities.lengths import nm_from_mm


@dataclass(frozen=True)
class KeptFree:
    """An area that a thing keeps free, where it stands: in nm, on its side for parts above
    `up_to_mm` (0: for all), on both for copper.
    """

    thing: str
    area: Polygon
    far: bool
    parts: bool
    copper: bool
    up_to_mm: float = 0.0

    def bars(self, far: bool, height_mm: float) -> bool:
        """Whether a part of this height may not stand in it on this side."""
        return self.parts and self.far == far and (not self.up_to_mm or height_mm > self.up_to_mm)

    @property
    def words(self) -> str:
        """What it is kept free of, where it keeps parts off."""
        return f"parts above {self.up_to_mm:g} mm" if self.up_to_mm else "parts"


def opening_lines(brief: Brief, thing: Thing) -> tuple[Piece, ...]:
    """The closed line of an opening, piece by piece; nothing for what cuts none, or has no
    place.
    """
    opening = thing.opening()
    if opening is None or thing.place is None:
        return ()
    w, h, r = (nm_from_mm(v) for v in (opening.width_mm, opening.height_mm, opening.corner_mm))
    seat = seat_of_thing(brief, thing)
    middle = Seat(seat.x, seat.y, seat.turn_deg)
    line = opening.line
    pieces = rounded_rectangle(w, h, r) if line is None else profile_of_polygon(line)
    return tuple(moved(piece, middle, w // 2, h // 2) for piece in pieces)


def moved(piece: Piece, seat: Seat, dx: int, dy: int) -> Piece:
    """A piece of a shape whose middle is (`dx`, `dy`), where it stands on the board."""
    first = seat.point(piece.x1 - dx, piece.y1 - dy)
    last = seat.point(piece.x2 - dx, piece.y2 - dy)
    if isinstance(piece, Arc):
        centre = seat.point(piece.cx - dx, piece.cy - dy)
        return Arc(*first, *last, *centre, piece.clockwise)
    return Line(*first, *last)


def opening_area(lines: tuple[Piece, ...]) -> Polygon:
    """What a closed line encloses, in nm; nowhere smaller than the true opening, so that nothing
    comes nearer than it seems.
    """
    return Polygon(corners_of(lines, True))


def openings_of(brief: Brief, board: Board) -> dict[str, Polygon]:
    """The openings of a board by thing, in nm."""
    lines = {thing.name: opening_lines(brief, thing) for thing in brief.on(board.name)}
    return {name: opening_area(pieces) for name, pieces in lines.items() if pieces}


def board_area(brief: Brief, board: Board) -> Polygon:
    """The board in nm, its openings cut out; an opening that does not lie inside the outline is
    left in, and refused by the brief's faults.
    """
    outline = polygon_nm(board.outline)
    inside = [o for o in openings_of(brief, board).values() if outline.contains_properly(o)]
    if not inside:
        return outline
    area = outline.difference(shapely.union_all(inside))
    return area if isinstance(area, Polygon) else outline


def board_profile(brief: Brief, board: Board) -> tuple[Piece, ...]:
    """All lines and arcs along which a board is cut: its outline, then its openings."""
    inner = (piece for thing in brief.on(board.name) for piece in opening_lines(brief, thing))
    return (*profile_of(board.outline), *inner)


def kept_free(brief: Brief, board: Board) -> tuple[KeptFree, ...]:
    """The areas of a board that are kept free and have a place."""
    found = []
    for thing in brief.on(board.name):
        kept = thing.keeps()
        if kept is None or thing.place is None:
            continue
        seat = seat_of_thing(brief, thing)
        box = Box(0, 0, nm_from_mm(kept.width_mm), nm_from_mm(kept.height_mm))
        area = polygon_of(seat.shape(box))
        found.append(KeptFree(thing.name, area, seat.far, kept.parts, kept.copper, kept.up_to_mm))
    return tuple(found)


def wiring_area(brief: Brief, board: Board) -> BaseGeometry:
    """Where wiring and pour may lie, but for their distance from its edge."""
    free = [kept.area for kept in kept_free(brief, board) if kept.copper]
    area = board_area(brief, board)
    return area.difference(shapely.union_all(free)) if free else area
