"""The engine and sessions."""

from functools import cache

from sqlalchemy import Engine, create_engine
from sqlalchemy.orm import Session, sessionmaker

from loquet.settings import settings

THREADS = 40  # anyio's own number of worker threads, from its documentation


class NoDatabase(Exception):
    """No database address is set."""


def make_engine(url: str) -> Engine:
    """An engine for MariaDB: read committed, UTC, dead connections replaced; as many connections as
    the server has threads.
    """
    return create_engine(
        url,
        isolation_level="READ COMMITTED",
        pool_pre_ping=True,
        pool_size=THREADS,
        max_overflow=10,
        connect_args={
            "charset": "utf8mb4",
            "init_command": "SET time_zone = '+00:00'",
            "local_infile": False,
        },
    )


@cache
def engine() -> Engine:
    """The engine of this process; raises NoDatabase."""
    if not settings().database_url:
        raise NoDatabase(
            "LOQUET_DATABASE_URL is not set. Start Loquet with ./loquet demo or ./loquet start."
        )
    return make_engine(settings().database_url)


@cache
def sessions() -> sessionmaker[Session]:
    """The session factory of this process."""
    return sessionmaker(engine(), expire_on_commit=False)
