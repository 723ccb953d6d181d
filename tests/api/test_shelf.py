"""The parts shelf over the wire: kept, changed, taken in and given out, and what a project took."""

import json
from typing import Any

from fastapi.testclient import TestClient

from tests.api.test_planning import edit
from tests.conftest import ROOT
from tests.making import device, plain_of, thing

PACK = (ROOT / "examples" / "packs" / "tarn-regulator.toml").read_text()


def read_in(client: TestClient, text: str, *take: str) -> Any:
    return client.post("/api/shelf/pack", json={"text": text, "file": "tarn.toml", "take": take})


def test_a_pack_is_looked_at_taken_changed_and_given_out(client: TestClient) -> None:
    (row,) = read_in(client, PACK).json()
    assert (row["id"], row["here"], row["lacks"]) == ("own/tarn-r33", "new", [])
    assert client.get("/api/shelf/part", params={"id": "own/tarn-r33"}).status_code == 404
    assert read_in(client, PACK, "own/tarn-r33").json()[0]["here"] == "taken"
    assert read_in(client, PACK).json()[0]["here"] == "same"
    (changed,) = read_in(client, PACK.replace("price_cents = 9", "price_cents = 11")).json()
    assert [(c["field"], c["before"], c["after"]) for c in changed["changed"]] == [
        ("price_cents", "9.0", "11.0")
    ]
    refused = read_in(client, PACK.replace('pads = ["3"]', 'pads = ["8"]'))
    assert refused.status_code == 422
    assert refused.json()["place"].startswith("line ")
    assert "tarn.toml" in refused.json()["sentence"]
    given = client.get("/api/shelf/pack.toml")
    assert read_in(client, given.text).json()[0]["here"] == "same"


def test_a_part_is_kept_by_its_version_and_seen_with_its_history(client: TestClient) -> None:
    read_in(client, PACK, "own/tarn-r33")
    seen = client.get("/api/shelf/part", params={"id": "own/tarn-r33"}).json()
    part = seen["part"]
    assert list(part["terminals"]) == ["out", "ground", "in"]
    dearer = {**part, "id": "own/tarn-r50", "price_cents": 15}
    first = client.put("/api/shelf/part", json={"part": dearer, "version": 0}).json()
    assert first["version"] == 1
    late = client.put("/api/shelf/part", json={"part": {**dearer, "height_mm": 2}, "version": 0})
    assert late.status_code == 409
    second = client.put(
        "/api/shelf/part", json={"part": {**dearer, "height_mm": 2}, "version": 1}
    ).json()
    assert [v["version"] for v in second["versions"]] == [2, 1]
    assert second["versions"][0]["changed"][0]["field"] == "height_mm"
    assert len(second["drawing"]["pads"]) == 4
    gone = client.delete("/api/shelf/entry", params={"id": "own/tarn-r50", "version": 2})
    assert gone.status_code == 200
    assert client.get("/api/shelf/part", params={"id": "own/tarn-r50"}).status_code == 404
    again = client.put("/api/shelf/part", json={"part": dearer, "version": 0})
    assert again.json()["version"] == 4


def test_what_cannot_be_is_said_while_it_is_typed_and_never_kept(client: TestClient) -> None:
    part = client.get("/api/shelf/part", params={"id": "regulator-linear-low"}).json()["part"]
    assert client.put("/api/shelf/part", json={"part": part}).status_code == 422
    part["id"] = "own/odd"
    del part["values"]["input_max_v"]
    looked = client.post("/api/shelf/look", json={"part": part}).json()
    assert looked["faults"] == []
    assert [lack["what"] for lack in looked["lacks"]] == ["input_max_v"]
    part["terminals"]["in"]["pads"] = ["1", "2"]
    faults = client.post("/api/shelf/look", json={"part": part}).json()["faults"]
    assert "pad 2 has 2 terminals" in [fault["problem"] for fault in faults]
    part["body"]["pitch_mm"] = "wide"
    faults = client.post("/api/shelf/look", json={"part": part}).json()["faults"]
    assert faults[0]["field"] == "body.pitch_mm"
    assert client.put("/api/shelf/part", json={"part": part}).status_code == 422


def test_a_project_keeps_the_part_it_took_until_it_takes_the_change(client: TestClient) -> None:
    read_in(client, PACK, "own/tarn-r33")
    chip = thing("chip", "chip", part="stm32l433rct6")
    brief = plain_of(device(chip, thing("nine-volt", "block", converter="linear")))
    made = client.post("/api/projects", content=json.dumps({**brief, "name": "Tarn pod"}))
    project = made.json()["project"]
    shelf = client.get(f"/api/projects/{project}/shelf").json()
    assert [row["id"] for row in shelf["could_take"]].count("own/tarn-r33") == 1
    part = client.get("/api/shelf/part", params={"id": "own/tarn-r33"}).json()
    edit(client, project, kind="take-part", part=part["part"])
    plan = client.get(f"/api/projects/{project}/power").json()
    assert "own/tarn-r33" in json.dumps(plan)
    tall = {**part["part"], "height_mm": 3.0}
    client.put("/api/shelf/part", json={"part": tall, "version": part["version"]})
    (taken,) = client.get(f"/api/projects/{project}/shelf").json()["taken"]
    assert (taken["here"], taken["part"]["height_mm"]) == ("changed", 1.6)
    assert taken["changed"][0]["field"] == "height_mm"
    used = client.get("/api/shelf/part", params={"id": "own/tarn-r33"}).json()["used_in"]
    assert [(row["project"], row["same"]) for row in used] == [(project, False)]
    edit(client, project, kind="take-part", part=tall)
    (taken,) = client.get(f"/api/projects/{project}/shelf").json()["taken"]
    assert taken["here"] == "same"
    whole = client.get(f"/api/projects/{project}/project.zip").content
    version = client.get("/api/shelf/part", params={"id": "own/tarn-r33"}).json()["version"]
    client.delete("/api/shelf/entry", params={"id": "own/tarn-r33", "version": version})
    read = client.post("/api/projects/read-in", content=whole)
    assert read.status_code == 201, read.text
    copy = read.json()["project"]
    (lone,) = client.get(f"/api/projects/{copy}/shelf").json()["taken"]
    assert (lone["here"], lone["part"]) == ("not on the shelf", taken["part"])
    assert "own/tarn-r33" in json.dumps(client.get(f"/api/projects/{copy}/power").json())


def test_a_pin_table_gets_the_names_that_its_kind_asks_for(client: TestClient) -> None:
    text = "Pin\tName\tType\n1\tVOUT\tRegulated output\n2, 4\tGND\tGround\n3\tVIN\tPower\n"
    asked = {"text": text, "kind": "linear regulator"}
    read = client.post("/api/shelf/pin-table", json=asked).json()
    assert [(r["name"], r["pads"], r["does"]) for r in read["rows"]] == [
        ("out", ["1"], "supply out"),
        ("ground", ["2", "4"], "ground"),
        ("in", ["3"], "supply"),
    ]
