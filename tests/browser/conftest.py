"""A running application with demo data, and a browser that fails on console errors."""

import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver import Chrome

from loquet.launcher.browser import chromium
from loquet.launcher.database import MariaDb, free_port
from loquet.launcher.shooting import prepare, wait_for
from loquet.launcher.steps import state


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


@pytest.fixture(scope="module")
def server(database: MariaDb, request: pytest.FixtureRequest) -> Iterator[Server]:
    name = f"loquet_{request.module.__name__.split('.')[-1]}"
    database.sql(f"CREATE DATABASE IF NOT EXISTS {name}")
    running = Server(database.url(name))
    running.command("migrate")
    running.command("seed")
    running.start()
    prepare(running.address)
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
