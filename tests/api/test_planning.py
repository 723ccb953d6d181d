"""Endpoints of the Brief and Pins stations: verdict, schemes, hand-over files, tray, presets, chip
search.
"""

import io
import json
import time
import zipfile
from typing import Any

import pytest
from fastapi.testclient import TestClient

from loquet.demo.scenario import demo_brief
from tests.conftest import ROOT


@pytest.fixture(scope="module")
def handset(client: TestClient) -> int:
    made = client.post(
        "/api/projects", content=(ROOT / "examples" / "ridge-handset.brief.json").read_bytes()
    )
    assert made.status_code == 201, made.text
    project: int = made.json()["project"]
    return project


def edit(client: TestClient, project: int, **fields: Any) -> dict[str, Any]:
    head = client.get(f"/api/projects/{project}").json()
    answer = client.post(
        f"/api/projects/{project}/edits", json={"edit": fields, "version": head["version"]}
    )
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def finished(client: TestClient, project: int, kind: str) -> str:
    """Start a job and wait for its words."""
    job = client.post(f"/api/projects/{project}/jobs", json={"kind": kind}).json()["job"]
    for _ in range(2000):
        card = client.get(f"/api/jobs/{job}").json()
        if card["state"] not in ("waiting", "running"):
            return str(card["message"])
        time.sleep(0.05)
    raise AssertionError("the job does not end")


def test_a_verdict_with_ways_out_that_are_edits(client: TestClient, handset: int) -> None:
    path = f"/api/projects/{handset}/pin-verdict"
    assert client.get(path).json()["ways_out"] is None, "nobody has looked for them yet"
    began = time.monotonic()
    assert "ways out were tried and work" in finished(client, handset, "ways out")
    first = time.monotonic() - began
    verdict = client.get(path).json()
    began = time.monotonic()
    finished(client, handset, "ways out")
    assert time.monotonic() - began < first / 2, "kept by what it depends on, not worked out again"
    assert not verdict["fits"]
    assert len(verdict["conflict"]["titles"]) == 25
    assert "does not fit" in finished(client, handset, "pins") or "needed on 24 pins" in finished(
        client, handset, "pins"
    )
    head = edit(client, handset, **verdict["ways_out"][0]["edits"][0])
    assert client.get(f"/api/projects/{handset}/pin-verdict").json() == {
        "fits": True,
        "conflict": None,
        "ways_out": [],
    }
    assert head["brief"]["key_scheme"]["name"] == "mixed"


def test_schemes_and_sums(client: TestClient, handset: int) -> None:
    view = client.get(f"/api/projects/{handset}/schemes").json()
    assert [c["name"] for c in view["schemes"] if c["recommended"]] == ["mixed"]
    assert {w["id"] for w in view["sums"]} >= {
        "screen.rate",
        "screen.text",
        "axis.stick:left stick",
    }


def test_hand_over_needs_a_plan_and_gives_every_file(client: TestClient, handset: int) -> None:
    edit(client, handset, kind="set-scheme", scheme="diode matrix")
    assert client.get(f"/api/projects/{handset}/handover").status_code == 404
    assert finished(client, handset, "pins") == "Pins solved."
    names = {f["name"] for f in client.get(f"/api/projects/{handset}/handover").json()}
    assert names == {"pins.h", "pins.json", "wiring-card.pdf", "usb-report.h", "usb-report.bin"}
    archive = client.get(f"/api/projects/{handset}/handover/handover.zip")
    assert archive.headers["content-type"] == "application/zip"
    files = zipfile.ZipFile(io.BytesIO(archive.content))
    assert set(files.namelist()) == names
    assert (
        client.get(f"/api/projects/{handset}/handover/pins.json").json()["device"]
        == "Ridge handset"
    )
    assert client.get(f"/api/projects/{handset}/handover/..%2Fpassword").status_code == 404
    view = client.get(f"/api/projects/{handset}/pins").json()
    assert view["solved"]
    assert {b["id"] for b in view["budget"]} >= {
        "pins.left.plain pins",
        "pins.left.analogue channels",
        "pins.left.serial buses",
    }


def test_the_tray_and_the_presets(client: TestClient) -> None:
    tray = client.get("/api/tray").json()
    assert {p["kind"] for p in tray["parts"]} >= {
        "button",
        "five-way",
        "resistive stick",
        "magnetic trigger",
        "encoder",
        "slider",
        "touch electrode",
    }
    assert {s["bus"] for s in tray["screens"]} == {"two-wire", "one-way serial", "parallel colour"}
    for preset in client.get("/api/presets").json():
        assert client.post("/api/projects", content=json.dumps(preset["brief"])).status_code == 201


@pytest.mark.parametrize(
    ("words", "first"),
    [("hand", "hand iron"), ("l0 lqfp48", "hand iron"), ("wlcsp", "assembly house")],
)
def test_the_chip_search_asks_for_soldering_too(
    client: TestClient, handset: int, words: str, first: str
) -> None:
    rows = client.get(f"/api/projects/{handset}/chips", params={"words": words}).json()
    assert rows
    assert {r["soldering"] for r in rows} == {first}
    fitting = [r for r in rows if r["fits"] and r["covered"] and r["pieces"]]
    assert [r["ports"] for r in fitting] == sorted(r["ports"] for r in fitting)
    assert all("simulated" in r["supplier"] for r in rows)


def test_an_own_table_is_refused_with_its_line(client: TestClient, handset: int) -> None:
    head = client.get(f"/api/projects/{handset}").json()
    wanted = {"kind": "use-pin-table", "name": "module", "text": "pad,port,can\n1,A,fly\n"}
    answer = client.post(
        f"/api/projects/{handset}/edits", json={"edit": wanted, "version": head["version"]}
    )
    assert answer.status_code == 422
    assert "line 2" in answer.json()["sentence"]


def test_the_head_tells_keys_and_reach(client: TestClient, handset: int) -> None:
    head = client.get(f"/api/projects/{handset}").json()
    assert len(head["keys"]) == 14
    assert len(head["reach"]) == 6
    assert "from memory" in head["reach_source"]
    assert demo_brief("ridge-handset").name == head["name"]


def test_pins_are_aimed_at_a_placed_board_only(client: TestClient, handset: int) -> None:
    refused = client.post(f"/api/projects/{handset}/aim")
    assert refused.status_code == 422
    assert "not placed" in refused.json()["sentence"]
    made = client.post(
        "/api/projects", content=(ROOT / "examples" / "dome-pod.brief.json").read_bytes()
    ).json()["project"]
    finished(client, made, "placement")
    head = client.post(f"/api/projects/{made}/aim").json()
    assert len(head["choices"]["pin_targets"]) == 7
    assert "pins" in head["stale"]
    assert finished(client, made, "pins") == "Pins solved."
