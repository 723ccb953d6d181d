"""`Finish it`: a brief as far as it goes, with where it stopped and why; what was made before a
stop is kept.
"""

import time
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.making import device, thing, varied


def finished(
    client: TestClient, name: str, project: int = 0, **changes: Any
) -> tuple[dict[str, Any], dict[str, Any]]:
    """The ended job, and the head after it."""
    brief = varied(name, **changes).model_dump(mode="json")
    project = project or client.post("/api/projects", json=brief).json()["project"]
    job = client.post(f"/api/projects/{project}/jobs", json={"kind": "finish"}).json()["job"]
    until = time.monotonic() + 120
    while time.monotonic() < until:
        row = client.get(f"/api/jobs/{job}").json()
        if row["state"] not in ("waiting", "running"):
            return row, client.get(f"/api/projects/{project}").json()
        time.sleep(0.1)
    pytest.fail("the job does not end")


def test_a_whole_brief_ends_with_proven_files(client: TestClient) -> None:
    job, head = finished(client, "dome-pod")
    assert (job["state"], job["message"]) == ("done", "The files are written and proven.")
    assert (head["stops"], head["stale"]) == (0, [])
    assert head["next"]["action"] == "Go to the order"
    again, same = finished(client, "dome-pod", head["project"])
    assert again["state"] == "done"
    assert same["version"] == head["version"]


def test_what_cannot_be_drawn_stops_after_the_pins_and_keeps_them(client: TestClient) -> None:
    job, head = finished(client, "log-key-pad", plus=(thing("stick", "third", supply="5 V"),))
    assert job["state"] != "done"
    assert job["message"].startswith("Pins solved. Stopped there: ")
    assert "there is no 5 V rail in this circuit yet" in job["message"]
    assert "pins" not in head["stale"]
    assert "circuit" in head["stale"]


def test_what_does_not_fit_its_chip_says_so_and_makes_nothing(client: TestClient) -> None:
    job, head = finished(client, "ridge-handset")
    assert job["state"] != "done"
    assert "stm32f042k6t6" in job["message"]
    assert "pins" in head["stale"]
    assert head["can_undo"] is False


def test_the_head_says_which_rails_and_brains_there_are_and_what_they_are_to_a_thing(
    client: TestClient,
) -> None:
    """A jack that joins a block has no rail of its own; a converter and a switch make one of
    another; a stick takes one, a hole none.
    """
    plus = (
        *(thing("nine-volt", "block"), thing("barrel-jack", "jack", rail="block")),
        *(thing("converter", "five", gives_v=5.0), thing("load-switch", "quiet", rail="five")),
        *(thing("stick", "slew", rail="five"), thing("hole", "screw", 20, 20)),
    )
    brief = device(thing("chip", "chip"), *plus).model_dump(mode="json")
    project = client.post("/api/projects", json=brief).json()["project"]
    head = client.get(f"/api/projects/{project}").json()
    assert [(r["name"], r["words"]) for r in head["rails"]] == [
        ("block", "block, 3.3 V of a nine-volt block"),
        ("five", "five, 5 V of a converter"),
        ("quiet", "quiet, 5 V of a converter, switched"),
    ]
    assert head["brains"] == ["chip"]
    assert {t["name"]: t["fed"] for t in head["things"]} == {
        "chip": "by a rail",
        "block": "source",
        "jack": "source",
        "five": "from a rail",
        "quiet": "from a rail",
        "slew": "by a rail",
        "screw": "",
    }
