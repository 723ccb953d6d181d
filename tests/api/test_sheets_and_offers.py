"""What the Circuit and Parts stations are told: sheets, curves, changes by hand, pages, plugs,
offers.
"""

import io
import time
from typing import Any

from fastapi.testclient import TestClient
from pypdf import PdfReader

from loquet.demo.scenario import demo_brief


def with_circuit(client: TestClient, name: str) -> int:
    """A project of an example whose circuit is made."""
    brief = demo_brief(name).model_dump(mode="json")
    project = int(client.post("/api/projects", json=brief).json()["project"])
    made(client, project)
    return project


def made(client: TestClient, project: int) -> None:
    for kind in ("pins", "circuit"):
        job = client.post(f"/api/projects/{project}/jobs", json={"kind": kind}).json()["job"]
        until = time.monotonic() + 90
        while client.get(f"/api/jobs/{job}").json()["state"] in ("waiting", "running"):
            assert time.monotonic() < until
            time.sleep(0.05)


def edited(client: TestClient, project: int, edit: dict[str, Any]) -> Any:
    version = client.get(f"/api/projects/{project}").json()["version"]
    return client.post(f"/api/projects/{project}/edits", json={"edit": edit, "version": version})


def test_sheets_curves_and_changes(client: TestClient) -> None:
    project = with_circuit(client, "pocket-lamp")
    view = client.get(f"/api/projects/{project}/circuit").json()
    assert [s["title"] for s in view["sheets"]][:2] == ["Chip core", "Sources to rails"]
    refs = {c["ref"] for c in view["components"]}
    assert {spot["ref"] for s in view["sheets"] for spot in s["drawn"]["spots"]} == refs
    nets = {p["net"] for s in view["sheets"] for p in s["drawn"]["paths"] if p["net"]}
    assert nets == {n["name"] for n in view["nets"]}
    assert all(p["d"].startswith("M") for s in view["sheets"] for p in s["drawn"]["paths"])
    assert {c["id"] for c in view["curves"]} >= {"reset RESET", "rise SUPPLY"}
    light = next(c for c in view["components"] if c["working"])
    assert light["working"] in {w["id"] for w in view["workings"]}
    chip = next(c for c in view["components"] if c["ref"] == "U1")
    assert any(pin["net"] == "" for pin in chip["pins"])  # open pins are listed too

    change = {"what": "rename", "net": "RESET", "to": "RESTART"}
    assert edited(client, project, {"kind": "change-circuit", "change": change}).status_code == 200
    made(client, project)
    after = client.get(f"/api/projects/{project}/circuit").json()
    assert [c["words"] for c in after["changes"]] == ["RESET is called RESTART"]
    names = {n["name"] for n in after["nets"]}
    assert "RESTART" in names
    assert "RESET" not in names
    wrong = {"what": "rename", "net": "GONE", "to": "X"}
    answer = edited(client, project, {"kind": "change-circuit", "change": wrong})
    assert answer.status_code == 422
    assert answer.json()["sentence"] == "There is no net GONE."


def test_pages_need_a_circuit(client: TestClient) -> None:
    brief = demo_brief("pocket-lamp").model_dump(mode="json")
    empty = client.post("/api/projects", json=brief).json()["project"]
    assert client.get(f"/api/projects/{empty}/sheets").status_code == 404
    assert client.get(f"/api/projects/{empty}/offers").json() == []
    assert client.get(f"/api/projects/{empty}/circuit").json()["sheets"] == []
    project = with_circuit(client, "pocket-lamp")
    answer = client.get(f"/api/projects/{project}/sheets")
    assert answer.headers["content-type"] == "application/pdf"
    assert "Circuit of Pocket lamp" in PdfReader(io.BytesIO(answer.content)).pages[0].extract_text()


def test_plugs_offers_and_what_was_bought(client: TestClient) -> None:
    project = with_circuit(client, "dusk-remote")
    drawers = client.get(f"/api/projects/{project}/parts").json()
    port = next(e for e in drawers["ends"] if e["purpose"] == "Programming header")
    assert port["other_half"] == "square posts at 2.54 mm, 5 ways, sockets"
    assert [net for _, net in port["ways"]] == [
        "DEBUG_SENSE",
        "DEBUG_CLOCK",
        "GROUND",
        "DEBUG_DATA",
        "RESET",
    ]
    half = {"family": "square posts", "pitch_mm": 2.54, "ways": 4, "gender": "sockets"}
    edited(client, project, {"kind": "say-half", "connector": port["thing"], "half": half})
    drawers = client.get(f"/api/projects/{project}/parts").json()
    port = next(e for e in drawers["ends"] if e["purpose"] == "Programming header")
    assert port["faults"] == ["it has 4 ways, and the connector 5"]

    offers = {row["line"]: row for row in client.get(f"/api/projects/{project}/offers").json()}
    (chip,) = (row for line, row in offers.items() if line.startswith("chip:"))
    assert [o["total_cents"] for o in chip["offers"]] == [306 * chip["offers"][0]["buys"]]
    button = offers["button-6x6-surface"]
    assert [o["pieces"] for o in button["offers"]] == [0, 0]
    assert "button-soft-rubber-6x6" in {part for part, _ in button["drop_ins"]}
    resistor = next(row for line, row in offers.items() if line.startswith("resistor-1608, "))
    for offer in resistor["offers"]:
        assert offer["total_cents"] == round(offer["each_cents"] * offer["buys"], 2)
        assert "simulated" in offer["supplier"]

    line = next(line for line in offers if line.startswith("resistor-1608, "))
    bought = {"maker_part": "Fell R-0603", "supplier": "drawer", "substitute": False, "pieces": 12}
    edited(client, project, {"kind": "name-bought", "line": line, "bought": bought})
    drawers = client.get(f"/api/projects/{project}/parts").json()
    assert next(row for row in drawers["on_board"] if row["line"] == line)["bought"] == bought
    text = client.get(f"/api/projects/{project}/parts-list").text
    assert text.splitlines()[0].endswith("Chosen part")
    assert "Fell R-0603" in text


def test_a_device_is_switched_on(client: TestClient) -> None:
    """Two fresh AAA cells are 3.3 V (IEC 60086-2) less what the guard and the cells lose; turned,
    nothing reaches the chip; what it has not is refused with what it has.
    """
    brief = demo_brief("focus-pad").model_dump(mode="json")
    empty = client.post("/api/projects", json=brief).json()["project"]
    assert client.get(f"/api/projects/{empty}/on").status_code == 404
    project = with_circuit(client, "focus-pad")

    def on(state: str = "") -> Any:
        return client.get(f"/api/projects/{project}/on", params={"state": state}).json()

    usual = on()
    assert usual["words"] == "With cell in, lines driven high"
    (cell,) = usual["sources"]
    assert (cell["level"], [row["level"] for row in cell["levels"]]) == (
        "usual",
        ["least", "usual", "most", "reversed"],
    )
    assert cell["gives_ma"] > 0
    fresh = on("cell=most,reset,sleep,on")
    volts = {row["net"]: row["volts"] for row in fresh["nodes"]}
    assert 3.2 < volts["SUPPLY"] <= 3.3
    turned = {row["net"]: row["volts"] for row in on("cell=reversed,high,play,on")["nodes"]}
    assert abs(turned["SUPPLY"]) < 0.01
    assert usual["loads"][0]["share"] >= usual["loads"][-1]["share"]
    wrong = client.get(f"/api/projects/{project}/on", params={"state": "sun=usual"})
    assert wrong.status_code == 422
    assert "'sun=usual' is no source" in wrong.json()["sentence"]
    assert "cell: least, usual, most, reversed" in wrong.json()["way_out"]


def test_run_times_are_those_of_the_circuit_once_it_is_there(client: TestClient) -> None:
    brief = demo_brief("focus-pad").model_dump(mode="json")
    empty = client.post("/api/projects", json=brief).json()["project"]
    assert client.get(f"/api/projects/{empty}/power").json()["lasting"] == []
    project = with_circuit(client, "focus-pad")
    plan = client.get(f"/api/projects/{project}/power").json()
    rows = {row["mode"]: row for row in plan["lasting"]}
    assert plan["sources"][0]["hours"] == {m: round(r["hours"], 3) for m, r in rows.items()}
    shown = {w["id"]: w["value"] for w in plan["workings"]}
    assert shown["power.cell.run.play"] == rows["play"]["hours"]
    assert sum(path["share"] for path in rows["sleep"]["paths"]) > 0.9
