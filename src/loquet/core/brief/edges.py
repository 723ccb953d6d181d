"""Ports and connectors at the edge of a board: the mating side out, flush with the outline."""

from itertools import pairwise
from math import atan2, cos, degrees, hypot, radians, sin

from loquet.core.brief.model import Board
from loquet.core.brief.outlines import outline_polygon_mm
from loquet.core.brief.places import Place
from loquet.core.brief.thing import Thing

REACH_MM = 6.0
PointMm = tuple[float, float]
Side = tuple[PointMm, PointMm]


def sides_of(board: Board, least_mm: float) -> list[Side]:
    """The straight sides of an outline that are at least so long, with the board on their left."""
    ring = list(outline_polygon_mm(board.outline).exterior.coords)
    if not outline_polygon_mm(board.outline).exterior.is_ccw:
        ring.reverse()
    return [
        ((a[0], a[1]), (b[0], b[1]))
        for a, b in pairwise(ring)
        if hypot(b[0] - a[0], b[1] - a[1]) >= least_mm
    ]


def at_edge(board: Board, thing: Thing, place: Place) -> Place:
    """The place with the thing flush at the nearest side, where its kind belongs there and it was
    put near enough; else as it is.

    At no turn the mating side of a body looks down; it is turned until it looks out of the board.
    Whole degrees, micrometres.
    """
    size = next((body.size_mm for body in thing.bodies() if body.size_mm[1]), None)
    if not thing.EDGE or size is None:
        return place
    wide, deep = size
    best: tuple[float, Place] | None = None
    for (ax, ay), (bx, by) in sides_of(board, wide):
        long = hypot(bx - ax, by - ay)
        ux, uy = (bx - ax) / long, (by - ay) / long
        away = ux * (place.y_mm - ay) - uy * (place.x_mm - ax)
        along = (place.x_mm - ax) * ux + (place.y_mm - ay) * uy
        if not -wide / 2 <= along <= long + wide / 2 or abs(away - deep / 2) > REACH_MM:
            continue
        along = min(max(along, wide / 2), long - wide / 2)
        turn = round(degrees(atan2(uy, ux))) % 360
        inx, iny = -sin(radians(turn)), cos(radians(turn))
        spot = place.model_copy(
            update={
                "x_mm": round(ax + along * ux + inx * deep / 2, 3),
                "y_mm": round(ay + along * uy + iny * deep / 2, 3),
                "turn_deg": turn,
            }
        )
        if best is None or abs(away - deep / 2) < best[0]:
            best = (abs(away - deep / 2), spot)
    return best[1] if best else place
