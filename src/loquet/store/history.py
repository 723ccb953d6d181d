"""The versions of a project: listed, compared, gone back to.

Going back is a step forward, so that nothing is lost.
"""

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.store.designs import Head, NotFound, commit_version, head_of, load_design
from loquet.store.tables import RevisionRow, VersionRow

MOST = 500


def versions_of(session: Session, head: Head) -> list[VersionRow]:
    """The newest versions of the revision, the newest first; 500 at the most."""
    query = (
        select(VersionRow)
        .where(VersionRow.revision_id == head.revision.id)
        .order_by(VersionRow.id.desc())
        .limit(MOST)
    )
    return list(session.scalars(query))


def version_of(session: Session, head: Head, version_id: int) -> VersionRow:
    """A version of this project, of any of its revisions; raises NotFound for one of another
    project.
    """
    version = session.get(VersionRow, version_id)
    revision = session.get(RevisionRow, version.revision_id) if version else None
    if version is None or revision is None or revision.project_id != head.project.id:
        raise NotFound(f"There is no version {version_id} of this project.")
    return version


def restore(session: Session, project_id: int, version_id: int, author: str, now: datetime) -> None:
    """The design of an earlier version as a new one on top; raises NotFound."""
    head = head_of(session, project_id, lock=True)
    version = version_of(session, head, version_id)
    label = f"Back to: {version.label}"
    commit_version(session, head.revision, load_design(session, version), label, author, now)
