"""The grid: which cells each net may use for each width, worked out from pads, holes and the board's edge."""

from dataclasses import dataclass, field
from math import sqrt

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, Copper, Hole
from loquet.core.board.rules import BoardRules
from loquet.core.geometry import Bar, Box, Round, Shape, core_of, radius_of
from loquet.core.routing.kernels import BLOCKED, FREE, mark_box

CELL_NM = 100_000
MARGIN_NM = 11_000
BLOCK = 16
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
    """FREE inside the inset area and BLOCKED outside, for both sides; whole blocks of cells first, single cells only along the edge."""
    inset = area.buffer(-inset_nm)
    shapely.prepare(inset)
    inside = np.zeros((rows, columns), dtype=np.bool_)
    lefts, bottoms = (
        axis.ravel()
        for axis in np.meshgrid(np.arange(0, columns, BLOCK), np.arange(0, rows, BLOCK))
    )
    blocks = shapely.box(
        lefts * CELL_NM,
        bottoms * CELL_NM,
        (lefts + BLOCK) * CELL_NM,
        (bottoms + BLOCK) * CELL_NM,
    )
    whole, touched = shapely.contains(inset, blocks), shapely.intersects(inset, blocks)
    for left, bottom, full in zip(lefts[touched], bottoms[touched], whole[touched], strict=True):
        part = inside[bottom : bottom + BLOCK, left : left + BLOCK]
        if full:
            part[:] = True
            continue
        xs, ys = np.meshgrid(
            np.arange(left, left + part.shape[1]), np.arange(bottom, bottom + part.shape[0])
        )
        part[:] = shapely.contains_xy(inset, xs * CELL_NM, ys * CELL_NM)
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
    """A pad keeps other nets away; vias stay off every pad, its own net's too, so that no solder runs down the hole."""
    net = net_numbers.get(pad.net, BLOCKED)
    if isinstance(pad.shape, Box) and pad.shape.turn:
        mark_turned(owner, pad, half, rules, (columns, rows), net)
        return
    box, radius = box_of(pad.shape)
    for side, name in enumerate((NEAR, FAR)):
        if name not in pad.sides:
            continue
        base = side * columns * rows
        for width in range(3):
            apart = max(rules.drawn_gap_nm, pad.bare_nm)
            reach = (radius + half[width] + apart + MARGIN_NM) / CELL_NM
            mark_box(owner[width], columns, rows, base, box, reach, net)
        mark_box(
            owner[VIA], columns, rows, base, box, (radius + half[VIA] + 50_000) / CELL_NM, BLOCKED
        )


def mark_turned(
    owner: list[NDArray[np.int16]],
    pad: Copper,
    half: tuple[int, int, int],
    rules: BoardRules,
    size: tuple[int, int],
    net: int,
) -> None:
    """A pad that is turned by other than quarters: exact distances from the middles of all cells near it."""
    columns, rows = size
    core = core_of(pad.shape)
    for side, name in enumerate((NEAR, FAR)):
        if name not in pad.sides:
            continue
        base = side * columns * rows
        for width in range(3):
            reach = half[width] + rules.drawn_gap_nm + MARGIN_NM
            mark_cells(owner[width], base + cells_near(core, reach, columns, rows), net)
        mark_cells(owner[VIA], base + cells_near(core, half[VIA] + 50_000, columns, rows), BLOCKED)


def mark_fast(grid: Grid, copper: Copper, rules: BoardRules, net_numbers: dict[str, int]) -> None:
    """A track or via that lies fast keeps other nets away; its own net may join it anywhere, and sets no second via beside a via."""
    net = net_numbers.get(copper.net, BLOCKED)
    core, radius = core_of(copper.shape), radius_of(copper.shape)
    for side, name in enumerate((NEAR, FAR)):
        if name not in copper.sides:
            continue
        base = side * grid.area
        for width in range(2):
            reach = radius + grid.half_nm[width] + rules.drawn_gap_nm + MARGIN_NM
            places = cells_near(core, reach, grid.columns, grid.rows)
            mark_cells(grid.owner[width], base + places, net)
    reach = radius + grid.half_nm[VIA] + rules.drawn_gap_nm + MARGIN_NM
    places = cells_near(core, reach, grid.columns, grid.rows)
    mark_cells(grid.owner_via, places, BLOCKED if copper.drill_nm else net)


def cells_near(core: BaseGeometry, reach_nm: float, columns: int, rows: int) -> NDArray[np.int64]:
    """Cells of one side whose middle is nearer to a core than `reach_nm`."""
    left, bottom, right, top = core.bounds
    xs = np.arange(
        max(0, int((left - reach_nm) // CELL_NM)),
        min(columns, int((right + reach_nm) // CELL_NM) + 2),
    )
    ys = np.arange(
        max(0, int((bottom - reach_nm) // CELL_NM)), min(rows, int((top + reach_nm) // CELL_NM) + 2)
    )
    grid_x, grid_y = (axis.ravel() for axis in np.meshgrid(xs, ys))
    away = shapely.distance(core, shapely.points(grid_x * CELL_NM, grid_y * CELL_NM))
    close: NDArray[np.int64] = (grid_y * columns + grid_x)[away < reach_nm]
    return close


def mark_cells(owner: NDArray[np.int16], cells: NDArray[np.int64], net: int) -> None:
    """Free cells become the net's; cells of another one are blocked."""
    now = owner[cells]
    owner[cells] = np.where((now == FREE) | (now == net), net, BLOCKED)


def mark_hole(
    owner: list[NDArray[np.int16]], hole: Hole, half: tuple[int, int, int], columns: int, rows: int
) -> None:
    """An unplated hole keeps all copper away, on both sides."""
    box, _ = box_of(Round(hole.x, hole.y, hole.d))
    for side in range(2):
        for width in range(3):
            reach = (hole.keep_nm + half[width] + MARGIN_NM) / CELL_NM
            mark_box(owner[width], columns, rows, side * columns * rows, box, reach, BLOCKED)


def both_sides(owner: NDArray[np.int16], area: int) -> NDArray[np.int16]:
    """One map for vias: a net only where both sides agree."""
    near, far = owner[:area], owner[area:]
    return np.where(
        near == far, near, np.where(near == FREE, far, np.where(far == FREE, near, BLOCKED))
    ).astype(np.int16)


def box_of(shape: Shape) -> tuple[NDArray[np.float64], float]:
    """A pad as box core (in cells) and radius (in nm)."""
    match shape:
        case Round():
            return np.array([shape.x, shape.y, 0, 0]) / CELL_NM, shape.d / 2
        case Box():
            return np.array([shape.x, shape.y, shape.w / 2, shape.h / 2]) / CELL_NM, 0.0
        case Bar():
            middle = ((shape.x1 + shape.x2) / 2, (shape.y1 + shape.y2) / 2)
            halves = (abs(shape.x2 - shape.x1) / 2, abs(shape.y2 - shape.y1) / 2)
            return np.array([*middle, *halves]) / CELL_NM, shape.w / 2


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
