"""Jobs: one of a kind a project at a time, with progress that only rises, a stop, and a truthful
state after a crash.
"""

import logging
import os
import threading
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.circuit import RecipeNotPossible
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused
from loquet.core.placement.seating import NoRoom
from loquet.core.routing import RoutingStopped
from loquet.jobs.pools import LocalPool, Pool, Running
from loquet.jobs.telling import Told
from loquet.store.tables import JobRow

LOG = logging.getLogger("loquet.jobs")


class Short(Exception):
    """A job that kept what it made, but did not come to its end; says where it stopped and why."""


EXPECTED = (StageRefused, RecipeNotPossible, NoRoom, PartError)
MOST_JOBS = 8
WAIT_S = 20.0


@dataclass
class Ticket:
    """A running job: its stop flag, what it is doing, and how far it has come (`share`, which only
    rises).
    """

    project_id: int
    kind: str
    pool: Pool
    job_id: int = 0
    known: threading.Event = field(default_factory=threading.Event)
    stop: threading.Event = field(default_factory=threading.Event)
    doing: str = "waiting"
    share: float = 0.0
    floor: float = 0.0
    ceiling: float = 1.0
    picture: str = ""
    pictures: int = 0
    kept: str = ""

    def heard(self, told: Told) -> None:
        """What the work tells of itself."""
        self.doing = told.doing
        self.advance(told.share)
        self.kept = told.keep or self.kept
        if told.picture:
            self.picture, self.pictures = told.picture, self.pictures + 1

    def advance(self, part: float) -> None:
        """How much of the present step is done, from 0 to 1."""
        self.share = max(self.share, self.floor + (self.ceiling - self.floor) * part)

    def say(self, doing: str, floor: float | None = None, ceiling: float = 1.0) -> None:
        """Name the step and the part of the job that it is; raises RoutingStopped where a stop was
        asked for.
        """
        if self.stop.is_set():
            raise RoutingStopped
        self.doing = doing
        if floor is not None:
            self.floor, self.ceiling = floor, ceiling
            self.advance(0.0)

    def compute(self, function: Callable[..., Any], *arguments: object) -> Any:
        """The answer of a function that runs in a process of its own; raises RoutingStopped within
        a tenth of a second of a stop.
        """
        (answer,) = self.compute_all(function, [arguments])
        return answer

    def compute_all(
        self, function: Callable[..., Any], calls: Sequence[tuple[object, ...]]
    ) -> list[Any]:
        """The answers of a function to several calls, each in a process of its own, as many at a
        time as there are processors, two at least; stopped as `compute` is.
        """
        self.kept, waiting = "", list(enumerate(calls))
        answers: dict[int, Any] = {}
        running: dict[int, Running] = {}
        try:
            while waiting or running:
                while waiting and len(running) < max(2, os.cpu_count() or 1):
                    index, arguments = waiting.pop(0)
                    running[index] = self.pool.submit(function, *arguments)
                for index, one in list(running.items()):
                    if one.wait(0.05):
                        answers[index] = running.pop(index).answer()
                        continue
                    for seen in one.news():
                        self.heard(seen)
                    if self.stop.is_set():
                        raise RoutingStopped
        except BaseException:
            for other in running.values():
                other.end()
            raise
        self.kept = ""  # the answers stand for what could have been kept
        return [answers[index] for index in range(len(calls))]


Work = Callable[[Ticket], str]


class Jobs:
    """All jobs of this application.

    The lock is held over plain dictionary work alone, never over a statement.
    """

    def __init__(self, factory: sessionmaker[Session], pool: Pool | None = None) -> None:
        self.factory = factory
        self.pool = pool or LocalPool()
        self.threads = ThreadPoolExecutor(MOST_JOBS, thread_name_prefix="loquet-job")
        self.tickets: dict[tuple[int, str], Ticket] = {}
        self.lock = threading.Lock()
        self.closed = False

    def mark_lost(self) -> None:
        """Jobs that a crash left running say so."""
        with self.factory.begin() as session:
            for row in session.scalars(
                select(JobRow).where(JobRow.state.in_(("waiting", "running")))
            ):
                row.state, row.message, row.finished_at = (
                    "lost",
                    "Loquet stopped while this was running. Start it again.",
                    datetime.now(UTC),
                )

    def start(
        self, project_id: int, revision_id: int, kind: str, work: Work, pool: Pool | None = None
    ) -> int:
        """Queue work; returns the job's number.

        The same kind for the same project is not started twice.

        It computes in `pool`, else in that of the application.
        """
        mine = Ticket(project_id, kind, pool or self.pool)
        with self.lock:
            ticket = self.tickets.setdefault((project_id, kind), mine)
        if ticket is not mine:
            ticket.known.wait(WAIT_S)
            return ticket.job_id
        try:
            mine.job_id = self.enter(revision_id, kind)
        except BaseException:
            self.forget(mine)
            raise
        finally:
            mine.known.set()
        self.threads.submit(self.run, mine, work)
        return mine.job_id

    def enter(self, revision_id: int, kind: str) -> int:
        """A row for a new job; returns its number."""
        with self.factory.begin() as session:
            row = JobRow(
                revision_id=revision_id,
                kind=kind,
                state="waiting",
                message="",
                created_at=datetime.now(UTC),
            )
            session.add(row)
            session.flush()
            return row.id

    def forget(self, ticket: Ticket) -> None:
        """The job is over."""
        with self.lock:
            self.tickets.pop((ticket.project_id, ticket.kind), None)

    def run(self, ticket: Ticket, work: Work) -> None:
        """Do the work and write down how it ended."""
        try:
            self.write(ticket.job_id, "running", "")
            state, message = "done", work(ticket)
        except RoutingStopped as stopped:
            state, message = "stopped", f"Stopped; {stopped or 'the design is as it was'}."
        except Short as problem:
            state, message = "short", str(problem)
        except EXPECTED as problem:
            state, message = "refused", str(problem)
        except Exception:
            LOG.exception("job %s (%s) failed", ticket.job_id, ticket.kind)
            state, message = (
                "failed",
                (
                    "This went wrong inside Loquet; the design is as it was. The log file has the"
                    " details."
                ),
            )
        try:
            self.write(ticket.job_id, state, message)
        except Exception:
            LOG.exception(
                "the end of job %s (%s: %s) could not be written", ticket.job_id, state, message
            )
        self.forget(ticket)

    def write(self, job_id: int, state: str, message: str) -> None:
        """Keep the state."""
        with self.factory.begin() as session:
            row = session.get(JobRow, job_id)
            if row is not None:
                row.state, row.message = state, message[:500]
                row.finished_at = None if state == "running" else datetime.now(UTC)

    def ticket(self, job_id: int) -> Ticket | None:
        """The running job of that number."""
        with self.lock:
            return next((t for t in self.tickets.values() if t.job_id == job_id), None)

    def stop(self, job_id: int) -> bool:
        """Ask a job to stop; whether it was running."""
        ticket = self.ticket(job_id)
        if ticket:
            ticket.stop.set()
        return ticket is not None

    def busy(self) -> bool:
        """Whether anything runs now."""
        with self.lock:
            return bool(self.tickets)

    def of_project(self, project_id: int) -> list[Ticket]:
        """Jobs that run for a project now."""
        with self.lock:
            return [t for t in self.tickets.values() if t.project_id == project_id and t.job_id]

    def close(self) -> None:
        """Stop everything and wait."""
        with self.lock:
            self.closed = True
            for ticket in self.tickets.values():
                ticket.stop.set()
        self.threads.shutdown(wait=True, cancel_futures=True)
        self.pool.close()
