"""Projects and their designs: versions that never change, a head that moves under a lock, undo and
redo.
"""

import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.core.brief import Brief
from loquet.core.design import SLICES, Design, SliceName
from loquet.core.plain.remembering import Remembered
from loquet.store.slices import read_slices, store_slice
from loquet.store.tables import ProjectRow, RevisionRow, VersionRow


class NotFound(Exception):
    """Nothing of that number is stored."""


class Conflict(Exception):
    """The head has moved since the caller last saw it; `head_id` is where it is now."""

    def __init__(self, head_id: int, label: str) -> None:
        super().__init__(f"The design has changed meanwhile ({label}).")
        self.head_id, self.label = head_id, label


@dataclass(frozen=True)
class Head:
    """A project with its revision and the version that is shown."""

    project: ProjectRow
    revision: RevisionRow
    version: VersionRow


def create_project(
    session: Session, brief: Brief, author: str, now: datetime, demo: str = ""
) -> int:
    """A project with revision A and its first version, named as its brief; returns its number."""
    project = ProjectRow(name=brief.name, demo=demo, created_at=now)
    session.add(project)
    session.flush()
    revision = RevisionRow(project_id=project.id, letter="A", turn=0)
    session.add(revision)
    session.flush()
    commit_version(session, revision, Design(brief=brief), "Start", author, now)
    return project.id


def head_of(session: Session, project_id: int, lock: bool = False) -> Head:
    """The newest revision of a project and its head; raises NotFound."""
    query = (
        select(RevisionRow)
        .where(RevisionRow.project_id == project_id)
        .order_by(RevisionRow.id.desc())
        .limit(1)
    )
    revision = session.scalars(query.with_for_update() if lock else query).first()
    project = session.get(ProjectRow, project_id)
    version = session.get(VersionRow, revision.head_id) if revision else None
    if revision is None or project is None or version is None:
        raise NotFound(f"There is no project {project_id}.")
    return Head(project, revision, version)


DESIGNS: Remembered[Design] = Remembered(64)


def load_design(session: Session, version: VersionRow) -> Design:
    """The design of a version, put together from its slices; the same object as long as the slices
    are the same.
    """
    wanted = [(name, d) for name, kept in version.slices.items() for d in digests_in(kept)]
    found = read_slices(session, wanted)
    parts: dict[str, Any] = {
        name: (
            found[name, kept]
            if isinstance(kept, str)
            else {subject: found[name, digest] for subject, digest in kept.items()}
        )
        for name, kept in version.slices.items()
    }
    subjects = json.dumps(version.slices, sort_keys=True)
    return DESIGNS.of(tuple(found.values()), lambda: Design(**parts), subjects)


def digests_in(kept: str | dict[str, str]) -> list[str]:
    """The digests of a slice: one, or one a subject."""
    return [kept] if isinstance(kept, str) else list(kept.values())


def commit_version(
    session: Session, revision: RevisionRow, design: Design, label: str, author: str, now: datetime
) -> VersionRow:
    """A new version on top of the head, which moves there; redo ends here."""
    slices: dict[str, str | dict[str, str]] = {
        "brief": store_slice(session, "brief", design.brief),
        "choices": store_slice(session, "choices", design.choices),
    }
    for name in SLICES:
        kept = getattr(design, name).items()
        slices[name] = {subject: store_slice(session, name, made) for subject, made in kept}
    version = VersionRow(
        revision_id=revision.id,
        parent_id=revision.head_id,
        slices=slices,
        label=label[:200],
        author=author,
        created_at=now,
    )
    session.add(version)
    session.flush()
    project = session.get(ProjectRow, revision.project_id)
    if project is not None and project.name != design.brief.name:
        project.name = design.brief.name
    revision.head_id = revision.tip_id = version.id
    revision.turn += 1
    session.flush()
    return version


DECIDED = ("brief", "choices")


def expect_head(
    session: Session, head: Head, version_id: int, rests_on: tuple[SliceName, ...] = ()
) -> None:
    """Raise Conflict unless the caller saw what a person decided as it is in the present head, and
    the slices that the edit rests on; what a job made of it meanwhile is no conflict.
    """
    if head.version.id == version_id:
        return
    seen = session.get(VersionRow, version_id)
    if seen is not None and seen.revision_id == head.revision.id:
        now = head.version.slices
        if all(seen.slices[name] == now[name] for name in (*DECIDED, *rests_on)):
            return
    raise Conflict(head.version.id, head.version.label)


def follow_name(session: Session, project_id: int) -> None:
    """The project is called as its head's brief is."""
    head = head_of(session, project_id)
    head.project.name = load_design(session, head.version).brief.name


def undo(session: Session, project_id: int) -> bool:
    """Move the head to its parent; whether there was one."""
    head = head_of(session, project_id, lock=True)
    if head.version.parent_id is None:
        return False
    head.revision.head_id = head.version.parent_id
    head.revision.turn += 1
    session.flush()
    follow_name(session, project_id)
    return True


def redo(session: Session, project_id: int) -> bool:
    """Move the head one step towards the tip; whether there was a step."""
    head = head_of(session, project_id, lock=True)
    step = next_towards_tip(session, head)
    if step is None:
        return False
    head.revision.head_id = step
    head.revision.turn += 1
    session.flush()
    follow_name(session, project_id)
    return True


def next_towards_tip(session: Session, head: Head) -> int | None:
    """The version after the head on the way to the tip, or None at the tip."""
    version_id = head.revision.tip_id
    while version_id is not None and version_id != head.version.id:
        version = session.get(VersionRow, version_id)
        if version is None:
            return None
        if version.parent_id == head.version.id:
            return version.id
        version_id = version.parent_id
    return None


def all_projects(session: Session) -> list[ProjectRow]:
    """All projects, the oldest first."""
    return list(session.scalars(select(ProjectRow).order_by(ProjectRow.id)))
