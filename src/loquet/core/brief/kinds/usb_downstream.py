"""A USB port for another device."""

from typing import Literal

from loquet.core.brief.thing import Body, Thing


class UsbDownstream(Thing):
    """A USB port into which another device is plugged."""

    GROUP = "ports"
    TITLE = "USB for another device"
    WORD = "downstream"
    MARK = "plug"
    EDGE = True

    kind: Literal["usb-downstream"] = "usb-downstream"

    def bodies(self) -> tuple[Body, ...]:
        """A socket of the wide kind."""
        return (Body(part="usb-a-socket", size_mm=(14.5, 14.0)),)
