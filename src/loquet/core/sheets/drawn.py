"""What a sheet is drawn with: strokes and words that know their net and their part.

While it is drawn lengths are in units of 2.5 mm, an area is in mm; x to the right, y down.
"""

from dataclasses import dataclass, field
from functools import lru_cache
from typing import Literal

from reportlab.pdfbase.pdfmetrics import stringWidth

from loquet.core.plain.frozen import Frozen

Anchor = Literal["start", "middle", "end"]
Point = tuple[float, float]
UNIT_MM = 2.5
TEXT = 0.92
SMALL = 0.78
FACE = "Helvetica"


class Mark(Frozen):
    """A stroke through points, or words at the first of them (`size_mm` tall, on the line) where
    `text` is not empty. `bold` strokes are twice as wide, `filled` ones are areas.
    """

    points: tuple[Point, ...]
    net: str = ""
    ref: str = ""
    text: str = ""
    size_mm: float = 0.0
    anchor: Anchor = "start"
    bold: bool = False
    filled: bool = False
    quiet: bool = False


class Area(Frozen):
    """A block as it is drawn: its size in mm, its marks, the pads that it shows as (reference,
    pad), and the figures that set its values.
    """

    block: str
    board: str
    width_mm: float
    height_mm: float
    marks: tuple[Mark, ...]
    pads: tuple[tuple[str, str], ...]
    workings: tuple[str, ...] = ()


@lru_cache(maxsize=4096)
def text_width(text: str, size: float = TEXT) -> float:
    """Room that words want in the face of the pages, in units; that of the screen is narrower."""
    return float(stringWidth(text, FACE, size))


@dataclass
class Pen:
    """Collects marks in units, and the room that they take."""

    marks: list[Mark] = field(default_factory=list)
    pads: list[tuple[str, str]] = field(default_factory=list)
    left: float = 0.0
    top: float = 0.0
    right: float = 0.0
    bottom: float = 0.0

    def reach(self, *points: Point) -> None:
        """Grow the room so that it holds these points."""
        self.left = min(self.left, *(x for x, _ in points))
        self.right = max(self.right, *(x for x, _ in points))
        self.top = min(self.top, *(y for _, y in points))
        self.bottom = max(self.bottom, *(y for _, y in points))

    def line(
        self,
        *points: Point,
        net: str = "",
        ref: str = "",
        bold: bool = False,
        filled: bool = False,
    ) -> None:
        """A stroke."""
        self.reach(*points)
        self.marks.append(Mark(points=points, net=net, ref=ref, bold=bold, filled=filled))

    def words(
        self,
        at: Point,
        text: str,
        anchor: Anchor = "start",
        *,
        size: float = TEXT,
        net: str = "",
        ref: str = "",
        bold: bool = False,
        quiet: bool = False,
    ) -> None:
        """Words that stand on a point; none leave no mark."""
        if not text:
            return
        width = text_width(text, size)
        start = at[0] - {"start": 0.0, "middle": width / 2, "end": width}[anchor]
        self.reach((start, at[1] - size), (start + width, at[1] + size * 0.3))
        mark = Mark(
            points=(at,),
            net=net,
            ref=ref,
            text=text,
            size_mm=size,
            anchor=anchor,
            bold=bold,
            quiet=quiet,
        )
        self.marks.append(mark)

    @property
    def width(self) -> float:
        """From the left-most to the right-most point."""
        return self.right - self.left

    @property
    def height(self) -> float:
        """From the upper-most to the lower-most point."""
        return self.bottom - self.top

    def put(self, other: "Pen", x: float, y: float) -> None:
        """What another pen drew, with the upper left corner of its room at a point."""
        by = (x - other.left, y - other.top)
        self.marks += [moved(mark, by) for mark in other.marks]
        self.pads += other.pads
        self.reach((x, y), (x + other.width, y + other.height))


def moved(mark: Mark, by: Point) -> Mark:
    """The same mark somewhere else."""
    points = tuple((x + by[0], y + by[1]) for x, y in mark.points)
    return mark.model_copy(update={"points": points})


def in_mm(mark: Mark) -> Mark:
    """A mark in units as one in mm."""
    points = tuple((round(x * UNIT_MM, 2), round(y * UNIT_MM, 2)) for x, y in mark.points)
    return mark.model_copy(update={"points": points, "size_mm": round(mark.size_mm * UNIT_MM, 2)})


@dataclass(frozen=True)
class Turn:
    """Puts a symbol that lies along x from 0 to its length at a point, in one of four directions;
    `back` draws it from its other end.
    """

    at: Point
    along: Point = (1.0, 0.0)
    back: bool = False
    length: float = 4.0

    def __call__(self, x: float, y: float) -> Point:
        """Where a point of the symbol comes to lie."""
        ahead, aside = (self.length - x, -y) if self.back else (x, y)
        dx, dy = self.along
        return (self.at[0] + ahead * dx - aside * dy, self.at[1] + ahead * dy + aside * dx)
