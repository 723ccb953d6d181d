"""Pouring ground on both sides: what is left of the board around everything else, in one island;
and areas of other nets, which go before it.
"""

from dataclasses import dataclass
from itertools import product
from math import atan2, degrees, hypot

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import MultiPolygon, Point, Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.areas import area_of, areas_of, drawn_area
from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.board.islands import held_by_pads, joined
from loquet.core.board.model import Pour, PourPiece, Ring, Via
from loquet.core.board.tear_drops import tear_drops
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Bar, Box, Round, Shape, middle_of, polygons_of, turned
from loquet.core.provenance import Source, Working, given

CURVE_NM = 5_000
RELIEF_NM = 200_000
SPOKE_NM = 300_000
THINNEST_NM = 200_000
STITCH_EVERY_NM = 8_000_000
SEARCH_NM = 500_000
TOUCH_NM, COARSE_NM = 60_000, 20_000
CORNERS = 3
THINNED_NM = 1_000


@dataclass(frozen=True)
class Side:
    """One side while pouring: the area that is allowed, and what is poured so far."""

    name: str
    allowed: BaseGeometry
    poured: BaseGeometry


def pour_ground(view: BoardView) -> Pour:
    """Areas of other nets, then ground on both sides, floating pieces stitched or left out, and
    stitches spread over the board.
    """
    areas = pour_areas(view)
    sides = {name: pour_side(view, name, areas) for name in (NEAR, FAR)}
    stitches = stitch_places(view, sides)
    vias = tuple(Via(net=GROUND, x_nm=x, y_nm=y) for x, y in stitches)
    pieces, vias, islands = held_by_pads(view, all_pieces(sides), vias)
    poured, board = sum(area.area for area in areas_of(pieces)), view.outline.area
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
    return Pour(
        net=GROUND, pieces=pieces, stitches=vias, islands=islands, areas=areas, workings=(working,)
    )


def pour_areas(view: BoardView) -> tuple[PourPiece, ...]:
    """The areas that a person asked for, one after the other, each round what was poured before it;
    pieces that meet nothing of their net are left out. Then tear-drops, where they are wanted.
    """
    found: list[PourPiece] = []
    for area in view.pour_choice.areas:
        name = FAR if area.far else NEAR
        poured = pour_side(view, name, tuple(found), area.net, drawn_area(area)).poured
        own = [c.shape for c in (*view.pads, *view.wiring) if name in c.sides and c.net == area.net]
        joined_to = [area_of(p) for p in found if p.net == area.net and p.far == area.far]
        tree = shapely.STRtree([*polygons_of(own), *joined_to])
        found += [
            thinned(piece, area.far).model_copy(update={"net": area.net})
            for piece in polygons(poured)
            if len(tree.query(piece, predicate="intersects"))
        ]
    areas = tuple(piece for piece in found if len(piece.outer) >= CORNERS)
    return (*areas, *tear_drops(view, areas)) if view.pour_choice.tear_drops else areas


def pour_side(
    view: BoardView,
    name: str,
    before: tuple[PourPiece, ...] = (),
    net: str = GROUND,
    within: BaseGeometry | None = None,
) -> Side:
    """The board's area on one side, or what of it lies `within` another, less all copper of other
    nets and what was poured before with their gap, with heat relief at pads of the net.
    """
    rules = view.rules
    base: BaseGeometry = view.wiring_area.buffer(-(rules.edge_nm + CURVE_NM))
    base = base if within is None else base.intersection(within)
    foreign = [c for c in (*view.obstacles, *view.wiring) if name in c.sides and c.net != net]
    away = [
        Point(h.x, h.y).buffer(h.keep_nm + CURVE_NM, quad_segs=32)
        for h in view.holes
        if not h.plated
    ]
    for segments in (8, 32):
        some = [c for c in foreign if segments_of(c) == segments]
        reach = [max(c.bare_nm, rules.drawn_gap_nm) + CURVE_NM for c in some]
        away += polygons_of([c.shape for c in some], reach, segments).tolist()
    away += [
        area_of(piece).buffer(rules.drawn_gap_nm + CURVE_NM, quad_segs=8)
        for piece in before
        if piece.net != net and piece.far == (name == FAR)
    ]
    allowed = base.difference(shapely.union_all(away))
    solder = [c for c in view.pads if name in c.sides and c.net == net and relieved(c)]
    return Side(name, allowed, with_relief(allowed, [c.shape for c in solder]))


def with_relief(allowed: BaseGeometry, soldered: list[Shape]) -> BaseGeometry:
    """What is poured of an area where these pads of its own net hang on spokes; neither the pour
    nor a spoke is thinner than can be etched.
    """
    relief = shapely.union_all(polygons_of(soldered, RELIEF_NM, 8))
    spokes = shapely.union_all(polygons_of([bar for shape in soldered for bar in spokes_of(shape)]))
    opened = opening(allowed.difference(relief))
    whole = opening(shapely.intersection(spokes, allowed), THINNEST_NM * 0.9)
    return shapely.union(opened, whole)


def segments_of(copper: Copper) -> int:
    """Segments a quarter of a circle: arcs lie inside their circle by R (1 - cos(pi / 4 n)), which
    must stay below `CURVE_NM` for large pads too.
    """
    return 32 if isinstance(copper.shape, Round) and copper.shape.d > 1_200_000 else 8


def relieved(pad: Copper) -> bool:
    """Pads that are soldered get heat relief; an exposed pad and its heat holes are joined in
    full.
    """
    return not pad.in_full


def spokes_of(shape: Shape) -> tuple[Bar, ...]:
    """Two crossing strokes over a pad that reach into the pour around it, along its own sides."""
    match shape:
        case Round():
            w, h, turn = shape.d, shape.d, 0
        case Box():
            w, h, turn = shape.w, shape.h, shape.turn
        case Bar():
            dx, dy = shape.x2 - shape.x1, shape.y2 - shape.y1
            w, h = round(hypot(dx, dy)) + shape.w, shape.w
            turn = round(degrees(atan2(dy, dx)))
    reach = RELIEF_NM + SPOKE_NM // 2
    ends = (turned(w // 2 + reach, 0, turn), turned(0, h // 2 + reach, turn))
    x, y = middle_of(shape)
    across, up = (Bar(x - dx, y - dy, x + dx, y + dy, SPOKE_NM) for dx, dy in ends)
    return across, up


def opening(area: BaseGeometry, thinnest_nm: float = THINNEST_NM) -> BaseGeometry:
    """The area without anything thinner than the least width."""
    half = thinnest_nm / 2
    return area.buffer(-half, quad_segs=4).buffer(half * 0.99, quad_segs=4)


def polygons(area: BaseGeometry) -> list[Polygon]:
    """The polygons of an area, the largest first; slivers under 0.05 square millimetres are left
    out.
    """
    parts = list(area.geoms) if isinstance(area, MultiPolygon) else [area]
    return sorted(
        (p for p in parts if isinstance(p, Polygon) and p.area > 5e10),
        key=lambda p: (-p.area, p.bounds),
    )


def stitch_places(view: BoardView, sides: dict[str, Side]) -> list[tuple[int, int]]:
    """Where vias join both pours: in every overlap of two pieces that nothing else joins, then
    spread over the board.
    """
    near, far = (polygons(sides[name].poured) for name in (NEAR, FAR))
    copper = [c for c in (*view.pads, *view.wiring) if c.net == GROUND]
    groups = joined(copper, [*((p, NEAR) for p in near), *((p, FAR) for p in far)])
    free = Free(view, sides, near, far)
    for a, b in free.overlaps():
        one, two = len(copper) + a, len(copper) + len(near) + b
        if groups.find(one) != groups.find(two) and free.take_in(a, b):
            groups.join(one, two)
    held = [i for i, c in enumerate(copper) if c.ref]
    for a, b in product(range(len(near)), range(len(far))):
        one, two = len(copper) + a, len(copper) + len(near) + b
        heads = {groups.find(i) for i in held}
        ends = {groups.find(one), groups.find(two)}
        if len(ends) == 2 and ends <= heads and free.squeeze(near[a], far[b]):
            groups.join(one, two)
    free.spread(STITCH_EVERY_NM)
    return free.taken


class Free:
    """Places on a lattice where a stitch may stand, and those that are taken."""

    def __init__(
        self, view: BoardView, sides: dict[str, Side], near: list[Polygon], far: list[Polygon]
    ) -> None:
        rules = view.rules
        inset = rules.via_nm / 2 + 20_000
        left, bottom, right, top = view.outline.bounds
        xs, ys = np.meshgrid(np.arange(left, right, SEARCH_NM), np.arange(bottom, top, SEARCH_NM))
        self.spots = np.stack([xs.ravel(), ys.ravel()], axis=1).astype(np.int64)
        self.pieces = np.zeros((len(self.spots), 2), dtype=np.int64)
        for side, pieces in enumerate((near, far)):
            self.settle(side, pieces, inset)
        self.half_nm = rules.via_nm / 2
        self.allowed = {name: side.allowed for name, side in sides.items()}
        closed: list[BaseGeometry] = polygons_of(
            [c.shape for c in view.pads], rules.via_nm / 2 + 60_000, 8
        ).tolist()
        closed += [
            Point(h.x, h.y).buffer(h.d / 2 + rules.via_nm / 2 + rules.hole_gap_nm)
            for h in view.holes
        ]
        points = shapely.points(self.spots)
        self.closed = shapely.STRtree(np.array(closed, dtype=object))
        blocked, _ = self.closed.query(points, predicate="within")
        kept = np.setdiff1d(np.arange(len(self.spots)), blocked)
        self.spots, self.pieces = self.spots[kept], self.pieces[kept]
        self.apart_nm = 2 * rules.via_nm
        self.taken: list[tuple[int, int]] = []
        self.clear = np.ones(len(self.spots), dtype=np.bool_)

    def settle(self, side: int, pieces: list[Polygon], inset_nm: float) -> None:
        """Keep the places that lie well inside a piece of a side, with the number of that piece."""
        found = np.full(len(self.spots), -1)
        for index, piece in enumerate(pieces):
            thin = piece.simplify(COARSE_NM, preserve_topology=False)
            inner = thin.buffer(-inset_nm - COARSE_NM, quad_segs=2)
            if inner.is_empty:
                continue
            shapely.prepare(inner)
            low, high = np.array(inner.bounds[:2]), np.array(inner.bounds[2:])
            here = np.flatnonzero(((self.spots >= low) & (self.spots <= high)).all(axis=1))
            found[here[shapely.contains_xy(inner, self.spots[here])]] = index
        kept = found >= 0
        self.spots, self.pieces = self.spots[kept], self.pieces[kept]
        self.pieces[:, side] = found[kept]

    def overlaps(self) -> list[tuple[int, int]]:
        """Pairs of a near and a far piece that share places, those that share most first."""
        pairs, counts = np.unique(self.pieces, axis=0, return_counts=True)
        order = np.argsort(-counts, kind="stable")
        return [(int(a), int(b)) for a, b in pairs[order]]

    def take_in(self, near: int, far: int) -> bool:
        """Take a place in this near and this far piece; whether there was one."""
        return self.take((self.pieces[:, 0] == near) & (self.pieces[:, 1] == far))

    def far_from_taken(self, apart_nm: float) -> NDArray[np.bool_]:
        """Which of the places keep a distance from all that are taken."""
        clear = np.ones(len(self.spots), dtype=np.bool_)
        for place in self.taken:
            clear &= self.far_from(place, apart_nm)
        return clear

    def far_from(self, place: tuple[int, int], apart_nm: float) -> NDArray[np.bool_]:
        """Which of the places keep a distance from one."""
        dx, dy = self.spots[:, 0] - place[0], self.spots[:, 1] - place[1]
        far: NDArray[np.bool_] = dx * dx + dy * dy >= apart_nm**2
        return far

    def take(self, where: NDArray[np.bool_]) -> bool:
        """Take the first of these places that keeps its distance; whether there was one."""
        good = np.flatnonzero(where & self.clear)
        if len(good):
            x, y = self.spots[good[0]].tolist()
            self.add((x, y))
        return bool(len(good))

    def add(self, place: tuple[int, int]) -> None:
        """A stitch stands there; places too near to it are clear no longer."""
        self.taken.append(place)
        self.clear &= self.far_from(place, self.apart_nm)

    def squeeze(self, near: Polygon, far: Polygon) -> bool:
        """Take a place off the lattice where two pieces overlap, if there is any; whether there was
        one.
        """
        overlap = near.intersection(far).buffer(-TOUCH_NM)
        if overlap.is_empty:
            return False
        around = overlap.buffer(2 * self.half_nm).bounds
        near_room, far_room = (
            shapely.clip_by_rect(self.allowed[name], *around) for name in (NEAR, FAR)
        )
        room = near_room.intersection(far_room).buffer(-self.half_nm).intersection(overlap)
        closed = [self.closed.geometries[i] for i in self.closed.query(room)]
        closed += [Point(x, y).buffer(self.apart_nm) for x, y in self.taken]
        room = room.difference(shapely.union_all(closed)).buffer(-2_000)
        if room.is_empty:
            return False
        spot = room.representative_point()
        self.add((round(spot.x), round(spot.y)))
        return True

    def spread(self, every_nm: float) -> None:
        """Take places in order, each so far from all others."""
        clear = self.far_from_taken(every_nm)
        while clear.any():
            x, y = self.spots[int(np.argmax(clear))].tolist()
            self.taken.append((x, y))
            clear &= self.far_from((x, y), every_nm)


def all_pieces(sides: dict[str, Side]) -> tuple[PourPiece, ...]:
    """All poured pieces, those that float as well."""
    pieces = (
        thinned(piece, side.name == FAR)
        for side in sides.values()
        for piece in polygons(side.poured)
    )
    return tuple(piece for piece in pieces if len(piece.outer) >= CORNERS)


def thinned(piece: Polygon, far: bool) -> PourPiece:
    """A piece in whole nanometres with fewer corners: thinned line by line, or all together where
    lines would cross then.
    """
    found = pour_piece(piece, far, quick=True)
    if len(found.outer) < CORNERS:
        return found
    return found if area_of(found).is_valid else pour_piece(piece, far, quick=False)


def pour_piece(piece: Polygon, far: bool, quick: bool) -> PourPiece:
    """A piece with its lines thinned; a hole that is a slit of less than a micrometre after that is
    none.
    """
    outer, *holes = (ring(line, quick) for line in (piece.exterior, *piece.interiors))
    return PourPiece(far=far, outer=outer, holes=tuple(h for h in holes if len(h) >= CORNERS))


def ring(line: BaseGeometry, quick: bool) -> Ring:
    """A closed line as whole nanometres without its repeated last point, thinned by 1 micrometre at
    most; `quick` does not look whether it crosses itself then.
    """
    thin = line.simplify(THINNED_NM, preserve_topology=not quick)
    points = np.rint(shapely.get_coordinates(thin)).astype(np.int64).tolist()[:-1]
    return tuple(dict.fromkeys((x, y) for x, y in points))
