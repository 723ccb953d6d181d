"""Where power comes in, and what makes a rail of it: cells, plugs, ports, converters, chargers,
modules with a regulator of their own.
"""

from collections.abc import Iterator

from loquet.core.brief.module_sockets import module_sockets
from loquet.core.circuit.model import GROUND, Component
from loquet.core.energising.conditions import absent, feeds
from loquet.core.energising.device import SOURCES, Device, Spot, brings, poles
from loquet.core.energising.elements import Converter, Element, Junction, Source, junction_of
from loquet.core.energising.semiconductors import BODY_A, BODY_V
from loquet.core.power import rail_of
from loquet.core.quantities.shown import read_si

OUTSIDE_OHM = 0.1
"""Behind a rail that a host feeds; assumed."""
PORT_V, PORT_OHM, PORT_A = 5.0, 0.2, 0.5
"""A port of a host that the device does not run on: USB 2.0 section 7.2.1; its lead is assumed."""
UNLIMITED_A = 1e3
"""What a cell gives is held by its own resistance alone."""
ABSENT_OHM = 1000.0
"""What a host that is off, or whoever touches an open plug, is to what stands there; assumed."""
LEAST_OHM, OPEN_DRAIN_OHM = 0.05, 50.0
"""Inside a source at the least, and an open drain that is on; assumed."""
MODULE_LEAST_V, LEAST_V = 0.9, 0.9
"""From so many volts on a regulator begins to work where its part does not say; assumed."""
CONVERTERS = ("linear regulator", "buck converter", "boost converter", "buck-boost converter")
RUNAWAY_V = 40.0
"""What a converter without its upper resistor tries to make: more than any part here stands."""
STEPPING_OHM = 0.2
"""The switch and the coil of a converter that cannot make more than it gets; assumed."""
CHARGING_OHM = 0.3
"""A charger's transistor when its port is hardly above the cell; assumed."""


def fed(spot: Spot) -> Iterator[Element]:
    """What a part brings in or makes."""
    kind = spot.device.kind(spot.component)
    yield from source(spot)
    if kind in CONVERTERS:
        yield from converter(spot)
    elif kind == "charger":
        yield from charger(spot)
    elif kind == "supply negotiator":
        yield from negotiator(spot)
    if spot.component.is_chip:
        yield from module(spot)


def negotiator(spot: Spot) -> Iterator[Element]:
    """Its open drain is low as soon as the volts that it asked for are there."""
    good = spot.node("good")
    if good and spot.component.thing:
        ground = spot.node("ground") or GROUND
        yield spot.resistance(good, ground, OPEN_DRAIN_OHM, feeds(spot.component.thing))


def source(spot: Spot) -> Iterator[Element]:
    """The cells, the plug of a cell, or the socket of a source or port."""
    device, component = spot.device, spot.component
    thing, part = device.things.get(component.thing), spot.part
    comes_in = component.polar or (part is not None and "gives_v" in part.values)
    if thing is None or not brings(thing) or not comes_in:
        return
    plus, minus = poles(spot.named)
    if not plus:
        return
    supply, count = thing.source(), cells_of(device, component)
    volts, ohm, most = PORT_V, PORT_OHM, PORT_A
    if supply is not None:
        volts, ohm = supply.usual_v / count, max(supply.resistance_ohm / count, LEAST_OHM)
        most = supply.most_ma / 1000 if supply.stays else UNLIMITED_A
    elif thing.port_gives_ma():
        most = thing.port_gives_ma() / 1000
    ends = spot.at(spot.ref, plus), spot.at(spot.ref, minus)
    if supply is None or supply.stays:
        yield spot.resistance(*ends, ABSENT_OHM, absent(thing.name))
    yield Source(*ends, volts, ohm, most, spot.ref, feeds(thing.name), thing.name)


def cells_of(device: Device, component: Component) -> int:
    """How many cells in holders stand in a row with this one."""
    if device.kind(component) not in SOURCES:
        return 1
    alike = (c for c in device.circuit.components if c.thing == component.thing)
    return sum(device.kind(c) in SOURCES for c in alike)


def from_outside(device: Device) -> Iterator[Element]:
    """Rails that come in from a host on its own plug, or over a socket on a module; the first rail
    where nothing at all feeds the device.
    """
    sockets = {port.name for port in module_sockets(device.brief).values()}
    for row in device.made:
        feeder = row.feeder
        host = feeder is not None and feeder.source() is None and feeder.feed() is not None
        outside = feeder is None or (host and not feeder.LOWER_FEED) or feeder.name in sockets
        if outside:
            name = feeder.name if feeder is not None else row.rail.name
            volts = row.rail.usual_v
            nets = {row.rail.net: volts} | own_five(device, name)
            for net, its in nets.items():
                own = row.rail.limit_ma / 1000 if net == row.rail.net else 0.0
                most = own or UNLIMITED_A
                yield Source(net, GROUND, its, OUTSIDE_OHM, most, when=feeds(name), name=name)


def own_five(device: Device, host: str) -> dict[str, float]:
    """Further supplies at the pins of a host that is on its own plug: the volts of that plug."""
    plugs = [c for c in device.circuit.components if c.is_chip and c.thing == host]
    supplies = {net.name for net in device.circuit.nets if net.kind == "supply"}
    nets = {net for c in plugs for net in c.pads.values()} & supplies - device.rails.keys()
    return dict.fromkeys(sorted(nets), PORT_V)


def converter(spot: Spot) -> Iterator[Element]:
    """A rail made of another one, with the volts that its divider sets."""
    ends = spot.two("in", "ground")
    kind, out = spot.device.kind(spot.component), out_of(spot)
    if ends is None or out is None:
        return
    before, ground = ends
    amperes, enable = spot.figure("current_ma", 300.0) / 1000, spot.node("enable") or before
    linear = kind == "linear regulator"
    drop = spot.figure("dropout_v", 0.3) / amperes if linear else STEPPING_OHM
    yield Converter(
        before,
        out,
        ground,
        enable,
        set_v(spot, out),
        spot.figure("input_min_v", LEAST_V),
        amperes,
        0.0 if linear else spot.figure("efficiency", 0.85),
        drop,
        "boost" in kind,
        spot.figure("quiet_ma", 0.0) / 1000,
        spot.ref,
    )
    if "boost" not in kind:
        yield Junction(out, before, junction_of(BODY_V, BODY_A), 1.0, spot.ref)
    yield Junction(ground, before, junction_of(BODY_V, BODY_A), 1.0, spot.ref)


def out_of(spot: Spot) -> str | None:
    """Where a converter's rail begins: at its own pin, or behind its coil."""
    direct = spot.node("out")
    if direct is not None:
        return direct
    switch = spot.named.get("switch", [])
    nets = {spot.component.pads[pad] for pad in switch}
    for other in spot.device.circuit.components:
        if spot.device.kind(other) == "inductor" and nets & set(other.pads.values()):
            pad = next((p for p, net in other.pads.items() if net not in nets), None)
            if pad is not None:
                return spot.at(other.ref, pad)
    return None


def set_v(spot: Spot, out: str) -> float:
    """What a converter makes: by its divider, or the volts that it is made for. Without the upper
    resistor it goes as high as it can, without the lower one it holds its reference.
    """
    feedback = spot.node("feedback")
    reference = spot.figure("reference_v", 0.0)
    if feedback and reference:
        upper = resistance_between(spot, feedback, out)
        lower = resistance_between(spot, feedback, spot.node("ground") or GROUND)
        if upper and lower:
            return reference * (1 + upper / lower)
        return RUNAWAY_V if lower else reference
    said = read_si(spot.component.value, "V")
    rails = (m.rail.usual_v for m in spot.device.made if m.rail.net == out)
    own = (m.rail.usual_v for m in spot.device.made if m.rail.fed_by == spot.component.thing)
    return said or next(rails, None) or next(own, 3.3)


def resistance_between(spot: Spot, one: str, other: str) -> float:
    """The resistor between two nodes, in ohm; 0 where there is none."""
    for component in spot.device.circuit.components:
        if spot.device.kind(component) == "resistor":
            leads = [spot.at(component.ref, pad) for pad in component.pads]
            if sorted(leads) == sorted((one, other)):
                value = read_si(component.value, "Ω") or 0.0
                return value * spot.others.get(component.ref, 1.0)
    return 0.0


def charger(spot: Spot) -> Iterator[Element]:
    """Constant current up to the end volts of its cell, as its resistor says."""
    ends = spot.three("in", "cell", "ground")
    if ends is None:
        return
    before, cell, ground = ends
    yield Converter(
        before,
        cell,
        ground,
        before,
        spot.figure("end_v", 4.2),
        spot.figure("input_min_v", 4.0),
        program_a(spot),
        0.0,
        CHARGING_OHM,
        ref=spot.ref,
    )
    for pin in (before, cell):
        yield Junction(ground, pin, junction_of(BODY_V, BODY_A), 1.0, spot.ref)


def program_a(spot: Spot) -> float:
    """The current that a charger's resistor sets, in A; its most where there is none."""
    node = spot.node("program")
    ohm = resistance_between(spot, node, spot.node("ground") or GROUND) if node else 0.0
    most = spot.figure("current_ma", 500.0) / 1000
    said = spot.figure("program_v", 0.0) * spot.figure("program_ratio", 0.0)
    return min(said / ohm, most) if ohm and said else most


def module(spot: Spot) -> Iterator[Element]:
    """A ready module makes its rail of the one that it takes."""
    device = spot.device
    thing = device.things.get(spot.component.thing)
    if thing is None or not (thing.READY_MADE and thing.LOWER_FEED):
        return
    made = next((m for m in device.made if m.rail.fed_by == thing.name), None)
    feed, taken = thing.feed(), rail_of(device.brief, thing).net
    if made is None or feed is None or made.rail.net == taken:
        return
    ends = {net: pad for pad, net in spot.component.pads.items()}
    if not {taken, made.rail.net, GROUND} <= ends.keys():
        return
    before = spot.at(spot.ref, ends[taken])
    yield Converter(
        before,
        spot.at(spot.ref, ends[made.rail.net]),
        spot.at(spot.ref, ends[GROUND]),
        before,
        feed.usual_v,
        MODULE_LEAST_V,
        feed.limit_ma / 1000,
        drop_ohm=0.3 / max(feed.limit_ma / 1000, 0.05),
        ref=spot.ref,
    )
