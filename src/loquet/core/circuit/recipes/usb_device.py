"""A USB port to a host: socket, fuse, resistors that ask for 5 V, guard array, the pair."""

from loquet.core.brief.kinds.usb_device import UsbDevice
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import block
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.circuit.usb_power import usb_power

PLUS, MINUS = "USB_PLUS", "USB_MINUS"
SERIES_OHM = {"stm32f1": "22 Ω", "atmega": "22 Ω", "at90usb": "22 Ω"}
PULL_UP_OHM = "1.5 kΩ"


def recipe(thing: UsbDevice, bench: Bench) -> Fragment:
    """The port with its data; the guard array stands at the socket."""
    role, name = thing.role(), bench.desk(thing).chip.name
    series = next((ohm for start, ohm in SERIES_OHM.items() if name.startswith(start)), "")
    lines = {"plus": PLUS, "minus": MINUS}
    outer = {line: f"{net}_PORT" if series else net for line, net in lines.items()}
    data = {"6": outer["plus"], "8": outer["plus"], "5": outer["minus"], "7": outer["minus"]}
    power = usb_power(thing, bench, data)
    five = power.five
    array = block(
        f"{role} guard array",
        "guard-array",
        "guard array",
        "Takes discharges of the plug and the hand",
        {
            "1": outer["plus"],
            "2": GROUND,
            "3": outer["minus"],
            "4": outer["minus"],
            "5": five,
            "6": outer["plus"],
        },
        (role, "6"),
    )
    found: list[Component] = [array]
    for line, net in lines.items():
        if series:
            words = f"Series resistor of USB {line}, as the chip's maker asks"
            pads = {"1": outer[line], "2": net}
            near = (f"{role} guard array", "1" if line == "plus" else "3")
            found.append(block(f"{role} series {line}", "resistor-1608", series, words, pads, near))
    if bench.desk(thing).chip.usb_pull_up == "outside":
        pads = {"1": bench.rail(thing).net, "2": PLUS}
        words = "Tells the host that a full-speed device is there"
        near = (f"{role} guard array", "1")
        found.append(block(f"{role} pull-up", "resistor-1608", PULL_UP_OHM, words, pads, near))
    made = power.fragment
    return Fragment((*made.components, *found), made.kinds, made.workings)


RECIPE = (UsbDevice, recipe)
