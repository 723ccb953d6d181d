"""Placing on boards so small that the answer is known by hand: places along a side, in a corner,
beside a pad; costs added up; swaps that only annealing finds.
"""

from dataclasses import replace
from math import hypot

import numpy as np
import pytest
from shapely.geometry import box

from loquet.core.circuit import Circuit, Component
from loquet.core.geometry import Box, Round, Seat
from loquet.core.parts import LandPattern
from loquet.core.parts.land import Pad
from loquet.core.placement import arranging
from loquet.core.placement.arranging import Item, arranged
from loquet.core.placement.chip_seat import nth_best
from loquet.core.placement.clusters import Cluster, Member, families, row_of
from loquet.core.placement.ground_plan import BEHIND, BODY, LOW, GroundPlan, rows_of
from loquet.core.placement.kernels import item_cost, outside, reach_costs
from loquet.core.placement.rooms import near_rects, room_of
from loquet.core.placement.seating import (
    STEP_NM,
    NoRoom,
    PlacingInput,
    area_working,
    lattice,
    place,
    size_of,
)

MM = 1_000_000


def pattern(wide: float = 2.0, deep: float = 1.0, *pads: Pad) -> LandPattern:
    """A part with its pads, and a courtyard and body about its middle."""
    yard = Box(0, 0, round(wide * MM), round(deep * MM))
    return LandPattern("x", pads or (dot("1", -0.5), dot("2", 0.5)), yard, yard)


def dot(number: str, x: float, y: float = 0.0, drill: float = 0.0, d: float = 0.4) -> Pad:
    spot = (round(x * MM), round(y * MM))
    return Pad(number, Round(*spot, round(d * MM)), drill_nm=round(drill * MM))


def part(role: str, pads: dict[str, str], **more: object) -> Component:
    return Component(
        role=role,
        ref=role,
        part=str(more.pop("part", "r")),
        block="",
        purpose=role,
        pads=pads,
        **more,
    )  # type: ignore[arg-type]


def given(
    *parts: Component, outline: tuple[float, float] = (30, 20), **more: object
) -> PlacingInput:
    return PlacingInput(
        outline=box(0, 0, outline[0] * MM, outline[1] * MM),
        circuit=Circuit(components=parts, nets=(), workings=()),
        patterns=more.pop("patterns", {c.ref: pattern() for c in parts}),  # type: ignore[arg-type]
        heights_mm={c.ref: 0.5 for c in parts},
        fixed=more.pop("fixed", {}),  # type: ignore[arg-type]
        locked={},
        holes=more.pop("holes", ()),  # type: ignore[arg-type]
        **more,  # type: ignore[arg-type]
    )


# The chip


CHIP = pattern(6, 4)


def test_the_next_best_places_lie_apart() -> None:
    """Costs along a line, least at 0: the second choice is the first that lies 3 mm away; where
    there is none, the last stays.
    """
    xs = np.arange(0, 10) * MM
    ys, cost = np.zeros(10, dtype=np.int64), np.arange(10.0)
    assert [nth_best(xs, ys, cost, n) for n in (1, 2, 3, 4, 5)] == [0, 3, 6, 9, 9]


# Costs and rooms


def test_reach_costs_and_item_costs_by_hand() -> None:
    """Along rows and columns: (3, 4) to the nearer of (0, 0) and (5, 5) is 3, twice as dear; an
    item that stands in line with none of its like pays 0.7, one upside down 0.3.
    """
    longs = lambda *rows: np.array(rows, dtype=np.int64)  # noqa: E731
    cost = reach_costs(
        longs(3),
        longs(4),
        longs((0, 0, 0, 0), (1, 1, 0, 0)),
        np.array([2.0, 1.0]),
        longs(0, 2, 2),
        longs((0, 0), (5, 5)),
    )
    assert cost.tolist() == [6.0]
    places = longs((0, 0, 0), (10, 3, 0))
    pads = np.zeros((4, 2, 2), dtype=np.int64)

    def one(x: int, y: int, turn: int, like: int = 0) -> float:
        return float(
            item_cost(
                0,
                x,
                y,
                turn,
                longs(0, 1, 2),
                pads,
                longs(0, 0),
                np.array([1.0, 1.0]),
                longs(0, 2),
                longs(0, 1),
                longs(0, 1),
                longs((0, 0), (10, 3)),
                longs(0, 1),
                longs((0, 9)),
                longs(like, 0),
                places,
                0.7,
                0.3,
            )
        )

    assert one(4, 3, 0) == 6  # six to the other, ten to the fixed pad; in line with the other
    assert one(4, 4, 0) == pytest.approx(7 + 0.7)
    assert one(4, 4, 0, like=-1) == 7
    assert one(4, 3, 2) == pytest.approx(6 + 0.7 + 0.3)
    assert one(1, 8, 0) == pytest.approx(2 + 0.7)


@pytest.mark.parametrize(
    ("rect", "out"),
    [
        ((1, 1, 9, 9), False),
        ((0, 0, 10, 10), False),
        ((-0.01, 1, 9, 9), True),
        ((1, 1, 10.01, 9), True),
        ((1, -0.01, 9, 9), True),
        ((1, 1, 9, 10.01), True),
    ],
)
def test_inside_and_outside(rect: tuple[float, ...], out: bool) -> None:
    """A raster of 10 x 10 mm without anything forbidden, cell by cell of a quarter millimetre."""
    plan = GroundPlan(box(0, 0, 10 * MM, 10 * MM), 0)
    assert outside(*(round(v * MM) for v in rect), plan.sums, plan.origin) is out


def test_rows_of_parts_by_height_side_and_pins() -> None:
    """A high part stays clear of low areas, a low one does not; pins keep off bodies behind; on the
    far side its body is behind and its pins take the near side.
    """
    flat = pattern(2, 1)
    assert room_of(flat, Seat(5 * MM, 5 * MM), 2.0).tolist() == [
        [4 * MM, 4_500_000, 6 * MM, 5_500_000, BODY, BODY]
    ]
    assert room_of(flat, Seat(0, 0), 2.01)[0, 5] == BODY | LOW
    assert room_of(flat, Seat(0, 0), 0.0, bare=True)[0, 5] == BODY | LOW
    assert room_of(flat, Seat(0, 0), 1.0, halo_nm=700_000)[0, :4].tolist() == [
        -1_700_000,
        -1_200_000,
        1_700_000,
        1_200_000,
    ]
    pins = pattern(4, 2, dot("1", -1, 0, 0.8, 1.6), dot("2", 1, 0, 0.8, 1.6))
    near = room_of(pins, Seat(0, 0), 5.0)
    assert near[:, 4:].tolist() == [[BODY, BODY | LOW], [0, BEHIND]]
    far = room_of(pins, Seat(0, 0, 0, True), 5.0)
    assert [row[4:] for row in far.tolist()] == [[BODY, BODY | LOW]] * 2 + [[BEHIND, BEHIND]]
    assert sorted(far[:2, 0].tolist()) == [-2_050_000, -50_000]  # half of 1.6 mm and a quarter
    assert far[2, :4].tolist() == [-2 * MM, -MM, 2 * MM, MM]


def test_a_row_is_stepped_by_half_millimetres_that_hold_a_part() -> None:
    """A part 1.7 mm wide stands every 2 mm, one of 2.0 mm too, one of 2.1 mm every 2.5 mm."""
    three = [part(name, {}) for name in "abc"]
    for wide, step in ((1.7, 2.0), (2.0, 2.0), (2.1, 2.5)):
        row = row_of(three, round(wide * MM))
        assert [m.seat.x / MM for m in row.members] == [0, step, 2 * step]
        assert {m.seat.y for m in row.members} == {0}


def test_a_family_is_a_host_with_all_that_hangs_on_it() -> None:
    """In waves: what belongs beside the host, then what belongs beside that."""
    host, one = part("host", {}), part("one", {}, near_role="host")
    two, alone = part("two", {}, near_role="one"), part("alone", {}, near_role="gone")
    found = families([two, one, host, alone])
    assert [[c.role for c in family] for family in found] == [["host", "one", "two"], ["alone"]]


def test_a_cluster_turns_about_its_lead() -> None:
    """A member 2 mm to the right stands 2 mm above once the cluster is turned by a quarter, and
    turned with it.
    """
    member = Member(part("a", {}), Seat(2 * MM, 0, 90))
    assert member.at(10 * MM, 5 * MM, 90) == Seat(10 * MM, 7 * MM, 180)
    assert member.at(10 * MM, 5 * MM, 270) == Seat(10 * MM, 3 * MM, 0)
    assert Cluster((member,)).name == "a"


def test_the_size_of_rooms_counts_bodies_alone() -> None:
    rows = np.concatenate(
        [rows_of([(0, 0, 3, 2)]), rows_of([(0, 0, 9, 9)], LOW, 0), rows_of([(1, 1, 2, 5)])]
    )
    assert size_of(rows) == 6 + 4


def test_how_full_a_board_is() -> None:
    """Two parts of 2 mm² on two sides of 600 mm²: 4 / 1200."""
    working = area_working(given(part("a", {}), part("b", {})))
    assert working.value == pytest.approx(100 * 4 / 1200)
    assert [i.value for i in working.inputs] == ["4", "600"]


# Whole placements


def test_a_part_is_put_beside_its_pad_within_ten_millimetres() -> None:
    """With room there it stands there; where screws fill all about its host it goes where there is
    room at all.
    """
    host = part("host", {"1": "A", "2": "B"})
    own = part("own", {"1": "A", "2": "C"}, near_role="host", near_pad="1")
    fixed = {"host": Seat(30 * MM, 10 * MM)}
    beside = {p.role: p for p in place(given(host, own, outline=(60, 20), fixed=fixed)).parts}[
        "own"
    ]
    # Its pad 1 is drawn onto the host's at 29.5: the nearest it can stand is beside or above the
    # host's courtyard.
    assert hypot(beside.x_nm - 29.5 * MM, beside.y_nm - 10 * MM) < 2.1 * MM
    full = given(host, own, outline=(60, 20), fixed=fixed, holes=((30 * MM, 10 * MM, 14 * MM),))
    away = {p.role: p for p in place(full).parts}["own"]
    assert hypot(away.x_nm - 30 * MM, away.y_nm - 10 * MM) > 14 * MM
    assert abs(away.x_nm - 30 * MM) < 18 * MM


def slot_item(x: int, y: int, net: int, half: float = 1.0) -> Item:
    reach = round(half * MM)
    rows = rows_of([(-reach, -reach, reach, reach)])
    return Item((rows,) * 4, (((0, 0),),) * 4, (net,), (1.0,), -1, (x * MM, y * MM, 0))


def test_two_parts_that_fill_their_board_change_places() -> None:
    """On 4.5 x 2 mm two squares of 2 mm can hardly move; each stands at the other's net, and only a
    change of places helps.
    """
    plan = GroundPlan(box(0, 0, 4 * MM, 2 * MM), 0)
    items = [slot_item(1, 1, 0), slot_item(3, 1, 1)]
    (a, _, _), (b, _, _) = arranged(items, [[(3 * MM, MM)], [(MM, MM)]], plan)
    assert (a, b) == (3 * MM, MM)


def test_most_steps_move_and_few_turn(monkeypatch: pytest.MonkeyPatch) -> None:
    """One step of a part that nothing draws anywhere, 600 times: 15 % try a turn where it stands,
    of the others a tenth turn on the way, and one turn in four is none. So 18.8 % are turned and 85
    % moved, give or take three deviations.
    """
    for name in ("STEPS_EACH", "LEAST_STEPS"):
        monkeypatch.setattr(arranging, name, 1)
    item = replace(slot_item(20, 15, 0), weights=(0.0,))
    plan = GroundPlan(box(0, 0, 40 * MM, 30 * MM), 0)
    ends = [arranged([item], [[(20 * MM, 15 * MM)]], plan, seed)[0] for seed in range(600)]
    assert sum(turn != 0 for *_, turn in ends) / 600 == pytest.approx(0.188, abs=0.048)
    assert sum((x, y) != (20 * MM, 15 * MM) for x, y, _ in ends) / 600 == pytest.approx(
        0.85, abs=0.044
    )


def test_a_part_that_cannot_move_turns_towards_its_net() -> None:
    """A square with one pad at its right side, its net on the left, above or below: it turns by
    two, one and three quarters.
    """
    quarter_pads = (((900_000, 0),), ((0, 900_000),), ((-900_000, 0),), ((0, -900_000),))
    rows = rows_of([(-MM, -MM, MM, MM)])
    plan = GroundPlan(box(0, 0, 2 * MM, 2 * MM), 0)
    for goal, turn in (((-9, 1), 2), ((1, 11), 1), ((1, -9), 3), ((11, 1), 0)):
        item = Item((rows,) * 4, quarter_pads, (0,), (1.0,), -1, (MM, MM, 0))
        ((x, y, found),) = arranged([item], [[(goal[0] * MM, goal[1] * MM)]], plan)
        assert (x, y, found) == (MM, MM, turn)


def test_places_stay_on_the_lattice_of_half_millimetres() -> None:
    """Whatever annealing does, an item moves by whole steps."""
    plan = GroundPlan(box(0, 0, 30 * MM, 20 * MM), 0)
    items = [slot_item(3 + 3 * n, 3, n) for n in range(5)]
    goals = [[(round((27.3 - 5 * n) * MM), round(15.7 * MM))] for n in range(5)]
    found = arranged(items, goals, plan)
    assert all(x % 500_000 == 0 and y % 500_000 == 0 for x, y, _ in found)
    away = [abs(x - g[0][0]) + abs(y - g[0][1]) for (x, y, _), g in zip(found, goals, strict=True)]
    assert max(away) <= 500_000


# Behind


def test_small_parts_go_behind_where_the_front_is_full() -> None:
    """On 6 x 4 mm a part with leads fills the front; a resistor finds no room there, and behind it
    only where that is allowed, clear of the leads and of the screw.
    """
    leads = pattern(5, 3, dot("1", -2, 0, 0.8, 1.6), dot("2", 2, 0, 0.8, 1.6))
    big, own = part("big", {"1": "A", "2": "B"}), part("own", {"1": "A", "2": "C"})
    shared = {
        "outline": (6, 4),
        "fixed": {"big": Seat(3 * MM, 2 * MM)},
        "patterns": {"big": leads, "own": pattern(1.5, 1)},
    }
    with pytest.raises(NoRoom, match="let parts go behind"):
        place(given(big, own, **shared))
    seats = {p.role: p.seat for p in place(given(big, own, both_sides=True, **shared)).parts}
    assert seats["own"].far
    assert not seats["big"].far
    # leads at 1 and 5, 2 mm with a hole of 0.8 and room: the middle is what is left, with half a
    # millimetre to the edge
    left, bottom, right, top = seats["own"].rect(pattern(1.5, 1).courtyard)
    assert left >= 500_000
    assert bottom >= 500_000
    assert right <= 5_500_000
    assert top <= 3_500_000
    screwed = given(big, own, both_sides=True, holes=((3 * MM, 2 * MM, 2 * MM),), **shared)
    with pytest.raises(NoRoom):
        place(screwed)


def test_what_has_leads_or_is_a_chip_stays_on_the_front() -> None:
    """Leads would come out in front, and a chip is what everything else is placed about."""
    flat = pattern(5, 3)
    leads = pattern(1.5, 1, dot("1", -0.4, 0, 0.3), dot("2", 0.4, 0, 0.3))
    big = part("big", {"1": "A", "2": "B"})
    fixed = {"big": Seat(3 * MM, 2 * MM)}
    for own, drawn, high in (
        (part("own", {"1": "A"}), leads, 0.5),
        (part("own", {"1": "A"}, part="chip:X"), pattern(1.5, 1), 0.5),
        (part("own", {"1": "A"}, bare=True), pattern(1.5, 1), 0.0),
        (part("own", {"1": "A"}), pattern(1.5, 1), 3.1),
    ):
        full = given(
            big,
            own,
            outline=(6, 4),
            fixed=fixed,
            both_sides=True,
            patterns={"big": flat, "own": drawn},
        )
        with pytest.raises(NoRoom):
            place(replace(full, heights_mm={"big": 1.0, "own": high}))


def test_a_part_behind_takes_its_plated_holes_of_the_near_side() -> None:
    """A pad of 1 mm with a hole takes a square of 0.5 + 0.25 mm about its middle; a surface pad
    takes nothing there.
    """
    leaded = pattern(2.0, 1.0, dot("1", 0.5, 0.0, 0.6, 1.0), dot("2", -0.5))
    (rect,) = near_rects(leaded, Seat(10 * MM, 5 * MM, 0, True))
    assert rect == (8_750_000, 4_250_000, 10_250_000, 5_750_000)


def test_the_lattice_covers_the_board_in_steps() -> None:
    """Whole steps from the corner of its bounds, moved by an offset; no point lies beyond the right
    or upper edge.
    """
    xs, ys = lattice(box(1.2 * MM, 0.3 * MM, 3 * MM, 2 * MM))
    assert set(np.diff(np.unique(xs))) == set(np.diff(np.unique(ys))) == {STEP_NM}
    assert xs.min() == 1.2 * MM // STEP_NM * STEP_NM
    assert ys.min() == 0.3 * MM // STEP_NM * STEP_NM
    assert xs.max() < 3 * MM <= xs.max() + STEP_NM
    moved, _ = lattice(box(1.2 * MM, 0.3 * MM, 3 * MM, 2 * MM), 100_000)
    assert moved.min() == xs.min() + 100_000
