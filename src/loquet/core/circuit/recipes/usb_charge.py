"""A USB port that charges and carries no data."""

from loquet.core.brief.kinds.usb_charge import UsbCharge
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Fragment
from loquet.core.circuit.usb_power import usb_power


def recipe(thing: UsbCharge, bench: Bench) -> Fragment:
    """The port without its data."""
    return usb_power(thing, bench, {}).fragment


RECIPE = (UsbCharge, recipe)
