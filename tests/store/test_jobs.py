"""Jobs on a real database: states told truthfully, one of a kind at a time, nothing kept of what
was stopped.
"""

import threading
from collections.abc import Iterator
from datetime import UTC, datetime

import pytest
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.brief import Brief
from loquet.core.parts import PartError
from loquet.core.routing import RoutingStopped
from loquet.jobs.runner import Jobs, Ticket
from loquet.jobs.telling import Told
from loquet.store.designs import create_project, head_of
from loquet.store.tables import JobRow
from tests.store.waiting import ended


@pytest.fixture
def jobs(factory: sessionmaker[Session]) -> Iterator[Jobs]:
    running = Jobs(factory)
    yield running
    running.close()


@pytest.fixture
def place(factory: sessionmaker[Session], brief: Brief) -> tuple[int, int]:
    """A project and its revision."""
    with factory.begin() as session:
        project = create_project(session, brief, "Ottilie", datetime.now(UTC))
        return project, head_of(session, project).revision.id


def refuse(ticket: Ticket) -> str:
    raise PartError("cog", "is not in the catalogue", "Take another.")


def fail(ticket: Ticket) -> str:
    raise ZeroDivisionError("secret detail")


@pytest.mark.parametrize(
    ("work", "state", "said"),
    [
        (lambda ticket: "Made.", "done", "Made."),
        (refuse, "refused", "Part 'cog'"),
        (fail, "failed", "the design is as it was"),
    ],
)
def test_a_job_says_how_it_ended(
    jobs: Jobs,
    factory: sessionmaker[Session],
    place: tuple[int, int],
    work: object,
    state: str,
    said: str,
) -> None:
    row = ended(factory, jobs.start(*place, "pins", work))  # type: ignore[arg-type]
    assert row.state == state
    assert said in row.message
    assert "secret" not in row.message


def test_one_of_a_kind_runs_at_a_time_and_can_be_stopped(
    jobs: Jobs, factory: sessionmaker[Session], place: tuple[int, int]
) -> None:
    begun = threading.Event()

    def long(ticket: Ticket) -> str:
        begun.set()
        ticket.heard(Told("3 of 4 nets", 0.25))
        while not ticket.stop.wait(0.01):
            pass
        raise RoutingStopped

    first = jobs.start(*place, "routing", long)
    assert begun.wait(10)
    assert jobs.start(*place, "routing", long) == first
    (ticket,) = jobs.of_project(place[0])
    assert "3 of 4 nets" in ticket.doing
    assert ticket.share == 0.25
    assert jobs.stop(first) is True
    assert ended(factory, first).state == "stopped"
    assert jobs.of_project(place[0]) == []
    assert jobs.stop(first) is False


def test_jobs_left_by_a_crash_say_so(
    jobs: Jobs, factory: sessionmaker[Session], place: tuple[int, int]
) -> None:
    with factory.begin() as session:
        row = JobRow(
            revision_id=place[1],
            kind="routing",
            state="running",
            message="",
            created_at=datetime.now(UTC),
        )
        session.add(row)
        session.flush()
        left = row.id
    jobs.mark_lost()
    found = ended(factory, left)
    assert found.state == "lost"
    assert "Start it again" in found.message


def test_closing_stops_what_runs(factory: sessionmaker[Session], place: tuple[int, int]) -> None:
    jobs, begun = Jobs(factory), threading.Event()

    def long(ticket: Ticket) -> str:
        begun.set()
        while True:
            ticket.say("working")
            threading.Event().wait(0.01)

    job = jobs.start(*place, "everything", long)
    assert begun.wait(10)
    jobs.close()
    assert ended(factory, job).state == "stopped"
