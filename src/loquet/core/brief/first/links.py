"""What the device is joined to: ports, cards, other boards, sensors."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import Name
from loquet.core.plain.frozen import Frozen


class UsbDevice(Frozen):
    """A USB port that makes the device a controller, a keyboard or a charger load of a host."""

    kind: Literal["usb-device"] = "usb-device"
    name: Name = "usb"


class SparePort(Frozen):
    """A spare two-wire port on a connector, on the same bus as everything else on two wires."""

    kind: Literal["spare-port"] = "spare-port"
    name: Name = "spare port"


class SerialPort(Frozen):
    """A spare asynchronous serial port."""

    kind: Literal["serial-port"] = "serial-port"
    name: Name = "serial port"


class MemoryCard(Frozen):
    """A memory card on a serial bus of its own, with a select and a detect line."""

    kind: Literal["memory-card"] = "memory-card"
    name: Name = "card"
    detect: bool = True


class Expansion(Frozen):
    """An expansion connector with plain lines."""

    kind: Literal["expansion"] = "expansion"
    name: Name = "expansion"
    lines: Annotated[int, Field(ge=1, le=40)] = 8


class BoardLink(Frozen):
    """A link to a second board: an asynchronous serial pair."""

    kind: Literal["board-link"] = "board-link"
    name: Name = "other half"


Link = Annotated[
    UsbDevice | SparePort | SerialPort | MemoryCard | Expansion | BoardLink,
    Field(discriminator="kind"),
]


class Sensor(Frozen):
    """A sensor: on the two-wire bus at its address, with or without an interrupt line, or as a
    plain voltage.
    """

    name: Name
    reading: Literal["two-wire", "voltage"] = "two-wire"
    address: Annotated[int, Field(ge=8, le=119)] = 0x68
    interrupt: bool = False
    bus_pf: Annotated[float, Field(ge=0, le=200)] = 10.0
