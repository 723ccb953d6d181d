"""Ground is poured, not routed: which ground pads the pour will not reach, and short tracks that
lead them into it.
"""

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, Copper
from loquet.core.board.islands import CutOff
from loquet.core.board.pouring import RELIEF_NM, relieved, spokes_of
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import radius_of
from loquet.core.routing.grid import CELL_NM, SIGNAL, SUPPLY, VIA, Grid, cells_near
from loquet.core.routing.kernels import FREE, Bytes, Longs, pools
from loquet.core.routing.router import NetState, Router
from loquet.core.routing.terminals import nodes_along, terminal_nodes

THIN_NM = 100_000
STEP_NM = 50_000
SHY_NM, SHY_COST = 350_000, 12.0
LARGE_CELLS = 3_000
NOTHING = CutOff(frozenset(), ())


class GroundPool:
    """Where the pour of ground will flow, as cells of the grid: each with the pool that it is in,
    with or without the tracks that lead into it.
    """

    def __init__(self, router: Router, with_link: bool) -> None:
        self.router, grid, link = router, router.grid, router.link
        self.number = router.numbers[GROUND]
        if link is not None:
            router.take(link)
        owner, via = grid.owner[SIGNAL], grid.owner_via
        flows = ((owner == FREE) | (owner == self.number)) & (grid.occupied[SIGNAL] == 0)
        loads = grid.occupied[VIA][: grid.area] + grid.occupied[VIA][grid.area :]
        crossings = ((via == FREE) | (via == self.number)) & (loads == 0)
        if link is not None:
            router.put(link)
        self.flows = flows.astype(np.uint8)
        self.pads = router.contacts.get(GROUND, {})
        self.poured = self.without_relief()
        for wire in (c for pads in self.pads.values() for c in pads if not c.ref):
            along = nodes_along(grid, wire)
            self.poured[along] = 1
            if wire.drill_nm:
                crossings[[node % grid.area for node in along]] = True
        if with_link and link is not None:
            self.poured[link.nodes] = 1
            crossings[link.vias] = True
        self.heads = np.zeros(2 * grid.area, dtype=np.int32)
        pools(self.poured, crossings.astype(np.uint8), grid.columns, grid.rows, self.heads)
        self.joined = {label: self.pools_of(pads) for label, pads in self.pads.items()}
        if with_link and link is not None:
            for path in link.paths:
                heads = {int(self.heads[n]) for n in path.tolist()}
                for nodes, label in zip(link.terminals, link.labels, strict=True):
                    if np.isin(path[[0, -1]], nodes).any():
                        self.joined[label] |= heads

    @property
    def main(self) -> set[int]:
        """Heads of the pools that are joined to the one with the most pads."""
        groups = merged(list(self.joined.values()))
        if not groups:
            return set()
        return max(groups, key=lambda heads: sum(bool(heads & own) for own in self.joined.values()))

    def apart(self) -> list[str]:
        """Ground contacts that the pour does not reach."""
        main = self.main
        return [label for label, heads in self.joined.items() if not heads & main]

    def cells_of(self, heads: set[int]) -> Bytes:
        """The cells of these pools."""
        marked = np.zeros(len(self.heads), dtype=np.uint8)
        marked[sorted(heads)] = 1
        found: Bytes = marked[self.heads] & self.poured
        return found

    def without_relief(self) -> Bytes:
        """The cells that are poured once the rings of heat relief are taken out."""
        grid = self.router.grid
        poured: Bytes = self.flows.copy()
        for pad in (p for pads in self.pads.values() for p in pads if p.ref and relieved(p)):
            reach = radius_of(pad.shape) + RELIEF_NM + THIN_NM
            places = cells_near(pad.shape, reach, grid.columns, grid.rows)
            for side, name in enumerate((NEAR, FAR)):
                if name in pad.sides:
                    poured[side * grid.area + places] = 0
        return poured

    def pools_of(self, pads: list[Copper]) -> set[int]:
        """Heads of the pools that any of these pads runs into, through its spokes or in full."""
        found: set[int] = set()
        for pad in pads:
            if not pad.ref:
                found |= {int(self.heads[n]) for n in nodes_along(self.router.grid, pad)}
            elif relieved(pad):
                found |= self.through_spokes(pad)
            else:
                nodes = terminal_nodes(self.router.grid, [pad], self.number, SIGNAL)
                found |= {int(self.heads[n]) for n in nodes.tolist() if self.poured[n]}
        return found

    def through_spokes(self, pad: Copper) -> set[int]:
        """Pools at the outer ends of a pad's four spokes that are free along their whole length."""
        grid, found = self.router.grid, set()
        for bar in spokes_of(pad.shape):
            middle = ((bar.x1 + bar.x2) / 2, (bar.y1 + bar.y2) / 2)
            for x, y in ((bar.x1, bar.y1), (bar.x2, bar.y2)):
                for side, name in enumerate((NEAR, FAR)):
                    if name in pad.sides:
                        node = self.along((middle, (x, y)), side * grid.area)
                        if node >= 0:
                            found.add(int(self.heads[node]))
        return found

    def along(self, way: tuple[tuple[float, float], tuple[float, float]], base: int) -> int:
        """The first poured node on the way out of a pad, or a little beyond it; -1 where something
        stands in between.
        """
        grid, ((ax, ay), (bx, by)) = self.router.grid, way
        long = max(abs(bx - ax), abs(by - ay), 1.0)
        far = long + 2.5 * CELL_NM
        for step in range(int(far / STEP_NM) + 1):
            part = step * STEP_NM / long
            column = round((ax + (bx - ax) * part) / CELL_NM)
            row = round((ay + (by - ay) * part) / CELL_NM)
            if not (0 <= column < grid.columns and 0 <= row < grid.rows):
                return -1
            node = base + row * grid.columns + column
            if self.poured[node]:
                return node
            if not self.flows[node]:
                return -1
        return -1


def shy_of_spokes(router: Router) -> None:
    """Make the places where the spokes of ground pads end a little dear for tracks, so that pads
    are not walled in without need.
    """
    grid = router.grid
    for pads in router.contacts.get(GROUND, {}).values():
        for pad in (p for p in pads if p.ref and relieved(p)):
            for bar in spokes_of(pad.shape):
                places = cells_near(bar, SHY_NM, grid.columns, grid.rows)
                for side, name in enumerate((NEAR, FAR)):
                    if name in pad.sides:
                        grid.shy[side * grid.area + places] = SHY_COST
    grid.history[:] = grid.shy


def ground_is_whole(router: Router) -> bool:
    """Whether pour and links join all contacts of ground as the board is routed now."""
    return len(router.contacts.get(GROUND, {})) < 2 or not GroundPool(router, True).apart()


def ground_link(router: Router, known: CutOff = NOTHING) -> NetState:
    """The ground pads that the pour alone does not reach as the board is routed now, as a net that
    leads them into it.

    What is `known` to be cut off by the exact pour counts as apart, whatever the grid says; and so
    does what was led into it before, for the nets have made room for that.
    """
    pool = GroundPool(router, False)
    main, grid = pool.main, router.grid
    led = router.link.labels if router.link else ()
    labels = sorted({*pool.apart(), *known.contacts, *led})
    for width in (SUPPLY, SIGNAL):
        terminals = [terminal_nodes(grid, pool.pads[label], pool.number, width) for label in labels]
        if all(len(nodes) for nodes in terminals):
            break
    middles = [router.middle(t) for t in terminals]
    cells = inner(pool.cells_of(main), grid)
    for far, area in known.pieces:
        cells[int(far) * grid.area + cells_on(area.buffer(CELL_NM), grid)] = 0
    wide = wide_open(cells, grid)
    cells = wide if wide.any() else cells
    return NetState(
        pool.number, GROUND, width, terminals, labels, middles, pool=cells.astype(np.int16)
    )


def cells_on(area: BaseGeometry, grid: Grid) -> Longs:
    """Cells of one side whose middle lies in an area."""
    left, bottom, right, top = (value / CELL_NM for value in area.bounds)
    xs, ys = np.meshgrid(
        np.arange(max(0, int(left)), min(grid.columns, int(right) + 1)),
        np.arange(max(0, int(bottom)), min(grid.rows, int(top) + 1)),
    )
    shapely.prepare(area)
    inside = shapely.contains_xy(area, xs * CELL_NM, ys * CELL_NM)
    found: Longs = (ys * grid.columns + xs)[inside]
    return found


def inner(cells: Bytes, grid: Grid) -> Bytes:
    """Cells whose neighbours up to two away are marked as well: a track that ends there lies well
    inside the pour.
    """
    sides = cells.reshape(2, grid.rows, grid.columns)
    for axis in (1, 2):
        kept = sides.copy()
        for shift in (-2, -1, 1, 2):
            kept &= np.roll(sides, shift, axis)
        sides = kept
    found: Bytes = sides.reshape(-1)
    return found


def wide_open(cells: Bytes, grid: Grid) -> Bytes:
    """Cells of large parts of one side: what hangs on by a via or a narrow neck is soon cut off
    again by a track.
    """
    heads = np.zeros(len(cells), dtype=np.int32)
    pools(cells, np.zeros(grid.area, dtype=np.uint8), grid.columns, grid.rows, heads)
    on = np.flatnonzero(cells)
    sizes = np.bincount(heads[on], minlength=len(cells))
    found: Bytes = np.zeros_like(cells)
    found[on] = sizes[heads[on]] >= LARGE_CELLS
    return found


def merged(sets: list[set[int]]) -> list[set[int]]:
    """Sets of pools that pads join, put together where they share one."""
    groups: list[set[int]] = []
    for heads in sets:
        if not heads:
            continue
        joined, rest = set(heads), []
        for group in groups:
            if group & joined:
                joined |= group
            else:
                rest.append(group)
        groups = [*rest, joined]
    return groups
