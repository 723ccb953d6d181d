"""Places in the corners for marks that a person has not placed: the first two across from each
other, as far apart as they can be.
"""

from collections.abc import Callable

import numpy as np
from shapely.geometry import Point, box
from shapely.geometry.base import BaseGeometry

from loquet.core.board.outline import polygon_nm
from loquet.core.brief import Brief
from loquet.core.geometry import Seat, polygon_of
from loquet.core.parts import LandPattern

INSET_NM = 3_000_000  # rails of a machine take the outermost 3 mm; common practice, no source
STEP_NM = 500_000


def corner_seats(
    brief: Brief,
    board: str,
    pattern: Callable[[str], LandPattern],
    taken: list[BaseGeometry],
) -> dict[str, Seat]:
    """A seat for every mark of a board that belongs in a corner and has no place, added to what is
    taken.
    """
    outline = polygon_nm(brief.board(board).outline)
    left, bottom, right, top = outline.bounds
    corners = ((left, bottom), (right, top), (left, top), (right, bottom))
    within = outline.buffer(-INSET_NM)
    xs, ys = (
        axis.ravel()
        for axis in np.meshgrid(
            np.arange(left, right, STEP_NM) + STEP_NM / 2,
            np.arange(bottom, top, STEP_NM) + STEP_NM / 2,
        )
    )
    found: dict[str, Seat] = {}
    for thing in brief.on(board):
        if not thing.CORNER or thing.place is not None:
            continue
        for body in thing.bodies():
            drawn = pattern(body.part)
            x0, y0 = corners[len(found) % len(corners)]
            for index in np.argsort(np.hypot(xs - x0, ys - y0), kind="stable"):
                seat = Seat(int(xs[index]), int(ys[index]))
                yard = polygon_of(seat.shape(drawn.courtyard))
                if within.contains(Point(seat.x, seat.y)) and not any(
                    yard.intersects(other) for other in taken
                ):
                    found[thing.role(body.piece)] = seat
                    taken.append(box(*yard.bounds))
                    break
    return found
