"""Tests of keys and sticks as they are drawn: places and readings of the last one."""

from datetime import UTC, datetime
from typing import Any

from loquet.api.control_tests import keys_read, stick_content, sticks_drawn
from loquet.core.build.sticks import stick_result
from loquet.store.tables import RecordRow
from tests.core.test_building import moved
from tests.making import device, thing

BRIEF = device(
    thing("button", "go", 20, 10),
    thing("pad", "way", 60, 30),
    thing("pad", "hat", 90, 30, form="five-way part"),
)


def row(sort: str, **content: Any) -> RecordRow:
    return RecordRow(unit_id=1, sort=sort, content=content, created_at=datetime.now(UTC))


def test_every_key_lies_at_its_place_with_what_it_read_as() -> None:
    """The last test counts.

    A pad of four buttons has them around its middle as it is built, a five-way part is drawn 3 mm
    apart.
    """
    rows = [
        row("keys", read={"button:go": []}),
        row(
            "keys",
            read={
                "button:go": ["button:go"],
                "pad:way:up": ["pad:way:up", "button:go"],
                "pad:hat:left": [],
                "gone": ["gone"],
            },
        ),
        row("keys", words="an older record without readings"),
    ]
    found = {k.key: k for k in keys_read(rows, BRIEF)}
    assert set(found) == {"button:go", "pad:way:up", "pad:hat:left"}
    assert (found["button:go"].x_mm, found["button:go"].y_mm, found["button:go"].good) == (
        20,
        10,
        True,
    )
    up = found["pad:way:up"]
    assert (up.x_mm, up.good, up.reads) == (60, False, ["pad:way:up", "button:go"])
    assert up.y_mm == 39
    assert (found["pad:hat:left"].x_mm, found["pad:hat:left"].y_mm) == (87, 30)
    assert found["pad:hat:left"].board == "main"
    assert keys_read([], BRIEF) == []


def test_the_last_movement_of_every_stick_is_drawn() -> None:
    """Half of the 240 moments of the rim, none of those at rest."""
    good, off = moved(), moved(x0=2347)
    rows = [
        row("stick", **stick_content("left", good, stick_result("left", good))),
        row("stick", **stick_content("left", off, stick_result("left", off))),
        row("stick", words="an older record"),
        row("stick", **stick_content("right", good, stick_result("right", good))),
    ]
    left, right = sticks_drawn(rows)
    assert (left.stick, right.stick, len(right.path), right.full) == ("left", "right", 120, 4095)
    assert tuple(right.path[0]) == (good[20].x, good[20].y)
    assert (right.x.low, right.x.high, right.faults) == (347, 3747, [])
    assert any("centre of x" in words for words in left.faults)
    assert rows[1].content["good"] is False
