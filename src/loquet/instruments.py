"""A bench unit of one's own: the line protocol over a serial port or a socket of this machine."""

import re
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Protocol

import serial
from serial.tools import list_ports

from loquet.core.build.protocol import LONGEST, ProtocolFault, answer

BAUD, ANSWER_S = 115_200, 4.0
PORT = re.compile(
    r"/dev/(tty(USB|ACM|AMA|S)\d{1,3}|pts/\d{1,5}|serial/by-id/[\w.:+-]{1,160})|COM\d{1,3}"
)
SOCKET = re.compile(r"(127\.0\.0\.1|localhost):([1-9]\d{0,4})")


class BenchUnreachable(Exception):
    """No bench unit there: why, and the way out."""

    def __init__(self, why: str, way_out: str) -> None:
        super().__init__(why)
        self.way_out = way_out


class Bench(Protocol):
    """Whatever answers the line protocol."""

    def line(self, asked: str) -> str:
        """The answer to a line; raises ProtocolFault."""
        ...


class WiredBench:
    """A bench unit behind an open port; one line asks, one answers, within four seconds."""

    def __init__(self, port: serial.SerialBase) -> None:
        self.port = port

    def line(self, asked: str) -> str:
        """The answer to a line; raises ProtocolFault where none comes, or none that is a line."""
        if not asked.isascii() or "\n" in asked or "\r" in asked:
            raise ProtocolFault("This cannot be asked in one line of ASCII.")
        try:
            self.port.reset_input_buffer()
            self.port.write(f"{asked}\n".encode("ascii"))
            return self.heard()
        except (serial.SerialException, OSError) as problem:
            raise ProtocolFault(f"The line to the bench unit broke: {problem}") from None

    def heard(self) -> str:
        """One line as it comes in; raises ProtocolFault."""
        end, data = time.monotonic() + ANSWER_S, b""
        while not data.endswith(b"\n"):
            if time.monotonic() > end:
                raise ProtocolFault(f"The bench unit did not answer within {ANSWER_S:g} s.")
            if len(data) > LONGEST:
                raise ProtocolFault("The bench unit answered more than one line can hold.")
            data += self.port.read_until(b"\n", LONGEST)
        try:
            return data.decode("ascii").strip()
        except UnicodeDecodeError:
            raise ProtocolFault("The bench unit answered what is not ASCII.") from None


def url_of(address: str) -> str:
    """Where a bench unit is, as the serial library names it; raises BenchUnreachable for what is
    neither a serial port nor a socket of this machine.
    """
    if PORT.fullmatch(address):
        return address
    found = SOCKET.fullmatch(address)
    if found and int(found[2]) <= 65_535:
        return f"socket://{address}"
    raise BenchUnreachable(
        f"'{address[:60]}' is neither a serial port nor a socket of this machine.",
        "Give a port such as /dev/ttyACM0 or COM3, or 127.0.0.1:4123.",
    )


@contextmanager
def wired_bench(address: str) -> Iterator[WiredBench]:
    """An open line to a bench unit; raises BenchUnreachable."""
    url = url_of(address)
    try:
        port = serial.serial_for_url(url, baudrate=BAUD, timeout=0.2, write_timeout=ANSWER_S)
    except (serial.SerialException, OSError, ValueError):
        raise BenchUnreachable(
            f"Nothing answers at {address}.",
            "Plug the bench unit in, see that no other program holds the port, and try again.",
        ) from None
    try:
        yield WiredBench(port)
    finally:
        port.close()


def name_of(address: str) -> str:
    """What a bench unit calls itself; raises BenchUnreachable and ProtocolFault."""
    with wired_bench(address) as bench:
        return answer(bench.line("ID"), "ID").rest[:80]


def serial_ports() -> list[tuple[str, str]]:
    """The serial ports of this machine with what the system calls them."""
    return [(found.device, found.description) for found in list_ports.comports()]
