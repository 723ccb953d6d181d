"""Where a part sits: a point, a turn of whole degrees and a side."""

from dataclasses import dataclass
from math import ceil, cos, radians, sin

from loquet.core.geometry.shapes import Bar, Box, Rect, Round, Shape

QUARTERS = (0, 90, 180, 270)
COSINE = {0: 1, 90: 0, 180: -1, 270: 0}
SINE = {0: 0, 90: 1, 180: 0, 270: -1}


def turned(x: int, y: int, turn_deg: int) -> tuple[int, int]:
    """A point turned anticlockwise about the origin by whole degrees; exact for quarter turns, else
    to the nanometre.
    """
    turn = turn_deg % 360
    if turn in COSINE:
        c, s = COSINE[turn], SINE[turn]
        return c * x - s * y, s * x + c * y
    cosine, sine = cos(radians(turn)), sin(radians(turn))
    return round(cosine * x - sine * y), round(sine * x + cosine * y)


def turned_box(box: Box, turn_deg: int) -> tuple[int, int, int]:
    """Width, height and turn (0 to 89) of a box that is turned further by whole degrees."""
    turn = (box.turn + turn_deg) % 180
    w, h = (box.h, box.w) if turn >= 90 else (box.w, box.h)
    return w, h, turn % 90


@dataclass(frozen=True, slots=True)
class Seat:
    """A part's place on the board, seen from the near side; a far part is mirrored left to right,
    then turned.
    """

    x: int
    y: int
    turn_deg: int = 0
    far: bool = False

    def point(self, x: int, y: int) -> tuple[int, int]:
        """A point of the part's drawing, on the board."""
        tx, ty = turned(-x if self.far else x, y, self.turn_deg)
        return self.x + tx, self.y + ty

    def size(self, w: int, h: int) -> tuple[int, int]:
        """Width and height of what an upright rectangle of the drawing covers on the board."""
        wide, high, turn = turned_box(Box(0, 0, w, h), self.turn_deg)
        if not turn:
            return wide, high
        across, up = Box(0, 0, wide, high, turn).reach
        return ceil(2 * across), ceil(2 * up)

    def rect(self, box: Box) -> Rect:
        """The upright rectangle about an upright box of the part's drawing, on the board."""
        x, y = self.point(box.x, box.y)
        w, h = self.size(box.w, box.h)
        return x - w // 2, y - h // 2, x + w // 2, y + h // 2

    def shape(self, shape: Shape) -> Shape:
        """A shape of the part's drawing, on the board."""
        match shape:
            case Round():
                return Round(*self.point(shape.x, shape.y), shape.d)
            case Bar():
                return Bar(
                    *self.point(shape.x1, shape.y1), *self.point(shape.x2, shape.y2), shape.w
                )
            case Box():
                own = Box(0, 0, shape.w, shape.h, 0)
                mirrored = -shape.turn if self.far else shape.turn
                w, h, turn = turned_box(own, self.turn_deg + mirrored)
                return Box(*self.point(shape.x, shape.y), w, h, turn)
