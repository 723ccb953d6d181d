"""Seeding the demo projects, and giving them back as they were."""

from datetime import UTC, datetime

from sqlalchemy import delete

from loquet.demo.scenario import DEMO_BRIEFS, demo_brief
from loquet.store.designs import all_projects, create_project
from loquet.store.engine import sessions
from loquet.store.tables import ProjectRow

AUTHOR = "Ottilie Marsh"


def seed() -> None:
    """Add each demo project that is not there, as its brief; `making` makes the boards."""
    with sessions().begin() as session:
        present = {project.demo for project in all_projects(session)}
        for name in DEMO_BRIEFS:
            if name not in present:
                brief = demo_brief(name)
                create_project(session, brief, AUTHOR, datetime.now(UTC), demo=name)


def reset() -> None:
    """Remove the demo projects with all that was done to them, and seed them again; other projects
    stay.
    """
    with sessions().begin() as session:
        session.execute(delete(ProjectRow).where(ProjectRow.demo != ""))
    seed()
