"""A USB port that charges."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.regulated import UsbPower
from loquet.core.brief.thing import Body, KitItem, Service


class UsbCharge(UsbPower):
    """A USB port that charges and carries no data."""

    GROUP = "ports"
    TITLE = "USB, charge only"
    WORD = "charge"
    MARK = "plug"
    EDGE = True
    ONLY_CHARGES = True

    kind: Literal["usb-charge"] = "usb-charge"
    part: PartId = "usb-c-16"

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("plugging in the cable", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """A USB-C socket."""
        return (Body(part=self.part, kinds=("USB-C socket",), size_mm=(8.94, 7.3)),)

    def kit(self) -> tuple[KitItem, ...]:
        """The cable for charging, and a charger that has what is asked for."""
        cable = KitItem(
            "leads and cables",
            "USB cable, USB-C plug at the device",
            1,
            f"charges at {self.name}",
        )
        if self.asks == "500 mA":
            return (cable,)
        what = f"USB-C charger that offers {self.asks}{' at 5 V' if self.five_volts() else ''}"
        return (cable, KitItem("power", what, 1, f"feeds {self.name}"))
