"""A USB port to a host."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.regulated import Current, UsbPower
from loquet.core.brief.thing import Body, KitItem, Service


class UsbDevice(UsbPower):
    """A USB port that makes the device a controller, a keyboard or a charger load of a host."""

    GROUP = "ports"
    TITLE = "USB port"
    WORD = "link"
    MARK = "plug"
    EDGE = True

    kind: Literal["usb-device"] = "usb-device"
    part: PartId = "usb-c-16"
    asks: Current = "500 mA"

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("plugging in the cable", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """A USB-C socket."""
        return (Body(part=self.part, kinds=("USB-C socket",), size_mm=(8.94, 7.3)),)

    def kit(self) -> tuple[KitItem, ...]:
        """The cable to the host."""
        return (
            KitItem(
                "leads and cables",
                "USB cable, USB-C plug at the device, with data",
                1,
                f"joins {self.name} to the host",
            ),
        )
