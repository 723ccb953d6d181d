"""The launcher's steps: ports, locks, stamps, and what is said to whom."""

import json
import socket
import threading
from pathlib import Path
from typing import Any

import pytest

from bench.kills import EXAMPLE, Rig, ask, run_kills
from loquet.launcher import steps
from loquet.launcher.database import MariaDb, free_port
from loquet.launcher.running import check_port, only_one
from loquet.launcher.steps import SetupFailed, digest_of_files, ensure_packages, put_stamp, stamped


def test_a_taken_port_names_a_way_out() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        with pytest.raises(SetupFailed, match=f"--port {port + 1}"):
            check_port("127.0.0.1", port)
    check_port("127.0.0.1", free_port())


def test_only_one_runs_from_a_folder(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("LOQUET_STATE", str(tmp_path))
    with only_one(8460), pytest.raises(SetupFailed, match=r"already running.*8460"), only_one(9000):
        raise AssertionError("two hold the lock")
    with only_one(9000):
        assert "9000" in (tmp_path / "run.lock").read_text()


def test_steps_are_stamped_by_their_inputs(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("LOQUET_STATE", str(tmp_path))
    lock = steps.ROOT / "requirements.lock"
    digest = digest_of_files([lock])
    assert not stamped("python", digest)
    put_stamp("python", digest)
    assert stamped("python", digest)
    assert not stamped("python", digest_of_files([lock, steps.ROOT / "pyproject.toml"]))


def test_an_ordinary_user_is_told_the_one_command(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("os.geteuid", lambda: 1000)
    with pytest.raises(SetupFailed) as caught:
        ensure_packages({"no-such-program": "no-such-package"})
    assert "sudo apt-get install -y --no-install-recommends no-such-package" in str(caught.value)


def test_a_failing_step_shows_the_end_of_its_log(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("LOQUET_STATE", str(tmp_path))
    with pytest.raises(SetupFailed, match="(?s)failed.*no such thing"):
        steps.run(["sh", "-c", "echo no such thing; exit 3"])


def test_the_database_comes_back_after_a_kill_and_leaves_no_socket(tmp_path: Path) -> None:
    server = MariaDb(tmp_path / "database")
    server.start()
    assert server.process is not None
    server.sql("CREATE TABLE loquet.kept (n INT); INSERT INTO loquet.kept VALUES (7);")
    server.process.kill()
    server.process.wait()
    server.stop()
    again = MariaDb(tmp_path / "database")
    again.start()
    sockets = again.sockets
    assert again.sql("SELECT n FROM loquet.kept")
    assert oct((tmp_path / "database" / "password").stat().st_mode)[-3:] == "600"
    again.remove()
    assert again.process is not None
    assert again.process.poll() is not None
    assert sockets is not None
    assert not sockets.exists()
    assert not again.home.exists()


def test_ten_kills_lose_no_acknowledged_edit() -> None:
    """`./loquet bench kills` does a hundred and prints the table."""
    count = run_kills(10, seed=3)
    assert count.kills == 10
    assert count.acknowledged >= 3
    assert (count.lost, count.older) == (0, 0)


def test_a_server_killed_while_it_routes_says_so_and_routes_again(tmp_path: Path) -> None:
    """Nothing of the design is lost, the job is told as interrupted, started again it ends."""
    rig = Rig(tmp_path)
    try:
        example = EXAMPLE.with_name("dusk-remote.brief.json")
        project = ask(rig.port, "projects", json.loads(example.read_text()))["project"]
        head = f"projects/{project}"
        made = running(rig, ask(rig.port, f"{head}/jobs", {"kind": "placement"})["job"], "done")
        assert made["state"] == "done", made
        before = ask(rig.port, head)
        job = ask(rig.port, f"{head}/jobs", {"kind": "routing"})["job"]
        running(rig, job, "running")
        rig.kill("server")
        assert ask(rig.port, head)["version"] == before["version"]
        assert ask(rig.port, head)["brief"] == before["brief"]
        lost = ask(rig.port, f"jobs/{job}")
        assert lost["state"] == "lost"
        assert "Start it again" in lost["message"]
        again = ask(rig.port, f"{head}/jobs", {"kind": "routing"})["job"]
        assert running(rig, again, "done")["state"] == "done"
        assert "routing" not in ask(rig.port, f"{head}/board?board=main")["stale"]
    finally:
        rig.close()


def running(rig: Rig, job: int, state: str) -> dict[str, Any]:
    """A job as soon as it is in that state, or has ended."""
    for _ in range(1200):
        found: dict[str, Any] = ask(rig.port, f"jobs/{job}")
        if found["state"] == state or found["state"] not in ("waiting", "running"):
            return found
        threading.Event().wait(0.05)
    raise AssertionError(f"the job is still {found['state']}")
