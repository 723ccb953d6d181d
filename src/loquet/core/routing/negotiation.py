"""Negotiated congestion: every net is routed as if alone, then again and again while shared places grow dearer."""

from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, Copper, Hole
from loquet.core.board.model import Routing, Track, Via
from loquet.core.board.rules import BoardRules
from loquet.core.circuit import Circuit
from loquet.core.geometry import Bar, Box, Round
from loquet.core.routing.grid import CELL_NM, SIGNAL, SUPPLY, VIA, build_grid
from loquet.core.routing.kernels import FREE, conflicts, lift, search, stamp
from loquet.core.routing.straightening import segments_of

Ints = NDArray[np.int32]
MOST_ROUNDS = 60
STAGNANT_ROUNDS = 18
PRESSURE_START, PRESSURE_GROWTH, PRESSURE_MOST = 1.5, 1.6, 50.0
HISTORY_STEP = 12.0
STUCK_ROUNDS = 3
VIA_COST = 160.0
LEAN = 1.8
STRICT_LEAN = 1.1
POLISH_VIA_COST = 240.0
NO_CELLS = np.zeros(0, dtype=np.int32)


@dataclass(frozen=True)
class RouteInput:
    """What the router needs of a board; wiring keeps to the `area`."""

    outline: Polygon
    area: BaseGeometry
    circuit: Circuit
    pads: tuple[Copper, ...]
    holes: tuple[Hole, ...]
    rules: BoardRules


@dataclass(frozen=True)
class RouteProgress:
    """What the router is doing: round, how many nets still share places, and of how many."""

    round: int
    contested: int
    nets: int


class RoutingStopped(Exception):
    """Someone asked the router to stop; nothing of its work is kept."""


@dataclass
class NetState:
    """A net while routing: its terminals as node lists, its width, and what it holds now."""

    number: int
    name: str
    width: int
    terminals: list[Ints]
    labels: list[str]
    middles: list[tuple[float, float]]
    members: list[set[int]]
    paths: list[Ints] = field(default_factory=list)
    nodes: Ints = field(default_factory=lambda: NO_CELLS)
    vias: Ints = field(default_factory=lambda: NO_CELLS)
    stamped: list[Ints] = field(default_factory=list)
    missing: list[str] = field(default_factory=list)


class Router:
    """The state of one routing run."""

    def __init__(self, given: RouteInput) -> None:
        self.given = given
        self.numbers = {net.name: index for index, net in enumerate(given.circuit.nets)}
        self.grid = build_grid(
            given.outline, given.area, given.pads, given.holes, self.numbers, given.rules
        )
        size = 2 * self.grid.area
        self.best, self.seen, self.came = (
            np.zeros(size),
            np.zeros(size, dtype=np.int32),
            np.zeros(size, dtype=np.int32),
        )
        self.heading_to = np.zeros(size, dtype=np.int8)
        self.heap_f, self.heap_n = np.zeros(4 * size), np.zeros(4 * size, dtype=np.int32)
        self.goal, self.epoch, self.out = (
            np.zeros(size, dtype=np.uint8),
            np.zeros(size, dtype=np.int32),
            np.zeros(size, dtype=np.int32),
        )
        self.mark = 0
        rules = given.rules
        self.via_reach = max(rules.via_hole_nm + rules.hole_gap_nm, rules.via_nm) / CELL_NM + 0.5
        self.nets = [
            state for net in given.circuit.nets if (state := self.net_state(net.name)) is not None
        ]

    def net_state(self, name: str) -> NetState | None:
        """Terminals of a net: one for each contact, all its pads together; None where there is nothing to join."""
        kind = next(net.kind for net in self.given.circuit.nets if net.name == name)
        contacts: dict[str, list[Copper]] = {}
        for pad in self.given.pads:
            if pad.net == name:
                contacts.setdefault(pad.owner, []).append(pad)
        if len(contacts) < 2:
            return None
        number = self.numbers[name]
        for width in (SIGNAL,) if kind == "signal" else (SUPPLY, SIGNAL):
            terminals = [self.terminal_nodes(group, number, width) for group in contacts.values()]
            if all(len(nodes) for nodes in terminals):
                break
        middles = [self.middle(nodes) for nodes in terminals]
        return NetState(
            number,
            name,
            width,
            terminals,
            list(contacts),
            middles,
            [set(nodes.tolist()) for nodes in terminals],
        )

    def terminal_nodes(self, pads: list[Copper], net: int, width: int) -> Ints:
        """Nodes in the middle part of the pads, from where a track of this width may start."""
        grid, found = self.grid, []
        for pad in pads:
            x, y, reach_x, reach_y = middle_part(pad, grid.half_nm[width])
            columns = range(
                max(0, -(-(x - reach_x) // CELL_NM)),
                min(grid.columns - 1, (x + reach_x) // CELL_NM) + 1,
            )
            rows = range(
                max(0, -(-(y - reach_y) // CELL_NM)),
                min(grid.rows - 1, (y + reach_y) // CELL_NM) + 1,
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

    def route_net(self, net: NetState, pressure: float, hard: bool, via_cost: float) -> None:
        """Join all terminals of a net as a tree, nearest first."""
        net.paths, net.missing = [], []
        vias: list[int] = []
        start = self.order(net)
        tree = [net.terminals[start]]
        left = {
            i: self.apart(net.terminals[start], net.middles[i])
            for i in range(len(net.terminals))
            if i != start
        }
        while left:
            target = min(left, key=lambda i: left[i])
            goals = [net.terminals[i] for i in left]
            node = self.find(
                net,
                np.concatenate(tree),
                goals,
                net.terminals[target],
                vias,
                pressure,
                hard,
                via_cost,
            )
            if node < 0:
                net.missing.append(net.labels[target])
                del left[target]
                continue
            reached = (
                target
                if node in net.members[target]
                else next(i for i in left if node in net.members[i])
            )
            path = self.trace(node)
            sides = path // self.grid.area
            vias += [int(n) for n in path[1:][sides[1:] != sides[:-1]] % self.grid.area]
            net.paths.append(path)
            tree += [path, net.terminals[reached]]
            del left[reached]
            for i in left:
                left[i] = min(
                    left[i],
                    self.apart(path, net.middles[i]),
                    self.apart(net.terminals[reached], net.middles[i]),
                )
        net.nodes = np.unique(np.concatenate(net.paths)) if net.paths else NO_CELLS
        net.vias = np.array(sorted(set(vias)), dtype=np.int32)

    def order(self, net: NetState) -> int:
        """The terminal to grow from: the one nearest to all others."""
        middles = np.array(net.middles)
        return int(np.argmin(np.abs(middles[:, None, :] - middles[None, :, :]).sum(axis=(1, 2))))

    def middle(self, nodes: Ints) -> tuple[float, float]:
        """Mean column and row of nodes."""
        if not len(nodes):
            return 0.0, 0.0
        places = nodes % self.grid.area
        return float((places % self.grid.columns).mean()), float(
            (places // self.grid.columns).mean()
        )

    def apart(self, sources: Ints, middle: tuple[float, float]) -> float:
        """Least distance in cells from any source to a place."""
        places = sources % self.grid.area
        return float(
            np.min(
                np.abs(places % self.grid.columns - middle[0])
                + np.abs(places // self.grid.columns - middle[1]),
                initial=1e9,
            )
        )

    def find(
        self,
        net: NetState,
        sources: Ints,
        goals: list[Ints],
        target: Ints,
        vias: list[int],
        pressure: float,
        hard: bool,
        via_cost: float,
    ) -> int:
        """One search; the goal node or -1."""
        grid, self.mark = self.grid, self.mark + 1
        for nodes in goals:
            self.goal[nodes] = 1
        box = self.bounds(np.concatenate(goals)) if len(goals) < 4 else self.bounds(target)
        for nodes in goals if len(goals) >= 4 else []:
            self.goal[nodes] = 0
        self.goal[target] = 1
        node = search(
            net.number,
            sources,
            self.goal,
            box,
            grid.owner[net.width],
            grid.owner_via,
            grid.occupied[net.width],
            grid.occupied[VIA],
            grid.history,
            np.array(vias, dtype=np.int32),
            self.via_reach,
            pressure,
            hard,
            via_cost,
            STRICT_LEAN if hard else LEAN,
            grid.columns,
            grid.rows,
            self.best,
            self.seen,
            self.came,
            self.heading_to,
            self.mark,
            self.heap_f,
            self.heap_n,
        )
        for nodes in goals:
            self.goal[nodes] = 0
        return int(node)

    def bounds(self, nodes: Ints) -> NDArray[np.float64]:
        """Left, bottom, right, top of nodes in cells; the whole board where there are none."""
        if not len(nodes):
            return np.array([0.0, 0.0, self.grid.columns, self.grid.rows])
        places = nodes % self.grid.area
        x, y = places % self.grid.columns, places // self.grid.columns
        return np.array([x.min(), y.min(), x.max(), y.max()], dtype=np.float64)

    def trace(self, node: int) -> Ints:
        """The way back to where the search began, in order from there."""
        path = [node]
        while self.came[path[-1]] != path[-1]:
            path.append(int(self.came[path[-1]]))
        return np.array(path[::-1], dtype=np.int32)

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
                    len(nodes),
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

    def contested(self, net: NetState, add: float) -> int:
        """How many places of a net others hold too."""
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


def middle_part(pad: Copper, half_nm: int) -> tuple[int, int, int, int]:
    """Middle of a pad and how far from it, along x and y, a track of half width `half_nm` may end."""
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


def route(given: RouteInput, progress: Callable[[RouteProgress], bool] = lambda _: True) -> Routing:
    """Tracks and vias for all nets. `progress` is told of every step and answers whether to go on; if not, RoutingStopped is raised.

    What could not be joined is listed in `open_links`; nothing that touches another net is ever returned.
    """
    router = Router(given)
    negotiate(router, progress)
    settle_rest(router)
    polish(router)
    return collect(router)


def negotiate(router: Router, progress: Callable[[RouteProgress], bool]) -> None:
    """Rounds of rip-up and rerouting until no place is shared, or nothing has improved for long."""
    pressure, fewest, stagnant = PRESSURE_START, 1 << 30, 0
    waiting = list(router.nets)
    for number in range(MOST_ROUNDS):
        for net in waiting:
            if not progress(RouteProgress(number + 1, len(waiting), len(router.nets))):
                raise RoutingStopped
            router.take(net)
            router.route_net(net, pressure, False, VIA_COST)
            router.put(net)
        waiting = [net for net in router.nets if router.contested(net, HISTORY_STEP) > 0]
        if not waiting:
            return
        stagnant = 0 if len(waiting) < fewest else stagnant + 1
        fewest = min(fewest, len(waiting))
        if stagnant > STAGNANT_ROUNDS:
            return
        if stagnant % STUCK_ROUNDS == STUCK_ROUNDS - 1:
            waiting = list(router.nets)
        pressure = min(pressure * PRESSURE_GROWTH, PRESSURE_MOST)


def settle_rest(router: Router) -> None:
    """Nets that still share places are routed strictly; what finds no way stays open."""
    for net in router.nets:
        if router.contested(net, 0.0) > 0:
            router.take(net)
            router.route_net(net, 0.0, True, VIA_COST)
            router.put(net)


def polish(router: Router) -> None:
    """Two strict passes over all nets, each against all others as they lie: shorter, straighter, fewer vias."""
    router.grid.history[:] = 0
    for _ in range(2):
        for net in router.nets:
            router.take(net)
            before = (net.paths, net.nodes, net.vias, net.missing)
            router.route_net(net, 0.0, True, POLISH_VIA_COST)
            if len(net.missing) > len(before[3]):
                net.paths, net.nodes, net.vias, net.missing = before
            router.put(net)


def collect(router: Router) -> Routing:
    """The routing in nanometres, in net order."""
    tracks: list[Track] = []
    vias: list[Via] = []
    links: list[tuple[str, str, str]] = []
    for net in router.nets:
        width = 2 * router.grid.half_nm[net.width]
        for path in net.paths:
            for far, (x1, y1), (x2, y2) in segments_of(path, router.grid):
                tracks.append(
                    Track(
                        net=net.name,
                        far=far,
                        x1_nm=x1,
                        y1_nm=y1,
                        x2_nm=x2,
                        y2_nm=y2,
                        width_nm=width,
                    )
                )
        vias += [
            Via(net=net.name, x_nm=x, y_nm=y)
            for x, y in (router.grid.place_nm(int(v)) for v in net.vias)
        ]
        links += [(net.name, net.labels[0], label) for label in net.missing]
    return Routing(tracks=tuple(tracks), vias=tuple(vias), open_links=tuple(links))
