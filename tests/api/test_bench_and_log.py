"""Stack, units, log, ordering and the project file through the endpoints, on a real database."""

import io
import json
import threading
import zipfile
from typing import Any

import pytest
from fastapi.testclient import TestClient

from loquet.reports.bench import unit_server
from tests.api.test_api import BRIEF, edit, run
from tests.conftest import ROOT

Plain = dict[str, Any]


@pytest.fixture(scope="module")
def made(client: TestClient) -> int:
    """A project of its own made up to a proven release."""
    project: int = client.post("/api/projects", json={**BRIEF, "name": "Bench pod"}).json()[
        "project"
    ]
    assert run(client, project, "everything")["state"] == "done"
    assert run(client, project, "release")["message"] == "The files are written and proven."
    return project


def fresh(client: TestClient, project: int) -> Plain:
    head: Plain = client.get(f"/api/projects/{project}").json()
    return head


# Stack


def test_the_stack_is_cut_and_its_shell_changed(client: TestClient, made: int) -> None:
    """A wall that is 1 mm thicker makes the device 2 mm thicker; the change can be undone, and the
    board stays fresh.
    """
    before = client.get(f"/api/projects/{made}/stack").json()
    whole = {w["id"]: w["value"] for w in before["workings"]}["stack.whole"]
    head = fresh(client, made)
    stack = {**head["choices"]["stack"], "wall_mm": 3.0}
    head = edit(client, head, kind="set-stack", stack=stack).json()
    assert head["stale"] == []
    after = client.get(f"/api/projects/{made}/stack").json()
    assert {w["id"]: w["value"] for w in after["workings"]}["stack.whole"] == pytest.approx(
        whole + 2
    )
    cut = client.get(
        f"/api/projects/{made}/stack/section", params={"x1": -5, "y1": 10, "x2": 90, "y2": 10}
    ).json()
    assert {"front wall", "back wall", "board"} <= {c["name"] for c in cut["cuts"]}
    refused = client.get(
        f"/api/projects/{made}/stack/section", params={"x1": 1, "y1": 1, "x2": 1, "y2": 1}
    )
    assert refused.status_code == 422
    assert client.post(f"/api/projects/{made}/undo").status_code == 200
    none = edit(client, fresh(client, made), kind="measure-height", thing="nobody", height_mm=5)
    assert none.status_code == 422


def test_templates_come_in_their_formats(client: TestClient, made: int) -> None:
    rows = client.get("/api/stack/templates").json()
    starts = {"pdf": b"%PDF", "svg": b"<?xml", "dxf": b"  0\nSECTION", "stl": b"Loquet"}
    for row in rows:
        for kind in row["formats"]:
            data = client.get(f"/api/projects/{made}/stack/templates/{row['name']}.{kind}").content
            assert data.startswith(starts[kind])
    assert client.get(f"/api/projects/{made}/stack/templates/pockets.stl").status_code == 404


# Units


def test_a_simulated_unit_is_read_hunted_and_recorded(client: TestClient, made: int) -> None:
    """A key without contact: the key test says so, the finder names it within five tests;
    everything stays in the record.
    """
    build = client.get(f"/api/projects/{made}/build").json()
    assert build["steps"][0]["title"] == "Look at the bare board"
    unit = client.post(
        f"/api/projects/{made}/units", json={"serial": "A-001", "simulated": True}
    ).json()
    again = client.post(f"/api/projects/{made}/units", json={"serial": "A-001"})
    assert again.status_code == 409
    at = f"/api/units/{unit['id']}"
    assert client.post(f"{at}/keys").json()["records"][0]["good"] is True
    assert client.post(f"{at}/first-power").json()["records"][0]["sort"] == "after power"
    words = client.get(f"{at}/faults").json()
    which = next(
        i for i, w in enumerate(words) if w.startswith("S1 ") and "pad 1 has no contact" in w
    )
    assert client.post(f"{at}/fault", json={"which": which}).json()["set_fault"] == words[which]
    shown = client.post(f"{at}/keys").json()
    assert shown["records"][0]["good"] is False
    drawn = {k["words"]: (k["x_mm"], k["y_mm"], k["good"]) for k in shown["keys"]}
    places = {
        "button left": (14, 20),
        "button right": (56, 20),
        "button shutter open": (27, 34),
        "button shutter close": (43, 34),
    }
    assert {words: spot[:2] for words, spot in drawn.items()} == places
    assert sum(not good for *_, good in drawn.values()) == 1
    found = client.post(f"{at}/symptom", json={"observe": True}).json()
    for _ in range(5):
        if found["hunt"]["sure"]:
            break
        found = client.post(f"{at}/test", json={"probe": found["hunt"]["best"][0]}).json()
    assert found["hunt"]["sure"]
    assert found["hunt"]["causes"][0]["name"] == "S1 without contact or missing"
    assert found["hunt"]["best"] == []
    sorts = [r["sort"] for r in client.get(at).json()["records"]]
    assert {"keys", "symptom", "test", "set", "after power"} <= set(sorts)
    ran = client.post(f"{at}/rundown", json={"hours": 0.5}).json()["records"][0]
    assert ran["good"] is False
    assert "Power promises" in ran["words"]


def test_power_stays_off_where_a_resistance_is_wrong(client: TestClient, made: int) -> None:
    unit = client.post(
        f"/api/projects/{made}/units", json={"serial": "A-002", "simulated": True}
    ).json()
    at = f"/api/units/{unit['id']}"
    words = client.get(f"{at}/faults").json()
    which = next(i for i, w in enumerate(words) if "(GROUND)" in w and "(SUPPLY)" in w)
    client.post(f"{at}/fault", json={"which": which})
    records = client.post(f"{at}/first-power").json()["records"]
    assert records[0]["words"].startswith("Power stays off")
    assert not any(r["sort"] == "after power" for r in records)


def test_a_real_unit_is_read_by_hand(client: TestClient, made: int) -> None:
    """Readings are typed in; nobody can set a fault in it or ask it; what the circuit does not have
    is refused.
    """
    unit = client.post(f"/api/projects/{made}/units", json={"serial": "A-003"}).json()
    at = f"/api/units/{unit['id']}"
    assert client.post(f"{at}/fault", json={"which": "any"}).status_code == 422
    assert client.post(f"{at}/symptom", json={"observe": True}).status_code == 422
    hunt = client.post(f"{at}/symptom", json={"dead": True}).json()["hunt"]
    probe = hunt["best"][0]
    assert client.post(f"{at}/test", json={"probe": probe}).status_code == 422
    after = client.post(f"{at}/test", json={"probe": probe, "reading": 3.0}).json()["hunt"]
    assert after["tests"] == 1
    wrong = {"sort": "ohm", "one": ["Q99", "1"], "other": ["R1", "1"]}
    assert client.post(f"{at}/test", json={"probe": wrong, "reading": 1}).status_code == 422


def test_a_real_unit_is_read_over_its_line(client: TestClient, made: int) -> None:
    """The simulated unit on a socket stands for a real one: a unit that is not simulated is read
    through it.
    """
    server, words = unit_server(ROOT / "examples" / "dome-pod.brief.json", 0, 0)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    at = {"at": server.address}
    assert words == ""
    assert client.post("/api/bench", params=at).json()["name"] == "simulated Dome pod"
    body = {"serial": "A-wired", "simulated": False}
    unit = client.post(f"/api/projects/{made}/units", json=body).json()["id"]
    refused = client.post(f"/api/units/{unit}/keys")
    assert (refused.status_code, "where its bench unit is" in refused.json()["way_out"]) == (
        422,
        True,
    )
    shown = client.post(f"/api/units/{unit}/first-power", params=at).json()
    assert {r["good"] for r in shown["records"]} == {True}
    assert {r["sort"] for r in shown["records"]} == {"before power", "after power"}
    shown = client.post(f"/api/units/{unit}/keys", params=at).json()
    assert shown["records"][0]["words"] == "4 keys pressed, 0 wrong"
    body = {"observe": True}
    shown = client.post(f"/api/units/{unit}/symptom", params=at, json=body).json()
    assert shown["records"][0]["words"] == "nothing seen"
    server.shutdown()
    server.server_close()
    gone = client.post(f"/api/units/{unit}/keys", params=at)
    assert (gone.status_code, "Nothing answers" in gone.json()["sentence"]) == (422, True)
    elsewhere = client.post("/api/bench", params={"at": "10.0.0.7:22"})
    assert elsewhere.status_code == 422


def test_a_recorded_curve_is_checked(client: TestClient) -> None:
    rows = "\n".join(f"{s};{25 + s * 0.5:.1f}" for s in range(0, 300, 10))
    found = client.post("/api/reflow", json={"paste": "lead-free", "csv": rows}).json()
    assert {c["words"]: c["kept"] for c in found["checks"]}["Peak"] is False
    assert client.post("/api/reflow", json={"csv": "nothing"}).status_code == 422


# Log


def test_an_open_fault_blocks_the_release_until_it_is_fixed(client: TestClient, made: int) -> None:
    """K57.

    A card makes a stop; nothing is released; revision B begins with it as to-do; fixed there, files
    are written again, and A and B can be compared.
    """
    wanted = {
        "title": "Light the wrong way round",
        "about": "thing:light",
        "sort": "polarity",
        "patch": "turned",
        "minutes": 90,
    }
    card = client.post(f"/api/projects/{made}/cards", json=wanted).json()
    assert card["state"] == "open"
    head = fresh(client, made)
    assert any(f["rule"] == "open-fault" and f["severity"] == "stop" for f in head["findings"])
    assert "open in the log" in run(client, made, "release")["message"]
    refused = client.post(f"/api/projects/{made}/cards/{card['id']}", json={"state": "waived"})
    assert refused.status_code == 422
    other = client.post("/api/projects", json={**BRIEF, "name": "Neighbour"}).json()["project"]
    for project, number in ((other, card["id"]), (made, 10**6)):
        gone = client.post(f"/api/projects/{project}/cards/{number}", json={"state": "fixed"})
        assert gone.status_code == 404
    head = client.post(f"/api/projects/{made}/revisions").json()
    assert head["revision"] == "B"
    log = client.get(f"/api/projects/{made}/log").json()
    assert log["todo"] == ["Light the wrong way round: turned"]
    assert [r["letter"] for r in log["revisions"]] == ["A", "B"]
    assert log["revisions"][0]["hours"]["value"] == 1.5
    fixed = client.post(f"/api/projects/{made}/cards/{card['id']}", json={"state": "fixed"}).json()
    assert fixed["fixed_in"] == "B"
    moved = edit(
        client,
        fresh(client, made),
        kind="set-quantity",
        quantity=12,
        wanted_by=head["brief"]["wanted_by"],
    )
    assert moved.status_code == 200
    assert run(client, made, "release")["message"] == "The files are written and proven."
    changes = client.get(f"/api/projects/{made}/revisions/A/changes").json()
    assert changes
    lessons = client.get(f"/api/projects/{made}/log").json()["lessons"]
    assert [(row["sort"], row["cards"]) for row in lessons if row["sort"] == "polarity"] == [
        ("polarity", 1)
    ]


def test_a_fault_becomes_a_check(client: TestClient, made: int) -> None:
    """What the legend has to say is a stop until it says it; the check goes when it is taken
    out.
    """
    head = fresh(client, made)
    check = {"kind": "words", "title": "say north", "text": "NORTH UP"}
    head = edit(client, head, kind="add-check", check=check).json()
    (finding,) = [f for f in head["findings"] if f["rule"] == "own-checks"]
    assert "say north" in finding["sentence"]
    assert edit(client, head, kind="drop-check", title="other").status_code == 422
    head = edit(client, head, kind="drop-check", title="say north").json()
    assert not [f for f in head["findings"] if f["rule"] == "own-checks"]


def test_hours_are_noted(client: TestClient, made: int) -> None:
    client.post(
        f"/api/projects/{made}/hours", json={"words": "soldering", "minutes": 30, "cents": 250}
    )
    row = client.get(f"/api/projects/{made}/log").json()["revisions"][-1]
    assert (row["hours"]["value"], row["money"]["value"]) == (0.5, 250)


# Ordering


def test_costs_calendar_parts_and_a_query(client: TestClient, made: int) -> None:
    """Three houses; the sum of the lines is the total; the calendar names what is ordered; a query
    waits for its answer.
    """
    run(client, made, "release")
    rows = client.get(
        f"/api/projects/{made}/landed", params={"quantity": 20, "fitting": "house"}
    ).json()
    assert [r["house"] for r in rows] == ["millrace", "saltmarsh", "ropewalk"]
    for row in rows:
        assert sum(cents for _, cents in row["landed"]["lines"]) == row["landed"]["total_cents"]
        assert [p["quantity"] for p in row["curve"]] == sorted(
            {p["quantity"] for p in row["curve"]}
        )
    # Millrace's list: gold 17.00, other colours 3.00, thinner 4.00, express 26.00 - 9.50, a stencil
    # 15.00 and 39.00 in its frame; copper of 70 µm 1.40 a dm², and ten boards of 70 x 40 are 2.8
    hand = client.get(f"/api/projects/{made}/landed", params={"quantity": 10}).json()[0]
    costs = {(o["sort"], o["words"]): o["cents"] for o in hand["options"]}
    fitted = costs.pop(("fitting", "by the house"))
    assert costs == {
        ("finish", "gold"): 1700,
        ("colour", "black"): 300,
        ("colour", "white"): 300,
        ("thickness", "0.8 mm"): 400,
        ("thickness", "1.0 mm"): 400,
        ("copper", "70 µm"): 392,
        ("shipping", "express"): 1650,
        ("stencil", "none"): -3000,
        ("stencil", "in a frame"): 4800,
    }
    parts = client.get(f"/api/projects/{made}/circuit").json()["components"]
    placed = sum(not c["ref"].startswith(("TP", "FD")) for c in parts)
    assert fitted == pytest.approx(2400 + 1.9 * placed * 10 - 3000, abs=1.9 * 60)
    plan = client.get(f"/api/projects/{made}/calendar").json()["calendar"]
    assert [leg["name"] for leg in plan["legs"]] == ["parts", "boards", "soldering", "bring-up"]
    parts = client.post(
        f"/api/projects/{made}/parts-orders", json={"quantity": 10, "key": "parts-order-1"}
    ).json()
    assert (parts["kind"], parts["state"]) == ("parts", "received")
    same = client.post(
        f"/api/projects/{made}/parts-orders", json={"quantity": 10, "key": "parts-order-1"}
    ).json()
    assert same["id"] == parts["id"]
    head = fresh(client, made)
    chosen = {
        "house": "saltmarsh",
        "making": {"finish": "gold", "colour": "green", "thickness_mm": 1.6},
        "shipping": "courier",
    }
    head = edit(client, head, kind="choose-house", **chosen).json()
    assert run(client, made, "finish")["state"] == "done"
    placed = client.post(
        f"/api/projects/{made}/orders", json={"quantity": 10, "key": "boards-order-1"}
    ).json()
    for day in range(3):
        placed = client.post(f"/api/orders/{placed['id']}/next-day", json={"day": day}).json()
    assert placed["asks"]
    answered = client.post(f"/api/orders/{placed['id']}/answer", json={"words": "clip it"}).json()
    assert not answered["asks"]
    assert answered["state"] == "in production"
    assert (
        client.post(f"/api/orders/{placed['id']}/answer", json={"words": "again"}).status_code
        == 409
    )
    assert client.post(f"/api/orders/{parts['id']}/answer", json={"words": "hm"}).status_code == 422
    book = client.get("/api/orders").json()
    assert {(row["kind"], row["project"]) for row in book} >= {("parts", made), ("boards", made)}
    assert client.get(f"/api/projects/{made}/orders/changes").json() == []


# The project as a file


def test_an_order_is_repeated_with_its_own_files(client: TestClient, made: int) -> None:
    """The design goes on, the same boards come once more: same release, house and number; the same
    key orders once. Parts as well.
    """
    first = next(
        o
        for o in client.get("/api/orders").json()
        if o["project"] == made and o["kind"] == "boards"
    )
    head = fresh(client, made)
    head = edit(client, head, kind="set-quantity", quantity=7).json()
    key = {"key": "order-again-1"}
    again = client.post(f"/api/orders/{first['id']}/repeat", json=key).json()
    assert again["id"] > first["id"]
    assert (again["quantity"], again["house_name"], again["state"]) == (
        10,
        first["house"],
        "received",
    )
    assert client.post(f"/api/orders/{first['id']}/repeat", json=key).json()["id"] == again["id"]
    orders = {o["id"]: o for o in client.get(f"/api/projects/{made}/orders").json()}
    assert orders[again["id"]]["release"] == orders[first["id"]]["release"]
    parts = next(
        o for o in client.get("/api/orders").json() if o["project"] == made and o["kind"] == "parts"
    )
    more = client.post(f"/api/orders/{parts['id']}/repeat", json={"key": "parts-again-1"}).json()
    assert (more["kind"], more["quantity"], more["id"] > again["id"]) == ("parts", 10, True)
    assert client.post("/api/orders/99999/repeat", json=key).status_code == 404
    assert client.post(f"/api/orders/{first['id']}/repeat", json={"key": "x"}).status_code == 422


def test_a_project_file_may_be_larger_than_other_requests(client: TestClient) -> None:
    """3 MB are looked at there, and refused for what they are; nowhere else."""
    data, kind = b"x" * 3_000_000, {"Content-Type": "application/zip"}
    assert client.post("/api/projects/read-in", content=data, headers=kind).status_code == 422
    assert client.post("/api/projects", content=data, headers=kind).status_code == 413


def test_a_project_goes_to_another_machine_and_back(client: TestClient, made: int) -> None:
    """The same bytes for every file of the release; revisions, cards, units with their records and
    orders come along.
    """
    data = client.get(f"/api/projects/{made}/project.zip").content
    assert data == client.get(f"/api/projects/{made}/project.zip").content
    answer = client.post(
        "/api/projects/read-in", content=data, headers={"Content-Type": "application/zip"}
    )
    assert answer.status_code == 201
    other = answer.json()["project"]
    assert other != made

    def package(project: int) -> dict[str, bytes]:
        release = client.get(f"/api/projects/{project}/release").json()
        archive = zipfile.ZipFile(
            io.BytesIO(client.get(f"/api/releases/{release['id']}/package.zip").content)
        )
        return {name: archive.read(name) for name in archive.namelist()}

    assert package(other) == package(made)
    here, there = fresh(client, made), fresh(client, other)
    for name in ("brief", "choices", "findings", "revision", "stale"):
        assert there[name] == here[name]
    logs = [client.get(f"/api/projects/{p}/log").json() for p in (made, other)]
    assert [(c["title"], c["state"], c["fixed_in"]) for c in logs[0]["cards"]] == [
        (c["title"], c["state"], c["fixed_in"]) for c in logs[1]["cards"]
    ]
    assert [r["letter"] for r in logs[1]["revisions"]] == ["A", "B"]
    orders = [client.get(f"/api/projects/{p}/orders").json() for p in (made, other)]
    assert [o["state"] for o in orders[0]] == [o["state"] for o in orders[1]]
    assert client.post(f"/api/projects/{other}/undo").status_code == 200


HARM: dict[str, tuple[str, Plain]] = {
    "row": ("versions", {"revision_id": 999_999}),
    "long": ("units", {"serial": "A" * 100}),
    "unit": ("units", {"simulated": {"seed": 1, "fault": {"sort": "worn out"}}}),
    "symptom": ("records", {"sort": "symptom", "content": {"dead": "perhaps"}}),
    "keys": ("records", {"sort": "keys", "content": {"read": ["go"]}}),
    "order": ("orders", {"quote": {"quantity": 5}}),
    "proof": ("releases", {"proof": {"nets": "all"}}),
    "day": ("orders", {"placed_on": "yesterday"}),
    "headless": ("revisions", {"head_id": None}),
    "empty": ("versions", {"slices": {}}),
    "ring": ("versions", {"parent_id": "itself"}),
}


@pytest.mark.parametrize("damage", ["bytes", "member", "format", "slice", "file", "no zip", *HARM])
def test_a_damaged_project_file_is_refused_and_nothing_is_stored(
    damage: str, client: TestClient, made: int
) -> None:
    data = client.get(f"/api/projects/{made}/project.zip").content
    members = {
        n: zipfile.ZipFile(io.BytesIO(data)).read(n)
        for n in zipfile.ZipFile(io.BytesIO(data)).namelist()
    }
    head = json.loads(members["project.json"])
    slice_name = next(n for n in members if n.startswith("slices/"))
    rows = json.loads(members["rows.json"])
    if damage == "bytes":
        members[slice_name] = members[slice_name] + b" "
    elif damage == "member":
        del members[slice_name]
    elif damage == "format":
        head["format"] = "loquet-project-99"
    elif damage == "slice":
        members[slice_name] = b'{"nothing": 1}'
    elif damage == "file":
        members[next(n for n in members if n.startswith("files/"))] = b"another file"
    elif damage in HARM:
        table, values = HARM[damage]
        row = rows[table][0]
        row.update({n: row["id"] if v == "itself" else v for n, v in values.items()})
        members["rows.json"] = json.dumps(rows).encode()
    if damage in ("slice", "file", *HARM):
        import hashlib

        head["sha256"] = {
            n: hashlib.sha256(d).hexdigest() for n, d in members.items() if n != "project.json"
        }
    members["project.json"] = json.dumps(head).encode()
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, content in members.items():
            archive.writestr(name, content)
    sent = b"nothing" if damage == "no zip" else out.getvalue()
    before = len(client.get("/api/projects").json())
    answer = client.post(
        "/api/projects/read-in", content=sent, headers={"Content-Type": "application/zip"}
    )
    assert answer.status_code == 422
    assert answer.json()["sentence"]
    assert len(client.get("/api/projects").json()) == before
