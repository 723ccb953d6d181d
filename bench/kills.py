"""Edits while server and database are killed in turn: what was answered must be there, and never
older than the answer.
"""

import json
import os
import random
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from loquet.launcher.database import MariaDb, free_port
from loquet.launcher.shooting import wait_for

EXAMPLE = Path(__file__).resolve().parents[1] / "examples" / "dome-pod.brief.json"


@dataclass
class Count:
    """What happened: kills, acknowledged edits, those that are gone, reads that were older than an
    answer before them.
    """

    kills: int = 0
    acknowledged: int = 0
    lost: int = 0
    reads: int = 0
    older: int = 0
    longest_s: float = 0.0
    notes: list[str] = field(default_factory=list)


class Rig:
    """A database under supervision and a server that is started again when it was killed."""

    def __init__(self, folder: Path) -> None:
        self.database = MariaDb(folder / "database")
        self.database.start()
        threading.Thread(target=self.database.supervise, daemon=True).start()
        self.port = free_port()
        self.environment = {
            **os.environ,
            "LOQUET_DATABASE_URL": self.database.url(),
            "LOQUET_STATE": str(folder),
        }
        subprocess.run(
            [sys.executable, "-m", "loquet.cli", "migrate"],
            env=self.environment,
            check=True,
            stdin=subprocess.DEVNULL,
        )
        self.server = self.serve()

    def serve(self) -> subprocess.Popen[bytes]:
        """The application, answering."""
        command = [sys.executable, "-m", "loquet.cli", "serve", "--port", str(self.port)]
        process = subprocess.Popen(
            command, env=self.environment, stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL
        )
        wait_for(f"http://127.0.0.1:{self.port}/api/health")
        return process

    def kill(self, what: str) -> None:
        """Kill one of them hard, and see that work goes on."""
        if what == "server":
            self.server.kill()
            self.server.wait()
            self.server = self.serve()
            return
        process = self.database.process
        if process is not None:
            process.kill()
            process.wait()
        wait_for(f"http://127.0.0.1:{self.port}/api/health")

    def close(self) -> None:
        """Everything away."""
        self.server.kill()
        self.server.wait()
        self.database.remove()


def ask(port: int, path: str, body: Any = None) -> Any:
    """The answer of an endpoint; raises OSError where there is none."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(
        f"http://127.0.0.1:{port}/api/{path}",
        data,
        {"content-type": "application/json", "x-loquet": "bench"},
    )
    with urllib.request.urlopen(request, timeout=30) as answer:
        return json.loads(answer.read())


def edit_until(rig: Rig, project: int, done: threading.Event, count: Count) -> None:
    """Edits one after the other; each answer is read back at once."""
    while not done.is_set():
        try:
            head = ask(rig.port, f"projects/{project}")
            wanted = head["brief"]["quantity"] % 9_000 + 1
            began = time.monotonic()
            answer = ask(
                rig.port,
                f"projects/{project}/edits",
                {"edit": {"kind": "set-quantity", "quantity": wanted}, "version": head["version"]},
            )
            count.longest_s = max(count.longest_s, time.monotonic() - began)
            count.acknowledged += 1
            count.notes.append(f"{answer['version']}:{wanted}")
            seen = ask(rig.port, f"projects/{project}")
            count.reads += 1
            count.older += seen["version"] < answer["version"]
        except (OSError, ValueError):
            time.sleep(0.05)


def run_kills(kills: int, seed: int = 1) -> Count:
    """So many kills, server and database in turn, at random moments between edits."""
    chance, count, done = random.Random(seed), Count(), threading.Event()
    with tempfile.TemporaryDirectory(prefix="loquet-kills-") as folder:
        rig = Rig(Path(folder))
        try:
            project = ask(rig.port, "projects", json.loads(EXAMPLE.read_text()))["project"]
            editor = threading.Thread(target=edit_until, args=(rig, project, done, count))
            editor.start()
            for number in range(kills):
                time.sleep(chance.uniform(0.1, 0.6))
                rig.kill(("server", "database")[number % 2])
                count.kills += 1
            done.set()
            editor.join()
            count.lost = lost(rig, count)
        finally:
            done.set()
            rig.close()
    return count


def lost(rig: Rig, count: Count) -> int:
    """Acknowledged versions that are not stored, or not with the quantity that was answered."""
    from sqlalchemy import select
    from sqlalchemy.orm import Session

    from loquet.store.designs import load_design
    from loquet.store.engine import make_engine
    from loquet.store.tables import VersionRow

    engine = make_engine(rig.database.url())
    with Session(engine) as session:
        rows = {row.id: row for row in session.scalars(select(VersionRow))}
        missing = 0
        for note in count.notes:
            number, _, wanted = note.partition(":")
            row = rows.get(int(number))
            missing += row is None or load_design(session, row).brief.quantity != int(wanted)
    engine.dispose()
    return missing


def kills_table(kills: int) -> int:
    """Print the table; 0 where nothing was lost."""
    count = run_kills(kills)
    print(
        f"{'kills':>6} {'acknowledged':>13} {'lost':>5} {'reads':>6} {'older':>6}"
        f" {'longest (s)':>12}"
    )
    print(
        f"{count.kills:>6} {count.acknowledged:>13} {count.lost:>5} {count.reads:>6}"
        f" {count.older:>6} {count.longest_s:>12.2f}"
    )
    return 1 if count.lost or count.older else 0
