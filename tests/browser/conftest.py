"""A running application with demo data, and a browser that fails on console errors."""

import os
import subprocess
import sys
import time
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

    def idle(self) -> None:
        """Until no job runs; where one does not end, the application starts again."""
        engine = make_engine(self.environment["LOQUET_DATABASE_URL"])
        running = text("SELECT COUNT(*) FROM jobs WHERE state IN ('waiting', 'running')")
        for _ in range(40):
            with engine.connect() as connection:
                if connection.scalar(running) == 0:
                    break
            time.sleep(0.5)
        else:
            self.stop()
            self.start()
        engine.dispose()


USED, STOCKED = "loquet_browser", "loquet_stocked"


@pytest.fixture(scope="session")
def running(database: MariaDb) -> Iterator[Server]:
    """One application for all files of a process, with demo data that is kept beside."""
    database.sql(f"CREATE DATABASE {USED}; CREATE DATABASE {STOCKED}")
    server = Server(database.url(USED))
    server.command("migrate")
    server.command("seed")
    server.start()
    prepare(server.address)
    server.idle()
    copy(database, USED, STOCKED)
    yield server
    server.stop()


def copy(database: MariaDb, source: str, name: str) -> None:
    """Every table and row of a database put in place of those of another."""
    engine = make_engine(database.url(name))
    with engine.begin() as connection:
        connection.execute(text("SET foreign_key_checks = 0"))
        for (table,) in connection.execute(text(f"SHOW TABLES FROM {source}")).all():
            made = connection.execute(text(f"SHOW CREATE TABLE {source}.{table}")).one()[1]
            connection.execute(text(f"DROP TABLE IF EXISTS {table}"))
            connection.exec_driver_sql(made.replace("%", "%%"))
            connection.execute(text(f"INSERT INTO {table} SELECT * FROM {source}.{table}"))
    engine.dispose()


@pytest.fixture(scope="module")
def server(database: MariaDb, running: Server) -> Server:
    """The application with its demo data as they were."""
    running.idle()
    copy(database, STOCKED, USED)
    return running


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
