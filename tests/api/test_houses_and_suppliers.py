"""Houses and suppliers of one's own over the wire: learnt, chosen, quoted, noted; price lists taken
in, carts given out.
"""

import json
import time
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.test_planning import edit, finished
from tests.conftest import ROOT
from tests.making import FELL, device, plain_of, thing

HOUSE = {**FELL, "vat_share": 0.2}
BECK = {"id": "supplier/beck", "name": "Beck Parts", "shipping": [[0, 400]], "vat_share": 0.2}
HEAD = "order no,maker,description,stock,price 1,price 100\n"


@pytest.fixture(scope="module")
def project(client: TestClient) -> int:
    """A small device with its files written and proven."""
    brief = device(thing("chip", "chip", part="stm32f030c8t6"), thing("leads", "leads"))
    plain = plain_of(brief) | {"name": "Fell lamp"}
    number: int = client.post("/api/projects", json=plain).json()["project"]
    finished(client, number, "finish")
    return number


def test_a_house_is_learnt_chosen_quoted_and_its_order_noted(
    client: TestClient, project: int
) -> None:
    quotes = [
        {"quantity": n, "width_mm": w, "height_mm": h, "cents": 1000 + 200 * n * w * h / 10_000}
        for n, w, h in ((5, 100, 60), (10, 60, 40), (20, 90, 80), (30, 50, 50), (50, 120, 70))
    ]
    told = client.post("/api/shelf/house/learn", json={"quotes": quotes}).json()
    assert told["learnt"]["prices"]["setup_cents"] == pytest.approx(1000, abs=1)
    assert told["words"]["area_cents_dm2"] == "a dm² of board"
    few = client.post("/api/shelf/house/learn", json={"quotes": quotes[:2]})
    assert few.status_code == 422

    bad = {**HOUSE, "known": "simulated", "smallest_mm": [500, 500]}
    faults = client.post("/api/shelf/house/look", json={"house": bad}).json()
    assert [fault["field"] for fault in faults] == ["known", "smallest_mm"]
    assert client.put("/api/shelf/house", json={"house": bad}).status_code == 422
    assert (
        client.put("/api/shelf/house", json={"house": {**HOUSE, "id": "fell"}}).status_code == 422
    )
    kept = client.put("/api/shelf/house", json={"house": HOUSE}).json()
    assert kept["version"] == 1
    rows = client.get("/api/shelf/houses").json()
    assert [(r["house"]["name"], r["version"]) for r in rows][:2] == [
        *(("Fell Boards", 1), ("Millrace Boards", 0))
    ]

    path = f"/api/projects/{project}/quotes"
    fell = next(q for q in client.get(path).json() if q["house"] == "house/fell")
    assert (fell["simulated"], fell["own"]["id"], fell["changed"]) == (False, "house/fell", False)
    # in euro: set-up 5.00, the area at 1.00 a dm², the letter 2.50
    lines = {line["title"]: line["value"] for line in fell["lines"]}
    assert (lines["set-up"], lines["shipping by letter"]) == (500, 250)
    assert "typed in the workshop" in fell["total"]["source"]["text"]

    making = client.get(f"/api/projects/{project}").json()["brief"]["making"]
    asked = {"kind": "choose-house", "house": "house/fell", "shipping": "letter", "making": making}
    assert edit_refused(client, project, {**asked, "own": None})
    edit(client, project, **asked, own=HOUSE)
    finished(client, project, "finish")
    order = {"quantity": 10, "key": "own-house-1"}
    noted = client.post(f"/api/projects/{project}/orders", json=order)
    assert noted.status_code == 201, noted.text
    said = noted.json()
    assert (said["simulated"], said["state"], said["house_name"]) == (False, "noted", "Fell Boards")
    passed = client.post(f"/api/orders/{said['id']}/next-day", json={"day": 0})
    assert passed.status_code == 422

    dearer = {**HOUSE, "setup_cents": 3000}
    client.put("/api/shelf/house", json={"house": dearer, "version": 1})
    fell = next(q for q in client.get(path).json() if q["house"] == "house/fell")
    assert fell["changed"]
    assert {line["title"]: line["value"] for line in fell["lines"]}["set-up"] == 500

    landed = client.get(f"/api/projects/{project}/landed", params={"stencil": "none"}).json()
    row = next(r for r in landed if r["house"] == "house/fell")
    bills = dict(row["landed"]["lines"])
    assert bills["Value added tax"] >= 0.2 * bills["Boards"]


def edit_refused(client: TestClient, project: int, fields: dict[str, Any]) -> bool:
    version = client.get(f"/api/projects/{project}").json()["version"]
    body = {"edit": fields, "version": version}
    return client.post(f"/api/projects/{project}/edits", json=body).status_code == 422


def steps_of(text: str) -> list[dict[str, Any]]:
    return [json.loads(piece.removeprefix("data: ")) for piece in text.split("\n\n") if piece]


def taken(client: TestClient, text: str, **more: Any) -> list[dict[str, Any]]:
    columns = {"order no": "order number", "maker": "maker number", "stock": "stock"}
    columns |= {"price 1": "price 1", "price 100": "price 100", "description": "description"}
    asked = {"supplier": "supplier/beck", "text": text, "columns": columns}
    body = {**asked, "seen_on": "2026-11-30", **more}
    answer = client.post("/api/shelf/price-list", json=body)
    assert answer.status_code == 200, answer.text
    return steps_of(answer.text)


def test_a_price_list_is_taken_in_whole_or_not_at_all(client: TestClient, project: int) -> None:
    assert client.put("/api/shelf/supplier", json={"supplier": BECK}).status_code == 200
    simulated = {**BECK, "known": "simulated"}
    assert client.put("/api/shelf/supplier", json={"supplier": simulated}).status_code == 422
    parts = client.get(f"/api/projects/{project}/parts").json()["on_board"]
    capacitor = next(line for line in parts if line["kind"] == "capacitor")
    rows = [f"B-{i},M-{i},part {i},{i},0.{i % 89 + 10},0.10" for i in range(4999)]
    rows.append("B-CHIP,STM32F030-C8T6,chip,900,1.50,1.20")
    text = HEAD + "\n".join(rows) + "\n"
    look = client.post(
        "/api/shelf/price-list/look", json={"supplier": "supplier/beck", "text": text}
    ).json()
    assert (look["remembered"], look["columns"]["price 100"]) == (False, "price 100")
    began = time.monotonic()
    steps = taken(client, text)
    took = time.monotonic() - began
    assert took < 5, "5,000 lines in under 5 s"
    assert steps[-1]["kept"] == 5000
    assert len(steps) > 10
    assert [s["done"] for s in steps] == sorted(s["done"] for s in steps)
    look = client.post(
        "/api/shelf/price-list/look", json={"supplier": "supplier/beck", "text": text}
    ).json()
    assert look["remembered"]
    wrong = taken(client, HEAD + "X-1,a,b,1,cheap,0.1\n" + "\n".join(rows[:9]))
    assert wrong[-1]["kept"] is None
    assert [(f["line"], f["column"]) for f in wrong[-1]["faults"]] == [(2, "price 1")]
    assert counted(client) == 5000
    without = taken(client, HEAD + "X-1,a,b,1,cheap,0.1\n" + "\n".join(rows), leave_out=True)
    assert without[-1]["kept"] == 5000

    found = client.get("/api/shelf/prices", params={"supplier": "supplier/beck", "words": "M-77"})
    assert found.json()["lines"][0]["order_number"] == "B-77"
    link = {"supplier": "supplier/beck", "order_number": "B-77", "part": capacitor["part"]}
    assert client.put("/api/shelf/price-link", json={**link, "part": "nothing"}).status_code == 422
    assert client.put("/api/shelf/price-link", json=link).json()["part"] == capacitor["part"]
    offers = client.get(f"/api/projects/{project}/offers").json()
    (offer,) = next(o for o in offers if o["line"].startswith(capacitor["part"]))["offers"]
    assert (offer["supplier"], offer["order_number"]) == ("Beck Parts", "B-77")
    chip = next(o for o in offers if "stm32f030c8t6" in o["line"])["offers"]
    assert [o["supplier"] for o in chip] == ["Beck Parts"]

    carts = client.get(f"/api/projects/{project}/carts").json()
    (cart,) = carts["carts"]
    assert cart["supplier"] == "Beck Parts"
    assert {row["order_number"] for row in cart["rows"]} == {"B-77", "B-CHIP"}
    assert cart["text"].startswith("order number,pieces,for\r\n")
    assert carts["nowhere"]

    finished(client, project, "finish")
    order = {"quantity": 5, "key": "own-parts-1", "again": True}
    parts_order = client.post(f"/api/projects/{project}/parts-orders", json=order).json()
    assert (parts_order["simulated"], parts_order["state"]) == (False, "noted")
    assert "price lists" in parts_order["total"]["source"]["text"]


def counted(client: TestClient) -> int:
    rows = client.get("/api/shelf/suppliers").json()
    found = next(row for row in rows if row["supplier"]["id"] == "supplier/beck")
    return int(found["prices"])


def test_everything_of_ones_own_goes_into_one_pack(client: TestClient) -> None:
    given = client.get("/api/shelf/pack.toml").text
    assert '[[house]]\nid = "house/fell"' in given
    assert given.count("[[price]]") == 5000
    sheet = (ROOT / "examples" / "sheets" / "hub.toml").read_text()
    rows = client.post("/api/shelf/pack", json={"text": sheet, "take": ["own/sheet-hub"]}).json()
    assert [row["here"] for row in rows] == ["taken"]
    whole = client.post("/api/shelf/pack", json={"text": given}).json()
    assert {row["here"] for row in whole} == {"same"}
    version = next(
        row["version"]
        for row in client.get("/api/shelf/suppliers").json()
        if row["supplier"]["id"] == "supplier/beck"
    )
    gone = {"id": "supplier/beck", "version": version}
    assert client.delete("/api/shelf/entry", params=gone).status_code == 200
    assert "[[price]]" not in client.get("/api/shelf/pack.toml").text
    back = client.post("/api/shelf/pack", json={"text": given, "take": ["supplier/beck"]})
    assert back.status_code == 200, back.text
    assert counted(client) == 5000
    orphan = given.replace("[[supplier]]", "[[nobody]]")
    assert client.post("/api/shelf/pack", json={"text": orphan}).status_code == 422


def test_a_paste_of_ones_own_is_kept_and_heated_by(client: TestClient, project: int) -> None:
    standard = client.get("/api/shelf/pastes").json()
    assert [(row["paste"]["id"], row["version"]) for row in standard] == [
        ("lead-free", 0),
        ("tin-lead", 0),
    ]
    cool = {
        **standard[1]["paste"],
        **{"id": "paste/bismuth", "name": "bismuth paste", "known": "typed"},
        **{"soak_c": [90, 130], "liquid_c": 138, "peak_c": [155, 180]},
    }
    wrong = client.post("/api/shelf/paste/look", json={"paste": {**cool, "liquid_c": 160}}).json()
    assert [fault["field"] for fault in wrong["faults"]] == ["liquid_c"]
    assert wrong["profile"] == []
    assert (
        client.put("/api/shelf/paste", json={"paste": {**cool, "peak_c": [9, 1]}}).status_code
        == 422
    )
    lost = client.put("/api/shelf/paste", json={"paste": {**cool, "id": "bismuth"}})
    assert "paste/NAME" in lost.json()["way_out"]
    assert client.put("/api/shelf/paste", json={"paste": cool}).json()["version"] == 1
    assert client.put("/api/shelf/paste", json={"paste": {**cool, "up_k_s": 2}}).status_code == 409
    view = client.get(f"/api/projects/{project}/build", params={"paste": "paste/bismuth"})
    assert view.json()["paste"] == cool
    assert max(point["c"] for point in view.json()["profile"]) == 167.5
    csv = "".join(f"{point['s']},{point['c']}\n" for point in view.json()["profile"])
    held = client.post("/api/reflow", json={"paste": "paste/bismuth", "csv": csv}).json()
    assert all(check["kept"] for check in held["checks"])
    assert client.post("/api/reflow", json={"paste": "paste/none", "csv": csv}).status_code == 404
    given = client.get("/api/shelf/pack.toml").text
    assert 'id = "paste/bismuth"' in given
    gone = client.delete("/api/shelf/entry", params={"id": "paste/bismuth", "version": 1})
    assert gone.status_code == 200
    again = client.post("/api/shelf/pack", json={"text": given, "take": ["paste/bismuth"]}).json()
    assert [row["here"] for row in again if row["id"] == "paste/bismuth"] == ["taken"]
