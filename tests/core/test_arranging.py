"""Placing on generated devices: cells repeated exactly, clusters kept together, nothing on
anything, and annealing that only helps.
"""

from collections import Counter

import numpy as np
import pytest
from shapely.geometry import box

from bench.devices import generated
from loquet.core.design import Design
from loquet.core.geometry import Seat
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.placement.arranging import Item, arranged
from loquet.core.placement.ground_plan import BEHIND, BODY, LOW, GroundPlan, rows_of

MM = 1_000_000


@pytest.fixture(scope="module")
def placed(library: Library) -> Design:
    return bring_up_to_date(Design(brief=generated("handset", 0)), library, "placement")


def test_every_key_has_its_diode_at_the_same_place(placed: Design, library: Library) -> None:
    """Seen from the key: offset and turn. All alike, but for those that have no room there."""
    view = board_view(placed, library)
    by_role = {c.role: c for c in view.circuit.components}
    offsets: Counter[tuple[int, int, int]] = Counter()
    for part in view.circuit.components:
        host = by_role.get(part.near_role)
        if host is None or not part.role.startswith("diode button:"):
            continue
        seat, at = view.seats[part.ref], view.seats[host.ref]
        x, y = Seat(0, 0, -at.turn_deg % 360).point(seat.x - at.x, seat.y - at.y)
        offsets[x, y, (seat.turn_deg - at.turn_deg) % 360] += 1
    assert offsets.total() >= 28
    assert offsets.most_common(1)[0][1] >= 0.9 * offsets.total()


def part(x: int, y: int, net: int, like: int = -1, half: int = 1) -> Item:
    """A square with one pad in its middle, in mm."""
    rows = rows_of([(-half * MM, -half * MM, half * MM, half * MM)])
    return Item((rows,) * 4, (((0, 0),),) * 4, (net,), (1.0,), like, (x * MM, y * MM, 0))


def test_annealing_brings_parts_to_their_nets_and_keeps_them_apart() -> None:
    """Two parts of 2 mm far from the fixed pads of their nets, which lie on opposite sides: they
    change places.
    """
    plan = GroundPlan(box(0, 0, 40 * MM, 20 * MM), 0)
    items = [part(36, 4, 0), part(4, 4, 1)]
    points = [[(6 * MM, 16 * MM)], [(34 * MM, 16 * MM)]]
    (ax, ay, _), (bx, by, _) = arranged(items, points, plan)
    assert abs(ax - 6 * MM) + abs(ay - 16 * MM) <= MM
    assert abs(bx - 34 * MM) + abs(by - 16 * MM) <= MM
    same = arranged([part(36, 4, 0), part(4, 4, 0)], [[(20 * MM, 10 * MM)]], plan)
    (ax, ay, _), (bx, by, _) = same
    assert max(abs(ax - bx), abs(ay - by)) >= 2 * MM
    assert same == arranged([part(36, 4, 0), part(4, 4, 0)], [[(20 * MM, 10 * MM)]], plan)


def test_annealing_stays_off_what_is_taken_and_inside() -> None:
    plan = GroundPlan(box(0, 0, 20 * MM, 20 * MM), 0)
    plan.taken["screw"] = rows_of([(8 * MM, 8 * MM, 12 * MM, 12 * MM)])
    ((x, y, _),) = arranged([part(3, 3, 0)], [[(10 * MM, 10 * MM)]], plan)
    assert max(abs(x - 10 * MM), abs(y - 10 * MM)) >= 3 * MM
    ((x, y, _),) = arranged([part(3, 3, 0)], [[(-50 * MM, 10 * MM)]], plan)
    assert x >= 1 * MM


def test_like_parts_stand_in_line() -> None:
    """Nets pull a little apart; standing in line saves more."""
    plan = GroundPlan(box(0, 0, 40 * MM, 40 * MM), 0)
    points = [[(10 * MM, 20 * MM)], [(20 * MM, 20_500_000)]]
    alike = arranged([part(5, 5, 0, like=0), part(30, 5, 1, like=0)], points, plan)
    assert alike[0][1] == alike[1][1] or alike[0][0] == alike[1][0]


@pytest.mark.parametrize(
    ("what", "clear_of", "free"),
    [(BODY, BODY, False), (BODY, LOW, False), (0, BODY, False), (0, BEHIND, True), (LOW, 0, True)],
)
def test_only_what_must_stay_clear_is_kept_clear(what: int, clear_of: int, free: bool) -> None:
    """A body is taken at (10, 10); what stands there, and what it must stay clear of, decides."""
    plan = GroundPlan(box(0, 0, 20 * MM, 20 * MM), 0)
    plan.taken["R1"] = rows_of([(9 * MM, 9 * MM, 11 * MM, 11 * MM)], BODY, BODY)
    rows = rows_of([(-MM, -MM, MM, MM)], what, clear_of)
    spot = np.array([10 * MM]), np.array([10 * MM])
    assert bool(plan.free(*spot, rows)[0]) is free
    assert bool(plan.free(*spot, rows, "R1")[0]) is True
    beside = np.array([12 * MM]), np.array([10 * MM])
    assert bool(plan.free(*beside, rows)[0]) is True
