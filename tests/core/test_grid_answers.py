"""The router's maps, cell by cell, against distances of shapely; windows, via spacing and
negotiation on boards known by hand.
"""

from itertools import product

import numpy as np
import pytest
import shapely
from shapely.geometry import box

from loquet.core.board import Routing, Track, Via, Wires
from loquet.core.board.copper import FAR, NEAR, Copper, Hole
from loquet.core.geometry import Bar, Box, Round, core_of, radius_of
from loquet.core.library import Library
from loquet.core.routing.grid import CELL_NM, SIGNAL, SUPPLY, VIA
from loquet.core.routing.kernels import BLOCKED, FREE, keep_apart, least_apart, stamp
from loquet.core.routing.plane_drops import via_fits
from loquet.core.routing.router import Router
from loquet.core.routing.surroundings import Surroundings
from loquet.core.routing.terminals import middle_part, nodes_along, terminal_nodes
from loquet.core.routing.tightening import better
from tests.core.small_grids import HIGH, MM, WIDE, given, nm, pad

MARGIN = 11_000

PADS = (
    pad("A", Box(*nm(3, 3, 1.2, 0.6))),
    pad("B", Round(*nm(5.03, 4, 1.5)), (NEAR, FAR)),
    pad("", Bar(*nm(8, 2, 8, 3.4, 0.8)), (FAR,)),
    pad("A", Box(*nm(6, 7, 1.4, 0.5), 30)),
    pad("B", Round(*nm(10, 7, 1.0)), bare_nm=500_000),
)
HOLE = Hole(*nm(10.5, 3), MM, False, "", "post", 1_300_000)
DRAWN = Wires(
    tracks=(
        Track(
            net="A",
            far=True,
            x1_nm=2 * MM,
            y1_nm=6 * MM,
            x2_nm=4 * MM,
            y2_nm=7_500_000,
            width_nm=300_000,
        ),
    ),
    vias=(Via(net="B", x_nm=8 * MM, y_nm=7 * MM),),
)


def expected(side: str, width: int, half: int, router: Router) -> np.ndarray:
    """Who owns each cell: nobody, the one net that is near, or none where several are, or where
    something of no net is.
    """
    rules = router.given.rules
    xs, ys = np.meshgrid(np.arange(router.grid.columns), np.arange(router.grid.rows))
    spots = shapely.points(xs.ravel() * CELL_NM, ys.ravel() * CELL_NM)
    near: list[set[int]] = [set() for _ in spots]

    def claim(core: shapely.Geometry, reach: float, net: int) -> None:
        for index in np.flatnonzero(shapely.distance(core, spots) < reach):
            near[index].add(net)

    for one in (p for p in PADS if side in p.sides):
        net = router.numbers.get(one.net, BLOCKED)
        # a turned pad is measured with the usual gap; a fiducial with its own ring
        apart = max(rules.drawn_gap_nm, one.bare_nm)
        claim(core_of(one.shape), radius_of(one.shape) + half + apart + MARGIN, net)
        if width == VIA:
            claim(core_of(one.shape), radius_of(one.shape) + half + 50_000, BLOCKED)
    claim(shapely.Point(HOLE.x, HOLE.y), HOLE.keep_nm + half + MARGIN, BLOCKED)
    edge = box(0, 0, WIDE * MM, HIGH * MM).boundary
    claim(edge, rules.edge_nm + half + MARGIN, BLOCKED)
    if width != VIA:
        for copper in (
            Copper("A", (FAR,), Bar(*nm(2, 6, 4, 7.5, 0.3)), "track"),
            Copper("B", (NEAR, FAR), Round(*nm(8, 7), rules.via_nm), "via"),
        ):
            if side in copper.sides:
                reach = radius_of(copper.shape) + half + rules.drawn_gap_nm + MARGIN
                claim(core_of(copper.shape), reach, router.numbers[copper.net])
    return np.array(
        [FREE if not n else next(iter(n)) if len(n) == 1 else BLOCKED for n in near], dtype=np.int16
    )


@pytest.mark.parametrize(("side", "width"), list(product((NEAR, FAR), (SIGNAL, SUPPLY, VIA))))
def test_every_cell_has_its_owner(library: Library, side: str, width: int) -> None:
    """Boxes, discs, strokes and turned boxes, a fiducial with its bare ring, a screw, the edge, a
    track and a via by hand.
    """
    router = Router(given(library, *PADS, holes=(HOLE,), wires=DRAWN))
    grid = router.grid
    assert (grid.columns, grid.rows) == (121, 91)
    rules = router.given.rules
    half = (rules.signal_width_nm // 2, rules.supply_width_nm // 2, rules.via_nm // 2)[width]
    assert grid.half_nm[width] == half
    base = 0 if side == NEAR else grid.area
    found = grid.owner[width][base : base + grid.area]
    wanted = expected(side, width, half, router)
    wrong = np.flatnonzero(found != wanted)
    assert [(divmod(int(i), grid.columns), found[i], wanted[i]) for i in wrong[:5]] == []


def test_vias_may_stand_where_both_sides_agree(library: Library) -> None:
    """Free on one side and a net's on the other is the net's; two nets, or what is blocked, is
    nobody's; about what a person drew too.
    """
    router = Router(given(library, *PADS, holes=(HOLE,), wires=DRAWN))
    grid, rules = router.grid, router.given.rules
    reach = rules.via_nm / 2 + rules.drawn_gap_nm + MARGIN
    near, far = grid.owner[VIA][: grid.area], grid.owner[VIA][grid.area :]
    drawn = {
        "A": (core_of(Bar(*nm(2, 6, 4, 7.5, 0.3))), reach + 150_000, router.numbers["A"]),
        "via": (shapely.Point(*nm(8, 7)), reach + rules.via_nm / 2, BLOCKED),
    }
    for cell in range(0, grid.area, 7):
        x, y = cell % grid.columns * CELL_NM, cell // grid.columns * CELL_NM
        owners = {int(v) for v in (near[cell], far[cell]) if v != FREE}
        for core, most, net in drawn.values():
            if core.distance(shapely.Point(x, y)) < most:
                owners.add(net)
        wanted = FREE if not owners else owners.pop() if len(owners) == 1 else BLOCKED
        assert grid.owner_via[cell] == wanted, (x, y)


def test_tracks_begin_in_the_middle_part_of_a_pad(library: Library) -> None:
    """Of a pad of 1.2 x 0.6 mm at 3, 3 a track 0.2 mm wide may begin half a millimetre left and
    right and 0.2 above and below: 11 x 5 cells; of a disc of 1.5 mm within 0.7 of its radius less
    half a track.
    """
    router = Router(given(library, *PADS))
    grid = router.grid

    def cells(one: Copper, width: int) -> set[tuple[int, int, int]]:
        nodes = terminal_nodes(grid, [one], router.numbers[one.net], width).tolist()
        return {
            (n // grid.area, n % grid.area % grid.columns, n % grid.area // grid.columns)
            for n in nodes
        }

    assert cells(PADS[0], SIGNAL) == {(0, x, y) for x in range(25, 36) for y in range(28, 33)}
    assert cells(PADS[0], SUPPLY) == {(0, x, y) for x in range(26, 35) for y in range(29, 32)}
    reach = int((750_000 - 100_000) * 0.7)
    xs = [x for x in range(121) if abs(x * CELL_NM - 5_030_000) <= reach]
    ys = [y for y in range(91) if abs(y * CELL_NM - 4_000_000) <= reach]
    assert cells(PADS[1], SIGNAL) == {(side, x, y) for side in (0, 1) for x in xs for y in ys}
    corner = pad("A", Box(*nm(0, 0, 1, 1)))
    assert cells(corner, SIGNAL) == set()  # all of it lies too near the edge


def test_a_second_via_keeps_its_distance() -> None:
    """With a reach of 2.5 cells: the place itself is marked for use again, all within the circle
    are barred, those at 2.83 are not, a place marked already stays.
    """
    columns, rows = 12, 12
    marks = np.zeros(columns * rows, dtype=np.int32)
    marks[5 * columns + 6] = 7
    keep_apart(marks, 7, 5 * columns + 5, 2.5, columns, rows)
    sheet = marks.reshape(rows, columns)
    for y, x in product(range(rows), range(columns)):
        apart = (x - 5) ** 2 + (y - 5) ** 2
        wanted = 7 if (x, y) in ((5, 5), (6, 5)) else -7 if apart < 6.25 else 0
        assert sheet[y, x] == wanted, (x, y)
    edge = np.zeros(columns * rows, dtype=np.int32)
    keep_apart(edge, 3, 0, 1.5, columns, rows)
    assert sorted(np.flatnonzero(edge).tolist()) == [0, 1, columns, columns + 1]


def test_a_drop_keeps_its_distance_to_holes(library: Library) -> None:
    """Edge to edge 0.25 mm (the house): from the middle of a hole of 1 mm to that of a via of 0.3
    mm 0.5 + 0.15 + 0.25 = 0.9 mm; to the hole of another via 0.55 mm, so that their copper of 0.6
    mm is no nearer than the hole asks.
    """
    hole = Hole(*nm(6, 4, 1.0), plated=True, net="P", owner="x")
    asked = given(library, pad("P", Round(*nm(2, 2, 0.8))), holes=(hole,))
    around = Surroundings(asked, Routing(tracks=(), vias=()))
    other = [Via(net="P", x_nm=9 * MM, y_nm=4 * MM)]
    fits = [via_fits(asked, around, other, "P", *nm(x, 4)) for x in (6.89, 6.91, 8.46, 8.44)]
    assert fits == [False, True, False, True]


@pytest.mark.parametrize(
    ("shape", "reach"),
    [
        (Round(*nm(3, 2, 2)), (0.595, 0.595)),
        (Box(*nm(3, 2, 2, 1)), (0.85, 0.35)),
        (Box(*nm(3, 2, 2, 1), 30), (0.245, 0.245)),
        (Round(*nm(3, 2, 0.3)), (0.051, 0.051)),
        (Bar(*nm(2, 2, 4, 2, 0.4)), (0.051, 0.051)),
    ],
)
def test_how_far_from_its_middle_a_track_may_end_in_a_pad(
    shape: Round | Box | Bar, reach: tuple[float, float]
) -> None:
    """A track of 0.3 mm: half of the pad less 0.15 mm along each side of an upright one, seven
    tenths of that in a round one or along the shorter side of a turned one, half a step of the grid
    at least.
    """
    x, y, wide, high = middle_part(pad("A", shape), 150_000)
    assert (x, y) == nm(3, 2)
    assert (wide / MM, high / MM) == pytest.approx(reach, abs=0.001)


@pytest.mark.parametrize(
    ("old", "new", "wins"),
    [
        ([(0, 0), (10, 0)], [(0, 0), (9.9, 0)], True),
        ([(0, 0), (5, 0), (10, 0)], [(0, 0), (10, 0)], True),
        ([(0, 0), (10, 0)], [(0, 0), (5, 0), (10, 0)], False),
        ([(0, 0), (10, 0)], [(0, 0), (10, 0)], False),
        ([(0, 0), (5, 1), (10, 0)], [(0, 0), (5, 2), (10, 0)], False),
        ([(0, 0), (1, 1), (10, 0)], [(0, 0), (10, 4)], False),
    ],
)
def test_a_way_is_better_where_it_is_shorter_or_has_fewer_corners(
    old: list[tuple[float, float]], new: list[tuple[float, float]], wins: bool
) -> None:
    def scaled(points: list[tuple[float, float]]) -> list[tuple[int, int]]:
        return [(round(x * MM), round(y * MM)) for x, y in points]

    assert better(scaled(new), scaled(old)) is wins


def test_a_wire_that_lies_fast_gives_its_own_side_of_nodes(library: Library) -> None:
    """A level track from 2 to 4 mm at 3 mm, cells of 0.1 mm: the nodes of its line on its own side,
    of a via on both; the far side comes after all cells of the near one.
    """
    router = Router(given(library, *PADS))
    grid = router.grid
    row = [30 * grid.columns + column for column in range(20, 41)]
    for side, first in ((NEAR, 0), (FAR, grid.area)):
        track = Copper("A", (side,), Bar(*nm(2, 3, 4, 3, 0.3)), "track")
        assert sorted(nodes_along(grid, track)) == [first + place for place in row]
    beside = Copper("A", (NEAR,), Bar(*nm(2, 2.93, 4, 2.93, 0.3)), "track")  # 0.07 and 0.03 mm off
    assert sorted(nodes_along(grid, beside)) == [place - grid.columns for place in row]
    via = Copper("A", (NEAR, FAR), Round(*nm(2, 3, 0.6)), "via")
    assert sorted(nodes_along(grid, via)) == [row[0], grid.area + row[0]]


@pytest.mark.parametrize(
    ("place", "away"),
    [((10, 6), 5.0), ((0, 0), 7.0), ((3, 4), 0.0), ((11, 20), 12.0), ((12.5, 9), 0.5)],
)
def test_the_nearest_node_counts_rows_and_columns(place: tuple[float, float], away: float) -> None:
    """Nodes at column 3, row 4 and column 12, row 9 (on the far side): columns and rows apart,
    added up.
    """
    columns, area = 20, 400
    nodes = np.array([4 * columns + 3, area + 9 * columns + 12], dtype=np.int32)
    assert least_apart(nodes, *place, columns, area) == pytest.approx(away)


def test_a_stamp_stays_on_its_side_and_counts_each_cell_once() -> None:
    """On a grid of 4 x 3, two nodes in the lower left corner of the far side, each with the four
    cells beside it: three of the cells beside the corner and three beside the next are on the grid,
    two of them the same.
    """
    occupied, epoch = np.zeros(24, dtype=np.int16), np.zeros(24, dtype=np.int32)
    out = np.zeros(24, dtype=np.int32)
    dx, dy = np.array([0, 1, -1, 0, 0], dtype=np.int32), np.array([0, 0, 0, 1, -1], dtype=np.int32)
    count = stamp(occupied, epoch, 7, np.array([12, 13], dtype=np.int32), dx, dy, 4, 3, out)
    cells = {12, 13, 14, 16, 17}
    assert sorted(out[:count].tolist()) == sorted(cells)
    assert set(np.flatnonzero(occupied).tolist()) == cells
    assert occupied.max() == 1
    corner = np.array([23], dtype=np.int32)
    count = stamp(occupied, epoch, 8, corner, dx, dy, 4, 3, out)
    assert sorted(out[:count].tolist()) == [19, 22, 23]
