"""Making the demo projects in the background: every board whole, its files written and proven, one
project after the other.
"""

import logging
import threading
import time

from sqlalchemy import select
from sqlalchemy.orm import Session, sessionmaker

from loquet.catalogue.library import bundled_library
from loquet.demo.seeding import AUTHOR
from loquet.jobs.pools import AFTER_ALL_ELSE, LocalPool
from loquet.jobs.runner import Jobs
from loquet.jobs.works import finish
from loquet.store.designs import all_projects, head_of
from loquet.store.releases import latest_release
from loquet.store.tables import ProjectRow, VersionRow

LOG = logging.getLogger("loquet.demo")
LOOK_S = 0.5


def begin(jobs: Jobs) -> None:
    """Start making what is not made, beside everything else; ends with the application."""
    threading.Thread(target=make_all, args=(jobs,), name="loquet-demo", daemon=True).start()


def make_all(jobs: Jobs) -> None:
    """Make every demo project that waits, one after the other, each when no job of a person
    runs.
    """
    began, pool = time.monotonic(), LocalPool(AFTER_ALL_ELSE)
    try:
        with jobs.factory() as session:
            waiting = [project.id for project in all_projects(session) if waits(session, project)]
        for project_id in waiting:
            while jobs.busy() and not jobs.closed:
                time.sleep(LOOK_S)
            if jobs.closed:
                return
            make_one(jobs, pool, project_id)
        if waiting:
            took = time.monotonic() - began
            print(f"The {len(waiting)} demo projects are made ({took:.0f} s).", flush=True)
    except Exception:
        LOG.exception("the demo projects could not be made")
    finally:
        pool.close()


def waits(session: Session, project: ProjectRow) -> bool:
    """Whether a project is a demo that nobody but the demo has changed, without files of its
    state.
    """
    if not project.demo or project.kept != "shelf":
        return False
    head = head_of(session, project.id)
    revision = head.revision.id
    authors = session.scalars(select(VersionRow.author).where(VersionRow.revision_id == revision))
    release = latest_release(session, revision)
    made = release is not None and release.version_id == head.version.id
    return set(authors) <= {AUTHOR} and not made


def make_one(jobs: Jobs, pool: LocalPool, project_id: int) -> None:
    """One project, as the job `finish` makes it; its progress and its end are those of a job."""
    factory: sessionmaker[Session] = jobs.factory
    with factory() as session:
        revision = head_of(session, project_id).revision.id
    work = finish(factory, project_id, AUTHOR, bundled_library())
    job = jobs.start(project_id, revision, "finish", work, pool)
    while jobs.ticket(job) is not None:
        time.sleep(LOOK_S)
