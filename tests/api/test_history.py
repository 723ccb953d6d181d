"""Versions listed, compared, gone back to; a project copied; a brief written and read again."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from loquet.core.comparing.briefs import compare
from loquet.demo.scenario import demo_brief
from tests.making import plain_of, thing, varied


@pytest.fixture
def head(client: TestClient) -> dict[str, Any]:
    made: dict[str, Any] = client.post(
        "/api/projects", json=plain_of(demo_brief("dusk-remote"))
    ).json()
    return made


def edited(client: TestClient, head: dict[str, Any], **edit: Any) -> dict[str, Any]:
    answer = client.post(
        f"/api/projects/{head['project']}/edits", json={"edit": edit, "version": head["version"]}
    )
    assert answer.status_code == 200, answer.text
    made: dict[str, Any] = answer.json()
    return made


def test_what_came_went_moved_and_changed() -> None:
    before = demo_brief("dusk-remote")
    after = varied(
        before,
        things={
            "dome": {"place": {"x_mm": 25, "y_mm": 7, "turn_deg": 30}},
            "light": {"light_ma": 5.0},
            "buzzer": None,
        },
        plus=(thing("test-point", "probe", 12, 38),),
        quantity=11,
    )
    assert [(c.what, c.about) for c in compare(before, after)] == [
        ("moved", "dome"),
        ("changed", "light"),
        ("came", "probe"),
        ("went", "buzzer"),
        ("changed", "quantity"),
    ]
    moved, changed = compare(before, after)[:2]
    assert moved.how == "from 26.00, 7.00 mm on main to 25.00, 7.00 mm, turned 30° on main"
    assert changed.how == "light ma from 2.0 to 5.0"
    assert compare(after, after) == ()


def test_boards_that_came_went_and_changed() -> None:
    one = demo_brief("slew-carrier")
    main, carrier = one.boards
    larger = main.model_copy(update={"outline": carrier.outline})
    alone = one.model_copy(update={"boards": (larger,), "things": ()})
    found = [(c.what, c.about) for c in compare(one, alone)]
    assert found[:2] == [("went", "carrier"), ("changed", "main")]
    assert ("came", "carrier") in [(c.what, c.about) for c in compare(alone, one)]
    assert ("went", "slew") in found


def test_going_back_is_a_step_that_can_be_undone(client: TestClient, head: dict[str, Any]) -> None:
    project, first = head["project"], head["version"]
    head = edited(client, head, kind="move-thing", name="dome", x_mm=25.0, y_mm=7.0)
    head = edited(client, head, kind="remove-things", names=["buzzer"])
    rows = client.get(f"/api/projects/{project}/versions").json()
    assert [r["label"] for r in rows][-1] == "Start"
    assert [r["shown"] for r in rows] == [True, False, False]
    changes = client.get(f"/api/projects/{project}/versions/{first}/changes").json()
    assert [(c["what"], c["about"]) for c in changes] == [("moved", "dome"), ("went", "buzzer")]
    back = client.post(f"/api/projects/{project}/restore", json={"version": first}).json()
    assert back["brief"] == client.get(f"/api/projects/{project}").json()["brief"]
    assert any(t["name"] == "buzzer" for t in back["things"])
    undone = client.post(f"/api/projects/{project}/undo").json()
    assert not any(t["name"] == "buzzer" for t in undone["things"])
    assert len(client.get(f"/api/projects/{project}/versions").json()) == 4


def test_a_version_of_another_project_is_not_found(
    client: TestClient, head: dict[str, Any]
) -> None:
    other = client.post("/api/projects", json=plain_of(demo_brief("dome-pod"))).json()
    for answer in (
        client.post(f"/api/projects/{head['project']}/restore", json={"version": other["version"]}),
        client.get(f"/api/projects/{head['project']}/versions/{other['version']}/changes"),
    ):
        assert answer.status_code == 404
        assert "There is no version" in answer.json()["sentence"]


def test_a_copy_is_a_project_of_its_own_and_a_brief_goes_out_and_in(
    client: TestClient, head: dict[str, Any]
) -> None:
    copy = client.post(f"/api/projects/{head['project']}/copy").json()
    assert copy["project"] != head["project"]
    assert copy["name"] == "Dusk remote copy"
    assert copy["brief"]["things"] == head["brief"]["things"]
    edited(client, copy, kind="remove-things", names=["buzzer"])
    assert client.get(f"/api/projects/{head['project']}").json()["version"] == head["version"]
    written = client.get(f"/api/projects/{head['project']}/brief.json")
    assert "dusk-remote.brief.json" in written.headers["content-disposition"]
    assert client.post("/api/projects", content=written.content).json()["brief"] == head["brief"]
