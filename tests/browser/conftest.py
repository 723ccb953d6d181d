"""A running application with demo data, and a browser that fails on console errors."""

import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver import Chrome
from sqlalchemy import text

from loquet.launcher.browser import chromium
from loquet.launcher.database import MariaDb, free_port
from loquet.launcher.shooting import prepare, wait_for
from loquet.launcher.steps import state
from loquet.store.engine import make_engine


class Server:
    """The application as a process on a database of its own."""

    def __init__(self, url: str) -> None:
        self.environment = {**os.environ, "LOQUET_DATABASE_URL": url, "LOQUET_STATE": str(state())}
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def command(self, name: str) -> None:
        subprocess.run(
            [sys.executable, "-m", "loquet.cli", name],
            env=self.environment,
            check=True,
            stdin=subprocess.DEVNULL,
        )

    def start(self) -> None:
        self.process = subprocess.Popen(
            [sys.executable, "-m", "loquet.cli", "serve", "--port", str(self.port)],
            env=self.environment,
        )
        wait_for(f"{self.address}/api/health")

    def stop(self) -> int:
        assert self.process is not None
        self.process.terminate()
        return self.process.wait(20)


@pytest.fixture(scope="session")
def stocked(database: MariaDb) -> str:
    """The name of a database with demo data, made once; every module has a copy of its own."""
    database.sql("CREATE DATABASE loquet_stocked")
    running = Server(database.url("loquet_stocked"))
    running.command("migrate")
    running.command("seed")
    running.start()
    prepare(running.address)
    running.stop()
    return "loquet_stocked"


def copy(database: MariaDb, source: str, name: str) -> None:
    """A new database with every table and row of another."""
    database.sql(f"CREATE DATABASE {name}")
    engine = make_engine(database.url(name))
    with engine.begin() as connection:
        connection.execute(text("SET foreign_key_checks = 0"))
        for (table,) in connection.execute(text(f"SHOW TABLES FROM {source}")).all():
            made = connection.execute(text(f"SHOW CREATE TABLE {source}.{table}")).one()[1]
            connection.exec_driver_sql(made.replace("%", "%%"))
            connection.execute(text(f"INSERT INTO {table} SELECT * FROM {source}.{table}"))
    engine.dispose()


@pytest.fixture(scope="module")
def server(database: MariaDb, stocked: str, request: pytest.FixtureRequest) -> Iterator[Server]:
    name = f"loquet_{request.module.__name__.split('.')[-1]}"
    copy(database, stocked, name)
    running = Server(database.url(name))
    running.start()
    yield running
    running.stop()


@pytest.fixture(scope="module")
def downloads(tmp_path_factory: pytest.TempPathFactory) -> Path:
    return tmp_path_factory.mktemp("downloads")


@pytest.fixture(scope="module")
def driver(downloads: Path) -> Iterator[Chrome]:
    with chromium(downloads) as opened:
        yield opened
        severe = [
            entry
            for entry in opened.get_log("browser")
            if entry["level"] == "SEVERE"
            and "422" not in entry["message"]
            and "404" not in entry["message"]
            and "/events" not in entry["message"]
        ]
        assert severe == []
