"""The legend of one side while it is drawn: where nothing may be printed, where parts stand, and
the strokes so far.
"""

import itertools
from dataclasses import dataclass, field

import shapely
from shapely.geometry import LineString, MultiLineString, Point, Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, BoardView
from loquet.core.geometry import Bar, polygon_of
from loquet.core.legend.lettering import placed, text_lines

SPACE_NM = 150_000


@dataclass
class Sheet:
    """A side: its stroke, where ink may lie, the bodies that will cover what is under them by
    reference, strokes and words so far, and the names without room.
    """

    far: bool
    width_nm: int
    allowed: BaseGeometry
    bodies: dict[str, Polygon] = field(default_factory=dict)
    strokes: list[Bar] = field(default_factory=list)
    words: list[BaseGeometry] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)

    def fits(self, hull: BaseGeometry, own: str = "") -> bool:
        """Whether a shape lies on free board whole: not on an opening, a word, or under the body of
        another part than its own.
        """
        if not self.allowed.contains(hull) or any(hull.intersects(word) for word in self.words):
            return False
        return not any(ref != own and hull.intersects(body) for ref, body in self.bodies.items())


def sheet_of(view: BoardView, name: str) -> Sheet:
    """An empty sheet: the board inset, less all mask openings, holes, and fields that are
    touched.
    """
    rules = view.rules
    beyond = rules.legend_stroke_nm / 2 + 80_000
    open_pads = [c for c in view.pads if name in c.sides and not c.covered]
    closed = [polygon_of(c.shape, (c.bare_nm or rules.mask_grow_nm) + beyond, 6) for c in open_pads]
    closed += [polygon_of(c.shape, beyond, 6) for c in view.fields if name in c.sides]
    closed += [
        Point(h.x, h.y).buffer(h.d / 2 + rules.legend_stroke_nm, quad_segs=6)
        for h in view.holes
        if not h.plated or h.d > 500_000
    ]
    allowed = view.outline.buffer(-250_000).difference(shapely.union_all(closed))
    shapely.prepare(allowed)
    bodies = {
        c.ref: view.body(c.ref)
        for c in view.circuit.components
        if view.seats[c.ref].far == (name == FAR) and not c.bare
    }
    return Sheet(name == FAR, rules.legend_stroke_nm, allowed, bodies)


def put(sheet: Sheet, line: LineString) -> None:
    """Print a line as far as it is allowed; crumbs shorter than 0.2 mm are left out."""
    clipped = line.intersection(sheet.allowed)
    pieces = list(clipped.geoms) if isinstance(clipped, MultiLineString) else [clipped]
    for piece in pieces:
        if isinstance(piece, LineString) and piece.length > 200_000:
            ink(sheet, piece)


def ink(sheet: Sheet, line: LineString) -> None:
    """Print a line whole."""
    points = [(round(x), round(y)) for x, y in line.coords]
    for (x1, y1), (x2, y2) in itertools.pairwise(points):
        if (x1, y1) != (x2, y2):
            sheet.strokes.append(Bar(x1, y1, x2, y2, sheet.width_nm))


def text_hull(
    sheet: Sheet, text: str, spot: tuple[float, float], height_nm: int, upright: bool
) -> tuple[Polygon, list[LineString]]:
    """What a text about a place takes with its room, and its strokes."""
    x, y = spot
    lines = [placed(line, x, y, sheet.far, upright) for line in text_lines(text, height_nm)]
    reach = sheet.width_nm / 2 + SPACE_NM / 2
    left, bottom, right, top = shapely.total_bounds(lines)
    return shapely.box(left - reach, bottom - reach, right + reach, top + reach), lines


def put_text(
    sheet: Sheet,
    text: str,
    spot: tuple[float, float],
    height_nm: int,
    upright: bool = False,
    own: str = "",
) -> bool:
    """Print a text about a place if all of it is allowed and free; far texts are mirrored so that
    they read from behind.
    """
    hull, lines = text_hull(sheet, text, spot, height_nm, upright)
    if not sheet.fits(hull, own):
        return False
    sheet.words.append(hull)
    for line in lines:
        put(sheet, line)
    return True
