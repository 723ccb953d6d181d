"""Designs of before come over, up and down; the backup was written by the version before this
model.
"""

import json
from pathlib import Path

import pytest
from sqlalchemy import text
from sqlalchemy.orm import Session

from loquet.core.design import Design, slice_of
from loquet.core.freshness import stale_slices
from loquet.launcher.database import MariaDb
from loquet.store.backup import restore
from loquet.store.designs import (
    Head,
    all_projects,
    head_of,
    load_design,
    next_towards_tip,
    redo,
    undo,
)
from loquet.store.engine import make_engine
from loquet.store.migrating import downgrade, upgrade

BEFORE = Path(__file__).parents[1] / "data" / "first" / "workshop.backup.zip"


@pytest.fixture
def old(database: MariaDb) -> str:
    database.sql("DROP DATABASE IF EXISTS loquet_old; CREATE DATABASE loquet_old")
    url = database.url("loquet_old")
    upgrade(url)
    restore(url, BEFORE)
    return url


def heads(url: str) -> dict[str, tuple[Head, Design]]:
    engine = make_engine(url)
    with Session(engine) as session:
        found = {}
        for project in all_projects(session):
            head = head_of(session, project.id)
            found[project.name] = (head, load_design(session, head.version))
    engine.dispose()
    return found


def test_stored_designs_come_over_with_all_that_was_chosen_and_made(old: str) -> None:
    _, pod = heads(old)["Dome pod"]
    assert pod.brief.format == "loquet-brief-2"
    assert pod.brief.quantity == 7
    assert pod.choices.pin_locks == {"button:left": "9"}
    assert pod.choices.part_seats["test rail"].x_mm == 50
    assert next(a.pin for a in slice_of(pod.pins).assignments if a.signal == "button:left") == "9"
    # placed before a part was seated by hand: pins and circuit were fresh, the placement was not,
    # and so they stay
    assert stale_slices(pod) == ("placement", "routing", "pour")
    owners = {c.role: c.thing for c in slice_of(pod.circuit).components}
    assert owners["button:left"] == "left"
    assert owners["cell:2"] == "cell"


def test_undo_and_redo_walk_through_what_was_before(old: str) -> None:
    engine = make_engine(old)
    with Session(engine) as session:
        project = next(p.id for p in all_projects(session) if p.name == "Star handset")
        scheme = [load_design(session, head_of(session, project).version).brief.key_scheme.name]
        assert next_towards_tip(session, head_of(session, project)) is not None
        assert redo(session, project)
        scheme.append(load_design(session, head_of(session, project).version).brief.key_scheme.name)
        steps = 0
        while undo(session, project):
            session.flush()
            steps += 1
        start = load_design(session, head_of(session, project).version)
        assert (scheme, steps) == (["one pin each", "diode matrix"], 2)
        assert start.brief.thing("menu").place.x_mm == 64  # type: ignore[union-attr]
    engine.dispose()


def test_going_down_gives_versions_back_as_they_were(old: str) -> None:
    downgrade(old, "0009")
    engine = make_engine(old)
    with engine.connect() as connection:
        rows = connection.execute(text("SELECT slices FROM versions ORDER BY id")).all()
        briefs = {json.loads(row[0])["brief"] for row in rows}
        formats = {
            json.loads(
                connection.scalar(text("SELECT content FROM slices WHERE digest = :d"), {"d": d})
            )["format"]  # type: ignore[arg-type]
            for d in briefs
        }
    engine.dispose()
    assert len(rows) == 8
    assert formats == {"loquet-brief-1"}
    upgrade(old)
    assert heads(old)["Dome pod"][1].brief.quantity == 7
