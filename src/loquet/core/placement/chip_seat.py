"""The free place for the chip that is nearest to everything it talks to."""

import numpy as np
from shapely.geometry import Polygon

from loquet.core.board.through import pins_rect
from loquet.core.geometry import Rect, Seat, middle_of
from loquet.core.parts import LandPattern
from loquet.core.placement.ground_plan import BEHIND, BODY, GroundPlan, rows_of
from loquet.core.placement.rooms import courtyard_rect, near_rects
from loquet.core.placement.seating import EDGE_NM, Floats, Longs, NoRoom, lattice

APART_NM = 3_000_000
HALOS_NM = (2_500_000, 1_500_000, 500_000, 0)


def lattice_offset(pattern: LandPattern) -> int:
    """How far a part must sit off the 0.1 mm lattice so that its fine pads lie on it, in nm."""
    return middle_of(pattern.pads[0].shape)[1] % 100_000


def nth_best(xs: Longs, ys: Longs, cost: Floats, number: int) -> int:
    """The cheapest place, or the cheapest that lies apart from all those before it; the last one
    there is where there are not so many.
    """
    best = int(np.argmin(cost))
    for _ in range(number - 1):
        near = np.hypot(xs - xs[best], ys - ys[best]) < APART_NM
        cost = np.where(near, np.inf, cost)
        if not np.isfinite(cost).any():
            break
        best = int(np.argmin(cost))
    return best


def chip_seat(
    outline: Polygon,
    pattern: LandPattern,
    fixed: list[tuple[LandPattern, Seat]],
    holes: tuple[tuple[int, int, int], ...],
    targets: list[tuple[int, int]],
    kept: tuple[Rect, ...] = (),
    behind: tuple[Rect, ...] = (),
    number: int = 1,
) -> Seat:
    """The free place for the chip with the least distance to everything it talks to, or the next
    best ones that lie well apart from those before; raises NoRoom.
    """
    plan = GroundPlan(outline, EDGE_NM)
    near = [rect for p, seat in fixed for rect in near_rects(p, seat)]
    screws = [(x - r, y - r, x + r, y + r) for x, y, r in holes]
    plan.taken["fixed"] = np.concatenate(
        [rows_of([*near, *screws, *kept]), rows_of(behind, BEHIND, 0)]
    )
    xs, ys = lattice(outline, lattice_offset(pattern))
    pins = pins_rect(pattern, Seat(0, 0))
    for halo in HALOS_NM:
        left, bottom, right, top = courtyard_rect(pattern, Seat(0, 0))
        body = rows_of([(left - halo, bottom - halo, right + halo, top + halo)], BODY, BODY)
        rows = np.concatenate([body, rows_of([pins] if pins else [], 0, BEHIND)])
        good = plan.free(xs, ys, rows)
        if good.any():
            cost = np.zeros(len(xs))
            for x, y in targets:
                cost += np.hypot(xs - x, ys - y)
            best = nth_best(xs, ys, np.where(good, cost, np.inf), number)
            return Seat(int(xs[best]), int(ys[best]))
    raise NoRoom("the chip", pattern.name)
