"""What is reached, and in which order it goes together."""

from dataclasses import replace

import pytest
from shapely.geometry import Polygon, box

from loquet.core.brief.stack_choices import StackChoices
from loquet.core.checks.rules import (
    goes_together,
    service_reached,
)
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.stack.order import order_of
from loquet.core.stack.reaching import reached_closed, reached_open
from tests.making import thing
from tests.stacks import (
    CELL,
    FED,
    PLAIN,
    block,
    placed,
    plugged,
    reach_of,
    said,
    shelled,
    stacked,
)


def test_a_switch_is_reached_from_the_edge_only(library: Library) -> None:
    """K36: a slide switch 30 mm inside is not reached with the shell closed; a slider bridges 4
    mm.
    """
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
    """Up to 1.5 mm behind the edge a finger reaches through the side; a slider bridges what its
    part says.
    """
    how, found = reached_closed(reach_of(area=area), shelled(), bridged)
    assert (words in how, found) == (True, reached)
    assert reached_closed(reach_of(through=True), shelled())[0] == "through the front wall"
    assert reached_closed(reach_of(through=True, far=True), shelled())[0] == "through the back wall"


def test_reach_with_the_shell_open() -> None:
    """A loose thing that covers more than half of it is in the way where it lies farther out;
    behind the board the posts hold it, so a door is needed.
    """
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


def test_the_order_goes_from_the_back_to_the_front(pouch: Design, library: Library) -> None:
    stack = stacked(pouch, library)
    steps = order_of(stack, (), PLAIN).steps
    words = [
        "Lay the back",
        "the cell",
        "on its posts",
        "one screw through the board",
        "one cap",
        "Close the front",
    ]
    assert len(steps) == len(words)
    assert all(word in step for word, step in zip(words, steps, strict=True))
    through = order_of(stack, (), StackChoices(fixing="through")).steps
    assert "from the back" in through[-1]
    assert not any("into the posts" in step for step in through)


def test_what_lies_deepest_goes_in_first_and_covered_screws_are_named() -> None:
    """Behind the board the deeper goes in first, before it the lower; two heads under a speaker are
    named.
    """
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


def test_a_board_that_stands_out_on_opposite_sides_does_not_go_in(library: Library) -> None:
    """More than the gap of 0.5 mm on both sides; a wider gap, or one side alone, lets it in."""
    left = thing("usb-device", "left", 2.65, 30, turn_deg=270)
    both = placed(library, left, thing("usb-charge", "right", 117.35, 30, turn_deg=90))
    (finding,) = [f for f in said(goes_together.RULE, both, library) if f.severity == "stop"]
    assert "neither straight nor tilted" in finding.sentence
    assert said(goes_together.RULE, both, library, side_gap_mm=1.1) == []
    assert said(goes_together.RULE, placed(library, left), library) == []


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


def test_a_cell_without_a_place_is_said(library: Library) -> None:
    design = placed(library, thing("lithium-cell", "cell", **CELL))
    (finding,) = said(goes_together.RULE, design, library)
    assert finding.severity == "look"
    assert "where cell lies" in finding.sentence
