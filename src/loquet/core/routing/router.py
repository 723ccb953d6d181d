"""The state of one routing run: the grid, every net's claim on it, and single searches."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import Copper, Hole
from loquet.core.board.islands import CutOff
from loquet.core.board.model import Routing, Wires
from loquet.core.board.rules import BoardRules
from loquet.core.circuit import Circuit
from loquet.core.circuit.model import GROUND
from loquet.core.routing.grid import CELL_NM, SIGNAL, SUPPLY, VIA, build_grid
from loquet.core.routing.hand_wires import contacts_of, mark_wires, wires_as_copper
from loquet.core.routing.kernels import (
    BUCKETS,
    Ints,
    Shorts,
    conflicts,
    keep_apart,
    least_apart,
    lift,
    search,
    stamp,
    trace,
)
from loquet.core.routing.terminals import terminal_nodes

NO_CELLS = np.zeros(0, dtype=np.int32)
NO_POOL = np.zeros(0, dtype=np.int16)
NO_WIRES = Wires()
WINDOW_CELLS = 50
WINDOW_SHARE = 0.4
CLOSE, CLOSE_CELLS = 1.2, 20
STAYING = 20.0
"""A via of a net that ought to stay on its side costs so many usual ones."""


@dataclass(frozen=True)
class RouteInput:
    """What the router needs of a board; wiring keeps to the `area`, `wires` lie as a person drew
    them, a net with an inner `plane` is led into it, `widths_nm` says which nets ask for more than
    the usual width, and `cut_off` tells what the pour of a routing would leave apart.
    """

    outline: Polygon
    area: BaseGeometry
    circuit: Circuit
    pads: tuple[Copper, ...]
    holes: tuple[Hole, ...]
    rules: BoardRules
    wires: Wires = NO_WIRES
    plane: str = ""
    widths_nm: Mapping[str, int] = field(default_factory=dict)
    cut_off: Callable[[Routing], CutOff] = lambda _: CutOff(frozenset(), ())


@dataclass
class NetState:
    """A net while routing: its terminals as node lists, its width, and what it holds now.

    `pool` marks the nodes of a pour: where there is one, every terminal is led into it. One that
    `stays` changes sides only where there is no other way.
    """

    number: int
    name: str
    width: int
    terminals: list[Ints]
    labels: list[str]
    middles: list[tuple[float, float]]
    stays: bool = False
    pool: Shorts = field(default_factory=lambda: NO_POOL)
    paths: list[Ints] = field(default_factory=list)
    nodes: Ints = field(default_factory=lambda: NO_CELLS)
    vias: Ints = field(default_factory=lambda: NO_CELLS)
    stamped: list[Ints] = field(default_factory=list)
    missing: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Terms:
    """How a net is routed: what shared places cost or whether they are closed, the price of a via,
    how far around the straight way is looked, and whether any terminal close by is as welcome as
    the nearest.
    """

    pressure: float
    hard: bool
    via_cost: float
    reach: float = 1.0
    any_close: bool = False


class Router:
    """The state of one routing run."""

    def __init__(self, given: RouteInput) -> None:
        self.given = given
        self.numbers = {net.name: index for index, net in enumerate(given.circuit.nets)}
        self.grid = build_grid(
            given.outline, given.area, given.pads, given.holes, self.numbers, given.rules
        )
        area, size = self.grid.area, len(self.grid.history)
        self.epoch, self.out = (np.zeros(size, dtype=np.int32) for _ in range(2))
        self.states = np.zeros(size, dtype=np.int64)
        self.came = np.zeros(size, dtype=np.int8)
        self.goal = np.zeros(size, dtype=np.int16)
        self.near_vias = np.zeros(area, dtype=np.int32)
        self.heads = np.zeros(BUCKETS, dtype=np.int32)
        self.entry_node, self.entry_next = (np.zeros(size + size, dtype=np.int32) for _ in range(2))
        self.mark = self.via_mark = 0
        self.whole = np.array([0, 0, self.grid.columns - 1, self.grid.rows - 1], dtype=np.int32)
        rules = given.rules
        self.via_reach = max(rules.via_hole_nm + rules.hole_gap_nm, rules.via_nm) / CELL_NM + 0.5
        drawn = wires_as_copper(given.wires, rules)
        mark_wires(self.grid, drawn, self.numbers, rules)
        self.contacts = contacts_of(given.pads, drawn)
        self.nets = [
            replace(self.net_state(net.name, net.kind != "signal"), stays=net.kind == "switched")
            for net in sorted(given.circuit.nets, key=lambda net: net.kind != "switched")
            if net.name != GROUND and len(self.contacts.get(net.name, ())) > 1
        ]
        self.link: NetState | None = None

    @property
    def claims(self) -> list[NetState]:
        """All nets, and the ways of ground into its pour."""
        return self.nets if self.link is None else [*self.nets, self.link]

    def net_state(self, name: str, supply: bool) -> NetState:
        """A net with a terminal for each contact, all its pads together; wide where all its pads
        allow it.
        """
        number, contacts = self.numbers[name], self.contacts[name]
        for width in (SUPPLY, SIGNAL) if supply else (SIGNAL,):
            terminals = [
                terminal_nodes(self.grid, group, number, width) for group in contacts.values()
            ]
            if all(len(nodes) for nodes in terminals):
                break
        middles = [self.middle(nodes) for nodes in terminals]
        return NetState(number, name, width, terminals, list(contacts), middles)

    def middle(self, nodes: Ints) -> tuple[float, float]:
        """Mean column and row of nodes."""
        if not len(nodes):
            return 0.0, 0.0
        places = nodes % self.grid.area
        columns, rows = places % self.grid.columns, places // self.grid.columns
        return float(columns.mean()), float(rows.mean())

    def route_net(self, net: NetState, terms: Terms) -> None:
        """Join all terminals of a net as a tree, nearest first; into its pool where it has one."""
        net.paths, net.missing = [], []
        vias: list[int] = []
        self.via_mark += 1
        whole = self.whole
        if len(net.pool):
            away = dict.fromkeys(range(len(net.terminals)), 0.0)
            tree: list[Ints] = []
        else:
            start = self.order(net)
            tree = [net.terminals[start]]
            away = {
                i: self.apart(tree[0], net.middles[i])
                for i in range(len(net.terminals))
                if i != start
            }
        while away:
            target = min(away, key=lambda i: away[i])
            if len(net.pool):
                path = self.search(net, net.terminals[target], net.pool, whole, (whole,), terms)
            else:
                most = CLOSE * away[target] + CLOSE_CELLS if terms.any_close else away[target]
                close = [i for i in away if i == target or away[i] < most]
                path, target = self.find(net, tree, target, close, terms)
            del away[target]
            if path is None:
                net.missing.append(net.labels[target])
                continue
            sides = path // self.grid.area
            for place in (path[1:][sides[1:] != sides[:-1]] % self.grid.area).tolist():
                vias.append(place)
                keep_apart(
                    self.near_vias,
                    self.via_mark,
                    place,
                    self.via_reach,
                    self.grid.columns,
                    self.grid.rows,
                )
            net.paths.append(path)
            if len(net.pool):
                continue
            tree += [path, net.terminals[target]]
            for i in away:
                away[i] = min(
                    away[i],
                    self.apart(path, net.middles[i]),
                    self.apart(net.terminals[target], net.middles[i]),
                )
        net.nodes = np.unique(np.concatenate(net.paths)) if net.paths else NO_CELLS
        net.vias = np.array(sorted(set(vias)), dtype=np.int32)

    def order(self, net: NetState) -> int:
        """The terminal to grow from: the one nearest to all others."""
        middles = np.array(net.middles)
        return int(np.argmin(np.abs(middles[:, None, :] - middles[None, :, :]).sum(axis=(1, 2))))

    def apart(self, sources: Ints, middle: tuple[float, float]) -> float:
        """Least distance in cells from any source to a place."""
        return float(least_apart(sources, middle[0], middle[1], self.grid.columns, self.grid.area))

    def find(
        self, net: NetState, tree: Sequence[Ints], nearest: int, close: list[int], terms: Terms
    ) -> tuple[Ints | None, int]:
        """The cheapest way from the tree to any of the terminals that lie close by, and which it
        was; first near the straight way to the nearest, then to that one over the whole board.
        """
        goals = [i for i in close if len(net.terminals[i])]
        if not len(net.terminals[nearest]):
            return None, nearest
        sources = np.concatenate(tree)
        if not len(sources):  # the pad lies beyond the board
            return None, nearest
        for i in goals:
            self.goal[net.terminals[i]] = i + 1
        box = self.bounds(np.concatenate([net.terminals[i] for i in goals]))
        window = self.window(sources, self.bounds(net.terminals[nearest]), terms.reach)
        path = self.search(net, sources, self.goal, box, (window,), terms)
        reached = int(self.goal[path[-1]]) - 1 if path is not None else nearest
        for i in goals:
            self.goal[net.terminals[i]] = 0
        if path is None:
            target = net.terminals[nearest]
            self.goal[target] = 1
            path = self.search(net, sources, self.goal, self.bounds(target), (self.whole,), terms)
            self.goal[target] = 0
        return path, reached

    def search(
        self,
        net: NetState,
        sources: Ints,
        goal: Shorts,
        box: Ints,
        windows: Sequence[Ints],
        terms: Terms,
    ) -> Ints | None:
        """The cheapest way from any source to any marked node, in the first window that holds one;
        nothing where none does.
        """
        grid = self.grid
        for window in windows:
            self.mark += 1
            node = search(
                net.number,
                sources,
                goal,
                box,
                window,
                grid.owner[net.width],
                grid.owner_via,
                grid.occupied[net.width],
                grid.occupied[VIA],
                grid.history,
                self.near_vias,
                self.via_mark,
                terms.pressure,
                terms.hard,
                terms.via_cost * (STAYING if net.stays else 1.0),
                grid.columns,
                grid.rows,
                self.states,
                self.came,
                self.mark,
                self.heads,
                self.entry_node,
                self.entry_next,
            )
            if node >= 0:
                count = trace(self.came, node, grid.columns, grid.area, self.out)
                return self.out[:count][::-1].copy()
        return None

    def bounds(self, nodes: Ints) -> Ints:
        """Left, bottom, right, top of nodes in cells."""
        places = nodes % self.grid.area
        x, y = places % self.grid.columns, places // self.grid.columns
        return np.array([x.min(), y.min(), x.max(), y.max()], dtype=np.int32)

    def window(self, sources: Ints, box: Ints, reach: float) -> Ints:
        """The part of the board about a target and the source nearest to it, with room around for
        ways about obstacles.
        """
        places = sources % self.grid.area
        x, y = places % self.grid.columns, places // self.grid.columns
        dx = np.maximum(np.maximum(box[0] - x, x - box[2]), 0)
        dy = np.maximum(np.maximum(box[1] - y, y - box[3]), 0)
        nearest = int(np.argmin(dx + dy))
        room = int(reach * (WINDOW_CELLS + WINDOW_SHARE * (dx[nearest] + dy[nearest])))
        sx, sy = int(x[nearest]), int(y[nearest])
        return np.array(
            [
                max(0, min(sx, box[0]) - room),
                max(0, min(sy, box[1]) - room),
                min(self.grid.columns - 1, max(sx, box[2]) + room),
                min(self.grid.rows - 1, max(sy, box[3]) + room),
            ],
            dtype=np.int32,
        )

    def put(self, net: NetState) -> None:
        """Let a net's copper claim its cells."""
        grid = self.grid
        via_nodes = np.concatenate([net.vias, net.vias + grid.area]).astype(np.int32)
        for other in range(3):
            self.mark += 1
            cells = []
            for nodes, kind in ((net.nodes, net.width), (via_nodes, VIA)):
                dx, dy = grid.discs[kind, other]
                count = stamp(
                    grid.occupied[other],
                    self.epoch,
                    self.mark,
                    nodes,
                    dx,
                    dy,
                    grid.columns,
                    grid.rows,
                    self.out,
                )
                cells.append(self.out[:count].copy())
            net.stamped.append(np.concatenate(cells))

    def take(self, net: NetState) -> None:
        """Give a net's cells back."""
        for other, cells in enumerate(net.stamped):
            lift(self.grid.occupied[other], cells)
        net.stamped = []

    def contested(self, net: NetState, add: float = 0.0) -> int:
        """How many places of a net others hold too; `add` is put on their history."""
        grid = self.grid
        return int(
            conflicts(
                net.nodes,
                net.vias,
                grid.occupied[net.width],
                grid.occupied[VIA],
                grid.history,
                grid.area,
                add,
            )
        )
