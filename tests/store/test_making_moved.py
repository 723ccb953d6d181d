"""How the boards are made was among the choices once: stored designs, design files and project
of then come over with it in the brief, and what was fresh stays fresh.
"""

import json
from datetime import UTC, datetime
from typing import Any

import pytest
from sqlalchemy import text
from sqlalchemy.orm import Session

from loquet.core.brief.making import moved, of_before
from loquet.core.design import Design
from loquet.core.freshness import stale_slices
from loquet.core.plain.frozen import canonical, digest_of
from loquet.launcher.database import MariaDb
from loquet.store import slices as stored_slices
from loquet.store.designs import all_projects, commit_version, create_project, head_of, load_design
from loquet.store.engine import make_engine
from loquet.store.migrating import downgrade, upgrade
from loquet.store.project_file import read_project, write_project

OLD = {"finish": "gold", "colour": "black", "thickness_um": 1000, "copper_um": 70}
NOW = datetime(2026, 11, 30, tzinfo=UTC)


def as_before(design: Design) -> tuple[dict[str, Any], dict[str, Any]]:
    """Brief and choices as they stood before."""
    brief = design.brief.model_dump(mode="json")
    choices = design.choices.model_dump(mode="json")
    del brief["making"]
    return brief, {**choices, **OLD, "stack": {**choices["stack"], "insulator": True}}


def is_moved(design: Design) -> bool:
    making = design.brief.making
    assert (making.finish, making.colour, making.insulator) == ("gold", "black", True)
    assert (making.thickness_um, making.copper_um) == (1000, 70)
    return True


def test_a_design_file_of_before_is_read(small: Design) -> None:
    brief, choices = as_before(small)
    plain = {**small.model_dump(mode="json"), "brief": brief, "choices": choices}
    assert is_moved(Design.model_validate_json(json.dumps(plain)))
    assert of_before(choices)
    now, kept = moved(brief, choices)
    assert not of_before(kept)
    assert now["making"]["thickness_mm"] == 1.0
    usual = {**plain, "choices": {**choices, **OLD, "copper_um": 35}}
    assert stale_slices(Design.model_validate(usual)) == ()


def put_before(connection: Any, version: int, design: Design) -> None:
    """A stored version as it stood before."""
    query = text("SELECT slices FROM versions WHERE id = :id")
    stored = connection.scalar(query, {"id": version})
    slices = json.loads(stored) if isinstance(stored, str) else stored
    for name, plain in zip(("brief", "choices"), as_before(design), strict=True):
        slices[name] = digest_of(plain)
        connection.execute(
            text("INSERT IGNORE INTO slices (digest, content) VALUES (:d, :c)"),
            {"d": slices[name], "c": canonical(plain)},
        )
    connection.execute(
        text("UPDATE versions SET slices = :s WHERE id = :id"),
        {"s": json.dumps(slices), "id": version},
    )


def test_stored_designs_come_over_up_and_down(
    database: MariaDb, small: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    database.sql("DROP DATABASE IF EXISTS loquet_moved; CREATE DATABASE loquet_moved")
    url = database.url("loquet_moved")
    upgrade(url)
    engine = make_engine(url)
    with Session(engine) as session:
        project = create_project(session, small.brief, "maker", NOW)
        revision = head_of(session, project).revision
        version = commit_version(session, revision, small, "made", "maker", NOW).id
        session.commit()
    downgrade(url, "0015")
    with engine.begin() as connection:
        put_before(connection, version, small)
    upgrade(url)
    monkeypatch.setattr(stored_slices, "SHELF", stored_slices.Shelf())
    with Session(engine) as session:
        design = load_design(session, head_of(session, project).version)
        assert is_moved(design)
        assert design.circuit == small.circuit
    downgrade(url, "0015")
    with engine.begin() as connection:
        stored = connection.scalar(
            text("SELECT slices FROM versions WHERE id = :v"), {"v": version}
        )
        slices = json.loads(stored) if isinstance(stored, str) else stored
        assert slices["choices"] == digest_of(as_before(small)[1])
    engine.dispose()


def test_a_project_file_of_before_is_read_in(session: Session, small: Design) -> None:
    project = create_project(session, small.brief, "maker", NOW)
    version = head_of(session, project).version.id
    put_before(session.connection(), version, small)
    session.expire_all()
    data = write_project(session, project)
    before = {p.id for p in all_projects(session)}
    number = read_project(session, data, NOW)
    assert number not in before
    assert is_moved(load_design(session, head_of(session, number).version))
