"""`./loquet backup FILE` and `./loquet restore FILE`, beside a running Loquet or with the database
started for the while.
"""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

from loquet.launcher.database import MariaDb
from loquet.launcher.running import database, only_one
from loquet.launcher.steps import RUN_PACKAGES, SetupFailed, ensure_packages, say, state


@contextmanager
def reachable_database() -> Iterator[str]:
    """The address of the database: of the Loquet that runs from this folder, else of one started
    here.
    """
    ensure_packages(RUN_PACKAGES)
    server = MariaDb(state() / "database")
    port = server.folder / "port"
    if port.exists() and answers(url := address(server, port)):
        yield url
        return
    with only_one(0), database() as started:
        yield started.url()


def shelf(rest: list[str]) -> int:
    """The shelf's command, with the database where it wants the workshop's own parts."""
    from loquet.cli import main as command_line

    if rest[:1] and rest[0] in ("add", "import", "export"):
        from loquet.store.migrating import upgrade

        with reachable_database() as url:
            os.environ["LOQUET_DATABASE_URL"] = url
            upgrade(url)
            return command_line(["shelf", *rest])
    return command_line(["shelf", *rest])


def address(server: MariaDb, port: Path) -> str:
    """The address of a server that another process started."""
    server.port = int(port.read_text())
    return server.url()


def answers(url: str) -> bool:
    """Whether a database takes connections."""
    from sqlalchemy import text
    from sqlalchemy.exc import OperationalError

    from loquet.store.engine import make_engine

    engine = make_engine(url)
    try:
        with engine.connect() as connection:
            connection.execute(text("SELECT 1"))
        return True
    except OperationalError:
        return False
    finally:
        engine.dispose()


def one_file(command: str, rest: list[str]) -> Path:
    """The file that a command names; raises SetupFailed."""
    if len(rest) != 1:
        raise SetupFailed(f"Give one file: ./loquet {command} FILE")
    return Path(rest[0])


def backup(rest: list[str]) -> int:
    """Write a backup; 0 where it is whole."""
    from loquet.store.backup import back_up

    path = one_file("backup", rest)
    if path.exists():
        raise SetupFailed(f"{path} is there already. Give a new name.")
    try:
        with reachable_database() as url:
            counts = back_up(url, path, datetime.now(UTC))
    except OSError as problem:
        raise SetupFailed(
            f"{path} cannot be written ({problem.strerror}). Give another place."
        ) from None
    say(
        f"{path}: {counts.get('projects', 0)} projects, {counts.get('versions', 0)} versions,"
        f" {sum(counts.values())} rows in all"
    )
    return 0


def restore(rest: list[str]) -> int:
    """Put a backup in place of what is stored; 0 where all of it is back."""
    from loquet.store.backup import BadBackup
    from loquet.store.backup import restore as put_back

    path = one_file("restore", rest)
    try:
        with reachable_database() as url:
            counts = put_back(url, path)
    except BadBackup as problem:
        raise SetupFailed(str(problem)) from None
    say(
        f"restored: {counts.get('projects', 0)} projects, {counts.get('versions', 0)} versions,"
        f" {sum(counts.values())} rows in all"
    )
    return 0
