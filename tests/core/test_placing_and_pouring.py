"""Laws of placing and pouring on small made-up boards and on the demo."""

from dataclasses import replace

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Point, box

from loquet.core.board.copper import Copper
from loquet.core.board.islands import Groups, ground_islands
from loquet.core.board.pouring import polygons, relieved, spokes_of
from loquet.core.brief import Brief, plain_name
from loquet.core.brief.seats import fixed_seats
from loquet.core.checks.measuring import Measured, too_close
from loquet.core.design import Design
from loquet.core.geometry import Bar, Box, Round, Shape
from loquet.core.library import Library
from loquet.core.pins.needing import needs_of
from loquet.core.pipeline import board_view
from loquet.core.placement.ground_plan import GroundPlan, rows_of
from tests.making import varied

MM = 1_000_000
SQUARE = box(0, 0, 20 * MM, 20 * MM)


def free(plan: GroundPlan, x_mm: float, y_mm: float, half_mm: float = 1.0) -> bool:
    half = int(half_mm * MM)
    return bool(
        plan.free(
            np.array([int(x_mm * MM)]),
            np.array([int(y_mm * MM)]),
            rows_of([(-half, -half, half, half)]),
        )[0]
    )


def test_a_ground_plan_knows_the_notch_of_an_outline() -> None:
    notched = SQUARE.difference(box(8 * MM, 8 * MM, 20 * MM, 20 * MM))
    plan = GroundPlan(notched, 500_000)
    assert free(plan, 4, 14)
    assert free(plan, 14, 4)
    assert not free(plan, 14, 14)


@given(st.lists(st.tuples(st.integers(0, 19), st.integers(0, 19)), max_size=40))
def test_groups_are_those_of_a_plain_search(pairs: list[tuple[int, int]]) -> None:
    groups = Groups(20)
    for a, b in pairs:
        groups.join(a, b)
    near: dict[int, set[int]] = {i: {i} for i in range(20)}
    for a, b in pairs:
        near[a].add(b)
        near[b].add(a)
    for start in range(20):
        reached, wave = {start}, {start}
        while wave:
            wave = {n for w in wave for n in near[w]} - reached
            reached |= wave
        assert {i for i in range(20) if groups.find(i) == groups.find(start)} == reached


def test_slivers_are_left_out_and_large_pieces_come_first() -> None:
    pieces = polygons(
        shapely.union_all(
            [
                box(0, 0, MM, MM),
                box(5 * MM, 0, 9 * MM, 4 * MM),
                box(20 * MM, 0, 20 * MM + 100_000, 100_000),
            ]
        )
    )
    assert [round(p.area / 1e12) for p in pieces] == [16, 1]


def test_gaps_are_measured_to_the_nanometre() -> None:
    def pair(gap: int) -> list[Measured]:
        return [
            Measured(Point(0, 0), 100_000, "A", "a"),
            Measured(Point(200_000 + gap, 0), 100_000, "B", "b"),
        ]

    assert list(too_close(pair(150_000), 150_000)) == []
    (found,) = too_close(pair(149_990), 150_000)
    assert found.gap_nm == pytest.approx(149_990)
    assert found.x == pytest.approx(174_995)


def test_one_net_and_one_contact_may_touch_but_no_net_is_foreign_to_all() -> None:
    def touching(net_a: str, net_b: str, group: str = "") -> int:
        things = [
            Measured(Point(0, 0), 100_000, net_a, "a", group),
            Measured(Point(50_000, 0), 100_000, net_b, "b", group),
        ]
        return len(list(too_close(things, 150_000)))

    assert touching("A", "A") == 0
    assert touching("A", "B") == 1
    assert touching("", "") == 1
    assert touching("", "", "S1 pad 2") == 0


def test_without_tracks_the_ground_falls_apart(finished: Design, library: Library) -> None:
    bare = finished.model_copy(update={"routing": {}, "pour": {}})
    assert ground_islands(board_view(bare, library), (), ()) == sum(
        1 for c in {p.owner for p in board_view(bare, library).pads if p.net == "GROUND"} if c
    )


def test_cells_lie_in_series_beside_each_other(brief: Brief) -> None:
    seats = fixed_seats(brief)
    upper, lower = seats["cell:1"], seats["cell:2"]
    assert upper.far
    assert lower.far
    assert upper.y - lower.y == 13 * MM
    # the minus end of the upper cell is on the same side as the plus end of the lower one
    assert upper.point(25 * MM, 0)[0] == lower.point(-25 * MM, 0)[0]


def test_needs_follow_the_brief(brief: Brief) -> None:
    assert len(needs_of(brief)) == 6 + 2 + 1 + 1 + 2
    fewer = varied(brief, things={"screen": None, "buzzer": None, "light": None})
    assert [n.kind for n in needs_of(fewer)] == ["input"] * 6 + ["debug data", "debug clock"]
    assert plain_name("button:all dark") == "BUTTON_ALL_DARK"
    assert plain_name("button:left-pad up 2") == "BUTTON_LEFT_PAD_UP_2"


@pytest.mark.parametrize(
    ("shape", "ends"),
    [
        # half the pad, 0.2 mm of ring, and half a spoke of 0.3 mm beyond it
        (Round(0, 0, 2 * MM), {(1_350_000, 0), (0, 1_350_000)}),
        (Box(0, 0, 2 * MM, MM), {(1_350_000, 0), (0, 850_000)}),
        (Bar(-MM, 0, MM, 0, MM), {(1_850_000, 0), (0, 850_000)}),
        (Bar(0, -MM, 0, MM, MM), {(0, 1_850_000), (-850_000, 0)}),
    ],
)
def test_spokes_reach_over_the_ring_of_every_shape(
    shape: Shape, ends: set[tuple[int, int]]
) -> None:
    pad = Copper("GROUND", ("near",), shape, "pad", "J1", "1")
    found = {(bar.x2, bar.y2) for bar in spokes_of(pad.shape)}
    assert found == ends
    assert {(-bar.x1, -bar.y1) for bar in spokes_of(pad.shape)} == ends
    assert {bar.w for bar in spokes_of(pad.shape)} == {300_000}
    assert relieved(pad)
    assert not relieved(replace(pad, in_full=True))
