"""The pads of a land pattern as they are drawn on a screen: plain millimetres."""

from loquet.core.geometry import Box, Round
from loquet.core.parts.land import LandPattern
from loquet.core.plain.frozen import Frozen


class DrawnLand(Frozen):
    """A pad of a land pattern in mm, about the middle of the part: its number, middle, width and
    height, whether it is round, and its hole.
    """

    number: str
    x_mm: float
    y_mm: float
    w_mm: float
    h_mm: float
    round: bool
    drill_mm: float


def lands_of(pattern: LandPattern) -> tuple[DrawnLand, ...]:
    """The round and rectangular pads of a pattern, in its order."""
    found = []
    for pad in pattern.pads:
        shape = pad.shape
        if isinstance(shape, Round):
            x, y, w, h = shape.x, shape.y, shape.d, shape.d
        elif isinstance(shape, Box):
            x, y, w, h = shape.x, shape.y, shape.w, shape.h
        else:
            continue
        found.append(
            DrawnLand(
                number=pad.number,
                x_mm=x / 1e6,
                y_mm=y / 1e6,
                w_mm=w / 1e6,
                h_mm=h / 1e6,
                round=isinstance(shape, Round),
                drill_mm=pad.drill_nm / 1e6,
            )
        )
    return tuple(found)
