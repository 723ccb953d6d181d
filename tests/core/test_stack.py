"""The stack: heights, gaps, screws, openings, plugs, order and cuts of boards known by hand."""

from dataclasses import replace
from math import radians, tan

import pytest
from shapely.geometry import Polygon, box

from loquet.core.brief.stack_choices import StackChoices
from loquet.core.checks.rule import Rule, outcome_of
from loquet.core.checks.rules import (
    cell_clear,
    goes_together,
    plug_room,
    screw_fits,
    service_reached,
    stack_gaps,
)
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.parts.profiles import SCREWS
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.provenance import Failed, Finding, NotApplicable
from loquet.core.reviewing import subject_of
from loquet.core.stack.model import Piece, Stack, Walls
from loquet.core.stack.openings import openings_of
from loquet.core.stack.order import order_of
from loquet.core.stack.plugging import Plugged, meets, plugs_of
from loquet.core.stack.reaching import reached_closed, reached_open
from loquet.core.stack.report import stack_report
from loquet.core.stack.screws import screw_fit
from loquet.core.stack.section import section_of
from loquet.core.stack.stacking import gaps_of, stack_of
from tests.making import device, thing

PLAIN = StackChoices()


def placed(library: Library, *things: object, **brief: object) -> Design:
    made = device(thing("chip", "chip", part="stm32l433rct6"), *things, **brief)
    return bring_up_to_date(Design(brief=made), library, "placement")


def stacked(design: Design, library: Library, choices: StackChoices = PLAIN) -> Stack:
    return stack_of(board_view(design, library), library, choices, 1.6)


def piece(stack: Stack, name: str) -> Piece:
    return next(p for p in stack.pieces if p.name == name)


def said(rule: Rule, design: Design, library: Library, **stack: object) -> list[Finding]:
    """What a rule says with this shell."""
    choices = design.choices.model_copy(update={"stack": StackChoices(**stack)})
    subject = subject_of(design.model_copy(update={"choices": choices}), library)
    result = outcome_of(rule, replace(subject, view=subject.views[0]))
    return list(result.findings) if isinstance(result, Failed) else []


CELL = {"capacity_mah": 1000}
FED = thing("leads", "leads")


@pytest.fixture(scope="module")
def pouch(library: Library) -> Design:
    """A pouch of 50 x 34 x 5 mm behind a board of 120 x 60 mm, a button before it, a screw hole beside it."""
    return placed(
        library,
        thing("lithium-cell", "cell", 50, 30, far=True, **CELL),
        thing("button", "go", 50, 30),
        thing("hole", "post", 10, 30, screw="M2"),
    )


def test_bodies_stand_at_their_heights(pouch: Design, library: Library) -> None:
    """z is 0 on the far face, the board 1.6 mm: the button of 4.3 mm ends at 5.9; the pouch of 5 mm may swell by a tenth and hangs from 0 to -5.5; the pan head of an M2 (ISO 7045) is 1.6 mm high and 4 mm wide."""
    stack = stacked(pouch, library)
    button = next(p for p in stack.pieces if p.thing == "go" and p.sort == "part")
    assert (button.low_mm, button.high_mm) == pytest.approx((1.6, 5.9))
    assert button.through
    assert button.shoulder_mm == pytest.approx(1.6 + 4.3 - 0.8)
    cell = piece(stack, "cell")
    assert (cell.low_mm, cell.high_mm, cell.swell_mm) == pytest.approx((-5.5, 0.0, 0.5))
    assert cell.area.bounds == pytest.approx((25, 13, 75, 47))
    head = piece(stack, "screw at post")
    assert (head.low_mm, head.high_mm) == pytest.approx((1.6, 3.2))
    assert head.area.bounds == pytest.approx((8, 28, 12, 32), abs=0.01)
    post = piece(stack, "post at post")
    assert (post.low_mm, post.high_mm) == (-stack.walls.far_room_mm, 0.0)
    assert post.area.bounds == pytest.approx((7.5, 27.5, 12.5, 32.5), abs=0.02)


def test_rooms_are_proposed_or_as_measured(pouch: Design, library: Library) -> None:
    """Behind: the swollen pouch and 0.5 mm are 6 mm. Measured ones are taken as they are; the whole is both rooms, the board and two walls."""
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


def test_a_measured_height_and_an_insulator_count(pouch: Design, library: Library) -> None:
    """7 mm and a tenth are 7.7; an insulator of 1 mm lifts the cell off the board."""
    stack = stacked(pouch, library, StackChoices(heights_mm={"cell": 7.0}))
    assert piece(stack, "cell").low_mm == pytest.approx(-7.7)
    assert stack.guessed == ()
    stack = stacked(pouch, library, StackChoices(insulator=True))
    assert (piece(stack, "cell").low_mm, piece(stack, "cell").high_mm) == pytest.approx(
        (-6.5, -1.0)
    )
    assert stack.guessed == ("cell",)


# Cells


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
    """K34: the pan head of M2 is 4 mm wide, of M4 8 mm (ISO 7045); 25 - 2 - 1 = 22, 25 - 4 - 1 = 20. A countersunk head lies in the board and pierces nothing."""
    design = placed(library, *at(x, screw=screw))
    sentences = [
        f for f in said(cell_clear.RULE, design, library, heads=heads) if "head" in f.sentence
    ]
    assert bool(sentences) is found
    for finding in sentences:
        assert finding.severity == "stop"
        assert "countersunk" in finding.way_out


def test_leads_under_a_cell_are_a_stop_and_an_insulator_is_the_way_out(library: Library) -> None:
    """K34: a header that a person put over the cell pierces it with its tips; with 1 mm between it is said no more. Left to itself, Loquet puts no leads there."""
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


def test_no_soft_cell_no_word(library: Library) -> None:
    design = placed(library, thing("cells", "cell", 50, 30, far=True))
    subject = subject_of(design, library)
    result = cell_clear.RULE.run(replace(subject, view=subject.views[0]))
    assert isinstance(result, NotApplicable)


# Gaps


def block(name: str, x1: float, x2: float, low: float, high: float, **more: object) -> Piece:
    area = box(x1, 0, x2, 10)
    return Piece(name, name, "loose", area, low, high, False, name, (), **more)  # type: ignore[arg-type]


WALLS = Walls(10, 5, True, True, 2, 0.5, 1.6)


@pytest.mark.parametrize(
    ("other", "mm", "way", "least"),
    [
        (block("b", 0, 10, 7, 9), 1.0, "above each other", 0.2),
        (block("b", 0, 10, 5, 9), -1.0, "above each other", 0.2),
        (block("b", 12, 20, 2, 9), 2.0, "side by side", 0.2),
        (block("b", 12, 20, 2, 9, soft=True), 2.0, "side by side", 0.5),
        (block("b", 12, 20, 2, 9, sharp=True), 2.0, "side by side", 0.2),
    ],
)
def test_gaps_are_measured_above_and_beside(
    other: Piece, mm: float, way: str, least: float
) -> None:
    """A block from 2 to 6 mm high and 10 mm wide, and one over it, in it, or 2 mm beside it."""
    found = [g for g in gaps_of((block("a", 0, 10, 2, 6), other), WALLS) if "wall" not in g.other]
    assert [(g.mm, g.way, g.least_mm) for g in found] == [(mm, way, least)]


def test_a_soft_cell_is_measured_in_every_direction() -> None:
    """3 mm beside and 4 mm above are 5; what pierces keeps 1 mm."""
    soft, sharp = block("a", 0, 10, 2, 6, soft=True), block("b", 13, 20, 10, 12, sharp=True)
    (gap,) = [g for g in gaps_of((soft, sharp), WALLS) if "wall" not in g.other]
    assert (gap.mm, gap.least_mm) == (5.0, 1.0)
    assert [
        g for g in gaps_of((replace(soft, soft=False), sharp), WALLS) if "wall" not in g.other
    ] == []


def test_walls_are_measured_on_both_sides() -> None:
    """The front wall stands at 1.6 + 10, the back wall at -5; a body through the wall counts up to its shoulder."""
    near = block("a", 0, 10, 2, 6)
    far = replace(block("b", 40, 50, -4.5, 0), far=True)
    out = block("c", 20, 30, 2, 13, through=True, inside_mm=11.0)
    found = {g.one: (g.mm, g.way) for g in gaps_of((near, far, out), WALLS)}
    assert found == {
        "a": (5.6, "to the front wall"),
        "b": (0.5, "to the back wall"),
        "c": (0.6, "to the front wall"),
    }


def test_a_post_that_runs_into_a_part_is_a_stop(library: Library) -> None:
    """The holder of an AAA cell reaches to its body; a hole inside it is found, one far from it is not."""
    cell = thing("cells", "cell", 50, 30, far=True)
    inside = placed(library, cell, thing("hole", "post", 50, 30, screw="M2"))
    assert any(
        "post under post runs into" in f.sentence for f in said(stack_gaps.RULE, inside, library)
    )
    beside = placed(library, cell, thing("hole", "post", 5, 5, screw="M2"))
    assert said(stack_gaps.RULE, beside, library) == []


# Screws


@pytest.mark.parametrize(
    ("thread", "fixing", "far", "near", "length", "least", "most"),
    [
        ("M2", "posts", 6.0, 9.0, 6, 5.6, 8.8),
        ("M2.5", "posts", 6.0, 9.0, 8, 6.6, 8.8),
        ("M3", "posts", 6.0, 9.0, 8, 7.6, 8.8),
        ("M4", "posts", 6.0, 9.0, None, 9.6, 8.8),
        ("M2", "through", 6.0, 9.0, 16, 13.6, 19.8),
        ("M2", "through", 6.0, 1.0, None, 13.6, 11.8),
    ],
)
def test_screws_hold_by_two_diameters_and_stay_inside(
    thread: str, fixing: str, far: float, near: float, length: int | None, least: float, most: float
) -> None:
    """Board 1.6 mm, walls 2 mm, 0.8 mm of the last wall stay: posts hold t + 2d and have t + room + 2 - 0.8; through the device 2 + 6 + 1.6 + 2d. Lengths of ISO 7045: 6, 8, 10, 12, 16."""
    walls = Walls(near, far, True, True, 2.0, 0.5, 1.6)
    fit = screw_fit("post", thread, SCREWS[thread], walls, StackChoices(fixing=fixing))
    assert fit.length_mm == length
    assert (fit.least_mm, fit.most_mm) == pytest.approx((least, most))


def test_heads_are_those_of_the_standards() -> None:
    """ISO 7045 (pan) and ISO 7046-1 (countersunk): largest diameter and height; from memory, M2 to M3 also in NUMBERS."""
    assert {name: (s.pan_mm, s.sunk_mm) for name, s in SCREWS.items()} == {
        "M1.6": ((3.2, 1.3), (3.0, 1.0)),
        "M2": ((4.0, 1.6), (3.8, 1.2)),
        "M2.5": ((5.0, 2.1), (4.7, 1.5)),
        "M3": ((5.6, 2.4), (5.5, 1.65)),
        "M4": ((8.0, 3.1), (8.4, 2.7)),
    }


def test_a_screw_without_room_and_a_head_too_high_are_stops(library: Library) -> None:
    """M4: 9.6 mm to hold and 1.6 + 3 + 2 - 0.8 = 5.8 mm to the skin; its countersunk head of 2.7 mm is higher than the board."""
    design = placed(library, thing("hole", "post", 10, 30, screw="M4"))
    boards = (design.brief.boards[0].model_copy(update={"far_room_mm": 3.0}),)
    tight = design.model_copy(update={"brief": design.brief.model_copy(update={"boards": boards})})
    (finding,) = said(screw_fits.RULE, tight, library)
    assert "9.6 mm" in finding.sentence
    assert "5.8 mm" in finding.sentence
    assert said(screw_fits.RULE, design, library) == []
    (head,) = said(screw_fits.RULE, design, library, heads="countersunk")
    assert "2.70 mm" in head.sentence


# Openings and plugs


def test_openings_are_drawn_larger_by_play_and_process(library: Library) -> None:
    """A button of 6 mm with 0.25 mm of play on each side: 6.9 mm by filament (0.2 more on each side), 6.3 by laser (which burns 0.1 away)."""
    design = placed(library, thing("button", "go", 50, 30))
    view = board_view(design, library)
    for process, drawn in (("filament", 6.9), ("laser", 6.3), ("milled", 6.6), ("resin", 6.7), ("sintered", 6.8)):  # fmt: skip
        choices = StackChoices(process=process)
        (one,) = openings_of(view, library, WALLS, choices)
        assert one.drawn_mm == pytest.approx((drawn, drawn))
        assert (one.x_mm, one.y_mm, one.wall, one.needed_mm) == (50, 30, "front wall", (6.0, 6.0))


def test_a_stick_leans_in_its_opening(library: Library) -> None:
    """12.5 mm high, about a point 5 mm over the board: at the outside of a wall 10 + 2 mm over the board it leans 7 mm x tan 25."""
    design = placed(library, thing("stick", "left", 50, 30))
    (one,) = openings_of(board_view(design, library), library, WALLS, PLAIN)
    assert one.needed_mm[0] == pytest.approx(5 + 2 * 7 * tan(radians(25)), abs=0.01)


@pytest.mark.parametrize(("inside", "size"), [(0.0, (12.35, 6.5)), (2.0, (8.94, 3.2))])
def test_a_deep_socket_wants_an_opening_for_the_grip(
    inside: float, size: tuple[float, float], library: Library
) -> None:
    """Behind 2 mm of wall and 0.5 mm of gap the grip of a USB-C plug has to go in (12.35 x 6.5 mm, USB Type-C specification); standing out 2 mm it need not."""
    design = placed(library, thing("usb-device", "usb", 50, 60 - 3.65 + inside, turn_deg=180))
    (one,) = openings_of(board_view(design, library), library, WALLS, PLAIN)
    assert one.wall == "side"
    assert one.needed_mm == pytest.approx(size, abs=0.02)
    assert one.z_mm == pytest.approx(1.6 + 1.6)


@pytest.mark.parametrize(("apart", "severity"), [(14.3, "look"), (14.4, None), (12.0, "stop")])
def test_plugs_leave_room_for_fingers(apart: float, severity: str | None, library: Library) -> None:
    """K35: two grips of 12.35 mm: 14.35 from middle to middle leave 2 mm; at 12 they are in one another."""
    ports = (
        thing("usb-device", "a", 30, 56.35, turn_deg=180),
        thing("usb-charge", "b", 30 + apart, 56.35, turn_deg=180),
    )
    found = said(plug_room.RULE, placed(library, *ports), library)
    assert [f.severity for f in found] == ([severity] if severity else [])


def test_a_plug_that_runs_into_a_part_is_a_stop(library: Library) -> None:
    """K35: a USB socket that looks into the board, with a button before it."""
    design = placed(library, thing("usb-device", "usb", 50, 40), thing("button", "go", 50, 25))
    sentences = [f.sentence for f in said(plug_room.RULE, design, library)]
    assert any("does not go in" in s and "Button go" in s for s in sentences)


# Reach, order


def test_a_switch_is_reached_from_the_edge_only(library: Library) -> None:
    """K36: a slide switch 30 mm inside is not reached with the shell closed; a slider bridges 4 mm."""
    deep = placed(library, thing("power-switch", "switch", 50, 30), FED)
    (finding,) = said(service_reached.RULE, deep, library)
    assert "turning it on and off" in finding.sentence.lower()
    near = placed(library, thing("power-switch", "switch", 50, 4.5), FED)
    assert said(service_reached.RULE, near, library) == []


def test_what_lies_over_a_programming_port_is_named(library: Library) -> None:
    """K36: programming is done with the shell open, but a speaker lies over the port."""
    port = thing("programming", "port", 50, 30)
    assert said(service_reached.RULE, placed(library, port), library) == []
    under = placed(library, port, thing("speaker", "speaker", 50, 30))
    (finding,) = said(service_reached.RULE, under, library)
    assert "the speaker lies over it" in finding.sentence


def test_the_order_goes_from_the_back_to_the_front(pouch: Design, library: Library) -> None:
    stack = stacked(pouch, library)
    steps = order_of(stack, (), PLAIN).steps
    words = ["Lay the back", "the cell", "on its posts", "one screw through the board", "one cap", "Close the front"]  # fmt: skip
    assert len(steps) == len(words)
    assert all(word in step for word, step in zip(words, steps, strict=True))
    through = order_of(stack, (), StackChoices(fixing="through")).steps
    assert "from the back" in through[-1]
    assert not any("into the posts" in step for step in through)


def test_a_board_that_stands_out_on_opposite_sides_does_not_go_in(library: Library) -> None:
    """More than the gap of 0.5 mm on both sides; a wider gap, or one side alone, lets it in."""
    left = thing("usb-device", "left", 2.65, 30, turn_deg=270)
    both = placed(library, left, thing("usb-charge", "right", 117.35, 30, turn_deg=90))
    (finding,) = [f for f in said(goes_together.RULE, both, library) if f.severity == "stop"]
    assert "neither straight nor tilted" in finding.sentence
    assert said(goes_together.RULE, both, library, side_gap_mm=1.1) == []
    assert said(goes_together.RULE, placed(library, left), library) == []


def test_a_cell_without_a_place_is_said(library: Library) -> None:
    design = placed(library, thing("lithium-cell", "cell", **CELL))
    (finding,) = said(goes_together.RULE, design, library)
    assert finding.severity == "look"
    assert "where cell lies" in finding.sentence


# Cuts


def test_a_cut_shows_what_the_line_goes_through(pouch: Design, library: Library) -> None:
    """Along y = 30 from x = -10 to 130: the shell from -2.5 to 122.5, the board from 0 to 120, the cell from 25 to 75; lengths count from the start of the line."""
    stack = stacked(pouch, library)
    section = section_of(stack, (-10, 30), (130, 30))
    spans = {c.name: (c.start_mm, c.end_mm) for c in section.cuts if c.name not in ("board", "side wall")}  # fmt: skip
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
    """6 + 1.6 + 5.1 + 2 x 2; the cap of the button is as long as the room and the wall and 1.5 mm, less 4.3."""
    report = stack_report(board_view(pouch, library), library, PLAIN, 1.6)
    figures = {w.id: w.value for w in report.workings}
    near = report.near_room_mm
    assert figures["stack.whole"] == pytest.approx(6 + 1.6 + near + 4)
    assert figures["stack.cap.button-6x6-surface.near"] == pytest.approx(near + 2 + 1.5 - 4.3)
    assert len(report.tightest) == 5 <= report.gaps
    assert [s.length_mm for s in report.screws] == [6]


def test_screws_through_the_device_have_bosses_and_no_heads_inside(library: Library) -> None:
    """A boss of 2.5 diameters from the board to the front wall; a hole without a screw has neither post nor boss."""
    holes = (thing("hole", "a", 20, 30, screw="M2"), thing("hole", "peg", 80, 30, screw="none", diameter_mm=2.0))  # fmt: skip
    design = placed(library, *holes)
    posts, through = stacked(design, library), stacked(design, library, StackChoices(fixing="through"))  # fmt: skip
    assert {p.name for p in posts.pieces if p.thing in ("a", "peg")} == {"screw at a", "post at a"}
    assert {p.name for p in through.pieces if p.thing in ("a", "peg")} == {"post at a", "boss at a"}
    boss = piece(through, "boss at a")
    assert (boss.low_mm, boss.high_mm) == pytest.approx((1.6, through.walls.near_mm))
    assert boss.area.bounds == pytest.approx((17.5, 27.5, 22.5, 32.5), abs=0.02)


def test_a_plug_stands_before_its_socket(library: Library) -> None:
    """A USB-C socket of 8.94 x 7.3 mm flush with the upper edge of a board of 60 mm: the grip of 12.35 mm begins 0.8 mm before the edge and is 35 mm long with its bend; its middle lies at that of the socket, 1.6 + 1.6 mm."""
    design = placed(library, thing("usb-device", "usb", 50, 60 - 3.65, turn_deg=180))
    (plug,) = plugs_of(board_view(design, library), library, 1.6)
    assert plug.area.bounds == pytest.approx((50 - 6.175, 60.8, 50 + 6.175, 95.0), abs=0.02)
    assert (plug.low_mm, plug.high_mm) == pytest.approx((3.2 - 3.25, 3.2 + 3.25))
    assert plug.way == pytest.approx((0, 1), abs=1e-6)
    assert plug.beyond_mm == pytest.approx(0, abs=0.02)


def test_the_room_says_whether_a_body_or_a_screw_asks_for_it(library: Library) -> None:
    """Nothing behind the board but a post for M3: 8 - 1.6 + 0.8 - 2 mm; with a pouch of 5.5 mm behind it the pouch asks."""
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


def test_a_socket_behind_the_board_has_its_plug_behind(library: Library) -> None:
    """3.2 mm high on the far side: its middle, and that of the grip of 6.5 mm, lies 1.6 mm behind the far face."""
    design = placed(library, thing("usb-device", "usb", 50, 60 - 3.65, turn_deg=180, far=True))
    view = board_view(design, library)
    (plug,) = plugs_of(view, library, 1.6)
    assert (plug.low_mm, plug.high_mm) == pytest.approx((-1.6 - 3.25, -1.6 + 3.25))
    (one,) = openings_of(view, library, WALLS, PLAIN)
    assert (one.x_mm, one.y_mm, one.z_mm) == pytest.approx((50, 60, -1.6), abs=0.02)


def plugged(**changes: object) -> Plugged:
    plug = Plugged("the plug", "J1", "usb", box(0, 0, 10, 5), 0.0, 5.0, (0.0, 1.0), 0.0)
    return replace(plug, **changes)  # type: ignore[arg-type]


def test_a_plug_meets_what_is_not_its_own_socket() -> None:
    """Its own body, leads and whatever belongs to its thing let it in; another reference that ends alike does not."""
    plug, way = plugged(), block("wall", 0, 10, 2, 6)
    assert meets(plug, way)
    for own in ("J1", "leads of J1"):
        assert not meets(plug, replace(way, name=own, thing=""))
    assert not meets(plug, replace(way, thing="usb"))
    assert meets(plug, replace(way, name="leads of XJ1", thing=""))
    assert meets(replace(plug, thing=""), replace(way, thing=""))
    assert not meets(plug, replace(way, low_mm=5.0))
    assert not meets(plug, replace(way, area=box(10, 0, 20, 10)))


def test_gaps_are_listed_up_to_three_millimetres_beside() -> None:
    near, far = block("b", 12.9, 20, 2, 6), block("b", 13.1, 20, 2, 6)
    for other, found in ((near, [2.9]), (far, [])):
        gaps = gaps_of((block("a", 0, 10, 2, 6), other), WALLS)
        assert [g.mm for g in gaps if "wall" not in g.other] == found


def test_a_screen_wants_an_opening_as_large_as_its_lit_area(library: Library) -> None:
    """The lit area of the module as its drawing has it, 0.2 mm more on each side by filament and no play; its glass of 4 mm ends at the wall."""
    module = (
        library.screens["round-240"]
        if "round-240" in library.screens
        else next(iter(library.screens.values()))
    )
    design = placed(library, thing("screen", "dial", 60, 30, part=module.id))
    view = board_view(design, library)
    (one,) = openings_of(view, library, WALLS, PLAIN)
    wide, high = module.active_mm
    assert one.needed_mm == pytest.approx((wide, high), abs=0.01)
    assert one.drawn_mm == pytest.approx((wide + 0.4, high + 0.4), abs=0.01)
    assert one.wall == "front wall"
    glass = next(p for p in stacked(design, library).pieces if p.sort == "module")
    assert glass.high_mm - glass.low_mm == pytest.approx(4)
    middle = glass.area.centroid
    assert (one.x_mm, one.y_mm) == pytest.approx((middle.x, middle.y), abs=0.01)


# Reach by hand-made bodies


def reach_of(**changes: object) -> Piece:
    return replace(
        Piece("SW1", "SW1", "part", box(10, 0, 20, 10), 1.6, 5.0, False, "go"), **changes
    )  # type: ignore[arg-type]


def shelled(*pieces: Piece) -> Stack:
    return Stack("main", box(0, -20, 100, 40), WALLS, pieces, (), (), ())


@pytest.mark.parametrize(
    ("area", "bridged", "words", "reached"),
    [
        (box(1.5, 0, 10, 10), 0.0, "through the side", True),
        (box(1.6, 0, 10, 10), 0.0, "1.6 mm behind the edge", False),
        (box(-2, 0, 10, 10), 0.0, "through the side", True),
        (box(4, 0, 10, 10), 4.0, "a slider in the shell that bridges 4.0 mm", True),
        (box(4.1, 0, 10, 10), 4.0, "4.1 mm behind the edge", False),
    ],
)
def test_reach_with_the_shell_closed(
    area: Polygon, bridged: float, words: str, reached: bool
) -> None:
    """Up to 1.5 mm behind the edge a finger reaches through the side; a slider bridges what its part says."""
    how, found = reached_closed(reach_of(area=area), shelled(), bridged)
    assert (words in how, found) == (True, reached)
    assert reached_closed(reach_of(through=True), shelled())[0] == "through the front wall"
    assert reached_closed(reach_of(through=True, far=True), shelled())[0] == "through the back wall"


def test_reach_with_the_shell_open() -> None:
    """A loose thing that covers more than half of it is in the way where it lies farther out; behind the board the posts hold it, so a door is needed."""
    part = reach_of()
    half, more = (block("speaker", x, 40, 6, 8) for x in (15, 14.9))
    assert reached_open(part, shelled(half), PLAIN) == ("with the front wall off", True)
    assert reached_open(part, shelled(more), PLAIN) == ("speaker lies over it", False)
    for harmless in (
        replace(more, far=True),
        replace(more, thing="go"),
        replace(more, name="SW1"),
        replace(more, high_mm=5.0),
        replace(more, sort="part"),
    ):
        assert reached_open(part, shelled(harmless), PLAIN)[1]
    behind = reach_of(far=True, low_mm=-3.0, high_mm=0.0)
    deeper = replace(more, far=True, low_mm=-8.0, high_mm=-4.0)
    assert reached_open(behind, shelled(deeper), PLAIN) == ("speaker lies over it", False)
    assert "door in the back wall" in reached_open(behind, shelled(), PLAIN)[0]
    through = StackChoices(fixing="through")
    assert reached_open(behind, shelled(), through)[0] == "with the back wall off"


def test_what_lies_deepest_goes_in_first_and_covered_screws_are_named() -> None:
    """Behind the board the deeper goes in first, before it the lower; two heads under a speaker are named."""
    far = [
        replace(block(name, 0, 10, low, low + 2), far=True)
        for name, low in (("flat", -2), ("deep", -6))
    ]
    near = [block(name, 0, 10, low, low + 2) for name, low in (("speaker", 5), ("felt", 2))]
    posts = [replace(block(f"post {n}", 0, 2, -5, 0), sort="post", far=True) for n in (1, 2)]
    head = replace(block("head", 1, 3, 1.6, 3), sort="screw head", words="the head of screw at a")
    order = order_of(shelled(*far, *near, *posts, head), (), PLAIN)
    put = [step for step in order.steps if step.startswith("Put in")]
    assert put == ["Put in deep.", "Put in flat.", "Put in felt.", "Put in speaker."]
    assert "Drive 2 screws through the board into the posts." in order.steps
    assert [w.split(" lies")[0] for w in order.watch] == ["Felt", "Speaker"]
    through = StackChoices(fixing="through")
    assert order_of(shelled(*near, *posts, head), (), through).watch == ()
    assert order_of(shelled(*posts), (), through).steps[-1].endswith("2 screws from the back.")


@pytest.mark.parametrize(
    ("out", "way", "stuck"),
    [(0.6, (0.0, -1.0), True), (0.5, (0.0, -1.0), False), (0.6, (1.0, 0.0), False)],
)
def test_sockets_that_stand_out_over_opposite_edges_keep_the_board_out(
    out: float, way: tuple[float, float], stuck: bool
) -> None:
    """The gap about the board is 0.5 mm; a socket at the next edge lets it be tilted in."""
    plugs = (plugged(beyond_mm=0.6), plugged(ref="J2", thing="b", beyond_mm=out, way=way))
    order = order_of(shelled(), plugs, PLAIN)
    assert bool(order.impossible) is stuck
    assert order.about == (("thing:usb", "thing:b") if stuck else ())
