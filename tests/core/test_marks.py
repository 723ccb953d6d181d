"""Slots, cut-outs, areas kept free and fiducials: from the brief to files that hold them, and pins
that come out under a part.
"""

from dataclasses import replace
from math import pi
from typing import Any

import numpy as np
import pytest
import shapely
from gerbonara import GerberFile
from shapely.geometry import Point, Polygon

from loquet.core.board.copper import FAR, NEAR
from loquet.core.brief import Brief
from loquet.core.design import Design
from loquet.core.geometry import Seat, polygon_of
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.placement.ground_plan import BODY, GroundPlan
from loquet.core.placement.kept_rooms import KeptRoom, rows_kept, storeys_of
from loquet.core.placement.rooms import room_of
from loquet.core.planning.feasibility import brief_faults
from loquet.core.release import prove_package, release
from loquet.core.reviewing import review
from tests.editing import edit
from tests.making import Plain, as_made, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
SLOT = thing("slot", "strap", 20, 20, length_mm=8.0, width_mm=2.0, turn_deg=30)
CUT = thing("cut-out", "window", 95, 40, width_mm=20.0, height_mm=12.0, corner_mm=1.5)
FREE = thing(
    "keep-out", "aerial", 60, 52, width_mm=20.0, height_mm=10.0, keeps_off="parts and copper"
)
MARKS = tuple(thing("fiducial", f"mark {i}") for i in range(3))


@pytest.fixture(scope="module")
def brief() -> Brief:
    keys = tuple(thing("button", f"key {i}", 15 + 15 * i, 10) for i in range(5))
    return device(CHIP, thing("leads", "leads", 6, 45), SLOT, CUT, FREE, *MARKS, *keys)


@pytest.fixture(scope="module")
def design(brief: Brief, library: Library) -> Design:
    assert brief_faults(brief, library) == []
    return bring_up_to_date(Design(brief=as_made(brief, finish="gold")), library)


def test_a_board_with_all_marks_is_proven(design: Design, library: Library) -> None:
    """Stops none; another reader finds all lines and arcs, and the area is what a ruler says: 120 x
    60 less its corners, the slot (8 x 2 with round ends) and the window.
    """
    made = release(design, library)
    assert [f.sentence for f in made.findings if f.severity == "stop"] == []
    assert prove_package(dict(made.files), design, library).faults == ()
    profile = GerberFile.from_string(dict(made.files)["fabrication/profile.gbr"].decode())
    arcs = sum(type(o).__name__ == "Arc" for o in profile.objects)
    assert (len(list(profile.objects)), arcs) == (8 + 6 + 8, 4 + 4 + 4)
    left_over = 120 * 60 - (4 - pi) * 3**2 - (6 * 2 + pi) - (20 * 12 - (4 - pi) * 1.5**2)
    view = board_view(design, library)
    assert view.outline.area / 1e12 == pytest.approx(left_over, abs=0.05)


def test_fiducials_stand_far_apart_in_rings_of_their_own(design: Design, library: Library) -> None:
    """SMEMA 3.1: a dot of 1.0 mm, clear to 2.0 mm; the first two across the board."""
    view = board_view(design, library)
    dots = [c for c in view.pads if c.bare_nm]
    assert len(dots) == 3
    spots = [Point(c.drill_x / 1e6, c.drill_y / 1e6) for c in dots]
    assert spots[0].distance(spots[1]) > 90
    assert all({c.shape.d, 1_000_000} == {1_000_000} for c in dots)  # type: ignore[union-attr]
    files = dict(release(design, library).files)
    mask = files["fabrication/mask-near.gbr"].decode()
    assert "C,2.0" in mask
    assert ".AperFunction,FiducialPad,Global" in files["fabrication/copper-near.gbr"].decode()
    assert "FD1" not in files["assembly/parts.csv"].decode()
    near = [c for c in (*view.pads, *view.wiring) if NEAR in c.sides and not c.bare_nm]
    assert view.pour is not None
    pour = [Polygon(p.outer, p.holes) for p in view.pour.pieces if not p.far]
    for spot in spots:
        ring = Point(spot.x * 1e6, spot.y * 1e6).buffer(0.999e6)
        assert not any(polygon_of(c.shape).intersects(ring) for c in near)
        assert not any(p.intersects(ring) for p in pour)


def said(*things: Plain, library: Library) -> list[str]:
    return [f"{e.about}: {e.problem}" for e in brief_faults(device(CHIP, *things), library)]


@pytest.mark.parametrize(
    ("things", "expected"),
    [
        ((SLOT | {"place": None},), "strap: has no place"),
        (
            (CUT | {"place": {"x_mm": 112, "y_mm": 40}},),
            "window: leaves less than 1 mm of the board beside it, or reaches beyond it",
        ),
        ((CUT, thing("slot", "strap", 82, 40)), "window: is less than 1 mm from 'strap'"),
        ((CUT, thing("button", "red", 95, 40)), "red: has pads over 'window'"),
        (
            (FREE, thing("button", "red", 60, 52)),
            "red: stands in 'aerial', which is kept free of parts",
        ),
    ],
)
def test_marks_that_do_not_fit_are_named(
    things: tuple[Plain, ...], expected: str, library: Library
) -> None:
    assert expected in said(*things, library=library)


@pytest.mark.parametrize(
    ("things", "words"),
    [
        ((CUT | {"corner_mm": 7.0},), "Choose a corner radius of 6 mm at the most."),
        ((SLOT | {"length_mm": 2.0},), "Make it longer, or take a cut-out."),
    ],
)
def test_shapes_that_cannot_be_are_refused(things: tuple[Plain, ...], words: str) -> None:
    with pytest.raises(Exception, match=words):
        device(CHIP, *things)


def test_an_area_of_the_far_side_does_not_hinder_the_near_one(library: Library) -> None:
    far = {**FREE, "keeps_off": "parts", "place": {**FREE["place"], "far": True}}
    assert said(far, thing("button", "red", 60, 52), library=library) == []


def sentences(design: Design, library: Library, rule: str) -> list[str]:
    return [f.sentence for f in review(design, library) if f.rule == rule]


def test_what_a_hand_moves_into_a_kept_area_is_a_stop(design: Design, library: Library) -> None:
    """A capacitor put into the aerial's area by hand: its courtyard and its copper are there."""
    placed = design.placement["main"].value
    ref = next(p.ref for p in placed.parts if p.role.startswith("decoupling"))
    parts = tuple(
        p.model_copy(update={"x_nm": 60_000_000, "y_nm": 52_000_000}) if p.ref == ref else p
        for p in placed.parts
    )
    made = design.placement["main"].model_copy(
        update={"value": placed.model_copy(update={"parts": parts})}
    )
    moved: Any = design.model_copy(update={"placement": {"main": made}})
    assert any(
        "kept free of parts" in s and ref in s for s in sentences(moved, library, "courtyards")
    )
    assert any("kept free of copper" in s for s in sentences(moved, library, "copper-edge"))
    assert sentences(design, library, "courtyards") == []
    assert sentences(design, library, "copper-edge") == []


def test_fine_pads_without_marks_are_noted_with_the_repair(
    library: Library, design: Design
) -> None:
    """The chip has leads 0.5 mm apart (JEDEC MS-026)."""
    assert sentences(design, library, "fiducials") == []
    plain = bring_up_to_date(
        Design(brief=device(CHIP, thing("leads", "leads", 6, 45), *MARKS[:1])), library, "placement"
    )
    found = [f for f in review(plain, library) if f.rule == "fiducials"]
    assert len(found) == 1
    assert "which has 1 of 3 fiducials" in found[0].sentence
    assert len(found[0].repairs[0].edit["things"]) == 2


def test_pins_under_a_cell_across_the_board_are_refused(library: Library) -> None:
    """A screw terminal has pins through the board; a cell holder on the far side lies flat on it.

    Beside it they are fine, and a surface button may lie across from it.
    """
    cell = thing("coin-cell", "cell", 60, 30, far=True)
    across = thing("screw-terminals", "posts", 64, 36)
    assert any(
        "pins of one come out under the other" in s for s in said(cell, across, library=library)
    )
    assert not any(
        "come out" in s
        for s in said(cell, {**across, "place": {"x_mm": 20, "y_mm": 30}}, library=library)
    )
    assert not any(
        "come out" in s for s in said(cell, thing("button", "red", 60, 30), library=library)
    )


def test_free_parts_with_pins_keep_clear_of_bodies_behind(library: Library) -> None:
    """A speaker's plug and a header are put where no pin comes out under the cell that fills the
    middle of the far side.
    """
    brief = device(
        CHIP,
        thing("coin-cell", "cell", 60, 30, far=True),
        thing("programming", "probe"),
        thing("serial", "talk"),
        thing("speaker", "horn"),
    )
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    view = board_view(design, library)
    cell = next(
        c
        for c in view.circuit.components
        if c.role == "cell" or (c.thing == "cell" and view.seats[c.ref].far)
    )
    body = polygon_of(view.seats[cell.ref].shape(view.patterns[cell.ref].body))
    pins = [
        c for c in view.pads if c.drill_nm and set(c.sides) == {NEAR, FAR} and c.ref != cell.ref
    ]
    assert len(pins) > 6
    assert all(body.distance(Point(c.drill_x, c.drill_y)) > c.drill_nm / 2 + 0.29e6 for c in pins)
    assert sentences(design, library, "pins-through") == []


def test_an_area_kept_low_bars_what_is_higher(library: Library) -> None:
    """A button of 4.3 mm (its data) under a lid: barred up to 4.2 mm, allowed from 4.3 mm; none at
    all with 0.
    """
    assert library.parts["button-6x6-surface"].height_mm == 4.3
    button = thing("button", "red", 60, 52)
    low = {**FREE, "keeps_off": "parts"}
    faults = {
        h: said(low | {"parts_up_to_mm": h}, button, library=library) for h in (0.0, 4.2, 4.3)
    }
    assert faults == {
        0.0: ["red: stands in 'aerial', which is kept free of parts"],
        4.2: ["red: stands in 'aerial', which is kept free of parts above 4.2 mm"],
        4.3: [],
    }


def test_low_parts_stand_under_a_lid_and_high_ones_do_not(library: Library) -> None:
    """Lids of 1.0 mm in front and 2.0 mm behind, one over the other: each bars what is higher on
    its own side, and nothing on the other; an area for no part at all bars the lowest too.
    """
    rooms = (KeptRoom((0, 0, 10, 10), False, 1.0), KeptRoom((0, 0, 10, 10), True, 2.0))
    storeys = storeys_of(rooms)
    pattern, seat = library.pattern("resistor-1608"), Seat(0, 0)
    held = rows_kept(rooms, storeys)
    for far, height, barred in (
        (False, 1.0, False),
        (False, 1.1, True),
        (True, 1.1, False),
        (True, 2.0, False),
        (True, 2.1, True),
    ):
        rows = room_of(pattern, replace(seat, far=far), height, storeys=storeys)
        plan = GroundPlan(shapely.box(-9e6, -9e6, 9e6, 9e6), 0, {"kept": held})
        at = np.array([0], dtype=np.int64)
        assert bool(plan.free(at, at, rows)[0]) is not barred, (far, height)
    none = rows_kept((KeptRoom((0, 0, 10, 10)), KeptRoom((0, 0, 10, 10), True)), {})
    for far in (False, True):
        rows = room_of(pattern, replace(seat, far=far), 0.1, storeys=storeys)
        plan = GroundPlan(shapely.box(-9e6, -9e6, 9e6, 9e6), 0, {"kept": none[int(far) :][:1]})
        assert not plan.free(at, at, rows)[0]


def test_a_lid_is_heeded_by_placing_and_by_its_rule(library: Library) -> None:
    """A lid of 1.0 mm over the left half: decoupling of 0.9 mm may lie under it, the chip of 1.6 mm
    and the tall capacitor may not.
    """
    lid = thing("keep-out", "lid", 30, 30, width_mm=58.0, height_mm=58.0, parts_up_to_mm=1.0)
    made = bring_up_to_date(Design(brief=device(CHIP, lid)), library)
    view = board_view(made, library)
    assert sentences(made, library, "courtyards") == []
    inside = {r for r, s in view.seats.items() if 1e6 < s.x < 59e6 and 1e6 < s.y < 59e6}
    assert all(view.heights_mm[r] <= 1.0 for r in inside)
    tall = next(c.role for c in view.circuit.components if view.heights_mm[c.ref] > 1.0)
    moved = edit(made, kind="seat-part", role=tall, x_mm=30, y_mm=30)
    assert [
        "kept free of parts above 1 mm" in s for s in sentences(moved, library, "courtyards")
    ] == [True]


def test_more_heights_than_bits_are_kept_free_of_all_parts() -> None:
    """Forty lids of forty heights: 32 bars of their own, the others bar the near side as an area
    for no part does.
    """
    lids = tuple(KeptRoom((0, 0, 10, 10), False, 1.0 + i / 10) for i in range(40))
    storeys = storeys_of(lids)
    assert len(set(storeys.values())) == 32
    assert max(storeys.values()) < 2**62
    rows = rows_kept(lids, storeys).tolist()
    assert sum(row[4:] == [BODY, BODY] for row in rows) == 8
    assert len(rows) == 40
