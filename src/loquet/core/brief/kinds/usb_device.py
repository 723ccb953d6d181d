"""A USB port to a host."""

from typing import Literal

from loquet.core.brief.thing import Body, Thing


class UsbDevice(Thing):
    """A USB port that makes the device a controller, a keyboard or a charger load of a host."""

    GROUP = "ports"
    TITLE = "USB port"
    WORD = "link"
    MARK = "plug"
    EDGE = True

    kind: Literal["usb-device"] = "usb-device"

    def bodies(self) -> tuple[Body, ...]:
        """A usual small connector."""
        return (Body(size_mm=(9.0, 7.5)),)
