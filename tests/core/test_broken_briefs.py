"""Broken briefs: each gets one sentence with the place and the way out, in the command and in the
application.
"""

import copy
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from loquet.compiling import Unusable, compile_brief
from loquet.core.brief import BriefError, brief_from_plain, read_brief
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


def thing_in(thing: str, **fields: Any) -> bytes:
    """The brief with fields of one thing set."""
    return changed(lambda p: next(t for t in p["things"] if t["name"] == thing).update(fields))


def plus(**thing: Any) -> bytes:
    """The brief with one thing more."""
    return changed(lambda p: p["things"].append(thing))


BOW_TIE = {"kind": "polygon", "points_mm": [[0, 0], [60, 40], [60, 0], [0, 40]]}
MANY = [
    {
        "kind": "button",
        "name": f"key {i}",
        "place": {"x_mm": 8 + 8 * (i % 7), "y_mm": 6 + 8 * (i // 7)},
    }
    for i in range(60)
]
OUTLINE = ("boards", 0, "outline")
TEXT = json.dumps(GOOD)

BROKEN: dict[str, tuple[bytes, str]] = {
    "empty file": (b"", "line 1"),
    "not json": (b"{name: dusk}", "line 1, column 2"),
    "cut off": ((ROOT / "examples" / "dusk-remote.brief.json").read_bytes()[:400], "line"),
    "wrong encoding": (TEXT.replace("Dusk", "D\xfcsk").encode("latin-1"), "UTF-8"),
    "utf-16": (TEXT.encode("utf-16"), "UTF-8"),
    "list": (b"[1, 2]", "not a JSON object"),
    "number": (b"42", "not a JSON object"),
    "not a number": (
        TEXT.replace('"width_mm": 64', '"width_mm": NaN').replace("NaN.0", "NaN").encode(),
        "NaN",
    ),
    "infinity": (TEXT.replace('"width_mm": 64.0', '"width_mm": 1e999').encode(), "too large"),
    "deeply nested": (b"[" * 200_000, "nested"),
    "ten megabytes": (b" " * 10_000_000, "10.0 MB"),
    "key twice": (b'{"name": "a", "name": "b"}', "twice"),
    "unknown format": (set_in("format", "loquet-brief-9"), "format"),
    "missing boards": (changed(lambda p: p.pop("boards")), "boards is missing"),
    "no board": (set_in("boards", []), "boards"),
    "nine boards": (set_in("boards", [GOOD["boards"][0]] * 9), "boards"),
    "two boards of one name": (set_in("boards", [GOOD["boards"][0]] * 2), "stands twice"),
    "unknown field": (set_in("colour", "red"), "colour is not a field"),
    "misspelt inner field": (thing_in("dimmer", xmm=3), "things[1] 'dimmer' xmm"),
    "misspelt place": (thing_in("dimmer", place={"x": 3, "y_mm": 4}), "things[1] 'dimmer' place"),
    "text for a number": (
        thing_in("dimmer", place={"x_mm": "left", "y_mm": 4}),
        "'dimmer' place.x_mm",
    ),
    "null name": (set_in("name", None), "name"),
    "negative quantity": (set_in("quantity", -3), "quantity"),
    "quantity and a half": (set_in("quantity", 2.5), "quantity"),
    "huge quantity": (set_in("quantity", 10**30), "quantity"),
    "huge coordinate": (thing_in("red", place={"x_mm": 1e12, "y_mm": 4}), "'red' place.x_mm"),
    "bad date": (set_in("wanted_by", "next spring"), "wanted_by"),
    "unknown outline": (set_in(*OUTLINE, "kind", "blob"), "outline"),
    "corner too round": (set_in(*OUTLINE, "corner_mm", 30), "cross itself"),
    "outline crosses itself": (set_in(*OUTLINE, BOW_TIE), "outline.points_mm crosses"),
    "outline of two points": (
        set_in(*OUTLINE, {"kind": "polygon", "points_mm": [[0, 0], [9, 9]]}),
        "outline",
    ),
    "outline far too small": (
        set_in(*OUTLINE, {"kind": "polygon", "points_mm": [[0, 0], [5, 0], [5, 5]]}),
        "1 square centimetre",
    ),
    "button outside": (
        thing_in("brighter", place={"x_mm": 90, "y_mm": 22}),
        "things[0] 'brighter'",
    ),
    "button over the edge": (
        thing_in("brighter", place={"x_mm": 3, "y_mm": 22}),
        "things[0] 'brighter'",
    ),
    "buttons on one place": (
        thing_in("dimmer", place={"x_mm": 9.5, "y_mm": 22}),
        "things[1] 'dimmer'",
    ),
    "buttons overlapping": (thing_in("dimmer", place={"x_mm": 15, "y_mm": 20}), "overlaps"),
    "name twice": (thing_in("dimmer", name="Brighter"), "stands twice"),
    "one name in the firmware": (thing_in("dimmer", name="all-dark"), "BUTTON_ALL_DARK"),
    "too many lines": (plus(kind="own-part", name="x", lines=99), "'x' lines"),
    "name with a bell": (thing_in("dimmer", name="di\u0007m"), "things[1]"),
    "unknown part": (thing_in("brighter", part="button-gold"), "things[0] 'brighter' part"),
    "wrong kind of part": (thing_in("brighter", part="resistor-1608"), "not a button"),
    "unknown screen": (thing_in("screen", part="screen-4k"), "'screen' part"),
    "unknown chip": (thing_in("chip", part="stm32l051c8t9"), "'chip' part"),
    "chip that is a path": (thing_in("chip", part="../../etc/passwd"), "'chip' part"),
    "chip without a pattern": (thing_in("chip", part="stm32l051t8y6"), "'chip' part"),
    "unknown kind": (thing_in("brighter", kind="lever"), "things[0] 'brighter'"),
    "a thing that is none": (set_in("things", 3, 7), "things[3]"),
    "no kind": (plus(name="x"), "one of the kinds"),
    "a stick of buttons": (
        thing_in(
            "brighter", kind="stick", part="button-6x6-surface", place={"x_mm": 20, "y_mm": 22}
        ),
        "things[0] 'brighter' part",
    ),
    "negative spread": (thing_in("brighter", kind="pad", spread_mm=-3), "'brighter' spread_mm"),
    "unknown scheme": (set_in("key_scheme", {"name": "telepathy"}), "key_scheme.name"),
    "scheme of a key that is not there": (
        set_in("key_scheme", {"name": "mixed", "direct": ["button:nobody"]}),
        "key_scheme.direct",
    ),
    "chord of a key that is not there": (
        set_in("chords", {"rule": "own", "groups": [["button:nobody"]]}),
        "chords.groups[0]",
    ),
    "screen on the wrong bus": (thing_in("screen", bus="one-way serial"), "'screen' bus"),
    "two things at one address": (
        plus(kind="bus-sensor", name="tilt", address=60),
        "'tilt' address",
    ),
    "own chip without a table": (thing_in("chip", part="own", table="nothing"), "'chip' part"),
    "unknown board": (thing_in("dome", board="moon"), "'dome' lies on the board 'moon'"),
    "unknown brain": (thing_in("dome", brain="moon"), "'dome' is read by 'moon'"),
    "unknown role": (set_in("role", "doorstop"), "role"),
    "too many buttons": (
        changed(
            lambda p: p.update(
                things=[*MANY, {"kind": "chip", "name": "chip", "part": "stm32l051c8t6"}],
                boards=[
                    {"outline": {"kind": "rounded-rectangle", "width_mm": 64, "height_mm": 90}}
                ],
            )
        ),
        "pins",
    ),
    "hole through a button": (
        thing_in("post south west", place={"x_mm": 9, "y_mm": 20}),
        "post south west",
    ),
    "impossible turn": (
        thing_in("switch", place={"x_mm": 5, "y_mm": 30, "turn_deg": 400}),
        "'switch' place.turn_deg",
    ),
    "turn and a half": (
        thing_in("switch", place={"x_mm": 5, "y_mm": 30, "turn_deg": 1.5}),
        "'switch' place.turn_deg",
    ),
    "first format without power": (
        b'{"format": "loquet-brief-1", "name": "x", "controls": []}',
        "is missing",
    ),
}


@pytest.mark.parametrize("name", BROKEN)
def test_the_command_names_the_place_and_writes_nothing(name: str, tmp_path: Path) -> None:
    data, expected = BROKEN[name]
    source = tmp_path / "broken.json"
    source.write_bytes(data)
    with pytest.raises(Unusable) as caught:
        compile_brief(source, tmp_path / "out")
    sentences = str(caught.value).splitlines()
    assert expected in sentences[0]
    assert len(set(sentences)) == len(sentences)
    assert all(sentence.endswith(".") and len(sentence) < 900 for sentence in sentences)
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


def test_all_faults_of_a_brief_are_told_at_once() -> None:
    """Of the form, and of the sense once the form is right."""
    plain = json.loads((ROOT / "examples" / "pocket-lamp.brief.json").read_text())
    wrong = {**plain, "quantity": "x", "boards": [{**plain["boards"][0], "copper_layers": 3}]}
    with pytest.raises(BriefError) as refused:
        brief_from_plain(wrong)
    assert [s.split(" ")[0] for s in refused.value.sentences] == [
        "boards[0].copper_layers",
        "quantity",
    ]
    first, *others = plain["things"]
    odd = {**plain, "things": [{**first, "place": {"x_mm": 400, "y_mm": 3}}, *others]}
    doubled = {**odd, "things": [*odd["things"], dict(odd["things"][-1])]}
    with pytest.raises(BriefError) as refused:
        brief_from_plain(doubled)
    assert len(refused.value.sentences) == 1
    assert "twice" in refused.value.problem
