"""What a USB port to a host asks."""

from loquet.core.brief.kinds.usb_device import UsbDevice
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: UsbDevice, ask: Asking) -> list[Need]:
    """The pair; its nets have the plain names that everybody knows."""
    return [
        ask.need("minus", "usb minus", f"{thing.name} minus", bus="usb", net="USB_MINUS"),
        ask.need("plus", "usb plus", f"{thing.name} plus", bus="usb", net="USB_PLUS"),
    ]


NEEDS = (UsbDevice, needs)
