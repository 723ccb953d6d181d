"""Links between boards: what crosses is carried, pin n to pin n, and what nothing carries is
refused. Common practice, no source.
"""

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.brief.linked import end_towards
from loquet.core.circuit import Circuit, RecipeNotPossible
from loquet.core.design import Design, slice_of
from loquet.core.pins.needing import needs_of
from loquet.core.pipeline import bring_up_to_date, run_stage
from loquet.core.release import release
from loquet.core.reviewing import review
from tests.making import thing, varied

WING = {"kind": "rounded-rectangle", "width_mm": 40, "height_mm": 30, "corner_mm": 3}


def two_boards(*ends: dict[str, object], part: str = "header-8-way") -> Brief:
    """The dusk remote with two of its keys and two more on a wing of its own."""
    boards = (
        {"name": "main", "outline": {**WING, "width_mm": 64, "height_mm": 60}},
        {"name": "wing", "outline": WING},
    )
    links = ends or (
        thing("board-link", "out", 32, 54, part=part),
        thing("board-link", "in", 20, 25, part=part, board="wing"),
    )
    return varied(
        "dusk-remote",
        things={
            "dome": {"board": "wing", "place": {"x_mm": 10, "y_mm": 12}},
            "all dark": {"board": "wing", "place": {"x_mm": 28, "y_mm": 12}},
        },
        plus=links,
        boards=boards,
    )


def circuit_of(brief: Brief) -> Circuit:
    library = bundled_library()
    design = run_stage(run_stage(Design(brief=brief), "pins", library), "circuit", library)
    return slice_of(design.circuit)


def test_what_crosses_is_carried_on_the_same_pin_at_both_ends() -> None:
    """Two keys to ground cross: three lines, and what is left of eight ways is ground."""
    circuit = circuit_of(two_boards())
    out, inner = (next(c for c in circuit.components if c.thing == name) for name in ("out", "in"))
    assert out.pads == inner.pads
    assert (out.board, inner.board) == ("main", "wing")
    assert (out.printed, out.purpose, inner.purpose) == (
        "link a",
        "Link a to wing",
        "Link a to main",
    )
    assert [out.pads[str(n)] for n in range(1, 9)] == [
        "GROUND",
        "BUTTON_ALL_DARK",
        "BUTTON_DOME",
        *["GROUND"] * 5,
    ]
    wing = {net.name for net in circuit.on("wing").nets}
    assert wing == {"GROUND", "BUTTON_ALL_DARK", "BUTTON_DOME"}


@pytest.mark.parametrize(
    ("ends", "words"),
    [
        ((thing("board-link", "out", 32, 54),), "one end on each of two boards"),
        (
            (thing("board-link", "out", 32, 54), thing("board-link", "back", 32, 47)),
            "one end on each of two boards",
        ),
        (
            (
                thing("board-link", "out", 32, 54),
                thing("board-link", "in", 20, 25, board="wing", part="header-4-way"),
            ),
            "different headers",
        ),
        ((thing("test-point", "spare", 32, 54),), "nothing joins wing to main"),
    ],
)
def test_a_link_that_does_not_join_is_refused(
    ends: tuple[dict[str, object], ...], words: str
) -> None:
    with pytest.raises(RecipeNotPossible, match=words):
        circuit_of(two_boards(*ends))


def test_more_lines_than_ways_are_refused_and_a_second_link_takes_the_rest() -> None:
    """Four keys and ground are five lines; the header has four ways."""
    keys = tuple(thing("button", f"far {n}", 10 + 18 * n, 4.2, board="wing") for n in (0, 1))
    ends = (
        thing("board-link", "out", 32, 54, part="header-4-way"),
        thing("board-link", "in", 20, 25, part="header-4-way", board="wing"),
    )
    with pytest.raises(RecipeNotPossible, match="5 lines cross at link a, and its header has 4"):
        circuit_of(two_boards(*ends, *keys))
    more = (
        thing("board-link", "out b", 32, 48, part="header-4-way", link="b"),
        thing("board-link", "in b", 20, 20, part="header-4-way", board="wing", link="b"),
    )
    circuit = circuit_of(two_boards(*ends, *keys, *more))
    lines = {
        net for c in circuit.components if c.thing in ("in", "in b") for net in c.pads.values()
    }
    assert lines == {net.name for net in circuit.on("wing").nets}
    assert len(lines) == 5


def test_two_boards_are_made_ready_and_proven() -> None:
    library = bundled_library()
    design = bring_up_to_date(Design(brief=two_boards()), library)
    assert [f.sentence for f in review(design, library) if f.severity == "stop"] == []
    made = release(design, library)
    assert made.ready
    assert {f"{b}/fabrication/copper-near.gbr" for b in ("main", "wing")} <= set(made.files)


PLUGGED = {"part": "header-4-way", "joined": "plugged"}


@pytest.mark.parametrize(
    ("first", "second", "meets"),
    [
        ({}, {}, "4321"),
        ({}, {"turn_deg": 180}, "1234"),
        ({"far": True}, {"far": True}, "4321"),
        ({"turn_deg": 90}, {"turn_deg": 90}, "1234"),
        ({"turn_deg": 90}, {"turn_deg": 270}, "4321"),
        ({}, {"far": True}, "4321"),
        ({}, {"far": True, "turn_deg": 180}, "1234"),
        ({"far": True}, {"turn_deg": 180}, "1234"),
        ({"turn_deg": 90}, {"far": True, "turn_deg": 90}, "4321"),
    ],
)
def test_plugged_ends_share_a_net_where_posts_meet(
    first: dict[str, object], second: dict[str, object], meets: str
) -> None:
    """Worked out with two strips of paper: turned face to face about the upright axis, left meets
    right; a far strip is mirrored.

    `meets` names the pads of the second end over pads 1 to 4 of the first.
    """
    ends = (
        thing("board-link", "out", 32, 50, **PLUGGED, **first),
        thing("board-link", "in", 20, 20, board="wing", **PLUGGED, **second),
    )
    circuit = circuit_of(two_boards(*ends))
    out, inner = (next(c for c in circuit.components if c.thing == name) for name in ("out", "in"))
    assert [out.pads[n] for n in "1234"] == ["GROUND", "BUTTON_ALL_DARK", "BUTTON_DOME", "GROUND"]
    assert [inner.pads[n] for n in meets] == [out.pads[n] for n in "1234"]


def test_plugged_ends_that_do_not_lie_on_each_other_are_refused() -> None:
    ends = (
        thing("board-link", "out", 32, 50, **PLUGGED),
        thing("board-link", "in", 20, 15, board="wing", turn_deg=90, **PLUGGED),
    )
    with pytest.raises(RecipeNotPossible, match="out and in are plugged together and do not lie"):
        circuit_of(two_boards(*ends))
    mixed = (ends[0], thing("board-link", "in", 20, 20, board="wing", part="header-4-way"))
    with pytest.raises(RecipeNotPossible, match="one end of link a is plugged and the other"):
        circuit_of(two_boards(*mixed))


def test_pins_aim_at_the_link_that_leads_to_what_is_on_another_board() -> None:
    """From the brain's board its track goes to the link end, wherever the key lies on the wing."""
    needs = {need.signal: need.target for need in needs_of(two_boards())}
    assert needs["button:dome"] == needs["button:all dark"] == (32_000_000, 54_000_000)
    own = next(t for t in needs.values() if t is not None and t != (32_000_000, 54_000_000))
    assert own is not None
    assert end_towards(two_boards(), "wing", "main").name == "in"  # type: ignore[union-attr]
    assert end_towards(two_boards(), "main", "main") is None
    assert end_towards(two_boards(), "main", "elsewhere") is None


def test_a_board_behind_a_board_is_reached_over_the_nearer_link() -> None:
    """main - wing - tip in a row: from the main board the tip lies where the link to the wing
    is.
    """
    brief = varied(
        two_boards(
            thing("board-link", "out", 32, 54),
            thing("board-link", "in", 20, 25, board="wing"),
        ),
        plus=(
            thing("board-link", "on", 20, 6, board="wing", link="b"),
            thing("board-link", "tip end", 20, 25, board="tip", link="b"),
        ),
        boards=(
            {"name": "main", "outline": {**WING, "width_mm": 64, "height_mm": 60}},
            {"name": "wing", "outline": WING},
            {"name": "tip", "outline": WING},
        ),
    )
    towards = {
        (here, there): getattr(end_towards(brief, here, there), "name", None)
        for here in ("main", "wing", "tip")
        for there in ("main", "wing", "tip")
    }
    assert towards == {
        ("main", "main"): None,
        ("main", "wing"): "out",
        ("main", "tip"): "out",
        ("wing", "main"): "in",
        ("wing", "wing"): None,
        ("wing", "tip"): "on",
        ("tip", "main"): "tip end",
        ("tip", "wing"): "tip end",
        ("tip", "tip"): None,
    }
