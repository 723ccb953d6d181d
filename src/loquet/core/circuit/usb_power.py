"""The power side of a USB-C port: fuse, the two resistors by which a device asks for 5 V, and the
rail where it feeds the device.
"""

from dataclasses import dataclass

from loquet.core.brief import Brief
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
from loquet.core.parts.choosing import MARGIN, Wanted, fuse_for, strongest
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.shown import read_si

HOLDS_MA = {"500 mA": 500, "1.5 A": 1500}
SELECT = {"9 V": "6.8 kΩ", "12 V": "15 kΩ", "15 V": "33 kΩ", "20 V": "68 kΩ"}
ASKS_OHM = "5.1 kΩ"
ENTRY = "1 µF"
TYPE_C = Source(kind="standard", text="USB Type-C 2.1 table 4-27: Rd 5.1 kΩ on each CC of a sink")


@dataclass(frozen=True)
class UsbSide:
    """The fragment, and the net that carries the port's 5 V behind its fuse."""

    fragment: Fragment
    five: str


def five_net(thing: UsbPower) -> str:
    """The 5 V of a port behind its fuse."""
    return net(thing, "5v")


def plug_net(thing: UsbPower) -> str:
    """The net of a port's 5 V before its fuse."""
    return net(thing, "plug")


def usb_power(thing: UsbPower, bench: Bench, data: dict[str, str]) -> UsbSide:
    """The socket with its data lines as given, and everything that its power needs."""
    role, five, raw = thing.role(), five_net(thing), plug_net(thing)
    cc = {name: net(thing, name) for name in ("cc1", "cc2")}
    pads = {"supply": raw, "ground": GROUND, "shell": GROUND, **cc, **data}
    socket = Component(
        role=role,
        part=thing.bodies()[0].part,
        block="power",
        value="USB-C",
        purpose=f"Socket of {thing.label}",
        pads=pads,
    )
    asked = thing.asks in VOLTS
    behind = net(thing, "fused") if asked else five
    fuse = block(
        f"{role} fuse",
        fuse_for(bench.parts, HOLDS_MA.get(thing.asks, 3000)).id,
        fuse_value(thing),
        "Opens where the device draws too much",
        {ONE: raw, OTHER: behind},
        (role, "supply"),
    )
    asking = negotiated(bench, thing, cc) if asked else plain_asking(bench, thing, cc)
    kinds = supplies(raw, five, behind)
    made = Fragment(())
    if thing.feeds:
        way = feed_way(bench, thing)
        kinds |= supplies(way.guarded)
        made = converter(bench, thing, way.behind)
    entry = at_the_plug(thing, bench, five)
    components = (socket, fuse, *asking, *entry, *joined(thing, bench, five), *made.components)
    workings = made.workings if asked else (asking_working(), *made.workings)
    return UsbSide(Fragment(components, kinds | made.kinds, workings), five)


def at_the_plug(thing: UsbPower, bench: Bench, five: str) -> tuple[Component, ...]:
    """What quiets the volts of the plug; nothing where the input capacitor of a charger does, since
    a port may not see more than 10 µF in all.
    """
    charges = any(t.charging_ma() for t in bench.brief.things) and thing.five_volts()
    if charges and thing is charging_port(bench.brief):
        return ()
    role, words, near = thing.role(), "Quiets the volts of the plug", outlet(thing)
    return (capacitor(bench, f"{role} entry", ENTRY, words, five, near, made_for_v(thing)),)


def charging_port(brief: Brief) -> UsbPower | None:
    """The first port that brings 5 V."""
    return next((t for t in brief.things if isinstance(t, UsbPower) and t.five_volts()), None)


def outlet(thing: UsbPower) -> tuple[str, str]:
    """The part and pad from which the port's volts go into the device."""
    if thing.asks in VOLTS:
        return f"{thing.role()} volts switch", "drain"
    return f"{thing.role()} fuse", OTHER


def made_for_v(thing: UsbPower) -> float:
    """What a part behind the plug must stand; 0 at plain 5 V."""
    return VOLTS.get(thing.asks, 0.0)


def fuse_value(thing: UsbPower) -> str:
    """What the fuse lets through."""
    return {"500 mA": "0.5 A", "1.5 A": "2 A"}.get(thing.asks, "4 A")


def plain_asking(bench: Bench, thing: UsbPower, cc: dict[str, str]) -> list[Component]:
    """The two resistors by which a device asks for 5 V."""
    return [
        block(
            f"{thing.role()} asks {index + 1}",
            bench.resistor,
            ASKS_OHM,
            "Asks the host for 5 V",
            {ONE: line, OTHER: GROUND},
            (thing.role(), name),
        )
        for index, (name, line) in enumerate(cc.items())
    ]


def negotiated(bench: Bench, thing: UsbPower, cc: dict[str, str]) -> list[Component]:
    """What asks the host for higher volts, and lets them on only when they are there.

    Its pin `good` is an open drain: it pulls the gate down through a resistor that keeps the gate
    within its limit.
    """
    role, fused, five = thing.role(), net(thing, "fused"), five_net(thing)
    main, switch = f"{role} negotiator", f"{role} volts switch"
    select, good, gate = (net(thing, word) for word in ("select", "good", "gate"))
    one, two = cc.values()
    part, volts = bench.pick("supply negotiator").id, made_for_v(thing)
    wanted = Wanted("P-channel transistor", least={"voltage": volts})
    channel = strongest(bench.parts, wanted, "voltage", MARGIN * volts).id
    pads = {"in": fused, "ground": GROUND, "cc 1": one, "cc 2": two, "select": select, "good": good}
    return [
        block(main, part, thing.asks, f"Asks the host for {thing.asks}", pads, (role, "cc1")),
        block(
            f"{main} select",
            bench.resistor,
            SELECT[thing.asks],
            f"Chooses {thing.asks}",
            {ONE: select, OTHER: GROUND},
            (main, "select"),
        ),
        capacitor(
            bench,
            f"{main} input",
            ENTRY,
            "Decoupling of the negotiator",
            fused,
            (main, "in"),
            volts,
        ),
        block(
            switch,
            channel,
            "P-channel",
            f"Lets {thing.asks} on when they are there",
            {"gate": gate, "source": fused, "drain": five},
            (f"{role} fuse", OTHER),
        ),
        block(
            f"{switch} rest",
            bench.resistor,
            "100 kΩ",
            "Keeps the switch open until then",
            {ONE: fused, OTHER: gate},
            (switch, "gate"),
        ),
        block(
            f"{switch} gate",
            bench.resistor,
            "200 kΩ" if thing.asks == "20 V" else "100 kΩ",
            "Keeps the gate within 8 V of its source",
            {ONE: gate, OTHER: good},
            (switch, "gate"),
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
        value=read_si(ASKS_OHM, "Ω") or 0.0,
        unit="Ω",
        shown=f"{ASKS_OHM} each",
        formula="Rd",
        inputs=(
            WorkingInput(
                name="Rd", value=f"{read_si(ASKS_OHM, 'Ω'):g}", unit="Ω", origin=TYPE_C.text
            ),
        ),
        source=TYPE_C,
    )
