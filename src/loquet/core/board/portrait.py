"""A small picture of made boards, as SVG: outline, bodies and near copper, in mm, y downwards."""

from collections.abc import Iterator, Sequence

from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import NEAR, BoardView, Copper
from loquet.core.geometry import polygon_of
from loquet.core.quantities.lengths import MM

APART_MM = 5.0
BARE, EDGE, COPPER, BODY, INK = "#e9dfc4", "#23211d", "#b25a24", "#fffdf7", "#5c574c"


def portrait_of(views: Sequence[BoardView]) -> str:
    """The boards of a device beside each other, seen from the near side, as an SVG file."""
    drawn: list[str] = []
    across = height = 0.0
    for view in views:
        left, top, right, bottom = (v / MM for v in view.outline.bounds)
        move = f'<g transform="translate({across - left:.2f} {-top:.2f})">'
        drawn += [move, *pieces_of(view), "</g>"]
        across, height = across + right - left + APART_MM, max(height, bottom - top)
    wide = max(across - APART_MM, 1.0)
    box = f"-0.5 -0.5 {wide + 1:.2f} {max(height, 1.0) + 1:.2f}"
    head = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{box}">'
    return "".join([head, *drawn, "</svg>"])


def pieces_of(view: BoardView) -> Iterator[str]:
    """The outline, the bodies of the near side, its tracks, its pads."""
    yield drawn_as(view.outline, f'fill="{BARE}" stroke="{EDGE}" stroke-width="0.4"')
    near = [copper for copper in (*view.wiring, *view.pads) if NEAR in copper.sides]
    yield f'<path fill="{COPPER}" d="{"".join(path_of(copper) for copper in near)}"/>'
    bodies = [view.body(part.ref) for part in view.placement.parts if not part.seat.far]
    look = f'fill="{BODY}" fill-opacity="0.85" stroke="{INK}" stroke-width="0.25"'
    for body in bodies:
        yield drawn_as(body, look)


def path_of(copper: Copper) -> str:
    """A shape of copper as path data."""
    return path_data(polygon_of(copper.shape))


def drawn_as(area: BaseGeometry, look: str) -> str:
    """An area as a path."""
    return f'<path fill-rule="evenodd" {look} d="{path_data(area)}"/>'


def path_data(area: BaseGeometry) -> str:
    """The rings of an area, thinned to what a small picture can show."""
    plain = area.simplify(0.02 * MM)
    polygons = [p for p in getattr(plain, "geoms", [plain]) if isinstance(p, Polygon)]
    rings = [ring for p in polygons for ring in (p.exterior, *p.interiors)]
    return "".join(
        "M" + "L".join(f"{x / MM:.2f} {y / MM:.2f}" for x, y in ring.coords[:-1]) + "Z"
        for ring in rings
    )
