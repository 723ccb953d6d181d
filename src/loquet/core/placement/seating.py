"""Seating parts one after the other at the cheapest free place, then again until nothing moves."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from shapely.geometry import Polygon

from loquet.core.board.model import PlacedPart, Placement
from loquet.core.board.through import pins_rect
from loquet.core.circuit import Circuit, Component
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Rect, Round, Seat, middle_of
from loquet.core.geometry.placing import QUARTERS
from loquet.core.parts import LandPattern
from loquet.core.placement.ground_plan import GroundPlan
from loquet.core.provenance import Source, Working, given

STEP_NM = 500_000
EDGE_NM = 500_000
CHIP_HALO_NM = 700_000
PASSES = 3
NEAR_WINDOW_NM = 10_000_000
LOW_MM = 2.0
NEAR_WEIGHT, SIGNAL_WEIGHT, SUPPLY_WEIGHT = 5.0, 1.0, 0.4
TURN_PRICE_NM = 300_000.0


class NoRoom(Exception):
    """A part for which no free place is left."""

    def __init__(self, ref: str, title: str) -> None:
        super().__init__(
            f"No free place is left for {ref} ({title}). Enlarge the outline or move controls apart."
        )
        self.ref = ref


@dataclass(frozen=True)
class PlacingInput:
    """Outline, circuit, patterns by reference, seats by role that are fixed or locked, areas to keep low, and areas of the near side that are kept free."""

    outline: Polygon
    circuit: Circuit
    patterns: dict[str, LandPattern]
    heights_mm: dict[str, float]
    fixed: dict[str, Seat]
    locked: dict[str, Seat]
    holes: tuple[tuple[int, int, int], ...]
    low_areas: tuple[Rect, ...] = ()
    kept: tuple[Rect, ...] = ()
    rails: frozenset[str] = frozenset()


def courtyard_rect(pattern: LandPattern, seat: Seat) -> Rect:
    """The courtyard of a seated part."""
    return seat.rect(pattern.courtyard)


def near_rects(pattern: LandPattern, seat: Seat) -> list[Rect]:
    """What a part takes of the near side: its courtyard, or only its plated holes where it sits on the far side."""
    if not seat.far:
        return [courtyard_rect(pattern, seat)]
    rects = []
    for pad in pattern.pads:
        if pad.drill_nm and isinstance(pad.shape, Round):
            x, y = seat.point(pad.shape.x, pad.shape.y)
            r = pad.shape.d // 2 + 250_000
            rects.append((x - r, y - r, x + r, y + r))
    return rects


def lattice_offset(pattern: LandPattern) -> int:
    """How far a part must sit off the 0.1 mm lattice so that its fine pads lie on it, in nm."""
    return middle_of(pattern.pads[0].shape)[1] % 100_000


def chip_seat(
    outline: Polygon,
    pattern: LandPattern,
    fixed: list[tuple[LandPattern, Seat]],
    holes: tuple[tuple[int, int, int], ...],
    targets: list[tuple[int, int]],
    kept: tuple[Rect, ...] = (),
    behind: tuple[Rect, ...] = (),
) -> Seat:
    """The free place for the chip with the least distance to everything it talks to; raises NoRoom."""
    plan = GroundPlan(outline, EDGE_NM)
    plan.taken["fixed"] = [rect for p, seat in fixed for rect in near_rects(p, seat)]
    plan.taken["holes"] = [(x - r, y - r, x + r, y + r) for x, y, r in holes]
    plan.taken["kept"] = list(kept)
    xs, ys = candidates(outline, lattice_offset(pattern))
    pins = pins_rect(pattern, Seat(0, 0))
    clear = clear_of(xs, ys, pins, behind) if pins else np.ones(len(xs), dtype=np.bool_)
    for halo in (2_500_000, 1_500_000, 500_000, 0):
        left, bottom, right, top = courtyard_rect(pattern, Seat(0, 0))
        good = clear & plan.free(xs, ys, (left - halo, bottom - halo, right + halo, top + halo))
        if good.any():
            cost = np.zeros(len(xs))
            for x, y in targets:
                cost += np.hypot(xs - x, ys - y)
            best = int(np.argmin(np.where(good, cost, np.inf)))
            return Seat(int(xs[best]), int(ys[best]))
    raise NoRoom("the chip", pattern.name)


def candidates(
    outline: Polygon, offset_nm: int = 0, step_nm: int = STEP_NM
) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """All lattice points of the board's bounds."""
    left, bottom, right, top = (int(v) for v in outline.bounds)
    xs = np.arange((left // step_nm) * step_nm + offset_nm, right, step_nm)
    ys = np.arange((bottom // step_nm) * step_nm + offset_nm, top, step_nm)
    grid_x, grid_y = np.meshgrid(xs, ys)
    return grid_x.ravel(), grid_y.ravel()


def clear_of(
    xs: NDArray[np.int64], ys: NDArray[np.int64], offset: Rect, areas: Iterable[Rect]
) -> NDArray[np.bool_]:
    """For rectangles that are `offset` about (xs, ys): whether they stay clear of all areas."""
    clear = np.ones(len(xs), dtype=np.bool_)
    for left, bottom, right, top in areas:
        clear &= (
            (xs + offset[0] >= right)
            | (xs + offset[2] <= left)
            | (ys + offset[1] >= top)
            | (ys + offset[3] <= bottom)
        )
    return clear


class Seating:
    """The state while placing: seats found so far, and the pads they give each net."""

    def __init__(self, given: PlacingInput) -> None:
        self.given = given
        self.plan = GroundPlan(given.outline, EDGE_NM)
        self.plan.taken["holes"] = [(x - r, y - r, x + r, y + r) for x, y, r in given.holes]
        self.plan.taken["kept"] = list(given.kept)
        self.seats: dict[str, Seat] = {}
        self.behind: dict[str, Rect] = {}
        self.by_role = {c.role: c for c in given.circuit.components}
        self.lattice = candidates(given.outline)
        self.supplies = given.rails

    def put(self, component: Component, seat: Seat) -> None:
        """Seat a part."""
        pattern = self.given.patterns[component.ref]
        self.seats[component.ref] = seat
        rects = near_rects(pattern, seat)
        if component.is_chip:
            halo = CHIP_HALO_NM
            rects = [
                (left - halo, bottom - halo, right + halo, top + halo)
                for left, bottom, right, top in rects
            ]
        self.plan.taken[component.ref] = rects
        if seat.far and self.given.heights_mm[component.ref]:
            self.behind[component.ref] = seat.rect(pattern.body)

    def take(self, component: Component) -> None:
        """Lift a part off the board."""
        self.seats.pop(component.ref, None)
        self.plan.taken.pop(component.ref, None)

    def net_points(self, skip: str) -> dict[str, list[tuple[int, int]]]:
        """Pad places of every net, without those of one part."""
        points: dict[str, list[tuple[int, int]]] = {}
        for component in self.given.circuit.components:
            seat = self.seats.get(component.ref)
            if seat is None or component.ref == skip:
                continue
            for number, net in component.pads.items():
                points.setdefault(net, []).extend(self.pad_points(component.ref, number, seat))
        return points

    def pad_points(self, ref: str, number: str, seat: Seat) -> list[tuple[int, int]]:
        """Where the pads of that number lie."""
        return [
            seat.point(*middle_of(p.shape))
            for p in self.given.patterns[ref].pads
            if p.number == number
        ]

    def best_seat(self, component: Component) -> Seat | None:
        """The cheapest free seat over the lattice and the four turns, or None where there is no room."""
        points = self.net_points(component.ref)
        beside = self.beside(component)
        if beside:
            xs, ys = self.lattice
            near = (np.abs(xs - beside[1][0]) < NEAR_WINDOW_NM) & (
                np.abs(ys - beside[1][1]) < NEAR_WINDOW_NM
            )
            found = self.best_of(component, xs[near], ys[near], points)
            if found:
                return found
        return self.best_of(component, *self.lattice, points)

    def best_of(
        self,
        component: Component,
        xs: NDArray[np.int64],
        ys: NDArray[np.int64],
        points: dict[str, list[tuple[int, int]]],
    ) -> Seat | None:
        """The cheapest free seat among these places and the four turns."""
        pattern = self.given.patterns[component.ref]
        best: tuple[float, Seat] | None = None
        for turn in QUARTERS:
            offset = courtyard_rect(pattern, Seat(0, 0, turn))
            good = self.plan.free(xs, ys, offset, component.ref)
            if self.tall(component):
                good &= clear_of(xs, ys, offset, self.given.low_areas)
            pins = pins_rect(pattern, Seat(0, 0, turn))
            if pins:
                good &= clear_of(xs, ys, pins, self.behind.values())
            if not good.any():
                continue
            fx, fy = xs[good], ys[good]
            cost = self.cost(component, turn, fx, fy, points) + TURN_PRICE_NM * (turn // 180)
            index = int(np.argmin(cost))
            if best is None or cost[index] < best[0] - 1:
                best = (float(cost[index]), Seat(int(fx[index]), int(fy[index]), turn))
        return best[1] if best else None

    def tall(self, component: Component) -> bool:
        """Whether a part may not lie under the screen: too high, or to be reached with a probe."""
        return self.given.heights_mm[component.ref] > LOW_MM or component.bare

    def cost(
        self,
        component: Component,
        turn: int,
        xs: NDArray[np.int64],
        ys: NDArray[np.int64],
        points: dict[str, list[tuple[int, int]]],
    ) -> NDArray[np.float64]:
        """Weighted distance of every pad to the nearest pad of its net, and to the pad it belongs beside."""
        cost = np.zeros(len(xs))
        seat = Seat(0, 0, turn)
        beside = self.beside(component)
        for number, net in component.pads.items():
            own = self.pad_points(component.ref, number, seat)[0]
            if beside and net == beside[0]:
                cost += NEAR_WEIGHT * (
                    np.abs(xs + own[0] - beside[1][0]) + np.abs(ys + own[1] - beside[1][1])
                )
            if net == GROUND or not points.get(net):
                continue
            weight = SUPPLY_WEIGHT if net in self.supplies else SIGNAL_WEIGHT
            away = np.full(len(xs), np.inf)
            for x, y in points[net]:
                away = np.minimum(away, np.abs(xs + own[0] - x) + np.abs(ys + own[1] - y))
            cost += weight * away
        return cost

    def beside(self, component: Component) -> tuple[str, tuple[int, int]] | None:
        """The net and place of the pad that a part belongs beside."""
        host = self.by_role.get(component.near_role)
        if host is None or host.ref not in self.seats:
            return None
        spots = self.pad_points(host.ref, component.near_pad, self.seats[host.ref])
        return (host.pads.get(component.near_pad, ""), spots[0]) if spots else None


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
    free.sort(key=lambda c: (-area_class(given.patterns[c.ref]), c.near_role == ""))
    for component in free:
        seat_or_fail(seating, component)
    for _ in range(PASSES):
        if not settle(seating, free):
            break
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


def area_class(pattern: LandPattern) -> int:
    """Large parts are seated first: 1 for anything over 30 square millimetres."""
    return int(pattern.courtyard.w * pattern.courtyard.h > 30e12)


def seat_or_fail(seating: Seating, component: Component) -> None:
    """Seat a part at its best place, or raise NoRoom."""
    seat = seating.best_seat(component)
    if seat is None:
        raise NoRoom(component.ref, component.purpose)
    seating.put(component, seat)


def settle(seating: Seating, free: list[Component]) -> bool:
    """Lift and seat every free part once more; whether anything moved."""
    moved = False
    for component in free:
        before = seating.seats[component.ref]
        seating.take(component)
        after = seating.best_seat(component) or before
        seating.put(component, after)
        moved = moved or after != before
    return moved


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
