"""The power side of a USB-C port: fuse, the two resistors by which a device asks for 5 V, and the rail where it feeds the device."""

from dataclasses import dataclass

from loquet.core.brief.regulated import UsbPower
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import block, capacitor, converter, feed_way, net, supplies
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.provenance import Source, Working, WorkingInput

FUSE = "fuse-resettable-3216"
ASKS_OHM = "5.1 kΩ"
ENTRY = ("1 µF", "capacitor-2012")
TYPE_C = Source(kind="standard", text="USB Type-C 2.1 table 4-27: Rd 5.1 kΩ on each CC of a sink")


@dataclass(frozen=True)
class UsbSide:
    """The fragment, and the net that carries the port's 5 V behind its fuse."""

    fragment: Fragment
    five: str


def five_net(thing: UsbPower) -> str:
    """The 5 V of a port behind its fuse."""
    return net(thing, "5v")


def usb_power(thing: UsbPower, bench: Bench, data: dict[str, str]) -> UsbSide:
    """The socket with its data pads as given, and everything that its power needs."""
    role, five, raw = thing.role(), five_net(thing), net(thing, "plug")
    cc = {"4": net(thing, "cc1"), "10": net(thing, "cc2")}
    pads = {"1": GROUND, "2": raw, "11": raw, "12": GROUND, "13": GROUND, **cc, **data}
    socket = Component(
        role=role,
        part=thing.bodies()[0].part,
        block="power",
        value="USB-C",
        purpose=f"Socket of {thing.label}",
        pads=dict(sorted(pads.items(), key=lambda row: int(row[0]))),
    )
    fuse = block(
        f"{role} fuse",
        FUSE,
        "0.5 A",
        "Opens where the device draws too much",
        {"1": raw, "2": five},
        (role, "2"),
    )
    asking = [
        block(
            f"{role} asks {index + 1}",
            "resistor-1608",
            ASKS_OHM,
            "Asks the host for 5 V",
            {"1": line, "2": GROUND},
            (role, pad),
        )
        for index, (pad, line) in enumerate(cc.items())
    ]
    entry = capacitor(
        f"{role} entry", ENTRY, "Quiets the 5 V of the plug", five, (f"{role} fuse", "2")
    )
    kinds = supplies(raw, five)
    made = Fragment(())
    if thing.feeds:
        way = feed_way(bench, thing)
        kinds |= supplies(way.guarded)
        made = converter(bench, thing, way.behind)
    components = (socket, fuse, *asking, entry, *joined(thing, bench, five), *made.components)
    return UsbSide(
        Fragment(components, kinds | made.kinds, (asking_working(), *made.workings)), five
    )


def joined(thing: UsbPower, bench: Bench, five: str) -> tuple[Component, ...]:
    """A diode from the port's 5 V into the device that it feeds, so that nothing flows back into the host."""
    if not thing.feeds:
        return ()
    way, role = feed_way(bench, thing), thing.role()
    words = "Lets no current flow back into the host"
    pads = {"1": way.guarded, "2": five}
    near = (f"{role} fuse", "2")
    return (block(f"{role} one way", "diode-schottky-sod123", "Schottky", words, pads, near),)


def asking_working() -> Working:
    """What the resistors tell the host."""
    return Working(
        id="usb.asks",
        title="Resistors by which the device asks for 5 V",
        value=5100,
        unit="Ω",
        shown="5.1 kΩ each",
        formula="Rd",
        inputs=(WorkingInput(name="Rd", value="5100", unit="Ω", origin=TYPE_C.text),),
        source=TYPE_C,
    )
