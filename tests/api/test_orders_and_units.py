"""Nothing is ordered past a stop or twice by mistake; units and orders belong to what they were
made of.
"""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.test_api import BRIEF, edit, run

Plain = dict[str, Any]


@pytest.fixture(scope="module")
def made(client: TestClient) -> int:
    """A project of its own made up to a proven release."""
    project: int = client.post("/api/projects", json={**BRIEF, "name": "Order pod"}).json()[
        "project"
    ]
    assert run(client, project, "finish")["state"] == "done"
    return project


def order(client: TestClient, project: int, key: str, what: str = "orders", **more: Any) -> Any:
    body = {"quantity": 10, "key": key, **more}
    return client.post(f"/api/projects/{project}/{what}", json=body)


@pytest.mark.parametrize("what", ["orders", "parts-orders"])
def test_a_second_order_of_the_same_is_asked_about(
    client: TestClient, made: int, what: str
) -> None:
    first = order(client, made, f"first-{what}", what)
    assert first.status_code == 201
    assert order(client, made, f"first-{what}", what).json()["id"] == first.json()["id"]
    second = order(client, made, f"second-{what}", what)
    assert (second.status_code, second.json()["place"]) == (409, "again")
    assert "already, for 10 devices" in second.json()["sentence"]
    wanted = order(client, made, f"second-{what}", what, again=True)
    assert wanted.json()["id"] > first.json()["id"]


def test_no_order_past_an_open_card(client: TestClient, made: int) -> None:
    card = {"title": "The lamp flickers", "sort": "solder", "about": ""}
    noted = client.post(f"/api/projects/{made}/cards", json=card)
    assert noted.status_code == 201, noted.json()
    for what in ("orders", "parts-orders"):
        refused = order(client, made, f"third-{what}", what, again=True)
        assert refused.status_code == 409
        assert "A fault is open in the log: The lamp flickers." in refused.json()["sentence"]
    job = run(client, made, "release")
    assert (job["state"], "fault is open" in job["message"]) == ("short", True)
    number = client.get(f"/api/projects/{made}/log").json()["cards"][0]["id"]
    client.post(f"/api/cards/{number}/state", json={"state": "waived", "reason": "a loose lead"})


def test_the_order_book_knows_a_project_by_its_present_name(client: TestClient, made: int) -> None:
    head = client.get(f"/api/projects/{made}").json()
    named = edit(client, head, kind="set-words", name="Order pod two").json()
    assert {
        row["project_name"] for row in client.get("/api/orders").json() if row["project"] == made
    } == {"Order pod two"}
    client.post(f"/api/projects/{named['project']}/undo")
    assert {
        row["project_name"] for row in client.get("/api/orders").json() if row["project"] == made
    } == {"Order pod"}


def test_a_unit_is_held_against_what_it_was_built_from(client: TestClient, made: int) -> None:
    """Begun in A, looked at in B after a key was taken away: its tests are still those of A, its
    serial number is of the project.
    """
    unit = client.post(f"/api/projects/{made}/units", json={"serial": "A-001"}).json()
    keys = len(client.get(f"/api/units/{unit['id']}").json()["keys"])
    assert client.post(f"/api/projects/{made}/revisions").status_code == 201
    head = client.get(f"/api/projects/{made}").json()
    key = next(t["name"] for t in head["brief"]["things"] if t["kind"] == "button")
    edit(client, head, kind="remove-things", names=[key])
    rows = client.get(f"/api/projects/{made}/units").json()
    assert [(row["serial"], row["revision"]) for row in rows] == [("A-001", "A")]
    assert len(client.get(f"/api/units/{unit['id']}").json()["keys"]) == keys
    twice = client.post(f"/api/projects/{made}/units", json={"serial": "A-001"})
    assert twice.status_code == 409
    assert {o["revision"] for o in client.get(f"/api/projects/{made}/orders").json()} == {"A"}
    copied = client.post(f"/api/projects/{made}/revisions/A/copy")
    assert copied.status_code == 201
    there = client.get(f"/api/projects/{copied.json()['project']}").json()
    assert key in {t["name"] for t in there["brief"]["things"]}
    assert there["todo"] == 0


def test_the_stack_is_shown_while_its_brain_has_another_name(client: TestClient, made: int) -> None:
    head = client.get(f"/api/projects/{made}").json()
    brain = head["brains"][0]
    renamed = edit(client, head, kind="rename-thing", name=brain, new_name="other brain")
    assert renamed.status_code == 200
    for page in ("stack", "build"):
        assert client.get(f"/api/projects/{made}/{page}").status_code < 500
    edit(client, renamed.json(), kind="remove-things", names=["other brain"])
    for page in ("stack", "build"):
        assert client.get(f"/api/projects/{made}/{page}").status_code < 500


def test_refused_values_are_said_in_words(client: TestClient) -> None:
    head = client.post("/api/projects", json=BRIEF).json()
    key = next(t["name"] for t in head["brief"]["things"] if t["kind"] == "button")
    far = edit(client, head, kind="move-thing", name=key, x_mm=999, y_mm=10)
    assert far.status_code == 422
    assert "999" in far.json()["sentence"]
    assert "things[" not in far.json()["sentence"]
    yes = edit(client, head, kind="set-quantity", quantity=True)
    assert yes.status_code == 422
    assert client.post("/api/projects", json={**BRIEF, "quantity": True}).status_code == 422
    assert client.get("/api/bench").status_code == 405
