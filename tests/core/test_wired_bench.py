"""A bench unit over a socket and over a serial port: what it answers is read, what is no line of
the protocol is refused, and no other address is opened.
"""

import os
import socket
import threading
from collections.abc import Iterator
from contextlib import contextmanager

import pytest

from loquet import instruments
from loquet.core.build.protocol import ProtocolFault, keys, number
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.instruments import BenchUnreachable, name_of, url_of, wired_bench
from loquet.standins.bench_server import BenchServer
from loquet.standins.bench_unit import BenchUnit
from tests.core.benches import switched_on


@pytest.fixture(scope="module")
def unit(finished: Design, library: Library) -> BenchUnit:
    return BenchUnit(switched_on(finished, library))


@contextmanager
def serving(server: BenchServer) -> Iterator[str]:
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    try:
        yield server.address
    finally:
        server.shutdown()
        server.server_close()


@contextmanager
def answering(data: bytes) -> Iterator[str]:
    """A socket that answers every line with these bytes."""
    listener = socket.create_server(("127.0.0.1", 0))

    def answer() -> None:
        peer, _ = listener.accept()
        with peer:
            while peer.recv(1000):
                peer.sendall(data)

    threading.Thread(target=answer, daemon=True).start()
    with listener:
        yield f"127.0.0.1:{listener.getsockname()[1]}"


def test_the_simulated_unit_answers_over_a_socket(unit: BenchUnit) -> None:
    with serving(BenchServer(unit)) as address:
        assert name_of(address) == "simulated Dusk remote"
        with wired_bench(address) as bench:
            assert keys(bench.line("KEYS")) == frozenset()
            component = next(c for c in unit.desk.circuit.components if c.ref.startswith("R"))
            pads = " ".join(f"{component.ref}.{pad}" for pad in sorted(component.pads))
            assert number(bench.line(f"OHM {pads}"), "OHM") > 0
            with pytest.raises(ProtocolFault, match="nothing is known of 'R999.1'"):
                number(bench.line("VOLT R999.1"), "VOLT")
            with pytest.raises(ProtocolFault, match="one line of ASCII"):
                bench.line("ID\nID")


def test_it_is_read_over_a_serial_port() -> None:
    """A pseudo-terminal stands for the port; its other end answers as a unit would, its answer in
    two pieces.
    """
    ours, theirs = os.openpty()
    heard: list[bytes] = []

    def answer() -> None:
        heard.append(os.read(ours, 100))
        os.write(ours, b"OHM 47")
        os.write(ours, b"00\r\n")

    thread = threading.Thread(target=answer, daemon=True)
    thread.start()
    with wired_bench(os.ttyname(theirs)) as bench:
        assert number(bench.line("OHM R1.1 R1.2"), "OHM") == 4700
    thread.join(5)
    assert heard == [b"OHM R1.1 R1.2\n"]
    os.close(ours)
    os.close(theirs)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"ERR no probe is fitted\n", "no probe is fitted"),
        (b"VOLT 3.3\n", "answered 'VOLT' to OHM"),
        (b"OHM much\n", "no number"),
        (b"OHM nan\n", "out of all range"),
        (b"OHM \xff\n", "not ASCII"),
        (b"1" * 300, "more than one line"),
        (b"OHM 47", "did not answer within"),
    ],
)
def test_what_is_no_answer_is_said(
    data: bytes, words: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(instruments, "ANSWER_S", 0.4)
    monkeypatch.setattr(instruments, "LONGEST", 200)
    with (
        answering(data) as address,
        wired_bench(address) as bench,
        pytest.raises(ProtocolFault, match=words),
    ):
        number(bench.line("OHM R1.1 R1.2"), "OHM")


@pytest.mark.parametrize(
    "good", ["/dev/ttyACM0", "/dev/ttyUSB12", "COM3", "/dev/serial/by-id/usb-x"]
)
def test_serial_ports_are_addresses(good: str) -> None:
    assert url_of(good) == good


def test_sockets_of_this_machine_are_addresses() -> None:
    assert url_of("127.0.0.1:4123") == "socket://127.0.0.1:4123"
    assert url_of("localhost:65535") == "socket://localhost:65535"


@pytest.mark.parametrize(
    "bad",
    [
        "",
        "/etc/passwd",
        "/dev/ttyUSB0/../../etc/passwd",
        "/dev/sda",
        "10.0.0.7:22",
        "socket://127.0.0.1:80",
        "127.0.0.1:65536",
        "127.0.0.1:0",
        "localhost:80\n",
        "loop://",
        "spy:///dev/ttyUSB0",
        "127.0.0.1:80@example",
    ],
)
def test_nothing_else_is_opened(bad: str) -> None:
    with pytest.raises(BenchUnreachable, match="neither a serial port nor a socket"):
        url_of(bad)


def test_a_port_where_nothing_is_says_so() -> None:
    with socket.create_server(("127.0.0.1", 0)) as free:
        port = free.getsockname()[1]
    with pytest.raises(BenchUnreachable, match="Nothing answers"), wired_bench(f"127.0.0.1:{port}"):
        raise AssertionError
    with pytest.raises(BenchUnreachable, match="Nothing answers"), wired_bench("/dev/ttyUSB77"):
        raise AssertionError
