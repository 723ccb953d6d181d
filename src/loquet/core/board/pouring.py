"""Pouring ground on both sides: what is left of the board around everything else, in one island."""

from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import MultiPolygon, Point, Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.board.islands import ground_islands, held_by_pads
from loquet.core.board.model import Pour, PourPiece, Ring, Via
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Bar, Box, Round, polygon_of, turned
from loquet.core.provenance import Source, Working, given

CURVE_NM = 5_000
RELIEF_NM = 200_000
SPOKE_NM = 300_000
THINNEST_NM = 200_000
STITCH_EVERY_NM = 8_000_000
SEARCH_NM = 500_000


@dataclass(frozen=True)
class Side:
    """One side while pouring: the area that is allowed, and what is poured so far."""

    name: str
    allowed: BaseGeometry
    poured: BaseGeometry


def pour_ground(view: BoardView) -> Pour:
    """Ground poured on both sides, floating pieces stitched or left out, and stitches spread over the board."""
    sides = {name: pour_side(view, name) for name in (NEAR, FAR)}
    stitches = stitch_places(view, sides)
    vias = tuple(Via(net=GROUND, x_nm=x, y_nm=y) for x, y in stitches)
    pieces = kept_pieces(sides, ground_copper(view), stitches)
    pieces, vias = held_by_pads(view, pieces, vias)
    islands = ground_islands(view, pieces, vias)
    poured, board = sum(Polygon(p.outer, p.holes).area for p in pieces), view.outline.area
    share = 100 * poured / (2 * board)
    working = Working(
        id="pour.share",
        title="Ground poured",
        value=share,
        unit="%",
        shown=f"{share:.0f} %",
        formula="poured / (2 x board)",
        inputs=(
            given("poured", poured / 1e12, "mm²", "both sides, exact polygons"),
            given("board", board / 1e12, "mm²", "outline of the brief"),
        ),
        source=Source(kind="computed", text="exact polygons of the pour"),
    )
    return Pour(net=GROUND, pieces=pieces, stitches=vias, islands=islands, workings=(working,))


def pour_side(view: BoardView, name: str) -> Side:
    """The board's area on one side, less all other copper with its gap, with heat relief at ground pads."""
    rules = view.rules
    base = view.wiring_area.buffer(-(rules.edge_nm + CURVE_NM))
    away = [
        polygon_of(c.shape, max(c.bare_nm, rules.drawn_gap_nm) + CURVE_NM, segments_of(c))
        for c in (*view.pads, *view.wiring)
        if name in c.sides and c.net != GROUND
    ]
    away += [
        Point(h.x, h.y).buffer(h.keep_nm + CURVE_NM, quad_segs=32)
        for h in view.holes
        if not h.plated
    ]
    allowed = base.difference(shapely.union_all(away))
    solder = [c for c in view.pads if name in c.sides and c.net == GROUND and relieved(c)]
    relief = shapely.union_all([polygon_of(c.shape, RELIEF_NM, 8) for c in solder])
    spokes = shapely.union_all([polygon_of(bar) for c in solder for bar in spokes_of(c)])
    opened = opening(allowed.difference(relief))
    poured = opening(
        shapely.union(opened, shapely.intersection(spokes, allowed)), THINNEST_NM * 0.9
    )
    return Side(name, allowed, poured)


def segments_of(copper: Copper) -> int:
    """Segments a quarter of a circle: arcs lie inside their circle by R (1 - cos(pi / 4 n)), which must stay below `CURVE_NM` for large pads too."""
    return 32 if isinstance(copper.shape, Round) and copper.shape.d > 1_200_000 else 8


def relieved(pad: Copper) -> bool:
    """Pads that are soldered get heat relief; an exposed pad and its heat holes are joined in full."""
    if (
        isinstance(pad.shape, Box)
        and min(pad.shape.w, pad.shape.h) > 3_000_000
        and not pad.drill_nm
    ):
        return False
    return not (pad.drill_nm and pad.drill_nm <= 400_000)


def spokes_of(pad: Copper) -> tuple[Bar, ...]:
    """Two crossing strokes over a pad that reach into the pour around it, along its own sides."""
    shape = pad.shape
    match shape:
        case Round():
            w, h, turn = shape.d, shape.d, 0
        case Box():
            w, h, turn = shape.w, shape.h, shape.turn
        case Bar():
            return ()
    reach = RELIEF_NM + SPOKE_NM // 2
    ends = (turned(w // 2 + reach, 0, turn), turned(0, h // 2 + reach, turn))
    x, y = shape.x, shape.y
    across, up = (Bar(x - dx, y - dy, x + dx, y + dy, SPOKE_NM) for dx, dy in ends)
    return across, up


def opening(area: BaseGeometry, thinnest_nm: float = THINNEST_NM) -> BaseGeometry:
    """The area without anything thinner than the least width."""
    half = thinnest_nm / 2
    return area.buffer(-half, quad_segs=8).buffer(half * 0.99, quad_segs=8)


def polygons(area: BaseGeometry) -> list[Polygon]:
    """The polygons of an area, the largest first; slivers under 0.05 square millimetres are left out."""
    parts = list(area.geoms) if isinstance(area, MultiPolygon) else [area]
    return sorted(
        (p for p in parts if isinstance(p, Polygon) and p.area > 5e10),
        key=lambda p: (-p.area, p.bounds),
    )


def stitch_places(view: BoardView, sides: dict[str, Side]) -> list[tuple[int, int]]:
    """Where vias join both pours: spread over the board, and in every piece that holds no ground yet."""
    rules = view.rules
    both = shapely.intersection(sides[NEAR].poured, sides[FAR].poured).buffer(
        -(rules.via_nm / 2 + 20_000)
    )
    closed = [polygon_of(c.shape, rules.via_nm / 2 + 60_000, 8) for c in view.pads]
    closed += [
        Point(h.x, h.y).buffer(h.d / 2 + rules.via_nm / 2 + rules.hole_gap_nm) for h in view.holes
    ]
    free = both.difference(shapely.union_all(closed))
    shapely.prepare(free)
    left, bottom, right, top = view.outline.bounds
    xs, ys = np.meshgrid(np.arange(left, right, SEARCH_NM), np.arange(bottom, top, SEARCH_NM))
    good = shapely.contains_xy(free, xs.ravel(), ys.ravel())
    points = [(int(x), int(y)) for x, y in zip(xs.ravel()[good], ys.ravel()[good], strict=True)]
    taken: list[tuple[int, int]] = []
    grounded = ground_copper(view)
    for side in sides.values():
        for piece in polygons(side.poured):
            if not touches(piece, grounded[side.name]):
                taken += first_inside(piece, points, taken, rules.via_nm * 2)
    for point in points:
        if spaced(point, taken, STITCH_EVERY_NM):
            taken.append(point)
    return taken


def first_inside(
    piece: Polygon, points: list[tuple[int, int]], taken: list[tuple[int, int]], apart_nm: float
) -> list[tuple[int, int]]:
    """The first of the points that lies in a piece and keeps its distance, as a list of one or none."""
    if not points:
        return []
    inside = shapely.contains_xy(piece, np.array(points))
    return [
        p for p, good in zip(points, inside, strict=True) if good and spaced(p, taken, apart_nm)
    ][:1]


def spaced(point: tuple[int, int], taken: list[tuple[int, int]], apart_nm: float) -> bool:
    """Whether a point keeps its distance from all taken ones."""
    return all((point[0] - x) ** 2 + (point[1] - y) ** 2 >= apart_nm**2 for x, y in taken)


def ground_copper(view: BoardView) -> dict[str, shapely.STRtree]:
    """The ground copper of each side, ready to be asked what touches it."""
    copper = [c for c in (*view.pads, *view.wiring) if c.net == GROUND]
    return {
        name: shapely.STRtree([polygon_of(c.shape) for c in copper if name in c.sides])
        for name in (NEAR, FAR)
    }


def touches(piece: Polygon, copper: shapely.STRtree) -> bool:
    """Whether a piece touches any of the copper."""
    return bool(len(copper.query(piece, predicate="intersects")))


def kept_pieces(
    sides: dict[str, Side], grounded: dict[str, shapely.STRtree], stitches: list[tuple[int, int]]
) -> tuple[PourPiece, ...]:
    """Pieces that touch ground copper or a stitch; the rest would float and is left out."""
    kept = []
    for side in sides.values():
        for piece in polygons(side.poured):
            if touches(piece, grounded[side.name]) or any(
                piece.contains(Point(p)) for p in stitches
            ):
                kept.append(
                    PourPiece(
                        far=side.name == FAR,
                        outer=ring(piece.exterior),
                        holes=tuple(ring(r) for r in piece.interiors),
                    )
                )
    return tuple(kept)


def ring(line: BaseGeometry) -> Ring:
    """A closed line as whole nanometres without its repeated last point, thinned by 1 micrometre at most."""
    points = [(round(x), round(y)) for x, y in line.simplify(1_000).coords][:-1]
    return tuple(dict.fromkeys(points))
