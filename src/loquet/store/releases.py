"""Releases, their files, and orders."""

import hashlib
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.store.designs import NotFound
from loquet.store.tables import OrderRow, ReleaseFileRow, ReleaseRow, RevisionRow


def store_release(
    session: Session,
    revision_id: int,
    version_id: int,
    digest: str,
    files: dict[str, bytes],
    proof: dict[str, Any],
    now: datetime,
) -> ReleaseRow:
    """Keep a proven package."""
    row = ReleaseRow(
        revision_id=revision_id,
        version_id=version_id,
        design_digest=digest,
        proof=proof,
        created_at=now,
    )
    session.add(row)
    session.flush()
    for path, data in files.items():
        session.add(
            ReleaseFileRow(
                release_id=row.id, path=path, sha256=hashlib.sha256(data).hexdigest(), content=data
            )
        )
    session.flush()
    return row


def latest_release(session: Session, revision_id: int) -> ReleaseRow | None:
    """The newest release of a revision."""
    return session.scalars(
        select(ReleaseRow)
        .where(ReleaseRow.revision_id == revision_id)
        .order_by(ReleaseRow.id.desc())
        .limit(1)
    ).first()


def release_files(session: Session, release_id: int) -> dict[str, bytes]:
    """All files of a release; raises NotFound, and ValueError where bytes do not match their
    SHA-256.
    """
    rows = list(
        session.scalars(
            select(ReleaseFileRow)
            .where(ReleaseFileRow.release_id == release_id)
            .order_by(ReleaseFileRow.path)
        )
    )
    if not rows:
        raise NotFound(f"There is no release {release_id}.")
    for row in rows:
        if hashlib.sha256(row.content).hexdigest() != row.sha256:
            raise ValueError(f"{row.path} of release {release_id} is damaged in the database")
    return {row.path: row.content for row in rows}


def place_order(session: Session, placed: OrderRow) -> OrderRow:
    """Keep an order; one that its request has placed before is given back as it is."""
    if placed.request_key:
        session.scalars(
            select(RevisionRow.id).where(RevisionRow.id == placed.revision_id).with_for_update()
        ).first()
        earlier = session.scalars(
            select(OrderRow).where(OrderRow.request_key == placed.request_key)
        ).first()
        if earlier is not None:
            return earlier
    session.add(placed)
    session.flush()
    return placed


def orders_of(session: Session, project_id: int) -> list[tuple[OrderRow, str]]:
    """Orders of all revisions of a project with their letters, the newest first."""
    query = (
        select(OrderRow, RevisionRow.letter)
        .join(RevisionRow, RevisionRow.id == OrderRow.revision_id)
        .where(RevisionRow.project_id == project_id)
        .order_by(OrderRow.id.desc())
    )
    return [(row, letter) for row, letter in session.execute(query)]


def order(session: Session, order_id: int, lock: bool = False) -> OrderRow:
    """An order; raises NotFound."""
    row = session.get(OrderRow, order_id, with_for_update=lock or None)
    if row is None:
        raise NotFound(f"There is no order {order_id}.")
    return row
