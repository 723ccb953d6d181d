"""Fixtures: the finished demo board, a real MariaDB, an application."""

import os
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from sqlalchemy.orm import Session, sessionmaker

from loquet.api.application import make_application
from loquet.api.context import Context
from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import Release, release
from loquet.demo.scenario import demo_brief, dusk_remote
from loquet.jobs.runner import Jobs
from loquet.launcher.database import MariaDb
from loquet.launcher.steps import state
from loquet.store.engine import make_engine
from loquet.store.migrating import upgrade

ROOT = Path(__file__).resolve().parents[1]


LONGEST_FIRST = ("browser", "tests", "store", "api")
"""Folders in the order in which their tests begin: long files first, so that no process waits for
another at the end.
"""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Order the tests by folder; those of one file stay together."""

    def turn(item: pytest.Item) -> int:
        folder = item.path.parent.name
        return LONGEST_FIRST.index(folder) if folder in LONGEST_FIRST else len(LONGEST_FIRST)

    items.sort(key=turn)


@pytest.fixture(scope="session")
def library() -> Library:
    return bundled_library()


@pytest.fixture(scope="session")
def brief() -> Brief:
    return dusk_remote()


@pytest.fixture(scope="session")
def finished(library: Library, brief: Brief) -> Design:
    """The demo remote, made up to the poured board."""
    return bring_up_to_date(Design(brief=brief), library)


@pytest.fixture(scope="session")
def small(library: Library) -> Design:
    """The demo pod, made up to the poured board."""
    return bring_up_to_date(Design(brief=demo_brief("dome-pod")), library)


@pytest.fixture(scope="session")
def released(finished: Design, library: Library) -> Release:
    return release(finished, library)


@pytest.fixture(scope="session")
def database(tmp_path_factory: pytest.TempPathFactory) -> Iterator[MariaDb]:
    server = MariaDb(tmp_path_factory.mktemp("database"))
    server.start()
    yield server
    server.remove()


@pytest.fixture(scope="session")
def migrated(database: MariaDb) -> str:
    """The address of a database with all tables."""
    database.sql("CREATE DATABASE IF NOT EXISTS loquet_tests")
    upgrade(database.url("loquet_tests"))
    return database.url("loquet_tests")


@pytest.fixture(scope="session")
def factory(migrated: str) -> Iterator[sessionmaker[Session]]:
    engine = make_engine(migrated)
    yield sessionmaker(engine, expire_on_commit=False)
    engine.dispose()


@pytest.fixture
def session(factory: sessionmaker[Session]) -> Iterator[Session]:
    """A session whose work is rolled back."""
    with factory() as opened:
        yield opened
        opened.rollback()


@pytest.fixture(scope="session")
def client(factory: sessionmaker[Session], library: Library) -> Iterator[TestClient]:
    context = Context(factory, library, Jobs(factory), state() / "chips.json")
    with TestClient(
        make_application(context, None), base_url="http://127.0.0.1", headers={"x-loquet": "test"}
    ) as opened:
        yield opened


@pytest.fixture
def command() -> Callable[..., tuple[int, str, str]]:
    """Run ./loquet with arguments; gives exit code, output and errors."""
    import subprocess

    def run(*arguments: str) -> tuple[int, str, str]:
        done = subprocess.run(
            [str(ROOT / "loquet"), *arguments],
            capture_output=True,
            text=True,
            env=dict(os.environ),
            stdin=subprocess.DEVNULL,
        )
        return done.returncode, done.stdout, done.stderr

    return run
