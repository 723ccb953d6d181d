"""Running the application until it is told to stop."""

import gc
import logging
import socket
import sys
from collections.abc import Callable
from dataclasses import dataclass
from logging.handlers import RotatingFileHandler
from pathlib import Path

import uvicorn

from loquet.api.application import make_application
from loquet.api.context import Context
from loquet.api.guarding import LOOPBACK, Door
from loquet.catalogue.library import bundled_library
from loquet.jobs.pools import LocalPool, Pool
from loquet.jobs.runner import Jobs
from loquet.settings import settings
from loquet.store.engine import sessions

LOG_BYTES, LOG_FILES = 2_000_000, 3


@dataclass(frozen=True)
class Serving:
    """Where to serve, the token where strangers can reach it, and the scheduler for long work where
    there is one.
    """

    host: str
    port: int
    token: str = ""
    scheduler: str = ""

    @property
    def door(self) -> Door:
        """Host names that the application answers under."""
        if not self.token:
            return Door()
        anywhere = self.host in ("0.0.0.0", "::")
        return Door(
            hosts=("*",) if anywhere else (*LOOPBACK, self.host.lower(), f"[{self.host.lower()}]"),
            token=self.token,
        )

    @property
    def address(self) -> str:
        """What to open."""
        shown = f"[{self.host}]" if ":" in self.host else self.host
        return f"http://{shown}:{self.port}/" + (f"?token={self.token}" if self.token else "")


class Server(uvicorn.Server):
    """A server whose open event streams end when it is asked to stop."""

    def handle_exit(self, sig: int, frame: object) -> None:
        """Tell the streams first."""
        self.config.app.state.closing = True  # type: ignore[union-attr]
        super().handle_exit(sig, frame)  # type: ignore[arg-type]


def keep_log(folder: Path) -> None:
    """Everything that is logged goes to `loquet.log`, three files of 2 MB at the most."""
    folder.mkdir(parents=True, exist_ok=True)
    handler = RotatingFileHandler(
        folder / "loquet.log", maxBytes=LOG_BYTES, backupCount=LOG_FILES - 1, encoding="utf-8"
    )
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s: %(message)s"))
    logging.getLogger().addHandler(handler)


def pool_for(scheduler: str) -> Pool:
    """Where long work runs: on a cluster where its scheduler is named, else in warm processes of
    this machine.
    """
    if scheduler:
        from loquet.jobs.cluster import DaskPool

        return DaskPool(scheduler)
    pool = LocalPool()
    pool.warm()
    return pool


def serve(wanted: Serving, begin: Callable[[Jobs], None] | None = None) -> int:
    """0 after an orderly stop, 4 where the port is taken; `begin` starts work of its own beside the
    pages.
    """
    with socket.socket(socket.AF_INET6 if ":" in wanted.host else socket.AF_INET) as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((wanted.host, wanted.port))
        except OSError:
            print(
                f"Port {wanted.port} is in use. Stop what uses it, or choose another one: --port"
                f" {wanted.port + 1}",
                file=sys.stderr,
            )
            return 4
    keep_log(settings().state / "log")
    factory = sessions()
    pool = pool_for(wanted.scheduler)
    context = Context(
        factory, bundled_library(), Jobs(factory, pool), settings().state / "chips.json"
    )
    app = make_application(context, settings().web, wanted.door)
    server = Server(
        uvicorn.Config(
            app,
            host=wanted.host,
            port=wanted.port,
            log_level="warning",
            timeout_graceful_shutdown=3,
        )
    )
    print(f"Loquet is at {wanted.address}", flush=True)
    gc.collect()
    gc.freeze()  # catalogues and code stay for good: no collection has to walk over them
    if begin:
        begin(context.jobs)
    server.run()
    return 0
