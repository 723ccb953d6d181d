"""The shortest way of a bundle of wires between the bodies of a device, on a grid of half a
millimetre in two storeys: before and behind the board.

A place is open where the bundle fits between what stands there and the wall. From one storey to the
other it passes where there is no board: in an opening, or in the gap about it.
"""

import heapq
from collections.abc import Sequence
from dataclasses import dataclass
from hashlib import sha256
from math import hypot
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import LineString, Point
from shapely.geometry.base import BaseGeometry

from loquet.core.plain.remembering import Remembered
from loquet.core.stack.model import Piece, Stack
from loquet.core.stack.section import hull

STEP_MM = 0.5
Spot = tuple[float, float]
Cell = tuple[int, int, int]
STEPS = tuple((i, j, hypot(i, j)) for i in (-1, 0, 1) for j in (-1, 0, 1) if i or j)


@dataclass(frozen=True)
class Way:
    """Where a bundle goes: legs by side (`far` or not) with their corners in mm, and how long the
    whole is in mm, with the thickness of the board for every time it passes it.
    """

    legs: tuple[tuple[bool, tuple[Spot, ...]], ...]
    long_mm: float


@dataclass(frozen=True)
class Storeys:
    """The grid: its lower left corner, which cells are open before (0) and behind (1) the board,
    which ones pass it; and the same as areas.
    """

    left: float
    bottom: float
    open_cells: NDArray[np.bool_]
    passing: NDArray[np.bool_]
    areas: tuple[BaseGeometry, BaseGeometry]
    gaps: BaseGeometry

    def cell(self, spot: Spot) -> tuple[int, int]:
        """The cell of a place."""
        return round((spot[0] - self.left) / STEP_MM), round((spot[1] - self.bottom) / STEP_MM)

    def spot(self, i: int, j: int) -> Spot:
        """The middle of a cell."""
        return self.left + i * STEP_MM, self.bottom + j * STEP_MM


WAYS: Remembered[Way | None] = Remembered(64)


def find_way(stack: Stack, piece: Piece, end: Spot, plug: Piece, bundle_mm: float) -> Way | None:
    """The shortest way from the end of a loose thing to its plug, or nothing where there is
    none.
    """
    goal = (plug.area.centroid.x, plug.area.centroid.y)
    tall = in_the_way(stack, (piece.name, plug.name), bundle_mm)
    asked = (piece.far, end, plug.far, goal, bundle_mm, stack.walls.board_mm)
    shapes = (stack.outline, hull(stack), *(body.area for body in tall))
    sides = "".join("-+"[body.far] for body in tall)
    name = f"{asked} {sides} {sha256(b''.join(s.wkb for s in shapes)).hexdigest()}"
    return WAYS.of((), lambda: way_between(stack, piece, end, plug, tall, bundle_mm), name)


def way_between(
    stack: Stack, piece: Piece, end: Spot, plug: Piece, tall: list[Piece], bundle_mm: float
) -> Way | None:
    """The shortest way past what stands too tall for the bundle."""
    storeys = storeys_of(stack, tall, bundle_mm)
    goal = (plug.area.centroid.x, plug.area.centroid.y)
    ends = ((int(piece.far), Point(end)), (int(plug.far), Point(goal)))
    if not joined(storeys.areas, storeys.gaps, *ends):
        return None
    path = search(
        storeys,
        (int(piece.far), *storeys.cell(end)),
        (int(plug.far), *storeys.cell(goal)),
        stack.walls.board_mm,
    )
    if path is None:
        return None
    legs = legs_of(storeys, path, end, goal)
    flat = sum(LineString(leg).length for _, leg in legs if len(leg) > 1)
    return Way(legs, flat + (len(legs) - 1) * stack.walls.board_mm)


def storeys_of(stack: Stack, tall: list[Piece], bundle_mm: float) -> Storeys:
    """Where a bundle fits beside what stands too tall for it."""
    inside = hull(stack).buffer(-bundle_mm / 2)
    closed = [[p.area.buffer(bundle_mm / 2) for p in tall if p.far is far] for far in (False, True)]
    areas = [inside.difference(shapely.union_all(bodies)) for bodies in closed]
    passing = inside.difference(stack.outline.buffer(bundle_mm / 2))
    left, bottom, right, top = hull(stack).bounds
    xs = np.arange(left, right + STEP_MM, STEP_MM)
    ys = np.arange(bottom, top + STEP_MM, STEP_MM)
    across, up = np.meshgrid(xs, ys, indexing="ij")
    for area in (inside, passing):
        shapely.prepare(area)
    within = np.asarray(shapely.intersects_xy(inside, across, up))
    return Storeys(
        left,
        bottom,
        np.stack([within & ~covered(bodies, xs, ys) for bodies in closed]),
        np.asarray(shapely.intersects_xy(passing, across, up)),
        (areas[0], areas[1]),
        passing,
    )


def covered(
    bodies: Sequence[BaseGeometry], xs: NDArray[Any], ys: NDArray[Any]
) -> NDArray[np.bool_]:
    """Which cells lie within a body; every body is looked for only where it is."""
    cells = np.zeros((len(xs), len(ys)), dtype=np.bool_)
    for body in bodies:
        left, bottom, right, top = body.bounds
        i, j = (
            slice(*np.searchsorted(xs, (left, right))),
            slice(*np.searchsorted(ys, (bottom, top))),
        )
        across, up = np.meshgrid(xs[i], ys[j], indexing="ij")
        cells[i, j] |= shapely.contains_xy(body, across, up)
    return cells


def in_the_way(stack: Stack, own: tuple[str, str], bundle_mm: float) -> list[Piece]:
    """Bodies over which the bundle does not fit under the wall; what it begins and ends at is not
    in its way.
    """
    walls = stack.walls
    return [
        p
        for p in stack.pieces
        if p.name not in own
        and p.sort != "wires"
        and (p.low_mm - walls.far_mm if p.far else walls.near_mm - p.high_mm) < bundle_mm
    ]


def joined(
    areas: tuple[BaseGeometry, BaseGeometry],
    gaps: BaseGeometry,
    start: tuple[int, Point],
    goal: tuple[int, Point],
) -> bool:
    """Whether two places hang together at all: by open areas of one side, and gaps between the
    sides.
    """
    parts = [(side, part) for side in (0, 1) for part in shapely.get_parts(areas[side])]
    passes = list(shapely.get_parts(gaps))
    reached = {
        n
        for n, (side, part) in enumerate(parts)
        if side == start[0] and part.distance(start[1]) <= STEP_MM
    }
    todo = list(reached)
    while todo:
        _, part = parts[todo.pop()]
        by = [gap for gap in passes if gap.intersects(part)]
        for n, (_, other) in enumerate(parts):
            if n not in reached and any(gap.intersects(other) for gap in by):
                reached.add(n)
                todo.append(n)
    return any(parts[n][0] == goal[0] and parts[n][1].distance(goal[1]) <= STEP_MM for n in reached)


def search(storeys: Storeys, start: Cell, goal: Cell, board_mm: float) -> list[Cell] | None:
    """The cheapest cells from start to goal (A*), or nothing."""
    size = storeys.passing.shape
    best: dict[Cell, float] = {start: 0.0}
    came: dict[Cell, Cell] = {}
    queue = [(0.0, start)]
    while queue:
        _, at = heapq.heappop(queue)
        if at == goal:
            return traced(came, at)
        side, i, j = at
        around = [((side, i + di, j + dj), STEP_MM * step) for di, dj, step in STEPS]
        if storeys.passing[i, j]:
            around.append(((1 - side, i, j), board_mm))
        for cell, cost in around:
            _, u, v = cell
            if not (0 <= u < size[0] and 0 <= v < size[1]):
                continue
            if not storeys.open_cells[cell] and cell != goal:
                continue
            whole = best[at] + cost
            if whole < best.get(cell, float("inf")) - 1e-9:
                best[cell], came[cell] = whole, at
                ahead = STEP_MM * hypot(u - goal[1], v - goal[2])
                heapq.heappush(queue, (whole + ahead, cell))
    return None


def traced(came: dict[Cell, Cell], at: Cell) -> list[Cell]:
    """The cells that led to one, from the first on."""
    path = [at]
    while at in came:
        at = came[at]
        path.append(at)
    return path[::-1]


def legs_of(
    storeys: Storeys, path: list[Cell], start: Spot, goal: Spot
) -> tuple[tuple[bool, tuple[Spot, ...]], ...]:
    """The path by sides, pulled straight between the bodies."""
    runs: list[tuple[int, list[Spot]]] = []
    for side, i, j in path:
        if not runs or runs[-1][0] != side:
            runs.append((side, []))
        runs[-1][1].append(storeys.spot(i, j))
    runs[0][1][0], runs[-1][1][-1] = start, goal
    return tuple((bool(side), straightened(spots, storeys.areas[side])) for side, spots in runs)


def straightened(spots: list[Spot], area: BaseGeometry) -> tuple[Spot, ...]:
    """Corners left out wherever a straight line stays in the open."""
    kept, at = [spots[0]], 0
    while at < len(spots) - 1:
        ahead = len(spots) - 1
        while ahead > at + 1 and not clear(spots[at], spots[ahead], area):
            ahead -= 1
        kept.append(spots[ahead])
        at = ahead
    return tuple(kept)


def clear(one: Spot, other: Spot, area: BaseGeometry) -> bool:
    """Whether a straight line stays in the open, but for its first and last half step, which lie at
    a body.
    """
    line = LineString([one, other])
    closed = line.difference(area)
    return bool(closed.length <= STEP_MM + 1e-9)
