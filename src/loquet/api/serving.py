"""Running the application until it is told to stop."""

import socket
import sys

import uvicorn

from loquet.api.application import make_application
from loquet.api.context import Context
from loquet.catalogue.library import bundled_library
from loquet.jobs.runner import Jobs
from loquet.settings import settings
from loquet.store.engine import sessions


class Server(uvicorn.Server):
    """A server whose open event streams end when it is asked to stop."""

    def handle_exit(self, sig: int, frame: object) -> None:
        """Tell the streams first."""
        self.config.app.state.closing = True  # type: ignore[union-attr]
        super().handle_exit(sig, frame)  # type: ignore[arg-type]


def serve(host: str, port: int) -> int:
    """0 after an orderly stop, 4 where the port is taken."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            print(f"Port {port} is in use. Stop what uses it, or choose another one: --port {port + 1}", file=sys.stderr)
            return 4
    factory = sessions()
    context = Context(factory, bundled_library(), Jobs(factory), settings().state / "chips.json")
    app = make_application(context, settings().web)
    server = Server(uvicorn.Config(app, host=host, port=port, log_level="warning", timeout_graceful_shutdown=3))
    print(f"Loquet is at http://{host}:{port}/", flush=True)
    server.run()
    return 0
