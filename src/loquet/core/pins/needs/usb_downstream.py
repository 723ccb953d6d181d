"""What a USB port for another device asks."""

from loquet.core.brief.kinds.usb_downstream import UsbDownstream
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: UsbDownstream, ask: Asking) -> list[Need]:
    """A pair of its own."""
    bus = thing.role()
    return [
        ask.need("minus", "usb minus", f"{thing.name} minus", bus=bus),
        ask.need("plus", "usb plus", f"{thing.name} plus", bus=bus),
    ]


NEEDS = (UsbDownstream, needs)
