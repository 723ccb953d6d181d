"""Units that are built, and what was read on them."""

from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.store.designs import NotFound
from loquet.store.tables import RecordRow, UnitRow

MOST_UNITS, MOST_RECORDS = 500, 2000


class Taken(Exception):
    """A serial number that another unit of the revision has."""


def add_unit(
    session: Session,
    revision_id: int,
    serial: str,
    simulated: dict[str, Any] | None,
    now: datetime,
) -> UnitRow:
    """A unit more; raises Taken."""
    if any(unit.serial == serial for unit in units_of(session, revision_id)):
        raise Taken(f"There is a unit {serial} already.")
    row = UnitRow(revision_id=revision_id, serial=serial, simulated=simulated, created_at=now)
    session.add(row)
    session.flush()
    return row


def units_of(session: Session, revision_id: int) -> list[UnitRow]:
    """The units of a revision, the oldest first."""
    query = select(UnitRow).where(UnitRow.revision_id == revision_id).order_by(UnitRow.id)
    return list(session.scalars(query.limit(MOST_UNITS)))


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
