"""Designs on a real MariaDB: nothing lost, nothing changed behind anybody's back."""

from datetime import UTC, datetime, timedelta, timezone

import pytest
from sqlalchemy import func, inspect, select
from sqlalchemy.exc import StatementError
from sqlalchemy.orm import Session

from loquet.core.design import Design
from loquet.core.edits import EDITS, apply
from loquet.core.plain.frozen import digest_of
from loquet.core.release import Release
from loquet.launcher.database import MariaDb
from loquet.store.designs import (
    Conflict,
    NotFound,
    commit_version,
    create_project,
    expect_head,
    head_of,
    load_design,
    next_towards_tip,
    redo,
    undo,
)
from loquet.store.engine import make_engine
from loquet.store.migrating import downgrade, upgrade
from loquet.store.releases import (
    latest_release,
    order,
    orders_of,
    place_order,
    release_files,
    store_release,
)
from loquet.store.tables import Base, OrderRow, ProjectRow, ReleaseFileRow, SliceRow, VersionRow

NOW = datetime(2026, 11, 24, 12, 0, tzinfo=UTC)


@pytest.fixture
def project(session: Session, finished: Design) -> int:
    return create_project(session, finished.brief, "Ottilie", NOW)


def move(session: Session, project: int, x_mm: float) -> Design:
    head = head_of(session, project)
    edit = EDITS.validate_python({"kind": "move-thing", "name": "dome", "x_mm": x_mm, "y_mm": 7})
    design = apply(load_design(session, head.version), edit)
    commit_version(session, head.revision, design, edit.label, "Ottilie", NOW)
    return design


def dome(session: Session, project: int) -> float:
    return load_design(session, head_of(session, project).version).brief.thing("dome").place.x_mm


def test_a_finished_design_comes_back_the_same(
    session: Session, project: int, finished: Design
) -> None:
    commit_version(session, head_of(session, project).revision, finished, "made", "Ottilie", NOW)
    session.expire_all()
    assert load_design(session, head_of(session, project).version) == finished


def test_slices_are_stored_once(session: Session, project: int) -> None:
    before = session.scalar(select(func.count()).select_from(SliceRow))
    move(session, project, 25.37)  # a place that no other test stores
    move(session, project, 26)
    after = session.scalar(select(func.count()).select_from(SliceRow))
    assert after is not None
    assert after - (before or 0) == 1


def test_undo_and_redo_walk_the_same_path(session: Session, project: int) -> None:
    for x in (24.5, 25.0, 25.5):
        move(session, project, x)
    assert [undo(session, project), dome(session, project)] == [True, 25.0]
    assert [undo(session, project), undo(session, project), dome(session, project)] == [
        True,
        True,
        26.0,
    ]
    assert undo(session, project) is False
    assert [redo(session, project), redo(session, project), redo(session, project)] == [
        True,
        True,
        True,
    ]
    assert dome(session, project) == 25.5
    assert redo(session, project) is False


def test_an_edit_after_undo_ends_redo_but_loses_no_version(session: Session, project: int) -> None:
    move(session, project, 24.5)
    undo(session, project)
    move(session, project, 27.0)
    assert next_towards_tip(session, head_of(session, project)) is None
    revision = head_of(session, project).revision.id
    assert (
        session.scalar(
            select(func.count()).select_from(VersionRow).where(VersionRow.revision_id == revision)
        )
        == 3
    )


def test_a_stale_reader_gets_a_conflict(session: Session, project: int) -> None:
    seen = head_of(session, project).version.id
    move(session, project, 25)
    with pytest.raises(Conflict) as caught:
        expect_head(session, head_of(session, project), seen)
    assert caught.value.head_id > seen


def test_unknown_numbers_are_not_found(session: Session) -> None:
    for call in (
        lambda: head_of(session, 10**6),
        lambda: release_files(session, 10**6),
        lambda: order(session, 10**6),
    ):
        with pytest.raises(NotFound):
            call()


def test_releases_keep_their_bytes_and_notice_damage(
    session: Session, project: int, released: Release, finished: Design
) -> None:
    head = head_of(session, project)
    row = store_release(
        session,
        head.revision.id,
        head.version.id,
        digest_of(finished),
        released.files,
        {"nets": 22},
        NOW,
    )
    assert release_files(session, row.id) == released.files
    latest = latest_release(session, head.revision.id)
    assert latest is not None
    assert latest.proof == {"nets": 22}
    wanted = OrderRow(
        revision_id=row.revision_id,
        release_id=row.id,
        house="millrace",
        quote={"quantity": 10},
        placed_on=NOW.date(),
        day=0,
        created_at=NOW,
        request_key="one",
    )
    placed = place_order(session, wanted)
    found = orders_of(session, project)
    assert [(o.id, letter) for o, letter in found] == [(placed.id, "A")]
    damaged = session.scalars(
        select(ReleaseFileRow).where(ReleaseFileRow.release_id == row.id).limit(1)
    ).one()
    damaged.content = damaged.content + b" "
    session.flush()
    with pytest.raises(ValueError, match="damaged"):
        release_files(session, row.id)


def test_moments_are_kept_in_utc_to_the_microsecond(session: Session) -> None:
    east = datetime(2026, 7, 1, 2, 30, 0, 123456, tzinfo=timezone(timedelta(hours=2)))
    row = ProjectRow(name="x", demo="", created_at=east)
    session.add(row)
    session.flush()
    session.expire(row)
    assert row.created_at == east
    assert row.created_at.tzinfo is UTC
    session.add(ProjectRow(name="y", demo="", created_at=datetime(2026, 1, 1)))
    with pytest.raises(StatementError, match="zone"):
        session.flush()


def test_migrations_go_up_and_down_and_match_the_tables(database: MariaDb) -> None:
    database.sql("CREATE DATABASE IF NOT EXISTS loquet_migrations")
    url = database.url("loquet_migrations")
    upgrade(url)
    engine = make_engine(url)
    found = inspect(engine)
    for table in Base.metadata.sorted_tables:
        columns = {c["name"]: c["nullable"] for c in found.get_columns(table.name)}
        assert columns == {c.name: c.nullable for c in table.columns}, table.name
    downgrade(url)
    assert set(inspect(engine).get_table_names()) == {"alembic_version"}
    upgrade(url)
    engine.dispose()


def test_the_database_is_strict_and_speaks_utc(session: Session) -> None:
    from sqlalchemy import text

    mode, zone, charset = session.execute(
        text("SELECT @@sql_mode, @@time_zone, @@character_set_database")
    ).one()
    assert "STRICT_ALL_TABLES" in mode
    assert (zone, charset) == ("+00:00", "utf8mb4")
