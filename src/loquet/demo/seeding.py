"""Seeding the demo projects, and giving them back as they were."""

from datetime import UTC, datetime

from sqlalchemy import delete
from sqlalchemy.orm import Session

from loquet.catalogue.library import bundled_library
from loquet.core.pipeline import bring_up_to_date
from loquet.demo.scenario import DEMO_BRIEFS, demo_brief
from loquet.store.designs import all_projects, commit_version, create_project, head_of, load_design
from loquet.store.engine import sessions
from loquet.store.tables import ProjectRow

AUTHOR = "Ottilie Marsh"


def seed() -> None:
    """Add each demo project that is not there; the first one is finished up to the poured board."""
    with sessions().begin() as session:
        present = {project.demo for project in all_projects(session)}
        for index, name in enumerate(DEMO_BRIEFS):
            if name not in present:
                add(session, name, finished=index == 0)


def add(session: Session, name: str, finished: bool) -> None:
    """One demo project."""
    now = datetime.now(UTC)
    brief = demo_brief(name)
    project_id = create_project(session, brief.name, brief, AUTHOR, now, demo=name)
    if finished:
        head = head_of(session, project_id)
        design = bring_up_to_date(load_design(session, head.version), bundled_library())
        commit_version(session, head.revision, design, "Made the board", AUTHOR, now)


def reset() -> None:
    """Remove the demo projects with all that was done to them, and seed them again; other projects stay."""
    with sessions().begin() as session:
        session.execute(delete(ProjectRow).where(ProjectRow.demo != ""))
    seed()
