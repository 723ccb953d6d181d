"""The endpoints on a real database: the whole way, conflicts, jobs, errors."""

import io
import json
import time
import zipfile
from typing import Any

import pytest
from fastapi.testclient import TestClient

from loquet.core.design import Design
from loquet.standins.board_house import STATES
from tests.conftest import ROOT

BRIEF = json.loads((ROOT / "examples" / "dome-pod.brief.json").read_text())


def wait(client: TestClient, job: int, seconds: float = 60) -> dict[str, Any]:
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        card: dict[str, Any] = client.get(f"/api/jobs/{job}").json()
        if card["state"] not in ("waiting", "running"):
            return card
        time.sleep(0.05)
    raise AssertionError("the job did not end")


def run(client: TestClient, project: int, kind: str, **about: Any) -> dict[str, Any]:
    answer = client.post(f"/api/projects/{project}/jobs", json={"kind": kind, **about})
    assert answer.status_code == 202
    return wait(client, answer.json()["job"])


def edit(client: TestClient, head: dict[str, Any], **fields: Any) -> Any:
    return client.post(
        f"/api/projects/{head['project']}/edits", json={"edit": fields, "version": head["version"]}
    )


@pytest.fixture
def head(client: TestClient) -> dict[str, Any]:
    """A new project."""
    answer = client.post("/api/projects", json=BRIEF)
    assert answer.status_code == 201
    made: dict[str, Any] = answer.json()
    return made


@pytest.fixture(scope="module")
def made(client: TestClient) -> int:
    """A project made up to a proven release."""
    project: int = client.post("/api/projects", json=BRIEF).json()["project"]
    assert run(client, project, "everything")["state"] == "done"
    assert run(client, project, "release")["message"] == "The files are written and proven."
    return project


def test_work_to_do_is_no_stop(head: dict[str, Any]) -> None:
    """Five stages are to be made of a new brief that has no fault; stations of what is not there
    are empty.
    """
    assert (head["stops"], head["todo"]) == (0, 5)
    states = {card["name"]: card["state"] for card in head["stations"]}
    assert {states[name] for name in ("pins", "circuit", "board", "stack", "build")} == {"empty"}
    assert "Nothing is made of the brief yet" in head["next"]["sentence"]
    states = [s["state"] for s in head["stations"]]
    assert states == [*["clear"] * 3, *["empty"] * 6, "clear"]
    assert {w["id"] for w in head["tally"]} >= {"tally.pins", "tally.free"}


def test_an_edit_makes_a_version_and_undo_takes_it_back(
    client: TestClient, head: dict[str, Any]
) -> None:
    moved = edit(client, head, kind="move-thing", name="left", x_mm=15, y_mm=20).json()
    assert moved["version"] > head["version"]
    assert moved["can_undo"] is True
    back = client.post(f"/api/projects/{head['project']}/undo").json()
    assert back["brief"]["things"][0]["place"]["x_mm"] == 14
    assert back["can_redo"] is True
    again = client.post(f"/api/projects/{head['project']}/redo").json()
    assert again["brief"]["things"][0]["place"]["x_mm"] == 15


def test_an_edit_on_an_old_version_is_a_conflict(client: TestClient, head: dict[str, Any]) -> None:
    first = edit(client, head, kind="set-quantity", quantity=7)
    second = edit(client, head, kind="set-quantity", quantity=8)
    assert (first.status_code, second.status_code) == (200, 409)
    assert second.json()["head"] == first.json()["version"]


def test_what_a_job_made_meanwhile_is_no_conflict_unless_the_edit_speaks_of_it(
    client: TestClient, head: dict[str, Any]
) -> None:
    """The page still shows the version before the job: a number of devices is taken on top of what
    the job made, a word about tracks that it has not seen is not.
    """
    project = head["project"]
    assert run(client, project, "everything")["state"] == "done"
    routed = client.get(f"/api/projects/{project}").json()
    assert edit(client, head, kind="keep-nets", board="main").status_code == 409
    taken = edit(client, head, kind="set-quantity", quantity=7)
    assert taken.status_code == 200
    assert taken.json()["stale"] == routed["stale"] == []
    assert edit(client, routed, kind="keep-nets", board="main").status_code == 409
    assert edit(client, taken.json(), kind="keep-nets", board="main").status_code == 200


def test_refused_edits_say_why_and_change_nothing(client: TestClient, head: dict[str, Any]) -> None:
    for fields, said in (
        ({"kind": "move-thing", "name": "left", "x_mm": 150, "y_mm": 3}, "outside"),
        (
            {"kind": "change-thing", "name": "chip", "changes": {"part": "stm32l051c8t9"}},
            "not in the open data set",
        ),
        ({"kind": "set-quantity", "quantity": -1}, "greater than or equal"),
        ({"kind": "drop"}, "Edit: there is none of kind 'drop'."),
    ):
        answer = edit(client, head, **fields)
        assert answer.status_code == 422
        assert said in answer.json()["sentence"]
    assert client.get(f"/api/projects/{head['project']}").json()["version"] == head["version"]


def test_stages_run_as_jobs_one_by_one(client: TestClient, head: dict[str, Any]) -> None:
    project = head["project"]
    assert client.get(f"/api/projects/{project}/board").status_code == 404
    assert run(client, project, "pins")["message"] == "Pins solved."
    pins = client.get(f"/api/projects/{project}/pins").json()
    assert pins["solved"]
    assert pins["proven"]
    assert sum(bool(p["signal"]) for p in pins["pins"]) == 7
    assert run(client, project, "placement")["message"] == "Circuit made; Parts placed."
    board = client.get(f"/api/projects/{project}/board").json()
    assert board["routed"] is False
    assert len(board["parts"]) == len(
        client.get(f"/api/projects/{project}/circuit").json()["components"]
    )
    assert run(client, project, "board")["state"] == "done"
    assert client.get(f"/api/projects/{project}").json()["stops"] == 0
    vias = client.get(f"/api/projects/{project}/board").json()["vias"]
    assert {via["net"] for via in vias if via["stitch"]} == {"GROUND"}
    assert {via["net"] for via in vias if not via["stitch"]} - {"GROUND"}


def test_a_job_can_be_stopped_and_leaves_whole_stages_alone(
    client: TestClient, head: dict[str, Any]
) -> None:
    project = head["project"]
    started = client.post(f"/api/projects/{project}/jobs", json={"kind": "everything"}).json()[
        "job"
    ]
    assert client.post(f"/api/jobs/{started}/stop").json() == {"stopping": True}
    assert wait(client, started)["state"] == "stopped"
    after = client.get(f"/api/projects/{project}").json()
    assert after["brief"] == head["brief"]
    assert "pour" in after["stale"], (
        "a stage that was quicker than the stop is kept, the last is not made"
    )


def test_a_stage_that_refuses_says_so(client: TestClient, head: dict[str, Any]) -> None:
    locked = edit(client, head, kind="lock-pin", signal="debug:data", pin="1").json()
    card = run(client, locked["project"], "pins")
    assert card["state"] == "refused"
    assert "locked to pin 1" in card["message"]


def test_a_track_is_drawn_where_another_lies_and_undone_as_one(
    client: TestClient, head: dict[str, Any]
) -> None:
    """3 mm of another net square over the longest way of a button: led about it in one step, one
    undo takes both back.
    """
    project = head["project"]
    run(client, project, "everything")
    assert client.post(f"/api/projects/{project}/jobs", json={"kind": "draw"}).status_code == 422

    def tracks() -> list[dict[str, Any]]:
        board = client.get(f"/api/projects/{project}/board").json()
        assert board["links"] == []
        found: list[dict[str, Any]] = board["tracks"]
        return found

    before = tracks()
    buttons = [t for t in before if t["net"].startswith("BUTTON_")]
    crossed = max(buttons, key=lambda t: abs(t["x1"] - t["x2"]) + abs(t["y1"] - t["y2"]))
    x, y = ((crossed[f"{axis}1"] + crossed[f"{axis}2"]) / 2 for axis in "xy")
    level = abs(crossed["x1"] - crossed["x2"]) > abs(crossed["y1"] - crossed["y2"])
    dx, dy = (0, 1.5) if level else (1.5, 0)
    ends = {"x1_nm": x - dx, "y1_nm": y - dy, "x2_nm": x + dx, "y2_nm": y + dy}
    piece = {name: round(mm * 1e6) for name, mm in ends.items()}
    piece |= {"net": "CELLS", "far": crossed["far"], "width_nm": 200_000}
    drawing = {"kind": "draw-tracks", "board": "main", "tracks": [piece]}
    card = run(client, project, "draw", drawing=drawing)
    assert card["message"] == f"Draw CELLS on main; {crossed['net']} gave way."
    after = tracks()
    assert crossed not in after
    assert [t["net"] for t in after if t["by_hand"]] == ["CELLS"]
    client.post(f"/api/projects/{project}/undo")
    assert tracks() == before


def test_an_edit_while_a_job_runs_is_kept(client: TestClient, head: dict[str, Any]) -> None:
    project = head["project"]
    started = client.post(f"/api/projects/{project}/jobs", json={"kind": "everything"}).json()[
        "job"
    ]
    changed = edit(client, head, kind="set-quantity", quantity=77)
    assert wait(client, started)["state"] == "done"
    after = client.get(f"/api/projects/{project}").json()
    assert changed.status_code == 200
    assert after["brief"]["quantity"] == 77
    assert after["stale"] == []


def test_a_release_is_proven_read_back_and_downloaded(client: TestClient, made: int) -> None:
    release = client.get(f"/api/projects/{made}/release").json()
    assert release["current"] is True
    counts = {w["id"]: w["value"] for w in release["proof"]}
    assert min(counts.values()) > 0
    assert set(counts) == {f"proof.{n}" for n in ("nets", "pads", "gaps", "holes", "keys")}
    layer = client.get(f"/api/releases/{release['id']}/layers/fabrication/copper-near.gbr").json()
    assert layer["function"] == "Copper,L1,Top"
    assert layer["strokes"]
    assert layer["regions"]
    assert client.get(f"/api/releases/{release['id']}/layers/fabrication/holes-plated.drl").json()[
        "flashes"
    ]
    assert (
        client.get(f"/api/releases/{release['id']}/layers/fabrication/secrets.txt").status_code
        == 404
    )
    first = client.get(f"/api/releases/{release['id']}/package.zip").content
    assert first == client.get(f"/api/releases/{release['id']}/package.zip").content
    names = zipfile.ZipFile(io.BytesIO(first)).namelist()
    assert sorted(names) == sorted(f["path"] for f in release["files"])


def test_quotes_orders_and_the_simulated_calendar(client: TestClient, made: int) -> None:
    quotes = client.get(f"/api/projects/{made}/quotes", params={"quantity": 10}).json()
    assert [q["house"] for q in quotes] == ["millrace", "saltmarsh", "ropewalk"]
    for quote in quotes:
        assert quote["total"]["value"] == sum(line["value"] for line in quote["lines"])
        assert quote["complaints"] == []
    more = client.get(f"/api/projects/{made}/quotes", params={"quantity": 100}).json()
    assert more[0]["each"]["value"] < quotes[0]["each"]["value"]
    assert client.get(f"/api/projects/{made}/quotes", params={"quantity": 0}).status_code == 422
    placed = client.post(
        f"/api/projects/{made}/orders", json={"quantity": 10, "key": "first-order"}
    ).json()
    states = [placed["state"]]
    for _ in range(16):
        states.append(
            client.post(
                f"/api/orders/{placed['id']}/next-day", json={"day": len(states) - 1}
            ).json()["state"]
        )
    assert list(dict.fromkeys(states)) == list(STATES)
    assert client.get(f"/api/projects/{made}/orders").json()[0]["state"] == "delivered"


def test_orders_wait_for_a_proven_current_release(client: TestClient, head: dict[str, Any]) -> None:
    answer = client.post(
        f"/api/projects/{head['project']}/orders", json={"quantity": 5, "key": "second-order"}
    )
    assert answer.status_code == 422
    assert "no files yet" in answer.json()["sentence"]
    assert client.get(f"/api/projects/{head['project']}/release").json() is None


def test_a_release_with_open_stops_is_not_written(client: TestClient, head: dict[str, Any]) -> None:
    card = run(client, head["project"], "release")
    assert card["message"].startswith("Not ready")
    assert client.get(f"/api/projects/{head['project']}/release").json() is None


def test_chips_are_searched_by_words_and_fit(client: TestClient, head: dict[str, Any]) -> None:
    rows = client.get(
        f"/api/projects/{head['project']}/chips", params={"words": "g0 lqfp32"}
    ).json()
    assert rows
    assert all(r["package"] == "LQFP32" and r["family"] == "g0" for r in rows)
    assert all(r["fits"] for r in rows)
    assert (
        client.get(f"/api/projects/{head['project']}/chips", params={"words": "% ' OR 1=1"}).json()
        == []
    )


def test_unknown_things_are_404_with_a_sentence(client: TestClient) -> None:
    for path in ("/api/projects/999999", "/api/jobs/999999", "/api/projects/999999/pins"):
        answer = client.get(path)
        assert answer.status_code == 404
        assert answer.json()["sentence"]


def test_answers_carry_the_usual_guards(client: TestClient) -> None:
    answer = client.get("/api/health")
    assert answer.json() == {"status": "ok"}
    assert answer.headers["X-Content-Type-Options"] == "nosniff"
    assert "default-src 'self'" in answer.headers["Content-Security-Policy"]


def test_the_committed_client_types_are_current() -> None:
    from loquet.api.application import describe

    names = describe()["components"]["schemas"].keys()
    types = (ROOT / "web" / "src" / "api" / "schema.d.ts").read_text()
    assert all(f"        {name}: " in types or f'        "{name}": ' in types for name in names)


def test_the_house_complains_about_what_it_cannot_make(
    finished: Design, released: Any, library: Any
) -> None:
    from datetime import date

    from loquet.core.brief.making import Making
    from loquet.standins.board_house import quote
    from loquet.standins.file_inspection import Plate, inspect

    house = library.houses["millrace"]
    seen = inspect(released.files, house)
    assert seen.plates == (Plate(64.0, 42.0),)
    assert (seen.narrowest_mm, seen.smallest_hole_mm) == (0.2, 0.3)
    broken = {**released.files, "fabrication/profile.gbr": b"nonsense*"}
    del broken["fabrication/mask-far.gbr"]
    words = " ".join(inspect(broken, house).complaints)
    assert "mask-far.gbr is missing" in words
    assert "profile.gbr" in words
    strict = house.model_copy(update={"track_um": 300, "hole_um": 500, "largest_mm": (50, 50)})
    assert len(inspect(released.files, strict).complaints) == 3
    both = {f"{b}/{path}": data for b in ("left", "right") for path, data in released.files.items()}
    pair = quote(
        house,
        inspect(both, house),
        10,
        house.asked(Making(), "parcel", True),
        date(2026, 11, 24),
    )
    assert pair.complaints == ()
    # 2 x 18.00 EUR set-up; 2 x 0.2688 dm2 x 2.60 EUR x 10 sets
    assert pair.lines[:2] == (("set-up", 3600), ("10 sets of 2 boards", 1398))
    strange = Making(finish="silver", colour="plum", thickness_mm=0.7)
    odd = quote(house, seen, 10, house.asked(strange, "pigeon", True), date(2026, 11, 24))
    assert len(odd.complaints) == 4
