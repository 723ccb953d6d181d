"""Broken briefs: each gets one sentence with the place and the way out, in the command and in the application."""

import copy
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from loquet.compiling import Unusable, compile_brief
from loquet.core.brief import BriefError, read_brief
from tests.conftest import ROOT

GOOD: dict[str, Any] = json.loads((ROOT / "examples" / "dusk-remote.brief.json").read_text())


def changed(change: Callable[[dict[str, Any]], object]) -> bytes:
    plain = copy.deepcopy(GOOD)
    change(plain)
    return json.dumps(plain).encode()


def set_in(*path: Any) -> bytes:
    *steps, last, value = path

    def change(plain: Any) -> None:
        for step in steps:
            plain = plain[step]
        plain[last] = value

    return changed(change)


BOW_TIE = {"kind": "polygon", "points_mm": [[0, 0], [60, 40], [60, 0], [0, 40]]}
MANY = [
    {"kind": "button", "name": f"key {i}", "x_mm": 8 + 8 * (i % 7), "y_mm": 6 + 8 * (i // 7)}
    for i in range(60)
]

BROKEN: dict[str, tuple[bytes, str]] = {
    "empty file": (b"", "line 1"),
    "not json": (b"{name: dusk}", "line 1, column 2"),
    "cut off": ((ROOT / "examples" / "dusk-remote.brief.json").read_bytes()[:400], "line"),
    "wrong encoding": (json.dumps(GOOD).replace("Dusk", "D\xfcsk").encode("latin-1"), "UTF-8"),
    "utf-16": (json.dumps(GOOD).encode("utf-16"), "UTF-8"),
    "list": (b"[1, 2]", "not a JSON object"),
    "number": (b"42", "not a JSON object"),
    "not a number": (json.dumps(GOOD).replace('"width_mm": 64', '"width_mm": NaN').encode(), "NaN"),
    "infinity": (
        json.dumps(GOOD).replace('"width_mm": 64', '"width_mm": 1e999').encode(),
        "too large",
    ),
    "deeply nested": (b"[" * 200_000, "nested"),
    "ten megabytes": (b" " * 10_000_000, "10.0 MB"),
    "key twice": (b'{"name": "a", "name": "b"}', "twice"),
    "missing power": (changed(lambda p: p.pop("power")), "power is missing"),
    "missing controls": (changed(lambda p: p.pop("controls")), "controls is missing"),
    "unknown field": (set_in("colour", "red"), "colour is not a field"),
    "misspelt inner field": (set_in("controls", 1, "xmm", 3), "controls[1].xmm"),
    "text for a number": (set_in("controls", 0, "x_mm", "left"), "controls[0]"),
    "null name": (set_in("name", None), "name"),
    "negative quantity": (set_in("quantity", -3), "quantity"),
    "quantity and a half": (set_in("quantity", 2.5), "quantity"),
    "huge quantity": (set_in("quantity", 10**30), "quantity"),
    "huge coordinate": (set_in("controls", 2, "x_mm", 1e12), "controls[2]"),
    "bad date": (set_in("wanted_by", "next spring"), "wanted_by"),
    "unknown outline": (set_in("outline", "kind", "blob"), "outline"),
    "corner too round": (set_in("outline", "corner_mm", 30), "cross itself"),
    "outline crosses itself": (set_in("outline", BOW_TIE), "outline.points_mm crosses"),
    "outline of two points": (
        set_in("outline", {"kind": "polygon", "points_mm": [[0, 0], [9, 9]]}),
        "outline",
    ),
    "outline far too small": (
        set_in("outline", {"kind": "polygon", "points_mm": [[0, 0], [5, 0], [5, 5]]}),
        "1 square centimetre",
    ),
    "button outside": (set_in("controls", 0, "x_mm", 90), "controls[0] 'brighter'"),
    "button over the edge": (set_in("controls", 0, "x_mm", 3), "controls[0] 'brighter'"),
    "buttons on one place": (
        changed(lambda p: p["controls"][1].update(x_mm=9.5, y_mm=22)),
        "controls[1] 'dimmer'",
    ),
    "buttons overlapping": (
        changed(lambda p: p["controls"][1].update(x_mm=15, y_mm=20)),
        "overlaps",
    ),
    "name twice": (set_in("controls", 1, "name", "Brighter"), "stands twice"),
    "name with a bell": (set_in("controls", 1, "name", "di\u0007m"), "controls[1]"),
    "unknown button": (set_in("controls", 0, "part", "button-gold"), "controls[0].part"),
    "wrong kind of part": (set_in("controls", 0, "part", "resistor-1608"), "not a button"),
    "unknown screen": (set_in("screen", "part", "screen-4k"), "screen.part"),
    "unknown chip": (set_in("chip", "part", "stm32l051c8t9"), "chip.part"),
    "chip that is a path": (set_in("chip", "part", "../../etc/passwd"), "chip.part"),
    "chip without a pattern": (set_in("chip", "part", "stm32l051t8y6"), "chip.part"),
    "unknown kind of control": (set_in("controls", 0, "kind", "lever"), "controls[0]"),
    "a stick of buttons": (
        set_in(
            "controls",
            0,
            {
                "kind": "stick",
                "name": "brighter",
                "x_mm": 20,
                "y_mm": 22,
                "part": "button-6x6-surface",
            },
        ),
        "controls[0].part",
    ),
    "negative spread": (
        set_in(
            "controls", 0, {"kind": "pad", "name": "pad", "x_mm": 20, "y_mm": 22, "spread_mm": -3}
        ),
        "controls[0].spread_mm",
    ),
    "unknown scheme": (set_in("key_scheme", {"name": "telepathy"}), "key_scheme.name"),
    "scheme of a key that is not there": (
        set_in("key_scheme", {"name": "mixed", "direct": ["button:nobody"]}),
        "key_scheme.direct",
    ),
    "chord of a key that is not there": (
        set_in("chords", {"rule": "own", "groups": [["button:nobody"]]}),
        "chords.groups[0]",
    ),
    "screen on the wrong bus": (set_in("screen", "bus", "one-way serial"), "screen.bus"),
    "two things at one address": (
        set_in("sensors", [{"name": "tilt", "address": 60}]),
        "sensors[0].address",
    ),
    "own chip without a table": (set_in("chip", "part", "own"), "pin_table"),
    "unknown power": (set_in("power", "kind", "plutonium"), "power"),
    "unknown link": (set_in("links", [{"kind": "telegraph", "name": "t"}]), "links[0]"),
    "unknown role": (set_in("role", "doorstop"), "role"),
    "too many buttons": (
        changed(
            lambda p: p.update(
                controls=MANY,
                outline={"kind": "rounded-rectangle", "width_mm": 64, "height_mm": 90},
            )
        ),
        "pins",
    ),
    "no controls": (set_in("controls", []), "controls"),
    "hole through a button": (
        set_in("fixing_holes", 0, {"name": "post", "x_mm": 9, "y_mm": 20}),
        "post",
    ),
    "impossible turn": (set_in("power_switch", "turn_deg", 45), "power_switch"),
}


@pytest.mark.parametrize("name", BROKEN)
def test_the_command_names_the_place_and_writes_nothing(name: str, tmp_path: Path) -> None:
    data, expected = BROKEN[name]
    source = tmp_path / "broken.json"
    source.write_bytes(data)
    with pytest.raises(Unusable) as caught:
        compile_brief(source, tmp_path / "out")
    sentence = str(caught.value)
    assert expected in sentence
    assert "\n" not in sentence
    assert sentence.endswith(".")
    assert len(sentence) < 420
    assert not (tmp_path / "out").exists()


APP_CASES = [name for name, (data, _) in BROKEN.items() if len(data) < 100_000]


@pytest.mark.parametrize("name", APP_CASES)
def test_the_application_answers_with_a_sentence_or_a_stop(name: str, client: TestClient) -> None:
    data, _ = BROKEN[name]
    answer = client.post(
        "/api/projects", content=data, headers={"Content-Type": "application/json"}
    )
    if answer.status_code == 201:
        stops = [
            f
            for f in answer.json()["findings"]
            if f["severity"] == "stop" and f["station"] == "brief"
        ]
        assert stops
        assert stops[0]["way_out"]
    else:
        assert answer.status_code == 422
        assert answer.json()["sentence"]
        assert "Traceback" not in answer.text


def test_too_large_a_request_is_refused(client: TestClient) -> None:
    answer = client.post("/api/projects", content=b" " * 10_000_000)
    assert answer.status_code == 413
    assert "2 MB" in answer.json()["sentence"]


def test_a_good_brief_is_read() -> None:
    assert read_brief(json.dumps(GOOD).encode()).name == "Dusk remote"


def test_the_published_schema_is_the_one_in_force() -> None:
    from loquet.core.brief import Brief

    published = json.loads((ROOT / "docs" / "brief.schema.json").read_text())
    assert published == json.loads(json.dumps(Brief.model_json_schema(), sort_keys=True))


@pytest.mark.parametrize(
    "path", sorted((ROOT / "examples").glob("*.brief.json")), ids=lambda p: p.stem
)
def test_examples_follow_the_published_schema(path: Path) -> None:
    import jsonschema

    schema = json.loads((ROOT / "docs" / "brief.schema.json").read_text())
    jsonschema.validate(json.loads(path.read_text()), schema)


def test_an_error_keeps_its_parts() -> None:
    with pytest.raises(BriefError) as caught:
        read_brief(set_in("quantity", 0))
    assert caught.value.place == "quantity"
