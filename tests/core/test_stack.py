"""The stack: heights, rooms, cells, gaps and cuts of boards known by hand."""

from dataclasses import replace

import pytest

from loquet.core.checks.rules import (
    cell_clear,
    stack_gaps,
)
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.pipeline import board_view
from loquet.core.stack.model import Gap
from loquet.core.stack.report import stack_report
from loquet.core.stack.section import section_of
from loquet.core.stack.stacking import gaps_of, tightest_first
from tests.making import thing
from tests.stacks import (
    CELL,
    PLAIN,
    WALLS,
    block,
    placed,
    said,
    stacked,
)


def test_rooms_are_proposed_or_as_measured(pouch: Design, library: Library) -> None:
    """Behind: the swollen pouch and 0.5 mm are 6 mm.

    Measured ones are taken as they are; the whole is both rooms, the board and two walls.
    """
    stack = stacked(pouch, library)
    assert stack.walls.far_room_mm == 6.0
    # before it the plug of the cell, 6 mm over the board, and 0.5 mm
    assert stack.walls.near_room_mm == 6.5
    assert not stack.walls.far_said
    boards = (pouch.brief.boards[0].model_copy(update={"near_room_mm": 9.0, "far_room_mm": 4.0}),)
    tight = pouch.model_copy(update={"brief": pouch.brief.model_copy(update={"boards": boards})})
    walls = stacked(tight, library).walls
    assert (walls.near_room_mm, walls.far_room_mm, walls.whole_mm) == (9.0, 4.0, 18.6)
    over = [g for g in stacked(tight, library).gaps if g.mm < 0]
    assert [(g.one, g.other, g.mm) for g in over] == [("the cell", "the back wall", -1.5)]
    (finding,) = [f for f in said(cell_clear.RULE, tight, library) if "wall" in f.sentence]
    assert finding.severity == "stop"


def at(x: float, **hole: object) -> tuple[object, ...]:
    """A pouch before the board from 25 to 75 mm, and a screw hole left of it."""
    return (thing("lithium-cell", "cell", 50, 30, **CELL), thing("hole", "post", x, 30, **hole))


@pytest.mark.parametrize(
    ("x", "screw", "heads", "found"),
    [
        (22.1, "M2", "pan", True),
        (21.9, "M2", "pan", False),
        (22.1, "M2", "countersunk", False),
        (20.1, "M4", "pan", True),
        (19.9, "M4", "pan", False),
    ],
)
def test_a_screw_head_keeps_a_millimetre_from_a_soft_cell(
    x: float, screw: str, heads: str, found: bool, library: Library
) -> None:
    """K34: the pan head of M2 is 4 mm wide, of M4 8 mm (ISO 7045); 25 - 2 - 1 = 22, 25 - 4 - 1 =
    20. A countersunk head lies in the board and pierces nothing.
    """
    design = placed(library, *at(x, screw=screw))
    sentences = [
        f for f in said(cell_clear.RULE, design, library, heads=heads) if "head" in f.sentence
    ]
    assert bool(sentences) is found
    for finding in sentences:
        assert finding.severity == "stop"
        assert "countersunk" in finding.way_out


def test_leads_under_a_cell_are_a_stop_and_an_insulator_is_the_way_out(library: Library) -> None:
    """K34: a header that a person put over the cell pierces it with its tips; with 1 mm between it
    is said no more. Left to itself, Loquet puts no leads there.
    """
    over = placed(
        library,
        thing("lithium-cell", "cell", 50, 30, far=True, **CELL),
        thing("programming", "port", 50, 30),
    )
    sharp = [f for f in said(cell_clear.RULE, over, library) if "leads" in f.sentence]
    assert sharp
    assert sharp[0].severity == "stop"
    assert not said(cell_clear.RULE, over, library, insulator=True)
    free = placed(
        library,
        thing("lithium-cell", "cell", 50, 30, far=True, **CELL),
        thing("programming", "port"),
        thing("encoder", "dial"),
    )
    assert not said(cell_clear.RULE, free, library)


def test_a_soft_cell_is_measured_in_every_direction() -> None:
    """3 mm beside and 4 mm above are 5; what pierces keeps 1 mm."""
    soft, sharp = block("a", 0, 10, 2, 6, soft=True), block("b", 13, 20, 10, 12, sharp=True)
    (gap,) = [g for g in gaps_of((soft, sharp), WALLS) if "wall" not in g.other]
    assert (gap.mm, gap.least_mm) == (5.0, 1.0)
    assert [
        g for g in gaps_of((replace(soft, soft=False), sharp), WALLS) if "wall" not in g.other
    ] == []


def test_a_post_that_runs_into_a_part_is_a_stop(library: Library) -> None:
    """The holder of an AAA cell reaches to its body; a hole inside it is found, one far from it is
    not.
    """
    cell = thing("cells", "cell", 50, 30, far=True)
    inside = placed(library, cell, thing("hole", "post", 50, 30, screw="M2"))
    assert any(
        "post under post runs into" in f.sentence for f in said(stack_gaps.RULE, inside, library)
    )
    beside = placed(library, cell, thing("hole", "post", 5, 5, screw="M2"))
    assert said(stack_gaps.RULE, beside, library) == []


def test_a_cut_shows_what_the_line_goes_through(pouch: Design, library: Library) -> None:
    """Along y = 30 from x = -10 to 130: the shell from -2.5 to 122.5, the board from 0 to 120, the
    cell from 25 to 75; lengths count from the start of the line.
    """
    stack = stacked(pouch, library)
    section = section_of(stack, (-10, 30), (130, 30))
    spans = {
        c.name: (c.start_mm, c.end_mm) for c in section.cuts if c.name not in ("board", "side wall")
    }
    assert section.long_mm == 140
    assert spans["cell"] == (35, 85)
    assert spans["front wall"] == spans["back wall"] == (7.5, 132.5)
    board = [(c.start_mm, c.end_mm) for c in section.cuts if c.name == "board"]
    assert board == [(10, 130)]
    sides = [(c.start_mm, c.end_mm) for c in section.cuts if c.name == "side wall"]
    assert sides == [(7.5, 9.5), (130.5, 132.5)]
    heights = {c.name: (c.low_mm, c.high_mm) for c in section.cuts}
    assert heights["back wall"] == (-8.0, -6.0)
    assert heights["board"] == (0.0, 1.6)
    with pytest.raises(ValueError, match="no length"):
        section_of(stack, (1, 1), (1, 1))


def test_the_report_adds_the_layers_up(pouch: Design, library: Library) -> None:
    """6 + 1.6 + 5.1 + 2 x 2; the cap of the button is as long as the room and the wall and 1.5 mm,
    less 4.3.
    """
    report = stack_report(board_view(pouch, library), library, PLAIN, 1.6)
    figures = {w.id: w.value for w in report.workings}
    near = report.near_room_mm
    assert figures["stack.whole"] == pytest.approx(6 + 1.6 + near + 4)
    assert figures["stack.cap.button-6x6-surface.near"] == pytest.approx(near + 2 + 1.5 - 4.3)
    assert len(report.tightest) == 5 <= report.gaps
    assert [s.length_mm for s in report.screws] == [6]


def test_the_room_says_whether_a_body_or_a_screw_asks_for_it(library: Library) -> None:
    """Nothing behind the board but a post for M3: 8 - 1.6 + 0.8 - 2 mm; with a pouch of 5.5 mm
    behind it the pouch asks.
    """
    hole = thing("hole", "post", 10, 30, screw="M3")
    bare = stack_report(board_view(placed(library, hole), library), library, PLAIN, 1.6)
    pouched = placed(library, hole, thing("lithium-cell", "cell", 60, 30, far=True, **CELL))
    cell = stack_report(board_view(pouched, library), library, PLAIN, 1.6)
    posts = [
        {i.name: float(i.value) for i in w.inputs}["post"]
        for report in (bare, cell)
        for w in report.workings
        if w.id == "stack.room.far"
    ]
    assert posts == pytest.approx([5.2, 0.0])
    assert (bare.far_room_mm, cell.far_room_mm) == pytest.approx((5.2, 6.0))


def test_the_tightest_gap_is_the_one_with_the_least_left() -> None:
    """1.0 mm where 1.0 is asked leaves nothing, 0.5 mm where 0.2 is asked leaves 0.3; of two with
    as much left the names decide.
    """
    cell = Gap("cell", "lead", 1.0, "side by side", 0, 0, (), 1.0)
    wall, same = (
        Gap("U1", "wall", 0.5, "side by side", 0, 0, (), 0.2),
        Gap("R1", "wall", 0.5, "side by side", 0, 0, (), 0.2),
    )
    assert tightest_first([wall, same, cell]) == (cell, same, wall)
