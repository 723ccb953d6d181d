"""What the history says of edits, and their limits at and just beyond."""

from typing import Any

import pytest
from pydantic import ValidationError

from loquet.core.edits import EDITS

BOARD = {"name": "wing", "outline": {"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 40}}


@pytest.mark.parametrize(
    ("fields", "label"),
    [
        (
            {"kind": "add-thing", "thing": {"kind": "light", "name": "lamp"}},
            "Add indicator light lamp",
        ),
        (
            {"kind": "change-thing", "name": "menu", "changes": {"part": "x", "duty": "play"}},
            "Change menu: duty, part",
        ),
        ({"kind": "remove-things", "names": ["menu"]}, "Remove menu"),
        ({"kind": "remove-things", "names": ["menu", "mark", "light"]}, "Remove menu and 2 more"),
        (
            {"kind": "move-thing", "name": "menu", "x_mm": 3.456, "y_mm": 7},
            "Move menu to 3.46, 7.00 mm",
        ),
        ({"kind": "release-thing", "name": "light"}, "Let light be placed"),
        ({"kind": "rename-thing", "name": "menu", "new_name": "list"}, "Rename menu to list"),
        (
            {"kind": "move-things", "names": ["menu", "mark"], "dx_mm": 1, "dy_mm": -2.5},
            "Move menu and 1 more by 1.00, -2.50 mm",
        ),
        (
            {"kind": "arrange-things", "names": ["menu", "mark"], "how": "spread up"},
            "Arrange 2 things: spread up",
        ),
        ({"kind": "mirror-things", "names": ["menu"]}, "Mirror menu"),
        ({"kind": "paste-things", "things": [{"kind": "light", "name": "lamp"}]}, "Copy lamp"),
        ({"kind": "add-board", "board": BOARD}, "Add the board wing"),
        ({"kind": "remove-board", "name": "wing"}, "Remove the board wing"),
        ({"kind": "rename-board", "name": "a", "new_name": "b"}, "Rename the board a to b"),
        ({"kind": "set-outline", "outline": BOARD["outline"]}, "Change the outline"),
        ({"kind": "add-corner-holes"}, "Add fixing holes"),
        ({"kind": "set-role", "role": "usb-keyboard"}, "Make it usb keyboard"),
        ({"kind": "set-chords", "chords": {"rule": "whole pad"}}, "Chords: whole pad"),
        ({"kind": "set-scheme", "scheme": "charlieplexed"}, "Read the keys by charlieplexed"),
        ({"kind": "set-scheme", "scheme": {"name": "mixed"}}, "Read the keys by mixed"),
        ({"kind": "set-analogue", "by": "converter"}, "Read the axes by converter"),
        (
            {"kind": "set-reading", "reading": "pull-down-resistors"},
            "Read buttons by pull down resistors",
        ),
        ({"kind": "lock-pin", "signal": "button:menu", "pin": "4"}, "Lock button:menu to pin 4"),
        ({"kind": "release-pin", "signal": "button:menu"}, "Release the lock of button:menu"),
        (
            {"kind": "seat-part", "role": "chip", "x_mm": 1.234, "y_mm": 5},
            "Put chip at 1.23, 5.00 mm",
        ),
        ({"kind": "release-part", "role": "chip"}, "Let chip be placed again"),
    ],
)
def test_the_history_says_what_was_done(fields: dict[str, Any], label: str) -> None:
    assert EDITS.validate_python(fields).label == label


@pytest.mark.parametrize(
    ("fields", "field", "inside", "outside"),
    [
        (
            {"kind": "move-things", "names": ["a"], "dy_mm": 0},
            "dx_mm",
            (500, -500),
            (500.1, -500.1),
        ),
        (
            {"kind": "move-things", "dx_mm": 0, "dy_mm": 0},
            "names",
            (["a"] * 200,),
            (["a"] * 201, []),
        ),
        (
            {"kind": "arrange-things", "how": "row"},
            "names",
            (["a"] * 2, ["a"] * 200),
            (["a"], ["a"] * 201),
        ),
        ({"kind": "lock-pin", "pin": "4"}, "signal", ("s" * 60,), ("s" * 61,)),
        ({"kind": "release-pin"}, "signal", ("s" * 60,), ("s" * 61,)),
        ({"kind": "release-part"}, "role", ("r" * 80,), ("r" * 81,)),
        (
            {"kind": "set-making"},
            "making",
            ({"thickness_mm": 0.4, "copper_um": 18}, {"thickness_mm": 3.2, "finish": "f" * 40}),
            ({"thickness_mm": 0.39}, {"thickness_mm": 3.21}, {"copper_um": 17}, {"finish": ""}),
        ),
        (
            {"kind": "change-thing", "name": "a"},
            "changes",
            ({"x": 1},),
            ({}, {f"x{n}": 1 for n in range(41)}),
        ),
        ({"kind": "use-pin-table", "name": "t"}, "text", ("x" * 200_000,), ("x" * 200_001,)),
        (
            {"kind": "take-placed-targets"},
            "targets",
            ({"a": (10**9, -(10**9))}, {str(n): (0, 0) for n in range(400)}),
            (
                {"a": (10**9 + 1, 0)},
                {str(n): (0, 0) for n in range(401)},
                {"s" * 81: (0, 0)},
                {"a": (0, -(10**9) - 1)},
            ),
        ),
    ],
)
def test_edits_have_limits(
    fields: dict[str, Any], field: str, inside: tuple[Any, ...], outside: tuple[Any, ...]
) -> None:
    for value in inside:
        EDITS.validate_python({**fields, field: value})
    for value in outside:
        with pytest.raises(ValidationError):
            EDITS.validate_python({**fields, field: value})
