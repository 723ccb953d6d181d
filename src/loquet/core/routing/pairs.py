"""Pairs run together: the second line of a pair is drawn to the first."""

from collections.abc import Iterator
from contextlib import contextmanager

import numpy as np

from loquet.core.circuit.model import JOIN
from loquet.core.routing.grid import CELL_NM, Grid
from loquet.core.routing.kernels import Ints
from loquet.core.routing.router import NetState, Router

PLUS, MINUS = "_PLUS", "_MINUS"
APART_COST = (
    6.0  # six tenths of a straight step for every cell beside the corridor; tried on the examples
)
ROOM_CELLS = 3


def mate_of(router: Router, net: NetState) -> NetState | None:
    """The other line of a pair, by its name: of USB, or of parts that are joined by hand."""
    if "USB" not in net.name and not net.name.startswith(JOIN):
        return None
    for own, other in ((PLUS, MINUS), (MINUS, PLUS)):
        if net.name.endswith(own):
            name = net.name.removesuffix(own) + other
            return next((n for n in router.nets if n.name == name), None)
    return None


@contextmanager
def drawn_to_its_mate(router: Router, net: NetState) -> Iterator[None]:
    """While this lasts, places away from the other line of a pair cost more; nothing changes for
    other nets.
    """
    mate = mate_of(router, net)
    if mate is None or not len(mate.nodes):
        yield
        return
    grid = router.grid
    before = grid.history.copy()
    reach = (grid.half_nm[net.width] + grid.half_nm[mate.width] + grid.gap_nm) // CELL_NM
    grid.history += APART_COST
    beside = around(grid, mate.nodes, reach + ROOM_CELLS)
    grid.history[beside] -= APART_COST
    try:
        yield
    finally:
        grid.history[:] = before


def around(grid: Grid, nodes: Ints, reach: int) -> Ints:
    """Nodes within a square about any of these, on their own side."""
    sides, places = nodes // grid.area, nodes % grid.area
    rows, columns = places // grid.columns, places % grid.columns
    steps = np.arange(-reach, reach + 1)
    ys = np.clip(rows[:, None, None] + steps[None, :, None], 0, grid.rows - 1)
    xs = np.clip(columns[:, None, None] + steps[None, None, :], 0, grid.columns - 1)
    found: Ints = np.unique(sides[:, None, None] * grid.area + ys * grid.columns + xs).astype(
        np.int32
    )
    return found
