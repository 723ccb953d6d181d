"""Wires in the shell: bundles, lengths and ways worked out by hand; K37, nowhere to go."""

from dataclasses import replace
from math import hypot

import numpy as np
import pytest
from shapely.geometry import Point, box

from loquet.core.brief.stack_choices import StackChoices
from loquet.core.build.steps import build_steps
from loquet.core.checks.rule import decisions_of, outcome_of
from loquet.core.checks.rules import wire_way
from loquet.core.design import Choices, Design
from loquet.core.library import Library
from loquet.core.parts import wire as parts_wire
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.provenance import Failed, Passed
from loquet.core.reviewing import subject_of
from loquet.core.stack import wires
from loquet.core.stack.model import Piece, Stack, Walls
from loquet.core.stack.stacking import stack_of
from loquet.core.stack.wire_ways import Storeys, Way, find_way, search
from loquet.core.stack.wires import blocked_words, cut_mm, ends_of, wire_runs
from loquet.core.templates import TEMPLATES, sheet_for
from loquet.demo.scenario import demo_brief

WALLS = Walls(5, 5, True, True, 2, 0.5, 1.6)
BOARD = box(0, 0, 100, 60)


def body(name: str, x: float, y: float, **more: object) -> Piece:
    """A body of 10 x 4 mm about a place, 5 mm high on the near side: the wall lies on it."""
    piece = Piece(name, name, "part", box(x - 5, y - 2, x + 5, y + 2), 1.6, 6.6, False)
    return replace(piece, **more)  # type: ignore[arg-type]


def shell(*pieces: Piece, outline: object = BOARD, gap: float = 0.5) -> Stack:
    walls = replace(WALLS, side_gap_mm=gap)
    return Stack("main", outline, walls, pieces, (), (), ())  # type: ignore[arg-type]


def way_of(stack: Stack, thick: float = 1.6) -> Way | None:
    """From the right side of the first body to the middle of the second."""
    start, plug = stack.pieces[:2]
    right = start.area.bounds[2]
    return find_way(stack, start, (right, start.area.centroid.y), plug, thick)


@pytest.mark.parametrize(
    ("way", "cut"), [(10, 40), (40, 70), (41, 75), (200, 230), (201, 235), (300, 345), (400, 460)]
)
def test_wires_are_cut_with_slack(way: float, cut: int) -> None:
    """30 mm more, from 200 mm on 15 %, up to the next 5 mm."""
    assert cut_mm(way) == cut


def test_leads_come_out_in_the_middle_of_the_short_sides() -> None:
    assert set(ends_of(box(10, 10, 60, 44))) == {(10, 27), (60, 27)}
    assert set(ends_of(box(10, 10, 44, 60))) == {(27, 10), (27, 60)}


def test_a_free_way_is_straight() -> None:
    way = way_of(shell(body("cell", 20, 30), body("J1", 80, 30)))
    assert way is not None
    assert way.legs == ((False, ((25, 30), (80, 30))),)
    assert way.long_mm == 55


def test_a_way_goes_around_what_stands_too_high() -> None:
    """A wall of parts from y = 10 to the upper edge: the bundle of 1.6 mm turns about its lower
    corners, 0.8 mm below; over a low part it goes straight.
    """
    high = body("U1", 50, 35, area=box(48, 10, 52, 61))
    way = way_of(shell(body("cell", 20, 30), body("J1", 80, 30), high))
    assert way is not None
    hand = hypot(48 - 25, 30 - 9.2) + 4 + hypot(80 - 52, 30 - 9.2)
    assert way.long_mm == pytest.approx(hand, rel=0.03)
    ((_, corners),) = way.legs
    assert min(y for _, y in corners) == pytest.approx(9.2, abs=0.8)
    for free, found in ((1.7, 55), (1.5, way.long_mm)):
        over = replace(high, high_mm=6.6 - free)
        passed = way_of(shell(body("cell", 20, 30), body("J1", 80, 30), over))
        assert passed is not None
        assert passed.long_mm == pytest.approx(found, rel=0.001)
    moved = body("U1", 250, 75, area=box(248, 50, 252, 101))
    elsewhere = way_of(
        shell(body("cell", 220, 70), body("J1", 280, 70), moved, outline=box(200, 40, 300, 100))
    )
    assert elsewhere is not None
    assert elsewhere.long_mm == pytest.approx(way.long_mm)


def test_the_cheapest_cells_are_those_of_the_straight_way() -> None:
    """Ten steps along a row; two slanting ones would be longer than two straight ones."""
    open_cells, room = np.ones((2, 11, 11), dtype=np.bool_), box(0, 0, 5, 5)
    storeys = Storeys(0, 0, open_cells, np.zeros((11, 11), dtype=np.bool_), (room, room), room)
    path = search(storeys, (0, 5, 0), (0, 5, 10), 1.6)
    assert path == [(0, 5, j) for j in range(11)]


@pytest.mark.parametrize(("gap", "found"), [(1.5, False), (1.7, True)])
def test_a_wall_across_leaves_the_gap_beside_the_board(gap: float, found: bool) -> None:
    """Parts over the whole board: beside it, in the gap, the bundle of 1.6 mm has to fit."""
    whole = body("U1", 50, 30, area=box(48, 0, 52, 60))
    way = way_of(shell(body("cell", 20, 30), body("J1", 80, 30), whole, gap=gap))
    assert (way is not None) is found


@pytest.mark.parametrize(("wide", "found"), [(3.0, True), (1.4, False)])
def test_it_passes_the_board_through_an_opening(wide: float, found: bool) -> None:
    """A cell behind and its plug before the board: through a square opening at 50, 50 that the
    bundle of 1.6 mm fits in; the board of 1.6 mm counts once.
    """
    opening = box(50 - wide / 2, 50 - wide / 2, 50 + wide / 2, 50 + wide / 2)
    cell = body("cell", 20, 30, far=True, low_mm=-5.0, high_mm=0.0)
    way = way_of(shell(cell, body("J1", 80, 30), outline=BOARD.difference(opening)))
    assert (way is not None) is found
    if way:
        assert [far for far, _ in way.legs] == [True, False]
        hand = hypot(50 - 25, 20) + hypot(80 - 50, 20) + 1.6
        assert way.long_mm == pytest.approx(hand, abs=1.5)
        assert Point(way.legs[0][1][-1]).distance(Point(50, 50)) < 1.0


def test_a_gap_wide_enough_lets_it_pass_beside_the_board() -> None:
    cell = body("cell", 20, 30, far=True, low_mm=-5.0, high_mm=0.0)
    assert way_of(shell(cell, body("J1", 80, 30))) is None
    way = way_of(shell(cell, body("J1", 80, 30), gap=2.2))
    assert way is not None
    assert way.long_mm == pytest.approx(2 * hypot(27.5, 31) + 1.6, abs=1.5)


def test_what_is_in_the_way_is_said() -> None:
    """On one side bodies are, between the sides the board."""
    cell, plug = body("cell", 20, 30), body("J1", 80, 30)
    whole = body("U1", 50, 30, area=box(48, -1, 52, 61))
    assert "find no way to J1" in blocked_words(shell(cell, plug, whole), cell, plug, 1.6)
    behind = replace(cell, far=True)
    words = blocked_words(shell(behind, plug), behind, plug, 1.64)
    assert "1.6 mm thick together and have to pass from one side of the board to the other" in words
    assert "the gap about it is 0.5 mm" in words


@pytest.fixture(scope="module")
def star(library: Library) -> Design:
    return bring_up_to_date(Design(brief=demo_brief("star-handset")), library, "placement")


@pytest.fixture(scope="module")
def closed(star: Design, library: Library) -> Design:
    """The same without the cut-out for its wires."""
    things = tuple(t for t in star.brief.things if t.name != "wires of the cell")
    brief = star.brief.model_copy(update={"things": things})
    return bring_up_to_date(Design(brief=brief), library, "placement")


def test_wires_that_have_nowhere_to_go_are_said(
    star: Design, closed: Design, library: Library
) -> None:
    """K37: the cell of the star handset lies behind, its plug before the board; without the cut-out
    its wires cannot pass, with it they can, and with 2.2 mm about the board as well.
    """

    def said(design: Design, **stack: object) -> object:
        choices = design.choices.model_copy(update={"stack": StackChoices(**stack)})
        subject = subject_of(design.model_copy(update={"choices": choices}), library)
        return outcome_of(
            wire_way.RULE, replace(subject, view=subject.views[0]), decisions_of(subject.choices)
        )

    assert said(star) == Passed(1)
    found = said(closed)
    assert isinstance(found, Failed)
    (finding,) = found.findings
    assert finding.severity == "look"
    assert "1.6 mm thick together" in finding.sentence
    assert "cut-out of 2.1 mm near J2" in finding.way_out
    assert "leave 1.7 mm about the board" in finding.way_out
    assert said(closed, side_gap_mm=2.2) == Passed(1)


def test_they_are_named_in_the_steps_and_drawn_in_the_pockets(
    star: Design, library: Library
) -> None:
    view = board_view(star, library)
    stack = stack_of(view, library, Choices().stack, 1.6)
    (run,) = wire_runs(view, library, stack)
    assert (run.thing, run.ref, run.carries, run.gauge) == (
        "cell",
        "J2",
        ("CELL_TOP", "GROUND"),
        28,
    )
    assert [w.value for w in run.workings][1] == run.cut_mm == 75
    step = next(s for s in build_steps(view, library, stack) if s.title == "Wires")
    words = "For the cell: 2 wires of 28 AWG, cut to 75 mm, labelled CELL_TOP and GROUND, to J2."
    assert words in step.how
    assert [part.ref for part in step.parts] == ["J2"]
    pockets = next(t for t in TEMPLATES if t.name == "pockets")
    marks = sheet_for(pockets, view, library, Choices()).marks
    assert len(marks) == 3, "the cell, and a channel on each side"
    areas = [m.area for m in marks[1:]]
    flat = run.long_mm - 1.6
    # as wide as the bundle and half a millimetre, with round ends
    assert sum(areas) == pytest.approx(flat * 2.142 + 2 * 3.14 * 1.071**2, rel=0.02)


def test_a_longer_way_than_taken_asks_for_thicker_wires(
    star: Design, library: Library, monkeypatch: pytest.MonkeyPatch
) -> None:
    """0.4 A want 28 AWG by their density.

    Over 75 mm there and back 5 mV may be lost: 28 AWG (213 mohm/m) lose 12.8, 26 (134) 8.0, 24 (84)
    5.05, 22 (53) 3.2.
    """
    monkeypatch.setattr(wires, "lead_ma", lambda *_: 400.0)
    monkeypatch.setattr(wires, "USUAL_MM", 1.0)
    monkeypatch.setattr(parts_wire, "DROP_MV", 5.0)
    view = board_view(star, library)
    stack = stack_of(view, library, Choices().stack, 1.6)
    (run,) = wires.runs_of(view, library, stack)
    assert (run.gauge, run.cut_mm) == (22, 75)
    assert run.bundle_mm == pytest.approx(2 * (0.644 + 0.5), abs=0.002)
