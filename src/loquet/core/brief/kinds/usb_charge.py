"""A USB port for charging alone."""

from typing import Literal

from loquet.core.brief.thing import Body, Thing


class UsbCharge(Thing):
    """A USB port that charges and carries no data."""

    GROUP = "ports"
    TITLE = "USB, charge only"
    WORD = "charge"
    MARK = "plug"
    EDGE = True

    kind: Literal["usb-charge"] = "usb-charge"

    def bodies(self) -> tuple[Body, ...]:
        """A usual small connector."""
        return (Body(size_mm=(9.0, 7.5)),)
