"""Waiting for jobs in tests."""

import threading
import time

from sqlalchemy.orm import Session, sessionmaker

from loquet.store.tables import JobRow


def ended(factory: sessionmaker[Session], job: int, seconds: float = 20) -> JobRow:
    """The row of a job once it has ended."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        with factory() as session:
            row = session.get(JobRow, job)
            assert row is not None
            if row.finished_at is not None:
                return row
        threading.Event().wait(0.02)
    raise AssertionError("the job did not end")
