"""A serial port."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.serial import SerialPort
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import port
from loquet.core.circuit.model import GROUND, Fragment


def recipe(thing: SerialPort, bench: Bench) -> Fragment:
    """Supply, transmit, receive, ground: ground away from supply, so that a plug turned round
    shorts nothing.
    """
    lines = [plain_name(thing.role(piece)) for piece in ("transmit", "receive")]
    return Fragment((port(thing, [bench.rail(thing).net, *lines, GROUND], bench),))


RECIPE = (SerialPort, recipe)
