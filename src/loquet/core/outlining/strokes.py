"""What a drawing holds: strokes between two points, straight or arcs, in the drawing's own unit."""

from dataclasses import dataclass
from math import cos, hypot, isfinite, pi, sin, tan

Point = tuple[float, float]
MOST_STROKES = 10_000
FARTHEST = 1e6  # a drawing reaches no farther than this in its own unit


class DrawingRefused(Exception):
    """A drawing that cannot be used: why, and the way out."""

    def __init__(self, why: str, way_out: str) -> None:
        super().__init__(f"{why} {way_out}")
        self.why, self.way_out = why, way_out


@dataclass(frozen=True)
class Stroke:
    """A side from `first` to `last`; its bulge as in `core.geometry.arcs`."""

    first: Point
    last: Point
    bulge: float = 0.0

    def turned_round(self) -> "Stroke":
        """The same side, drawn the other way."""
        return Stroke(self.last, self.first, -self.bulge)


@dataclass(frozen=True)
class Drawing:
    """All strokes of a drawing, y up; `mm` is what one of its units is in mm, None where it does
    not say; what was passed over, by kind.
    """

    strokes: tuple[Stroke, ...]
    mm: float | None
    passed_over: tuple[str, ...] = ()


class Pen:
    """Gathers strokes and refuses what is out of bounds."""

    def __init__(self) -> None:
        self.strokes: list[Stroke] = []

    def side(self, first: Point, last: Point, bulge: float = 0.0) -> None:
        """A side; one that turns through more than half a circle is halved until it does not."""
        numbers = (*first, *last, bulge)
        if not all(isfinite(n) for n in numbers) or max(map(abs, numbers[:4])) > FARTHEST:
            raise DrawingRefused(
                "The drawing holds a place that is no number or a thousand metres away.",
                "Draw it near the origin and save it again.",
            )
        if abs(bulge) > 1:
            middle = top_of_arc(first, last, bulge)
            half = half_of(bulge)
            self.side(first, middle, half)
            self.side(middle, last, half)
            return
        if first == last:
            return
        self.strokes.append(Stroke(first, last, bulge))
        if len(self.strokes) > MOST_STROKES:
            raise DrawingRefused(
                f"The drawing holds more than {MOST_STROKES} lines.",
                "Leave only the outline and its holes in it.",
            )

    def circle(self, centre: Point, radius: float) -> None:
        """A whole circle, as two halves."""
        left, right = (centre[0] - radius, centre[1]), (centre[0] + radius, centre[1])
        self.side(right, left, 1.0)
        self.side(left, right, 1.0)

    def arc(self, centre: Point, radius: float, begin: float, end: float) -> None:
        """An anticlockwise arc between two angles in radians."""
        if not all(map(isfinite, (*centre, radius, begin, end))):
            self.side((0, 0), (float("nan"), 0))
        turn = (end - begin) % (2 * pi) or 2 * pi
        parts = 2 if turn > pi else 1
        for part in range(parts):
            one, other = (begin + turn * (part + step) / parts for step in (0, 1))
            first, last = (
                (centre[0] + radius * cos(a), centre[1] + radius * sin(a)) for a in (one, other)
            )
            self.side(first, last, tan(turn / parts / 4))


def top_of_arc(first: Point, last: Point, bulge: float) -> Point:
    """The point of an arc that is farthest from its chord."""
    dx, dy = last[0] - first[0], last[1] - first[1]
    return (first[0] + last[0]) / 2 + dy * bulge / 2, (first[1] + last[1]) / 2 - dx * bulge / 2


def half_of(bulge: float) -> float:
    """The bulge of each half of an arc."""
    return bulge / (1 + hypot(1.0, bulge))
