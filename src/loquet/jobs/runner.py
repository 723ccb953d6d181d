"""Running jobs on a `concurrent.futures` executor, with progress, stop, and a truthful state after a crash."""

import logging
import threading
from collections.abc import Callable
from concurrent.futures import Executor, ThreadPoolExecutor
from dataclasses import dataclass, field
from datetime import UTC, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session, sessionmaker

from loquet.core.circuit import RecipeNotPossible
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused
from loquet.core.placement.seating import NoRoom
from loquet.core.routing import RouteProgress, RoutingStopped
from loquet.store.tables import JobRow

LOG = logging.getLogger("loquet.jobs")
EXPECTED = (StageRefused, RecipeNotPossible, NoRoom, PartError)


@dataclass
class Ticket:
    """A running job: its stop flag and what it is doing."""

    job_id: int
    project_id: int
    kind: str
    stop: threading.Event = field(default_factory=threading.Event)
    doing: str = "waiting"
    share: float = 0.0

    def progress(self, seen: RouteProgress) -> bool:
        """Told by the router; answers whether to go on."""
        self.doing = f"round {seen.round}: {seen.contested} of {seen.nets} nets still share places"
        self.share = 1 - seen.contested / max(1, seen.nets)
        return not self.stop.is_set()

    def say(self, doing: str) -> None:
        """Name the step; raises RoutingStopped where a stop was asked for."""
        if self.stop.is_set():
            raise RoutingStopped
        self.doing = doing


Work = Callable[[Ticket], str]


class Jobs:
    """All jobs of this process; `listeners` are called on every change of state."""

    def __init__(self, factory: sessionmaker[Session], executor: Executor | None = None) -> None:
        self.factory = factory
        self.executor = executor or ThreadPoolExecutor(max_workers=2, thread_name_prefix="loquet-job")
        self.tickets: dict[int, Ticket] = {}
        self.lock = threading.Lock()

    def mark_lost(self) -> None:
        """Jobs that a crash left running say so."""
        with self.factory.begin() as session:
            for row in session.scalars(select(JobRow).where(JobRow.state.in_(("waiting", "running")))):
                row.state, row.message, row.finished_at = "lost", "Loquet stopped while this was running. Start it again.", datetime.now(UTC)

    def start(self, project_id: int, revision_id: int, kind: str, work: Work) -> int:
        """Queue work; returns the job's number. The same kind for the same project is not started twice."""
        with self.lock:
            for ticket in self.tickets.values():
                if ticket.project_id == project_id and ticket.kind == kind:
                    return ticket.job_id
            with self.factory.begin() as session:
                row = JobRow(revision_id=revision_id, kind=kind, state="waiting", message="", created_at=datetime.now(UTC))
                session.add(row)
                session.flush()
                job_id = row.id
            ticket = Ticket(job_id, project_id, kind)
            self.tickets[job_id] = ticket
        self.executor.submit(self.run, ticket, work)
        return job_id

    def run(self, ticket: Ticket, work: Work) -> None:
        """Do the work and write down how it ended."""
        self.write(ticket.job_id, "running", "")
        try:
            state, message = "done", work(ticket)
        except RoutingStopped:
            state, message = "stopped", "Stopped; the design is as it was."
        except EXPECTED as problem:
            state, message = "refused", str(problem)
        except Exception:
            LOG.exception("job %s (%s) failed", ticket.job_id, ticket.kind)
            state, message = "failed", "This went wrong inside Loquet; the design is as it was. The log file has the details."
        with self.lock:
            self.tickets.pop(ticket.job_id, None)
        self.write(ticket.job_id, state, message)

    def write(self, job_id: int, state: str, message: str) -> None:
        """Keep the state."""
        with self.factory.begin() as session:
            row = session.get(JobRow, job_id)
            if row is not None:
                row.state, row.message = state, message[:500]
                row.finished_at = None if state == "running" else datetime.now(UTC)

    def stop(self, job_id: int) -> bool:
        """Ask a job to stop; whether it was running."""
        ticket = self.tickets.get(job_id)
        if ticket:
            ticket.stop.set()
        return ticket is not None

    def of_project(self, project_id: int) -> list[Ticket]:
        """Jobs that run for a project now."""
        with self.lock:
            return [t for t in self.tickets.values() if t.project_id == project_id]

    def close(self) -> None:
        """Stop everything and wait."""
        for ticket in list(self.tickets.values()):
            ticket.stop.set()
        self.executor.shutdown(wait=True, cancel_futures=True)
