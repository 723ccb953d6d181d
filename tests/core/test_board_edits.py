"""Edits of boards: their number, their outlines, and the holes that go along."""

from typing import Any

import pytest

from loquet.core.design import Design
from loquet.demo.scenario import demo_brief
from tests.editing import edit, refused, spot


@pytest.fixture(scope="module")
def handset() -> Design:
    return Design(brief=demo_brief("ridge-handset"))


BOARD = {"name": "wing", "outline": {"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 40}}


def outlined(*points: tuple[float, float]) -> dict[str, Any]:
    return {"kind": "polygon", "points_mm": points}


def test_corner_holes_stand_four_millimetres_inside_wherever_the_outline_lies(
    handset: Design,
) -> None:
    """A board of its own from (10, 20) to (110, 80) mm; what is there already stays, the second
    time none is added.
    """
    shifted = outlined((10, 20), (110, 20), (110, 80), (10, 80))
    two = edit(handset, kind="add-board", board={"name": "pads", "outline": shifted})
    holed = edit(two, kind="add-corner-holes", board="pads", screw="M3")
    found = {
        t.name: (t.place.x_mm, t.place.y_mm) for t in holed.brief.on("pads") if t.place is not None
    }
    assert found == {
        "pads post south west": (14, 24),
        "pads post south east": (106, 24),
        "pads post north west": (14, 76),
        "pads post north east": (106, 76),
    }
    assert holed.brief.thing("pads post south west").model_dump()["screw"] == "M3"
    assert edit(holed, kind="add-corner-holes", board="pads") == holed
    long = edit(two, kind="rename-board", name="pads", new_name="left hand pads")
    names = {
        t.name for t in edit(long, kind="add-corner-holes", board="left hand pads").brief.things
    }
    assert "left han post south west" in names, "24 letters are the most"


def test_holes_keep_to_their_nearer_side_wherever_the_outline_lies(handset: Design) -> None:
    """From (10, 20)-(110, 80) to (10, 20)-(130, 100): holes left or below the middle (60, 50) stay,
    others go along.
    """
    before = outlined((10, 20), (110, 20), (110, 80), (10, 80))
    two = edit(handset, kind="add-board", board={"name": "pads", "outline": before})
    for index, (x, y) in enumerate(((55, 45), (65, 45), (55, 56), (66, 57), (60, 50))):
        hole = {
            "kind": "hole",
            "name": f"h {index}",
            "board": "pads",
            "place": {"x_mm": x, "y_mm": y},
        }
        if index in (0, 3):
            two = edit(two, kind="add-thing", thing=hole)
    after = edit(
        two,
        kind="set-outline",
        board="pads",
        outline=outlined((10, 20), (130, 20), (130, 100), (10, 100)),
    )
    assert (spot(after, "h 0"), spot(after, "h 3")) == ((55, 45), (86, 77))
    middle = {"kind": "hole", "name": "m", "board": "pads", "place": {"x_mm": 60, "y_mm": 50}}
    kept = edit(
        edit(
            edit(handset, kind="add-board", board={"name": "pads", "outline": before}),
            kind="add-thing",
            thing=middle,
        ),
        kind="set-outline",
        board="pads",
        outline=outlined((10, 20), (130, 20), (130, 100), (10, 100)),
    )
    assert spot(kept, "m") == (60, 50)
    odd = {"kind": "rounded-rectangle", "width_mm": 160.0004, "height_mm": 80.0006, "corner_mm": 5}
    grown = edit(handset, kind="set-outline", outline=odd)
    assert spot(grown, "post north east") == (155, 75.001), "micrometres"


def test_a_device_has_eight_boards_at_the_most(handset: Design) -> None:
    design = handset
    for number in range(7):
        design = edit(design, kind="add-board", board={**BOARD, "name": f"board {number}"})
    assert len(design.brief.boards) == 8
    with refused("A device has eight boards at the most"):
        edit(design, kind="add-board", board={**BOARD, "name": "one more"})
