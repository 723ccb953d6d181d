"""The power side of a USB-C port: fuse, the two resistors by which a device asks for 5 V, and the
rail where it feeds the device.
"""

from dataclasses import dataclass

from loquet.core.brief.regulated import VOLTS, UsbPower
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import (
    block,
    capacitor,
    converter,
    feed_way,
    net,
    one_way,
    supplies,
)
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.provenance import Source, Working, WorkingInput

FUSES = {True: "fuse-resettable-3216", False: "fuse-3216"}
NEGOTIATOR = "pd-sink-6"
SELECT = {"9 V": "6.8 kΩ", "12 V": "15 kΩ", "15 V": "33 kΩ", "20 V": "68 kΩ"}
ASKS_OHM = "5.1 kΩ"
ENTRY, HIGH_ENTRY = ("1 µF", "capacitor-2012"), ("1 µF", "capacitor-3216")
SWITCH_P = "transistor-pmos-30v"
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
    asked = thing.asks in VOLTS
    behind = net(thing, "fused") if asked else five
    fuse = block(
        f"{role} fuse",
        FUSES[thing.asks == "500 mA"],
        fuse_value(thing),
        "Opens where the device draws too much",
        {"1": raw, "2": behind},
        (role, "2"),
    )
    asking = negotiated(thing, cc) if asked else plain_asking(thing, cc)
    entry = capacitor(
        f"{role} entry",
        HIGH_ENTRY if asked else ENTRY,
        "Quiets the volts of the plug",
        five,
        outlet(thing),
    )
    kinds = supplies(raw, five, behind)
    made = Fragment(())
    if thing.feeds:
        way = feed_way(bench, thing)
        kinds |= supplies(way.guarded)
        made = converter(bench, thing, way.behind)
    components = (socket, fuse, *asking, entry, *joined(thing, bench, five), *made.components)
    workings = made.workings if asked else (asking_working(), *made.workings)
    return UsbSide(Fragment(components, kinds | made.kinds, workings), five)


def outlet(thing: UsbPower) -> tuple[str, str]:
    """The part and pad from which the port's volts go into the device."""
    if thing.asks in VOLTS:
        return f"{thing.role()} volts switch", "3"
    return f"{thing.role()} fuse", "2"


def fuse_value(thing: UsbPower) -> str:
    """What the fuse lets through."""
    return {"500 mA": "0.5 A", "1.5 A": "2 A"}.get(thing.asks, "4 A")


def plain_asking(thing: UsbPower, cc: dict[str, str]) -> list[Component]:
    """The two resistors by which a device asks for 5 V."""
    return [
        block(
            f"{thing.role()} asks {index + 1}",
            "resistor-1608",
            ASKS_OHM,
            "Asks the host for 5 V",
            {"1": line, "2": GROUND},
            (thing.role(), pad),
        )
        for index, (pad, line) in enumerate(cc.items())
    ]


def negotiated(thing: UsbPower, cc: dict[str, str]) -> list[Component]:
    """What asks the host for higher volts, and lets them on only when they are there.

    Its pin `good` is an open drain: it pulls the gate down through a resistor that keeps the gate
    within its limit.
    """
    role, fused, five = thing.role(), net(thing, "fused"), five_net(thing)
    main, switch = f"{role} negotiator", f"{role} volts switch"
    select, good, gate = (net(thing, word) for word in ("select", "good", "gate"))
    one, two = cc.values()
    pads = {"1": fused, "2": GROUND, "3": one, "4": two, "5": select, "6": good}
    return [
        block(main, NEGOTIATOR, thing.asks, f"Asks the host for {thing.asks}", pads, (role, "4")),
        block(
            f"{main} select",
            "resistor-1608",
            SELECT[thing.asks],
            f"Chooses {thing.asks}",
            {"1": select, "2": GROUND},
            (main, "5"),
        ),
        capacitor(f"{main} input", HIGH_ENTRY, "Decoupling of the negotiator", fused, (main, "1")),
        block(
            switch,
            SWITCH_P,
            "P-channel",
            f"Lets {thing.asks} on when they are there",
            {"1": gate, "2": fused, "3": five},
            (f"{role} fuse", "2"),
        ),
        block(
            f"{switch} rest",
            "resistor-1608",
            "100 kΩ",
            "Keeps the switch open until then",
            {"1": fused, "2": gate},
            (switch, "1"),
        ),
        block(
            f"{switch} gate",
            "resistor-1608",
            "200 kΩ" if thing.asks == "20 V" else "100 kΩ",
            "Keeps the gate within 8 V of its source",
            {"1": gate, "2": good},
            (switch, "1"),
        ),
    ]


def joined(thing: UsbPower, bench: Bench, five: str) -> tuple[Component, ...]:
    """What lets current from the port into the device that it feeds, so that nothing flows back
    into the host.
    """
    source = thing.source()
    if source is None:
        return ()
    way, near = feed_way(bench, thing), outlet(thing)
    return (one_way(bench, thing, (five, way.guarded), source.fresh_v, near),)


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
