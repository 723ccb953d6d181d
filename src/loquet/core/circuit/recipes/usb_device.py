"""A USB port to a host: socket, fuse, resistors that ask for 5 V, guard array, the pair."""

from loquet.core.brief.kinds.usb_device import UsbDevice
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import block
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.circuit.usb_power import usb_power
from loquet.core.parts.terminal import ONE, OTHER

PLUS, MINUS = "USB_PLUS", "USB_MINUS"
SERIES_OHM = {"stm32f1": "22 Ω", "atmega": "22 Ω", "at90usb": "22 Ω"}
PULL_UP_OHM = "1.5 kΩ"


def recipe(thing: UsbDevice, bench: Bench) -> Fragment:
    """The port with its data; the guard array stands at the socket."""
    role, name = thing.role(), bench.desk(thing).chip.name
    series = next((ohm for start, ohm in SERIES_OHM.items() if name.startswith(start)), "")
    lines = {"plus": PLUS, "minus": MINUS}
    outer = {line: f"{net}_PORT" if series else net for line, net in lines.items()}
    power = usb_power(thing, bench, outer)
    five = power.five
    array = block(
        f"{role} guard array",
        bench.pick("guard array").id,
        "guard array",
        "Takes discharges of the plug and the hand",
        {
            "line 1": outer["plus"],
            "line 2": outer["minus"],
            "ground": GROUND,
            "supply": five,
        },
        (role, "plus"),
    )
    found: list[Component] = [array]
    for line, net in lines.items():
        if series:
            words = f"Series resistor of USB {line}, as the chip's maker asks"
            pads = {ONE: outer[line], OTHER: net}
            near = (f"{role} guard array", "line 1" if line == "plus" else "line 2")
            found.append(block(f"{role} series {line}", bench.resistor, series, words, pads, near))
    if bench.desk(thing).chip.usb_pull_up == "outside":
        pads = {ONE: bench.rail(thing).net, OTHER: PLUS}
        words = "Tells the host that a full-speed device is there"
        near = (f"{role} guard array", "line 1")
        found.append(block(f"{role} pull-up", bench.resistor, PULL_UP_OHM, words, pads, near))
    made = power.fragment
    return Fragment((*made.components, *found), made.kinds, made.workings)


RECIPE = (UsbDevice, recipe)
