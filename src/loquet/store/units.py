"""Units that are built, and what was read on them."""

from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.store.designs import Head, NotFound
from loquet.store.releases import latest_release
from loquet.store.tables import RecordRow, RevisionRow, UnitRow

MOST_UNITS, MOST_RECORDS = 500, 2000


class Taken(Exception):
    """A serial number that another unit of the project has."""


def add_unit(
    session: Session,
    head: Head,
    serial: str,
    simulated: dict[str, Any] | None,
    now: datetime,
) -> UnitRow:
    """A unit more, built from what was released last of the revision, or from its design as it
    stands; raises Taken.
    """
    taken = next((u for u in units_of(session, head.project.id) if u[0].serial == serial), None)
    if taken is not None:
        raise Taken(f"There is a unit {serial} already, of revision {taken[1]}.")
    made = latest_release(session, head.revision.id)
    row = UnitRow(
        revision_id=head.revision.id,
        version_id=made.version_id if made else head.version.id,
        serial=serial,
        simulated=simulated,
        created_at=now,
    )
    session.add(row)
    session.flush()
    return row


def units_of(session: Session, project_id: int) -> list[tuple[UnitRow, str]]:
    """The units of a project with the letters of their revisions, the oldest first."""
    query = (
        select(UnitRow, RevisionRow.letter)
        .join(RevisionRow, RevisionRow.id == UnitRow.revision_id)
        .where(RevisionRow.project_id == project_id)
        .order_by(UnitRow.id)
    )
    return [(row, letter) for row, letter in session.execute(query.limit(MOST_UNITS))]


def unit(session: Session, unit_id: int) -> UnitRow:
    """A unit; raises NotFound."""
    row = session.get(UnitRow, unit_id)
    if row is None:
        raise NotFound(f"There is no unit {unit_id}.")
    return row


def record(
    session: Session, unit_id: int, sort: str, content: dict[str, Any], now: datetime
) -> RecordRow:
    """Something read or done, kept for ever."""
    row = RecordRow(unit_id=unit_id, sort=sort, content=content, created_at=now)
    session.add(row)
    session.flush()
    return row


def records_of(session: Session, unit_id: int) -> list[RecordRow]:
    """The records of a unit, the oldest first."""
    query = select(RecordRow).where(RecordRow.unit_id == unit_id).order_by(RecordRow.id)
    return list(session.scalars(query.limit(MOST_RECORDS)))
