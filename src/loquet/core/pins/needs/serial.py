"""What a serial port asks."""

from loquet.core.brief.kinds.serial import SerialPort
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: SerialPort, ask: Asking) -> list[Need]:
    """Transmit and receive of one port."""
    bus, name = thing.role(), thing.name
    return [
        ask.need("transmit", "port transmit", f"{name} transmit", bus=bus, extra=thing.spare),
        ask.need("receive", "port receive", f"{name} receive", bus=bus, extra=thing.spare),
    ]


NEEDS = (SerialPort, needs)
