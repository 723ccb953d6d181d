"""The simulated bench unit on a socket of this machine, for those who write the firmware of a real
one, or try Loquet without any.
"""

import socketserver

from loquet.core.build.protocol import LONGEST
from loquet.standins.bench_unit import BenchUnit

HOST = "127.0.0.1"


class BenchServer(socketserver.ThreadingTCPServer):
    """Answers lines on a port of the loopback, each from the same unit; port 0 takes a free one."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, unit: BenchUnit, port: int = 0) -> None:
        self.unit = unit
        super().__init__((HOST, port), Lines)

    @property
    def address(self) -> str:
        """Where it listens."""
        return f"{HOST}:{self.server_address[1]}"


class Lines(socketserver.StreamRequestHandler):
    """One who asks, line by line, until it hangs up."""

    server: BenchServer

    def handle(self) -> None:
        """Answer each line."""
        while line := self.rfile.readline(LONGEST):
            asked = line.decode("ascii", "replace")
            self.wfile.write(f"{self.server.unit.line(asked)}\n".encode("ascii", "replace"))
