"""Where tracks may start and end: the nodes in the middle part of pads."""

import numpy as np

from loquet.core.board.copper import FAR, NEAR, Copper
from loquet.core.geometry import Bar, Box, Round
from loquet.core.routing.grid import CELL_NM, Grid, cells_near
from loquet.core.routing.kernels import FREE, Ints

ON_LINE_NM = 60_000


def terminal_nodes(grid: Grid, pads: list[Copper], net: int, width: int) -> Ints:
    """Nodes in the middle part of the pads, from where a track of this width may start."""
    found: list[int] = []
    for pad in pads:
        if not pad.ref:
            found += nodes_along(grid, pad)
            continue
        x, y, reach_x, reach_y = middle_part(pad, grid.half_nm[width])
        columns = range(
            max(0, -(-(x - reach_x) // CELL_NM)),
            min(grid.columns - 1, (x + reach_x) // CELL_NM) + 1,
        )
        rows = range(
            max(0, -(-(y - reach_y) // CELL_NM)), min(grid.rows - 1, (y + reach_y) // CELL_NM) + 1
        )
        for side, name in enumerate((NEAR, FAR)):
            if name in pad.sides:
                found += [
                    side * grid.area + row * grid.columns + column
                    for row in rows
                    for column in columns
                ]
    nodes = np.array(sorted(set(found)), dtype=np.int32)
    allowed = (grid.owner[width][nodes] == FREE) | (grid.owner[width][nodes] == net)
    kept: Ints = nodes[allowed]
    return kept


def nodes_along(grid: Grid, wire: Copper) -> list[int]:
    """Nodes on the middle line of a track or via that lies fast."""
    places = cells_near(wire.shape, ON_LINE_NM, grid.columns, grid.rows)
    sides = [side for side, name in enumerate((NEAR, FAR)) if name in wire.sides]
    return [int(side * grid.area + place) for side in sides for place in places]


def middle_part(pad: Copper, half_nm: int) -> tuple[int, int, int, int]:
    """Middle of a pad and how far from it, along x and y, a track of half width `half_nm` may
    end.
    """
    shape = pad.shape
    match shape:
        case Round():
            reach = max(int((shape.d // 2 - half_nm) * 0.7), 51_000)
            return shape.x, shape.y, reach, reach
        case Box() if shape.turn:
            reach = max(int((min(shape.w, shape.h) // 2 - half_nm) * 0.7), 51_000)
            return shape.x, shape.y, reach, reach
        case Box():
            return (
                shape.x,
                shape.y,
                max(shape.w // 2 - half_nm, 51_000),
                max(shape.h // 2 - half_nm, 51_000),
            )
        case Bar():
            return (shape.x1 + shape.x2) // 2, (shape.y1 + shape.y2) // 2, 51_000, 51_000
