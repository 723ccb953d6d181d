"""Seating: what belongs beside fixed parts first, alike beside alike, then all that is left at
once.
"""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon, box

from loquet.core.board.model import PlacedPart, Placement
from loquet.core.circuit import Circuit, Component
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Rect, Seat, middle_of
from loquet.core.geometry.placing import QUARTERS
from loquet.core.parts import LandPattern
from loquet.core.parts.patterns import extent
from loquet.core.placement.arranging import Item, arranged
from loquet.core.placement.clusters import Cluster, Member, families, is_probe, row_of
from loquet.core.placement.ground_plan import BEHIND, BODY, LOW, GroundPlan, Rows, rows_of
from loquet.core.placement.kept_rooms import KeptRoom, rows_kept, storeys_of
from loquet.core.placement.kernels import reach_costs
from loquet.core.placement.rooms import room_of
from loquet.core.provenance import Source, Working, given

STEP_NM = 500_000
EDGE_NM = 500_000
CHIP_HALO_NM = 700_000
NEAR_WINDOW_NM = 10_000_000
NEAR_WEIGHT, SIGNAL_WEIGHT, SUPPLY_WEIGHT = 5.0, 1.0, 0.4
MIDDLE_WEIGHT = 0.02
TURN_PRICE_NM = 300_000.0
NO_ROOM_NM = 1e9
FIXED = "fixed"
SCREW = BODY | BEHIND
BEHIND_MM = 3.0  # what goes behind must leave room for cells and the shell; common practice
OPEN_FIELD = box(-15_000_000, -15_000_000, 15_000_000, 15_000_000)
Longs = NDArray[np.int64]
Floats = NDArray[np.float64]


class NoRoom(Exception):
    """A part for which no free place is left."""

    def __init__(self, ref: str, title: str) -> None:
        super().__init__(
            f"No free place is left for {ref} ({title}). Enlarge the outline, move controls apart,"
            " or let parts go behind at the Brief."
        )
        self.ref = ref


@dataclass(frozen=True)
class PlacingInput:
    """Outline, circuit, patterns by reference, seats by role that are fixed or locked, areas to
    keep low, areas that are kept free, areas behind the board where something lies in the shell,
    which of several arrangements is wanted, and whether small parts may go behind where the front
    is full.
    """

    outline: Polygon
    circuit: Circuit
    patterns: dict[str, LandPattern]
    heights_mm: dict[str, float]
    fixed: dict[str, Seat]
    locked: dict[str, Seat]
    holes: tuple[tuple[int, int, int], ...]
    low_areas: tuple[Rect, ...] = ()
    kept: tuple[KeptRoom, ...] = ()
    lying: tuple[Rect, ...] = ()
    rails: frozenset[str] = frozenset()
    switched: frozenset[str] = frozenset()
    arrangement: int = 1
    both_sides: bool = False


def lattice(outline: Polygon, offset_nm: int = 0) -> tuple[Longs, Longs]:
    """All lattice points of the board's bounds."""
    left, bottom, right, top = (int(v) for v in outline.bounds)
    xs = np.arange((left // STEP_NM) * STEP_NM + offset_nm, right, STEP_NM)
    ys = np.arange((bottom // STEP_NM) * STEP_NM + offset_nm, top, STEP_NM)
    grid_x, grid_y = np.meshgrid(xs, ys)
    return grid_x.ravel(), grid_y.ravel()


class Seating:
    """The state while placing: seats found so far, and what they take."""

    def __init__(self, given: PlacingInput, alone: bool = False) -> None:
        """On the board with all that it keeps free; or `alone`, in the open about the origin."""
        self.given = given
        self.by_role = {c.role: c for c in given.circuit.components}
        self.seats: dict[str, Seat] = {}
        self.points: dict[str, list[tuple[int, int]]] = {}
        self.plan = GroundPlan(OPEN_FIELD if alone else given.outline, EDGE_NM)
        self.lattice = lattice(self.plan.outline)
        self.storeys = storeys_of(given.kept)
        if alone:
            return
        self.plan.taken[FIXED] = np.concatenate(
            [
                rows_of(((x - r, y - r, x + r, y + r) for x, y, r in given.holes), SCREW, SCREW),
                rows_kept(given.kept, self.storeys),
                rows_of(given.lying, BEHIND, 0),
                rows_of(given.low_areas, LOW, 0),
            ]
        )

    def rows(self, component: Component, seat: Seat) -> Rows:
        """What a part takes there."""
        pattern = self.given.patterns[component.ref]
        halo = CHIP_HALO_NM if component.is_chip else 0
        height = self.given.heights_mm[component.ref]
        return room_of(pattern, seat, height, component.bare, halo, self.storeys)

    def put(self, component: Component, seat: Seat) -> None:
        """Seat a part."""
        self.seats[component.ref] = seat
        self.plan.taken[component.ref] = self.rows(component, seat)
        for number, net in component.pads.items():
            self.points.setdefault(net, []).extend(self.pad_points(component.ref, number, seat))

    def pad_points(self, ref: str, number: str, seat: Seat) -> list[tuple[int, int]]:
        """Where the pads of that number lie."""
        return [
            seat.point(*middle_of(p.shape))
            for p in self.given.patterns[ref].pads
            if p.number == number
        ]

    def reach_of(self, ref: str, number: str, seat: Seat, net: str) -> tuple[int, int, int, int]:
        """The middle of the first pad of that number, and half of what it reaches across and up: of
        a net that jumps its rim counts, since a coil's pads are as wide as the coil.
        """
        x, y = self.pad_points(ref, number, seat)[0]
        if net not in self.given.switched:
            return x, y, 0, 0
        shape = next(p.shape for p in self.given.patterns[ref].pads if p.number == number)
        left, bottom, right, top = extent(seat.shape(shape))
        return x, y, (right - left) // 2, (top - bottom) // 2

    def weight(self, net: str) -> float:
        """What a nanometre of a net costs; ground is poured and costs nothing."""
        if net == GROUND:
            return 0.0
        if net in self.given.switched:
            return NEAR_WEIGHT
        return SUPPLY_WEIGHT if net in self.given.rails else SIGNAL_WEIGHT

    def host(self, component: Component) -> Component | None:
        """The seated part beside which one belongs."""
        host = self.by_role.get(component.near_role)
        return host if host is not None and host.ref in self.seats else None

    def beside(self, component: Component) -> tuple[str, tuple[int, int]] | None:
        """The net and place of the pad that a part belongs beside."""
        host = self.host(component)
        if host is None:
            return None
        spots = self.pad_points(host.ref, component.near_pad, self.seats[host.ref])
        return (host.pads.get(component.near_pad, ""), spots[0]) if spots else None

    def costs(
        self, members: Iterable[Member], turn: int, xs: Longs, ys: Longs, beside: bool = True
    ) -> Floats:
        """Weighted distance of every pad to the nearest pad of its net, and to the pad it belongs
        beside, for a cluster at each place.
        """
        pads, weights, runs = [], [], []
        for member in members:
            component, seat = member.component, member.at(0, 0, turn)
            pull = self.beside(component) if beside else None
            for number, net in component.pads.items():
                own = self.reach_of(component.ref, number, seat, net)
                if pull and net == pull[0]:
                    pads.append(own)
                    weights.append(NEAR_WEIGHT)
                    runs.append([pull[1]])
                if self.weight(net) and self.points.get(net):
                    pads.append(own)
                    weights.append(self.weight(net))
                    runs.append(self.points[net])
        middle = self.middle()
        pads.append((0, 0, 0, 0))
        weights.append(MIDDLE_WEIGHT)
        runs.append([middle])
        bounds = np.concatenate([[0], np.cumsum([len(run) for run in runs])]).astype(np.int64)
        points = np.array([p for run in runs for p in run], dtype=np.int64).reshape(-1, 2)
        found: Floats = reach_costs(
            xs, ys, np.array(pads, dtype=np.int64), np.array(weights), bounds, points
        )
        return found + TURN_PRICE_NM * (turn // 180)

    def middle(self) -> tuple[int, int]:
        """The middle of all that is seated, or of the board."""
        seats = list(self.seats.values())
        if not seats:
            centre = self.given.outline.centroid
            return int(centre.x), int(centre.y)
        return sum(s.x for s in seats) // len(seats), sum(s.y for s in seats) // len(seats)

    def room(self, cluster: Cluster, turn: int) -> Rows:
        """What a cluster takes about the origin."""
        return np.concatenate([self.rows(m.component, m.at(0, 0, turn)) for m in cluster.members])

    def best(
        self, cluster: Cluster, xs: Longs, ys: Longs, plan: GroundPlan
    ) -> tuple[int, int, int] | None:
        """The cheapest free place and turn of a cluster among these places."""
        best: tuple[float, tuple[int, int, int]] | None = None
        for turn in QUARTERS:
            good = plan.free(xs, ys, self.room(cluster, turn))
            if not good.any():
                continue
            fx, fy = xs[good], ys[good]
            cost = self.costs(cluster.members, turn, fx, fy)
            index = int(np.argmin(cost))
            if best is None or cost[index] < best[0] - 1:
                best = (float(cost[index]), (int(fx[index]), int(fy[index]), turn))
        return best[1] if best else None

    def seat_alone(self, component: Component) -> None:
        """Seat a part at its best place, beside its host where there is room; raises NoRoom."""
        cluster = Cluster((Member(component, Seat(0, 0)),))
        beside, (xs, ys) = self.beside(component), self.lattice
        place = None
        if beside:
            near = (np.abs(xs - beside[1][0]) < NEAR_WINDOW_NM) & (
                np.abs(ys - beside[1][1]) < NEAR_WINDOW_NM
            )
            place = self.best(cluster, xs[near], ys[near], self.plan)
        place = place or self.best(cluster, xs, ys, self.plan)
        if place is None:
            cluster, place = self.behind(component)
        self.put(component, cluster.members[0].at(*place))

    def behind(self, component: Component) -> tuple[Cluster, tuple[int, int, int]]:
        """A small part on the far side, where the brief allows that; raises NoRoom."""
        cluster = Cluster((Member(component, Seat(0, 0, 0, True)),))
        pattern = self.given.patterns[component.ref]
        small = not component.is_chip and not component.bare
        small = small and self.given.heights_mm[component.ref] <= BEHIND_MM
        small = small and not pattern.holes and not any(p.drill_nm for p in pattern.pads)
        if self.given.both_sides and small:
            place = self.best(cluster, *self.lattice, self.plan)
            if place is not None:
                return cluster, place
        raise NoRoom(component.ref, component.purpose)

    def seat_alike(self, group: list[Component]) -> None:
        """Seat parts that belong beside like hosts at one and the same place about each, as far as
        there is room; the rest at the next best, and what is left alone.
        """
        left = group
        while len(left) > 1:
            offset = self.common_offset(left)
            if offset is None:
                break
            rest = []
            for component in left:
                seat = self.offset_seat(component, offset)
                spot = np.array([seat.x]), np.array([seat.y])
                rows = self.rows(component, Seat(0, 0, seat.turn_deg))
                if self.plan.free(*spot, rows)[0]:
                    self.put(component, seat)
                else:
                    rest.append(component)
            if len(rest) == len(left):
                break
            left = rest
        for component in left:
            self.seat_alone(component)

    def offset_seat(self, component: Component, offset: tuple[int, int, int]) -> Seat:
        """The seat of a part at an offset from its host, in the host's own frame."""
        host = self.host(component)
        assert host is not None
        seat = self.seats[host.ref]
        x, y = Seat(seat.x, seat.y, seat.turn_deg).point(offset[0], offset[1])
        return Seat(x, y, (seat.turn_deg + offset[2]) % 360)

    def common_offset(self, group: list[Component]) -> tuple[int, int, int] | None:
        """The offset from their hosts that suits a group best: no room beside one costs as much as
        a metre.
        """
        reach = NEAR_WINDOW_NM // STEP_NM
        steps = np.arange(-reach, reach + 1) * STEP_NM
        dx, dy = (axis.ravel() for axis in np.meshgrid(steps, steps))
        best: tuple[float, tuple[int, int, int]] | None = None
        for turn in QUARTERS:
            total = np.zeros(len(dx))
            for component in group:
                host = self.host(component)
                assert host is not None
                seat = self.seats[host.ref]
                c, s = Seat(0, 0, seat.turn_deg).point(1, 0)
                xs, ys = seat.x + c * dx - s * dy, seat.y + s * dx + c * dy
                own = (seat.turn_deg + turn) % 360
                good = self.plan.free(xs, ys, self.rows(component, Seat(0, 0, own)))
                cost = self.costs((Member(component, Seat(0, 0)),), own, xs, ys)
                total += np.where(good, cost, NO_ROOM_NM)
            index = int(np.argmin(total))
            if total[index] < NO_ROOM_NM * len(group) and (
                best is None or total[index] < best[0] - 1
            ):
                best = (float(total[index]), (int(dx[index]), int(dy[index]), turn))
        return best[1] if best else None


def place(given: PlacingInput) -> Placement:
    """Seats for every part: fixed and locked ones stay, the rest are found; raises NoRoom."""
    seating = Seating(given)
    free: list[Component] = []
    for component in given.circuit.components:
        seat = given.locked.get(component.role) or given.fixed.get(component.role)
        if seat:
            seating.put(component, seat)
        else:
            free.append(component)
    waiting = seat_beside(seating, free)
    arrange(seating, waiting)
    fixed_roles = given.fixed.keys() | given.locked.keys()
    parts = tuple(
        PlacedPart(
            role=c.role,
            ref=c.ref,
            x_nm=seating.seats[c.ref].x,
            y_nm=seating.seats[c.ref].y,
            turn_deg=seating.seats[c.ref].turn_deg,
            far=seating.seats[c.ref].far,
            locked=c.role in fixed_roles,
        )
        for c in given.circuit.components
    )
    return Placement(parts=parts, workings=(area_working(given),))


def seat_beside(seating: Seating, free: list[Component]) -> list[Component]:
    """Seat what belongs beside seated parts, wave by wave, like parts beside like hosts together;
    what belongs beside none is left.
    """
    left = list(free)
    while True:
        wave = [c for c in left if seating.host(c) is not None]
        if not wave:
            return left
        groups: dict[tuple[str, ...], list[Component]] = {}
        for component in wave:
            groups.setdefault(alike(seating, component), []).append(component)
        for group in sorted(groups.values(), key=lambda g: not beside_chip(seating, g[0])):
            seating.seat_alike(group)
        left = [c for c in left if c.ref not in seating.seats]


def alike(seating: Seating, component: Component) -> tuple[str, ...]:
    """What parts have in common that are seated alike: their part and pads, and the part and pad of
    their hosts.
    """
    host = seating.host(component)
    assert host is not None
    pads = [
        number for number, net in component.pads.items() if host.pads.get(component.near_pad) == net
    ]
    chip = host.ref if host.is_chip else ""
    return (component.part, *pads, host.part, component.near_pad, chip)


def beside_chip(seating: Seating, component: Component) -> bool:
    """Whether a part belongs beside the chip."""
    host = seating.host(component)
    return host is not None and host.is_chip


def arrange(seating: Seating, free: list[Component]) -> None:
    """Seat what is left: clusters at good places one by one, the large first, then all of them at
    once.
    """
    probes = [c for c in free if is_probe(c)]
    clusters = [
        clustered(seating, family) for family in families(c for c in free if c not in probes)
    ]
    if probes:
        wide = seating.given.patterns[probes[0].ref].courtyard.w
        clusters.append(row_of(probes, wide))
    clusters.sort(key=lambda c: -size_of(seating.room(c, 0)))
    standing: list[tuple[Cluster, tuple[int, int, int]]] = []
    fixed = {net: list(points) for net, points in seating.points.items()}
    taken = dict(seating.plan.taken)
    queue = list(clusters)
    while queue:
        cluster = queue.pop(0)
        place = seating.best(cluster, *seating.lattice, seating.plan)
        if place is None and len(cluster.members) == 1:
            cluster, place = seating.behind(cluster.members[0].component)
        if place is None:
            queue = [Cluster((Member(m.component, Seat(0, 0)),)) for m in cluster.members] + queue
            continue
        standing.append((cluster, place))
        for member in cluster.members:
            seating.put(member.component, member.at(*place))
    seating.points, seating.plan.taken = fixed, taken
    kinds = sorted({cluster.like for cluster, _ in standing})
    names = sorted({n for c, _ in standing for m in c.members for n in m.component.pads.values()})
    numbers = {name: index for index, name in enumerate(n for n in names if seating.weight(n))}
    items = [item_of(seating, cluster, place, kinds, numbers) for cluster, place in standing]
    points = [fixed.get(name, []) for name in numbers]
    for (cluster, _), (x, y, quarter) in zip(
        standing,
        arranged(items, points, seating.plan, seating.given.arrangement),
        strict=True,
    ):
        for member in cluster.members:
            seating.put(member.component, member.at(x, y, QUARTERS[quarter]))


def clustered(seating: Seating, family: list[Component]) -> Cluster:
    """A host with all that belongs beside it, seated about it as if there were nothing else."""
    root, *others = family
    if not others:
        return Cluster((Member(root, Seat(0, 0)),))
    own = Seating(seating.given, alone=True)
    own.put(root, Seat(0, 0))
    for component in others:
        own.seat_alone(component)
    return Cluster(tuple(Member(c, own.seats[c.ref]) for c in family))


def item_of(
    seating: Seating,
    cluster: Cluster,
    place: tuple[int, int, int],
    kinds: list[str],
    numbers: dict[str, int],
) -> Item:
    """A cluster as something to be arranged."""
    pads: list[list[tuple[int, int]]] = [[], [], [], []]
    nets, weights = [], []
    for member in cluster.members:
        component = member.component
        for number, net in component.pads.items():
            if net not in numbers:
                continue
            nets.append(numbers[net])
            weights.append(seating.weight(net))
            for quarter, turn in enumerate(QUARTERS):
                seat = member.at(0, 0, turn)
                pads[quarter].append(seating.pad_points(component.ref, number, seat)[0])
    return Item(
        tuple(seating.room(cluster, turn) for turn in QUARTERS),
        tuple(tuple(p) for p in pads),
        tuple(nets),
        tuple(weights),
        kinds.index(cluster.like),
        (place[0], place[1], QUARTERS.index(place[2])),
    )


def size_of(rows: Rows) -> int:
    """The area of all bodies in square nanometres."""
    bodies = rows[(rows[:, 4] & BODY) > 0]
    return int(((bodies[:, 2] - bodies[:, 0]) * (bodies[:, 3] - bodies[:, 1])).sum())


def area_working(placing: PlacingInput) -> Working:
    """How full both sides are."""
    taken = sum(p.courtyard.w * p.courtyard.h / 1e12 for p in placing.patterns.values())
    outline = placing.outline.area / 1e12
    share = 100 * taken / (2 * outline)
    return Working(
        id="board.fill",
        title="Courtyards over board area",
        value=share,
        unit="%",
        shown=f"{share:.0f} %",
        formula="courtyards / (2 x outline)",
        inputs=(
            given("courtyards", taken, "mm²", "land patterns of all parts"),
            given("outline", outline, "mm²", "outline of the brief"),
        ),
        source=Source(kind="computed", text="land patterns and outline"),
    )
