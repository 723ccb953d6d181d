"""Projects on the shelf, in the archive, removed and back; heads as they are kept."""

from fastapi.testclient import TestClient

from loquet.demo.scenario import demo_brief


def started(client: TestClient, name: str) -> int:
    brief = {**demo_brief("dusk-remote").model_dump(mode="json"), "name": name}
    answer = client.post("/api/projects", json=brief)
    assert answer.status_code == 201
    return int(answer.json()["project"])


def kept(client: TestClient, project: int) -> str:
    rows = client.get("/api/projects").json()
    return str(next(row["kept"] for row in rows if row["id"] == project))


def test_a_project_is_archived_removed_and_put_back(client: TestClient) -> None:
    project = started(client, "Shelf one")
    before = client.get(f"/api/projects/{project}").json()
    for place in ("archive", "removed", "shelf"):
        answer = client.put(f"/api/projects/{project}/kept", json={"kept": place})
        assert (answer.status_code, answer.json()) == (200, {"kept": place})
        assert kept(client, project) == place
        assert client.get(f"/api/projects/{project}").json() == before
    assert client.put(f"/api/projects/{project}/kept", json={"kept": "bin"}).status_code == 422
    assert client.put("/api/projects/99999/kept", json={"kept": "shelf"}).status_code == 404


def test_a_head_is_never_older_than_the_edit_before_it(client: TestClient) -> None:
    """Heads are kept by their version: each edit, undo and redo shows at once, in the answer and in
    the next read.
    """
    project = started(client, "Shelf two")
    head = client.get(f"/api/projects/{project}").json()
    for quantity in (3, 5, 3, 5):
        edit = {
            "kind": "set-quantity",
            "quantity": quantity,
            "wanted_by": head["brief"]["wanted_by"],
        }
        answer = client.post(
            f"/api/projects/{project}/edits", json={"edit": edit, "version": head["version"]}
        )
        assert answer.json()["brief"]["quantity"] == quantity
        head = client.get(f"/api/projects/{project}").json()
        assert head == answer.json()
    for way, quantity in (("undo", 3), ("undo", 5), ("redo", 3), ("redo", 5)):
        answer = client.post(f"/api/projects/{project}/{way}")
        assert answer.json()["brief"]["quantity"] == quantity
        assert client.get(f"/api/projects/{project}").json() == answer.json()
    assert client.get(f"/api/projects/{project}").json()["can_redo"] is False


def test_the_pins_of_each_brain_are_told_apart(client: TestClient) -> None:
    answer = client.post("/api/projects", json=demo_brief("dew-panel").model_dump(mode="json"))
    project = answer.json()["project"]
    first = client.get(f"/api/projects/{project}/pins").json()
    second = client.get(f"/api/projects/{project}/pins", params={"brain": "show chip"}).json()
    assert (first["brain"], first["brains"]) == ("key chip", ["key chip", "show chip"])
    assert {s["signal"] for s in second["signals"]} & {"light:lamp", "button:warmer"} == {
        "light:lamp"
    }
    lamp = next(s for s in second["signals"] if s["signal"] == "light:lamp")
    assert lamp["toward_mm"][1] > 0  # the lamp lies above its chip
    assert lamp["line"] == "drive"
    unknown = client.get(f"/api/projects/{project}/pins", params={"brain": "nobody"})
    assert unknown.status_code == 422
    found = client.get(f"/api/projects/{project}/chips", params={"words": "fellbeck"}).json()
    assert found == []
