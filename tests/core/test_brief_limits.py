"""A brief at its limits and just beyond them; every number here is from docs/file-formats.md or
worked out beside it.
"""

import json
from typing import Any

import pytest

from loquet.core.brief import BriefError, read_brief
from loquet.core.brief.first import present_from_first
from loquet.core.brief.first.turning import Names
from loquet.core.brief.reading import place_of, shown_value
from loquet.core.brief.sense import helper_addresses, place_of_thing, plain_name
from tests.conftest import ROOT
from tests.making import device, plain_of, thing


def refused(*things: dict[str, Any], **wishes: Any) -> str:
    with pytest.raises(BriefError) as caught:
        device(*things, **wishes)
    return str(caught.value)


def boards(*outlines: dict[str, Any]) -> list[dict[str, Any]]:
    return [{"name": f"b {n}", "outline": outline} for n, outline in enumerate(outlines)]


def polygon(*points: tuple[float, float]) -> dict[str, Any]:
    return {"kind": "polygon", "points_mm": points}


def test_outlines_at_their_limits() -> None:
    """One square centimetre at the least, no coordinate below zero, a radius below half the shorter
    side.
    """
    device(boards=boards(polygon((0, 0), (10, 0), (10, 10), (0, 10))))
    small = refused(boards=boards(polygon((0, 0), (10, 0), (10, 9.99), (0, 9.99))))
    assert small.startswith("outline.points_mm encloses less than 1 square centimetre.")
    below = refused(boards=boards(polygon((-1, 0), (30, 0), (30, 30), (0, 30))))
    negative = "outline.points_mm has a negative coordinate. Measure from the lower left corner"
    assert below.startswith(negative)
    assert refused(boards=boards(polygon((0, -0.5), (30, 0), (30, 30), (0, 30)))).startswith(
        negative
    )
    bow = polygon((0, 0), (30, 30), (30, 0), (0, 30))
    good = {"kind": "rounded-rectangle", "width_mm": 40, "height_mm": 30, "corner_mm": 14.9}
    device(boards=boards(good))
    assert refused(boards=boards(good, bow)).startswith(
        "boards[1] 'b 1' outline.points_mm crosses or touches itself."
    )
    assert (
        refused(boards=boards({**good, "corner_mm": 15}))
        == "outline.corner_mm is 15 mm, so the outline would cross itself. Choose a corner radius"
        " below 15 mm."
    )


def test_two_controls_are_four_millimetres_apart_at_the_least() -> None:
    """Each way counts by itself; the other side, another board, and what has no place are no
    neighbours.
    """
    here = thing("button", "a", 30, 30)
    device(here, thing("button", "b", 34, 30))
    device(here, thing("button", "b", 33.9, 34))
    device(here, thing("button", "b", 31, 31, far=True))
    device(here, thing("light", "b", 31, 31))
    for x, y in ((33.9, 30), (30, 33.9), (33.9, 26.1)):
        said = refused(here, thing("slider", "b", x, y))
        assert (
            said
            == "things[1] 'b' overlaps 'a'. Keep the middles of two buttons at least 8 mm apart."
        )
    apart = thing("button", "b", 31, 31, board="b 1")
    plate = {"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 50}
    device({**here, "board": "b 0"}, apart, boards=boards(plate, plate))


def test_things_lie_inside_their_own_board() -> None:
    assert (
        refused(thing("light", "x", 120.5, 30))
        == "things[0] 'x' at 120.5, 30 mm is outside the board. Move it inside the outline, or"
        " enlarge the outline."
    )
    assert "outside" in refused(thing("light", "x", 119.9, 59.9)), "in the rounded corner"
    device(thing("light", "x", 119.9, 30))
    assert "lies on the board 'wing'" in refused(thing("light", "x", 30, 30, board="wing"))
    assert "Known boards: main." in refused(thing("light", "x", 30, 30, board="wing"))


def test_names_are_one_to_one_with_nets() -> None:
    assert "'Lamp' stands twice" in refused(thing("light", "lamp"), thing("light", "Lamp"))
    both = refused(thing("button", "in fast", 20, 30), thing("button", "in-fast", 40, 30))
    assert both.startswith(
        "things[1].name 'in-fast' and 'in fast' would both be BUTTON_IN_FAST in the firmware."
    )
    assert plain_name(" all--dark 2 ") == "ALL_DARK_2"
    plate = {"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 50}
    twice = [{"name": "left half", "outline": plate}, {"name": "left-half", "outline": plate}]
    assert refused(boards=twice).startswith("boards[1].name 'left-half' stands twice.")


def test_who_reads_a_thing_is_a_brain() -> None:
    chip = thing("chip", "chip", 60, 30, part="stm32f072c8t6")
    device(chip, thing("button", "a", 20, 30, brain="chip"))
    assert refused(chip, thing("button", "a", 20, 30, brain="lamp")).endswith("Brains: chip.")
    assert refused(thing("button", "a", 20, 30, brain="lamp")).endswith("Brains: none yet.")


def test_addresses_are_taken_once_on_a_bus() -> None:
    """Expanders count up from 0x20, one for each eight or sixteen keys without the power button; a
    converter has 0x48.
    """

    def taken(count: int, scheme: str, **wishes: Any) -> list[int]:
        keys = tuple(thing("button", f"k{n}", 6 + 6 * n, 20) for n in range(count))
        power = thing("button", "wake", 60, 50, duty="power")
        brief = device(*keys, power, key_scheme={"name": scheme}, **wishes)
        return [address for _, address in helper_addresses(brief)]

    assert taken(8, "expander 8") == [0x20]
    assert taken(9, "expander 8") == [0x20, 0x21]
    assert taken(16, "expander 16") == [0x20]
    assert taken(17, "expander 16", analogue_by="converter") == [0x20, 0x21, 0x48]
    assert taken(9, "diode matrix", analogue_by="converter") == [0x48]
    assert taken(9, "diode matrix") == []
    one = thing("bus-sensor", "warm", address=0x44)
    assert refused(one, thing("bus-sensor", "damp", address=0x44)).startswith(
        "things[1] 'damp' address 0x44 is taken by things[0] 'warm' address."
    )
    device(one, thing("bus-sensor", "damp", address=0x45))
    chips = tuple(thing("chip", f"c {n}", 30 + 50 * n, 30, part="stm32f072c8t6") for n in (0, 1))
    device(*chips, one, thing("bus-sensor", "damp", address=0x44, brain="c 1"))
    sensor = thing("bus-sensor", "warm", address=0x48)
    assert "0x48 is taken" in refused(sensor, analogue_by="converter")


def test_keys_that_are_named_are_there() -> None:
    key = thing("button", "a", 20, 30)
    said = refused(key, chords={"rule": "own", "groups": [["button:a", "button:b"]]})
    assert (
        said
        == "chords.groups[0] names the key 'button:b', which this device does not have. Known keys:"
        " button:a."
    )
    assert "key_scheme.diodes" in refused(key, key_scheme={"name": "bare matrix", "diodes": ["x"]})
    many = tuple(thing("button", f"k{n}", 10 + 12 * n, 20) for n in range(7))
    listed = refused(*many, key_scheme={"name": "mixed", "direct": ["x"]}).split("Known keys: ")[1]
    assert listed == ", ".join(f"button:k{n}" for n in range(6)) + "."


def test_a_file_of_a_megabyte_and_a_byte_more() -> None:
    data = json.dumps(plain_of(device())).encode()
    assert read_brief(data + b" " * (1_000_000 - len(data))).name == "Bell pad"
    with pytest.raises(BriefError, match=r"it\.json is 1\.0 MB large\. A brief is at most 1 MB"):
        read_brief(data + b" " * (1_000_001 - len(data)), "it.json")


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b'{"name": "x",\n "name": "y"}', "holds the key 'name' twice"),
        (b'{"name": NaN}', "holds NaN, which JSON does not have"),
        (b'{"name": 1e999}', "holds a number too large at 'name'"),
        (b'{"name": "\\ud800"}', "holds half of a character"),
        (b'{"name": "a\x00"}', "holds a character that is no text"),
        (b'{"a": 1,\n  "b" 2}', "line 2, column 7 is not JSON"),
        (b"\xff{}", "byte 0 is not UTF-8 text"),
        (b"[1]", "is not a JSON object"),
        (b"[" * 100_000, "is nested too deeply to be read"),
        (b'{"format": "loquet-brief-9"}', "Expected: 'loquet-brief-2'"),
    ],
)
def test_what_is_no_brief_is_refused_with_its_place(data: bytes, said: str) -> None:
    with pytest.raises(BriefError) as caught:
        read_brief(data)
    assert said in str(caught.value)


def test_an_unknown_kind_is_answered_with_those_that_there_are() -> None:
    said = refused(thing("lever", "x"))
    assert said.startswith("things[0] 'x'")
    assert "Expected: one of the kinds barrel-jack, board-link, brain-talk, " in said
    assert "words." in said
    assert "a thing is an object with a kind" in refused(7)  # type: ignore[arg-type]


def test_places_and_values_in_sentences() -> None:
    plain = {"things": [{"name": "n" * 30, "place": {"x_mm": 1}}], "boards": [{"name": "b"}]}
    assert place_of(("things", 0, "place", "x_mm"), plain) == f"things[0] '{'n' * 24}' place.x_mm"
    assert place_of(("boards", 0, "outline", "width_mm"), plain) == "boards[0].outline.width_mm"
    assert place_of(("things", 4, "name"), plain) == "things[4].name"
    assert place_of((), plain) == "the brief"
    tagged = {"outline": {"kind": "polygon", "points_mm": []}}
    assert place_of(("outline", "polygon", "points_mm"), tagged) == "outline.points_mm"
    assert shown_value("x" * 38) == '"' + "x" * 38 + '"'
    assert shown_value("x" * 39) == '"' + "x" * 36 + "..."
    brief = device(thing("light", "lamp"), thing("light", "other"))
    assert place_of_thing(brief, "other") == "things[1] 'other'"
    assert place_of_thing(brief, "nobody") == "nobody"


def test_names_of_different_lists_are_told_apart() -> None:
    names = Names()
    assert [names.own("post", "hole") for _ in range(4)] == [
        *("post", "post hole", "post hole 3", "post hole 4"),
    ]
    assert names.own("POST", "thing") == "POST thing"
    assert names.own("a" * 20, "hole") == "a" * 20
    assert names.own("a" * 20, "hole") == "a" * 15 + " hole"


def first_format(**changes: Any) -> dict[str, Any]:
    plain: dict[str, Any] = json.loads(
        (ROOT / "tests" / "data" / "first" / "ridge-handset.brief.json").read_text()
    )
    return {**plain, **changes}


def things_of(plain: dict[str, Any]) -> dict[str, dict[str, Any]]:
    return {row["name"]: row for row in present_from_first(plain)["things"]}


def test_each_source_of_the_first_format_becomes_a_thing() -> None:
    """Cells lay on the far side; what came from a host did not."""
    rows = {
        "two-aaa-cells": ("cells", "cell", True),
        "lithium-cell": ("lithium-cell", "cell", True),
        "coin-cell": ("coin-cell", "cell", True),
        "nine-volt": ("nine-volt", "block", True),
        "from-host": ("host-feed", "feed", False),
    }
    for kind, (now, name, far) in rows.items():
        power = {"kind": kind, "x_mm": 70, "y_mm": 30}
        row = things_of(first_format(power=power))[name]
        assert (row["kind"], row["place"]["far"]) == (now, far)
        assert (row["place"]["x_mm"], row["place"]["y_mm"]) == (70, 30)


def test_each_port_and_sensor_of_the_first_format_becomes_a_thing() -> None:
    links = [
        {"kind": "serial-port", "name": "one"},
        {"kind": "board-link", "name": "two"},
        {"kind": "spare-port", "name": "three"},
        {"kind": "memory-card", "name": "four"},
        {"kind": "expansion", "name": "five"},
    ]
    sensors = [
        {"name": "warm", "reading": "two-wire"},
        {"name": "level", "reading": "voltage"},
    ]
    found = things_of(first_format(links=links, sensors=sensors))
    kinds = {name: found[name]["kind"] for name in ("one", "two", "three", "four", "five")}
    assert kinds == {
        "one": "serial",
        "two": "serial",
        "three": "spare-bus",
        "four": "memory-card",
        "five": "expansion",
    }
    assert (found["one"]["spare"], found["two"]["spare"]) == (True, False)
    assert (found["warm"]["kind"], found["level"]["kind"]) == ("bus-sensor", "voltage-sensor")
