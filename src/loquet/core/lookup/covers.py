"""What lies over a board without standing on it: modules on headers, screw heads."""

from dataclasses import dataclass

from loquet.core.brief import Brief, Thing
from loquet.core.brief.seats import seat_of_thing
from loquet.core.geometry import Box, Rect
from loquet.core.library import Library
from loquet.core.quantities.lengths import nm_from_mm

SCREW_FREE_NM = 200_000
LYING_NM = 1_000_000
"""Between a lead and what lies behind the board; common practice, no source."""


@dataclass(frozen=True)
class Cover:
    """A module over the board: its thing, its area (left, bottom, right, top in nm), how far its
    top is above the board in mm.
    """

    thing: str
    rect: Rect
    above_mm: float


def covers_of(brief: Brief, library: Library, board: str) -> tuple[Cover, ...]:
    """Modules over a board, where parts must be low."""
    found = (cover_of(brief, library, thing) for thing in brief.on(board))
    return tuple(cover for cover in found if cover is not None)


def cover_of(brief: Brief, library: Library, thing: Thing) -> Cover | None:
    """The module of a thing that shows pictures; it hangs from its header."""
    display = thing.display()
    module = library.screens.get(display.part) if display else None
    if module is None or thing.place is None:
        return None
    seat = seat_of_thing(brief, thing)
    w, h = nm_from_mm(module.width_mm), nm_from_mm(module.height_mm)
    inset = nm_from_mm(module.header_inset_mm)
    corners = [seat.point(x, y) for x in (-w // 2, w // 2) for y in (inset, inset - h)]
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    return Cover(thing.name, (min(xs), min(ys), max(xs), max(ys)), module.height_above_mm)


def lying_behind(brief: Brief, board: str) -> tuple[Rect, ...]:
    """Where something lies loose behind a board, with the distance that leads keep from it, in
    nm.
    """
    found = []
    for thing in brief.on(board):
        loose = thing.loose()
        if loose is not None and thing.place is not None and thing.place.far:
            wide, long = (nm_from_mm(side) + 2 * LYING_NM for side in loose.size_mm)
            found.append(seat_of_thing(brief, thing).rect(Box(0, 0, wide, long)))
    return tuple(found)


def screw_circles(brief: Brief, board: str = "") -> tuple[tuple[int, int, int], ...]:
    """Middle and radius (nm) of the areas under screw heads of a board."""
    return tuple(
        (seat.x, seat.y, nm_from_mm(hole.head_mm) // 2 + SCREW_FREE_NM)
        for thing in brief.on(brief.board(board).name)
        if (hole := thing.drilled()) is not None
        for seat in (seat_of_thing(brief, thing),)
    )
