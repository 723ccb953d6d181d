"""Where a part sits: a point, a quarter turn and a side."""

from dataclasses import dataclass

from loquet.core.geometry.shapes import Bar, Box, Round, Shape

QUARTERS = (0, 90, 180, 270)
COSINE = {0: 1, 90: 0, 180: -1, 270: 0}
SINE = {0: 0, 90: 1, 180: 0, 270: -1}


def turned(x: int, y: int, turn_deg: int) -> tuple[int, int]:
    """A point turned anticlockwise about the origin by a multiple of 90 degrees."""
    c, s = COSINE[turn_deg % 360], SINE[turn_deg % 360]
    return c * x - s * y, s * x + c * y


@dataclass(frozen=True, slots=True)
class Seat:
    """A part's place on the board, seen from the near side; a far part is mirrored left to right, then turned."""

    x: int
    y: int
    turn_deg: int = 0
    far: bool = False

    def point(self, x: int, y: int) -> tuple[int, int]:
        """A point of the part's drawing, on the board."""
        tx, ty = turned(-x if self.far else x, y, self.turn_deg)
        return self.x + tx, self.y + ty

    def size(self, w: int, h: int) -> tuple[int, int]:
        """Width and height of an upright rectangle of the drawing, on the board."""
        return (h, w) if self.turn_deg % 180 == 90 else (w, h)

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
                return Box(*self.point(shape.x, shape.y), *self.size(shape.w, shape.h))
