"""The grid: which cells each net may use for each width, worked out from pads, holes and the
board's edge.
"""

from dataclasses import dataclass, field
from math import cos, hypot, radians, sin, sqrt

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, Copper, Hole
from loquet.core.board.rules import BoardRules
from loquet.core.geometry import Bar, Box, Round, Shape, radius_of
from loquet.core.routing.kernels import BLOCKED, FREE, near_box

CELL_NM = 100_000
MARGIN_NM = 11_000
BLOCK = 16
VIA_GAP_NM = 50_000
"""From a pad to a via of its own net, so that no solder runs down the hole; common practice, no
source.
"""
SIGNAL, SUPPLY, VIA = 0, 1, 2


@dataclass
class Grid:
    """Owner and occupancy maps for the two track widths and for vias, over both sides."""

    columns: int
    rows: int
    half_nm: tuple[int, int, int]
    gap_nm: int
    owner: list[NDArray[np.int16]]
    owner_via: NDArray[np.int16]
    occupied: list[NDArray[np.int16]]
    history: NDArray[np.float32]
    shy: NDArray[np.float32]
    discs: dict[tuple[int, int], tuple[NDArray[np.int32], NDArray[np.int32]]] = field(
        default_factory=dict
    )

    @property
    def area(self) -> int:
        """Cells of one side."""
        return self.columns * self.rows

    def place_nm(self, node: int) -> tuple[int, int]:
        """The middle of a node's cell in nm."""
        place = node % self.area
        return (place % self.columns) * CELL_NM, (place // self.columns) * CELL_NM


def build_grid(
    outline: Polygon,
    area: BaseGeometry,
    pads: tuple[Copper, ...],
    holes: tuple[Hole, ...],
    net_numbers: dict[str, int],
    rules: BoardRules,
) -> Grid:
    """The grid of a board before any track; wiring keeps to the `area`."""
    _, _, right, top = outline.bounds
    columns, rows = int(right // CELL_NM) + 1, int(top // CELL_NM) + 1
    half = (rules.signal_width_nm // 2, rules.supply_width_nm // 2, rules.via_nm // 2)
    cells = columns * rows
    owner = [edge_map(area, columns, rows, rules.edge_nm + half[c] + MARGIN_NM) for c in range(3)]
    for pad in pads:
        mark_pad(owner, pad, half, rules, columns, rows, net_numbers)
    for hole in holes:
        if not hole.plated:
            mark_hole(owner, hole, half, columns, rows)
    grid = Grid(
        columns,
        rows,
        half,
        rules.drawn_gap_nm,
        owner,
        both_sides(owner[VIA], cells),
        [np.zeros(2 * cells, dtype=np.int16) for _ in range(3)],
        np.zeros(2 * cells, dtype=np.float32),
        np.zeros(2 * cells, dtype=np.float32),
    )
    for a in range(3):
        for b in range(3):
            grid.discs[a, b] = disc(half[a] + half[b] + grid.gap_nm)
    return grid


def edge_map(area: BaseGeometry, columns: int, rows: int, inset_nm: int) -> NDArray[np.int16]:
    """FREE inside the inset area and BLOCKED outside, for both sides; whole blocks of cells first,
    single cells only along the edge.
    """
    inset = area.buffer(-inset_nm)
    shapely.prepare(inset)
    across, up = np.arange(0, columns, BLOCK), np.arange(0, rows, BLOCK)
    lefts, bottoms = (axis.ravel() for axis in np.meshgrid(across, up))
    corners = (lefts, bottoms, lefts + BLOCK, bottoms + BLOCK)
    blocks = shapely.box(*(cells * CELL_NM for cells in corners))
    whole, touched = shapely.contains(inset, blocks), shapely.intersects(inset, blocks)
    full = whole.reshape(len(up), len(across)).repeat(BLOCK, axis=0).repeat(BLOCK, axis=1)
    inside = full[:rows, :columns].copy()
    partly, steps = touched & ~whole, np.arange(BLOCK)
    xs = lefts[partly][:, None, None] + steps
    ys = bottoms[partly][:, None, None] + steps[:, None]
    xs, ys = np.broadcast_arrays(xs, ys)
    on = (xs < columns) & (ys < rows)
    inside[ys[on], xs[on]] = shapely.contains_xy(inset, xs[on] * CELL_NM, ys[on] * CELL_NM)
    side = np.where(inside.ravel(), FREE, BLOCKED).astype(np.int16)
    return np.concatenate([side, side])


def mark_pad(
    owner: list[NDArray[np.int16]],
    pad: Copper,
    half: tuple[int, int, int],
    rules: BoardRules,
    columns: int,
    rows: int,
    net_numbers: dict[str, int],
) -> None:
    """A pad keeps other nets away; vias stay off every pad, its own net's too, so that no solder
    runs down the hole.
    """
    net, radius = net_numbers.get(pad.net, BLOCKED), radius_of(pad.shape)
    for side, name in enumerate((NEAR, FAR)):
        if name not in pad.sides:
            continue
        base = side * columns * rows
        for width in range(3):
            reach = radius + half[width] + max(rules.drawn_gap_nm, pad.bare_nm) + MARGIN_NM
            mark_cells(owner[width], base + cells_near(pad.shape, reach, columns, rows), net)
        over = cells_near(pad.shape, radius + half[VIA] + VIA_GAP_NM, columns, rows)
        mark_cells(owner[VIA], base + over, BLOCKED)


def mark_fast(grid: Grid, copper: Copper, rules: BoardRules, net_numbers: dict[str, int]) -> None:
    """A track or via that lies fast keeps other nets away; its own net may join it anywhere, and
    sets no second via beside a via.
    """
    net, radius = net_numbers.get(copper.net, BLOCKED), radius_of(copper.shape)
    for side, name in enumerate((NEAR, FAR)):
        if name not in copper.sides:
            continue
        base = side * grid.area
        for width in range(2):
            reach = radius + grid.half_nm[width] + rules.drawn_gap_nm + MARGIN_NM
            places = cells_near(copper.shape, reach, grid.columns, grid.rows)
            mark_cells(grid.owner[width], base + places, net)
    reach = radius + grid.half_nm[VIA] + rules.drawn_gap_nm + MARGIN_NM
    places = cells_near(copper.shape, reach, grid.columns, grid.rows)
    mark_cells(grid.owner_via, places, BLOCKED if copper.drill_nm else net)


def cells_near(shape: Shape, reach_nm: float, columns: int, rows: int) -> NDArray[np.int64]:
    """Cells of one side whose middle is nearer than `reach_nm` to the core of a shape."""
    close: NDArray[np.int64] = near_box(core_box(shape), reach_nm / CELL_NM, columns, rows)
    return close


def mark_cells(owner: NDArray[np.int16], cells: NDArray[np.int64], net: int) -> None:
    """Free cells become the net's; cells of another one are blocked."""
    now = owner[cells]
    owner[cells] = np.where((now == FREE) | (now == net), net, BLOCKED)


def mark_hole(
    owner: list[NDArray[np.int16]], hole: Hole, half: tuple[int, int, int], columns: int, rows: int
) -> None:
    """An unplated hole keeps all copper away, on both sides."""
    for side in range(2):
        for width in range(3):
            reach = hole.keep_nm + half[width] + MARGIN_NM
            kept = cells_near(Round(hole.x, hole.y, hole.d), reach, columns, rows)
            mark_cells(owner[width], side * columns * rows + kept, BLOCKED)


def both_sides(owner: NDArray[np.int16], area: int) -> NDArray[np.int16]:
    """One map for vias: a net only where both sides agree."""
    near, far = owner[:area], owner[area:]
    return np.where(
        near == far, near, np.where(near == FREE, far, np.where(far == FREE, near, BLOCKED))
    ).astype(np.int16)


def core_box(shape: Shape) -> NDArray[np.float64]:
    """The core of a shape as a turned box: its middle and half its sides in cells, cosine and sine
    of its turn.
    """
    middle: tuple[float, float]
    turned = (1.0, 0.0)
    match shape:
        case Round():
            middle, halves = (shape.x, shape.y), (0.0, 0.0)
        case Box():
            middle, halves = (shape.x, shape.y), (shape.w / 2, shape.h / 2)
            turned = (cos(radians(shape.turn)), sin(radians(shape.turn)))
        case Bar():
            middle = ((shape.x1 + shape.x2) / 2, (shape.y1 + shape.y2) / 2)
            along, up = shape.x2 - shape.x1, shape.y2 - shape.y1
            long = hypot(along, up)
            halves = (long / 2, 0.0)
            turned = (along / long, up / long) if long else turned
    return np.array([*(value / CELL_NM for value in (*middle, *halves)), *turned])


def disc(reach_nm: int) -> tuple[NDArray[np.int32], NDArray[np.int32]]:
    """Cells nearer than `reach`, with the half diagonal step that slanting neighbours can lose."""
    reach = sqrt(reach_nm**2 + (0.7072 * CELL_NM) ** 2) / CELL_NM
    span = int(reach) + 1
    cells = [
        (x, y)
        for y in range(-span, span + 1)
        for x in range(-span, span + 1)
        if x * x + y * y < reach * reach - 1e-9
    ]
    return np.array([c[0] for c in cells], dtype=np.int32), np.array(
        [c[1] for c in cells], dtype=np.int32
    )
