"""`./loquet demo` and `./loquet start`: everything up, the address printed, and all of it gone
again at the end.
"""

import fcntl
import os
import secrets
import signal
import socket
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from types import FrameType

from loquet.launcher.database import MariaDb
from loquet.launcher.steps import (
    RUN_PACKAGES,
    SetupFailed,
    ensure_packages,
    ensure_warm,
    ensure_web,
    say,
    state,
)

LOOPBACK = ("127.0.0.1", "localhost", "::1")


@dataclass(frozen=True)
class Wanted:
    """How to start: the address, demo data or not, and the scheduler of a cluster for long work."""

    host: str
    port: int
    demo: bool = False
    scheduler: str = ""


@contextmanager
def only_one(port: int) -> Iterator[None]:
    """Hold the lock of this folder; raises SetupFailed where another Loquet has it."""
    state().mkdir(parents=True, exist_ok=True)
    with (state() / "run.lock").open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            lock.seek(0)
            where = lock.read().strip() or "another terminal"
            raise SetupFailed(
                f"Loquet is already running from this folder ({where}). Use that one, or stop it"
                " first with Ctrl-C."
            ) from None
        lock.truncate(0)
        lock.write(f"http://127.0.0.1:{port}/")
        lock.flush()
        yield


def check_port(host: str, port: int) -> None:
    """Raise SetupFailed where the port is taken, before anything is started."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except socket.gaierror:
            raise SetupFailed(
                f"'{host}' is no address of this machine. Leave --host out, or give one of its own"
                " addresses."
            ) from None
        except OSError:
            raise SetupFailed(
                f"Port {port} is in use. Stop what uses it, or choose another one: ./loquet demo"
                f" --port {port + 1}"
            ) from None


def leave(number: int, frame: FrameType | None) -> None:
    """TERM while setting up is an orderly end."""
    raise SystemExit(128 + number)


@contextmanager
def database() -> Iterator[MariaDb]:
    """The database, up, watched and migrated, for as long as the block runs."""
    server = MariaDb(state() / "database")
    try:
        server.start()
        threading.Thread(target=server.supervise, daemon=True).start()
        os.environ["LOQUET_DATABASE_URL"] = server.url()
        os.environ["LOQUET_STATE"] = str(state())
        from loquet.store.migrating import NewerData, upgrade

        try:
            upgrade()
        except NewerData as problem:
            raise SetupFailed(str(problem)) from None
        yield server
    finally:
        server.stop()


def start(wanted: Wanted) -> int:
    """Set up what is missing and serve until stopped."""
    signal.signal(signal.SIGTERM, leave)
    check_port(wanted.host, wanted.port)
    token = "" if wanted.host in LOOPBACK else secrets.token_urlsafe(18)
    with only_one(wanted.port):
        ensure_packages(RUN_PACKAGES)
        ensure_web()
        ensure_warm()
        say("starting the database")
        with database():
            from loquet.api.serving import Serving, serve
            from loquet.demo.making import begin
            from loquet.demo.seeding import seed

            if wanted.demo:
                say("looking after the demo data; their boards are made in the background")
                seed()

            if token:
                say(
                    f"WARNING: {wanted.host} can be reached from other machines, unencrypted;"
                    " whoever has the token below may read and change everything"
                )
            serving = Serving(wanted.host, wanted.port, token, wanted.scheduler)
            code = serve(serving, begin if wanted.demo else None)
            say("stopped")
            return code


def reset_demo() -> int:
    """The demo data as they were; the application must not be running."""
    signal.signal(signal.SIGTERM, leave)
    with only_one(0):
        ensure_packages(RUN_PACKAGES)
        ensure_warm()
        with database():
            from loquet.demo.seeding import reset

            reset()
    say("the demo projects are as they were; your own projects were not touched")
    return 0
