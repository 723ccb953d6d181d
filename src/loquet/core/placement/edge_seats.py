"""Places at the outline for ports that a person has not placed: flush, the mating side out, clear
of what stands there.
"""

from collections.abc import Callable, Iterator
from math import atan2, cos, degrees, hypot, radians, sin

import shapely
from shapely.geometry.base import BaseGeometry

from loquet.core.board.openings import openings_of
from loquet.core.board.through import pins_rect
from loquet.core.brief import Brief, Thing
from loquet.core.brief.edges import Side, sides_of
from loquet.core.brief.module_sockets import module_sockets
from loquet.core.geometry import Rect, Seat, polygon_of
from loquet.core.parts import LandPattern
from loquet.core.parts.in_use import FINGERS_MM, Plug
from loquet.core.placement.rooms import near_rects
from loquet.core.quantities.lengths import MM, nm_from_mm

STEP_MM = 0.5
Seated = tuple[tuple[LandPattern, Seat], ...]


def edge_seats(
    brief: Brief,
    board: str,
    pattern: Callable[[str], LandPattern],
    plug: Callable[[str], Plug | None],
    taken: list[BaseGeometry],
    behind: tuple[Rect, ...],
) -> dict[str, Seat]:
    """A seat for every port of a board that belongs at its edge and has no place, added to what is
    taken, its pins clear of bodies `behind` the board; one that finds no room is left to be placed
    as any part.
    """
    found, sockets = {}, module_sockets(brief)
    for thing in brief.on(board):
        body = next((b for b in thing.bodies() if b.part), None)
        if thing.place is not None or body is None:
            continue
        if thing.name in sockets and plug(body.part):
            drawn = pattern(body.part)
            size = (drawn.body.w / MM, drawn.body.h / MM)
        elif thing.EDGE and body.size_mm[1]:
            drawn, size = pattern(body.part), body.size_mm
        else:
            continue
        for seat in along_edges(brief, thing, size):
            yard = polygon_of(seat.shape(drawn.courtyard))
            before = plug_area(drawn, seat, plug(body.part))
            pins = pins_rect(drawn, seat)
            under = pins and any(shapely.box(*pins).intersects(shapely.box(*b)) for b in behind)
            if not under and not any(
                yard.intersects(other) or before.intersects(other) for other in taken
            ):
                found[thing.role(body.piece)] = seat
                taken += [yard, before]
                break
    return found


def plug_area(drawn: LandPattern, seat: Seat, plug: Plug | None) -> BaseGeometry:
    """Where the grip of a plug comes to lie outside, with half the room that fingers want on each
    side; in nm.
    """
    if plug is None:
        return shapely.Polygon()
    body = drawn.body
    half = nm_from_mm((plug.wide_mm + FINGERS_MM) / 2)
    mouth = body.y - body.h // 2
    near, far = mouth - nm_from_mm(plug.meets_mm), mouth - nm_from_mm(plug.long_mm)
    corners = (
        (body.x - half, near),
        (body.x + half, near),
        (body.x + half, far),
        (body.x - half, far),
    )
    return shapely.Polygon([seat.point(x, y) for x, y in corners])


def taken_areas(
    brief: Brief,
    board: str,
    seated: Seated,
    screws: tuple[tuple[int, int, int], ...],
    kept: tuple[Rect, ...],
) -> list[BaseGeometry]:
    """What of a board's near side is taken: by parts, screws, openings and areas kept free; in
    nm.
    """
    parts = [shapely.box(*rect) for p, seat in seated for rect in near_rects(p, seat)]
    heads = [shapely.Point(x, y).buffer(r) for x, y, r in screws]
    openings = list(openings_of(brief, brief.board(board)).values())
    return [*parts, *heads, *openings, *(shapely.box(*rect) for rect in kept)]


def along_edges(brief: Brief, thing: Thing, size_mm: tuple[float, float]) -> Iterator[Seat]:
    """Seats along all sides: the upper ones first, from the middle of each outwards."""
    wide, deep = size_mm
    sides = sides_of(brief.board(thing.board), wide + 1.0)
    for side in sorted(sides, key=lambda s: -(s[0][1] + s[1][1])):
        yield from along_side(side, wide, deep)


def along_side(side: Side, wide: float, deep: float) -> Iterator[Seat]:
    """Seats along one side with the board on its left, from its middle outwards; whole degrees."""
    (ax, ay), (bx, by) = side
    long = hypot(bx - ax, by - ay)
    ux, uy = (bx - ax) / long, (by - ay) / long
    turn = round(degrees(atan2(uy, ux))) % 360
    inx, iny = -sin(radians(turn)), cos(radians(turn))
    steps = int((long - wide) / 2 / STEP_MM)
    for step in range(steps + 1):
        for way in (1, -1) if step else (1,):
            along = long / 2 + way * step * STEP_MM
            x, y = ax + along * ux + inx * deep / 2, ay + along * uy + iny * deep / 2
            yield Seat(round(x * 1000) * 1000, round(y * 1000) * 1000, turn)
