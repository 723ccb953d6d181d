"""A USB port for another device."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Thing


class UsbDownstream(Thing):
    """A USB port into which another device is plugged."""

    GROUP = "ports"
    TITLE = "USB for another device"
    WORD = "downstream"
    MARK = "plug"
    EDGE = True

    kind: Literal["usb-downstream"] = "usb-downstream"
    part: PartId = "usb-a-socket"
    gives_ma: Annotated[
        float, Field(ge=10, le=500, description="mA for the device that is plugged in")
    ] = 100.0

    def bodies(self) -> tuple[Body, ...]:
        """A socket of the wide kind."""
        return (Body(part=self.part, kinds=("USB socket",), size_mm=(14.5, 14.0)),)

    def current_ma(self) -> float:
        """What the other device is given."""
        return self.gives_ma
