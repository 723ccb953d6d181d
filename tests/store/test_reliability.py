"""What was answered is kept, nothing waits for what it need not, and data come back whole."""

import threading
import zipfile
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import text
from sqlalchemy.orm import Session, sessionmaker
from sqlalchemy.orm.session import SessionTransaction

from loquet.core.brief import Brief
from loquet.core.design import Choices
from loquet.jobs.runner import Jobs, Ticket
from loquet.launcher.database import MariaDb
from loquet.store import backup
from loquet.store.backup import BadBackup, back_up, read_backup, restore
from loquet.store.designs import create_project, head_of
from loquet.store.engine import make_engine
from loquet.store.migrating import NewerData, downgrade, known_revisions, upgrade
from loquet.store.slices import store_slice

NOW = datetime(2026, 11, 25, tzinfo=UTC)


@pytest.fixture
def project(factory: sessionmaker[Session], brief: Brief) -> int:
    with factory.begin() as session:
        return create_project(session, brief, "Ottilie", NOW)


def test_no_edit_is_answered_before_it_is_committed(
    factory: sessionmaker[Session], project: int, client: TestClient
) -> None:
    head = client.get(f"/api/projects/{project}").json()
    body = {"edit": {"kind": "set-quantity", "quantity": 7}, "version": head["version"]}
    gate = threading.Event()
    answers: list[Any] = []
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(SessionTransaction, "commit", waiting(gate))
        asking = threading.Thread(
            target=lambda: answers.append(client.post(f"/api/projects/{project}/edits", json=body))
        )
        asking.start()
        asking.join(1.0)
        assert answers == []
        gate.set()
        asking.join(20)
    assert answers[0].status_code == 200
    assert client.get(f"/api/projects/{project}").json()["brief"]["quantity"] == 7


def waiting(gate: threading.Event) -> Any:
    """A commit that waits for the gate."""
    plain = SessionTransaction.commit

    def commit(self: SessionTransaction, *args: Any, **named: Any) -> None:
        assert gate.wait(20)
        plain(self, *args, **named)

    return commit


def test_a_job_that_starts_during_an_edit_blocks_nobody(
    factory: sessionmaker[Session], project: int
) -> None:
    """The edit holds the revision's row; the job's row waits for it; looking at the jobs must wait
    for neither.
    """
    jobs = Jobs(factory)
    try:
        with factory() as editing:
            head = head_of(editing, project, lock=True)
            starting = threading.Thread(
                target=lambda: jobs.start(project, head.revision.id, "pins", lambda ticket: "Made.")
            )
            starting.start()
            starting.join(0.3)
            looked: list[list[Ticket]] = []
            looking = threading.Thread(target=lambda: looked.append(jobs.of_project(project)))
            looking.start()
            looking.join(2)
            assert looked == [[]]
            editing.commit()
        starting.join(10)
        assert not starting.is_alive()
    finally:
        jobs.close()


def test_a_slice_that_is_there_is_not_written_again(factory: sessionmaker[Session]) -> None:
    """Two transactions keep the same choices at once; with a rewrite the second would wait for the
    first.
    """
    with factory.begin() as session:
        store_slice(session, "choices", Choices())
    with factory() as first, factory() as second:
        store_slice(first, "choices", Choices())
        second.execute(text("SET innodb_lock_wait_timeout = 1"))
        store_slice(second, "choices", Choices())


@pytest.fixture
def copy(database: MariaDb) -> str:
    """The address of a database of its own, migrated."""
    database.sql("DROP DATABASE IF EXISTS loquet_copy; CREATE DATABASE loquet_copy")
    url = database.url("loquet_copy")
    upgrade(url)
    return url


def projects_of(url: str) -> list[str]:
    engine = make_engine(url)
    with engine.connect() as connection:
        found = [
            str(row[0]) for row in connection.execute(text("SELECT name FROM projects ORDER BY id"))
        ]
    engine.dispose()
    return found


def add(url: str, name: str, brief: Brief, author: str = "Ottilie") -> None:
    engine = make_engine(url)
    with sessionmaker(engine).begin() as session:
        create_project(session, brief.model_copy(update={"name": name}), author, NOW)
    engine.dispose()


def test_a_backup_brings_everything_back(copy: str, brief: Brief, tmp_path: Path) -> None:
    file = tmp_path / "evening.zip"
    add(copy, "first", brief)
    assert back_up(copy, file, NOW)["projects"] == 1
    add(copy, "second", brief)
    assert projects_of(copy) == ["first", "second"]
    assert restore(copy, file)["versions"] == 1
    assert projects_of(copy) == ["first"]
    add(copy, "third", brief)
    assert projects_of(copy) == ["first", "third"]


def test_a_backup_of_any_text_can_be_read(copy: str, brief: Brief, tmp_path: Path) -> None:
    """U+2028, U+2029 and U+0085 end a line for some readers, not in JSON (RFC 8259 section 7)."""
    add(copy, "first", brief, "Ottilie\u2028of\u2029the\u0085dome")
    file = tmp_path / "odd.zip"
    assert back_up(copy, file, NOW)["projects"] == 1
    add(copy, "later", brief)
    restore(copy, file)
    assert projects_of(copy) == ["first"]


def test_a_backup_that_cannot_be_read_back_is_none(
    copy: str, brief: Brief, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    add(copy, "first", brief)
    monkeypatch.setattr(backup, "read_backup", unreadable)
    with pytest.raises(BadBackup):
        back_up(copy, tmp_path / "bad.zip", NOW)
    assert not (tmp_path / "bad.zip").exists()


def test_a_backup_that_lost_rows_says_how_many(
    copy: str, brief: Brief, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    add(copy, "first", brief)
    whole = backup.read_backup

    def short(path: Path) -> tuple[object, dict[str, list[object]]]:
        head, rows = whole(path)
        return head, {**rows, "projects": []}

    monkeypatch.setattr(backup, "read_backup", short)
    with pytest.raises(BadBackup, match="projects has 0 rows instead of 1"):
        back_up(copy, tmp_path / "short.zip", NOW)


def unreadable(*_: object) -> None:
    raise BadBackup("a disk that lies")


def damaged(file: Path, how: str) -> bytes:
    """The bytes of a backup with one byte of the content of its first, largest or last file
    changed, or cut short.
    """
    data = bytearray(file.read_bytes())
    if how == "cut":
        return bytes(data[: len(data) // 2])
    with zipfile.ZipFile(file) as archive:
        rows = archive.infolist()
    row = {"first": rows[0], "largest": max(rows, key=lambda r: r.compress_size), "last": rows[-1]}[
        how
    ]
    name, extra = (
        int.from_bytes(data[row.header_offset + i : row.header_offset + i + 2], "little")
        for i in (26, 28)
    )
    data[row.header_offset + 30 + name + extra + row.compress_size // 2] ^= 0xFF
    return bytes(data)


@pytest.mark.parametrize("how", ["first", "largest", "last", "cut"])
def test_a_damaged_backup_changes_nothing(
    copy: str, brief: Brief, tmp_path: Path, how: str
) -> None:
    file = tmp_path / "evening.zip"
    add(copy, "first", brief)
    back_up(copy, file, NOW)
    file.write_bytes(damaged(file, how))
    with pytest.raises(BadBackup):
        restore(copy, file)
    assert projects_of(copy) == ["first"]
    with pytest.raises(BadBackup):
        read_backup(Path(__file__))


def test_data_of_a_newer_loquet_are_refused_with_a_sentence(copy: str) -> None:
    engine = make_engine(copy)
    with engine.begin() as connection:
        connection.execute(text("UPDATE alembic_version SET version_num = '9999'"))
    engine.dispose()
    with pytest.raises(NewerData, match="newer Loquet"):
        upgrade(copy)


@pytest.mark.parametrize("noted", [*known_revisions()[:-1]])
def test_a_migration_killed_before_its_note_runs_again(copy: str, noted: str) -> None:
    """A step is made and the one before it is noted, as after a kill between a change and its
    note.
    """
    downgrade(copy, known_revisions()[known_revisions().index(noted) + 1])
    engine = make_engine(copy)
    with engine.begin() as connection:
        connection.execute(text(f"UPDATE alembic_version SET version_num = '{noted}'"))
    engine.dispose()
    upgrade(copy)
    assert projects_of(copy) == []


def test_accounts_and_rights_are_the_least(
    database: MariaDb, factory: sessionmaker[Session]
) -> None:
    others = (
        "SELECT 1 / (COUNT(*) = 0) FROM mysql.global_priv WHERE User = '' OR (User = 'root' AND"
        " Host <> 'localhost')"
    )
    assert database.sql(
        "SET sql_mode = 'STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO'; CREATE OR REPLACE TABLE"
        f" loquet.counted AS {others}"
    )
    with factory() as session:
        grants = " ".join(str(row[0]) for row in session.execute(text("SHOW GRANTS")))
        assert "ALL PRIVILEGES ON *.*" not in grants
        assert "FILE" not in grants
        assert session.scalar(text("SELECT @@local_infile")) == 0
    assert database.process is not None
    status = Path(f"/proc/{database.process.pid}/status").read_text()
    assert "\nUid:\t0\t" not in status


def test_a_database_that_dies_is_started_again(tmp_path: Path) -> None:
    server = MariaDb(tmp_path / "database")
    try:
        server.start()
        threading.Thread(target=server.supervise, daemon=True).start()
        first = server.process
        assert first is not None
        first.kill()
        first.wait()
        for _ in range(200):
            if server.process is not first and server.sql("SELECT 1", check=False):
                break
            threading.Event().wait(0.05)
        assert server.process is not first
        engine = make_engine(server.url())
        with engine.connect() as connection:
            assert connection.scalar(text("SELECT 1")) == 1
        engine.dispose()
    finally:
        server.remove()
