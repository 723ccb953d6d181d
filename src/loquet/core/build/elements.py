"""What every part of a circuit is to a meter with the power off, and on power: models from the
parts' own figures.
"""

import itertools
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field

from loquet.core.brief import Brief
from loquet.core.build.network import (
    Battery,
    Gate,
    Network,
    Regulator,
    Resistance,
    Valve,
)
from loquet.core.circuit import Circuit, Component
from loquet.core.circuit.model import GROUND
from loquet.core.library import Library
from loquet.core.lookup.powering import made_of
from loquet.core.parts import Part
from loquet.core.parts.terminal import way
from loquet.core.power import rail_of
from loquet.core.power.budget import Made, loads_of
from loquet.core.quantities.shown import read_si

CONTACT_OHM, FUSE_OHM = 0.05, 0.15
"""A closed contact, and a fuse that is whole; assumed."""
INNER_OHM = 2.0
"""Supply pins of a chip are joined inside by so much; assumed."""
CHIP_OHM = 200_000.0
"""An unpowered chip shows so much between supply and ground; assumed, makers differ."""
DIODE_V, DIODE_OHM = 0.65, 0.5
"""A silicon junction as a meter finds it, and its slope; assumed where the part names no forward
voltage.
"""
CHANNEL_OHM = 0.1
"""An open channel of a small field-effect transistor; assumed."""
IDEAL_V, IDEAL_OHM = 0.03, 0.08
"""A controller that acts as a diode drops so much, and its slope; assumed."""
MODULE_LEAST_V = 0.9
"""From so many volts on a module's own regulator begins to work; assumed."""
OUTSIDE_OHM = 0.1
"""Behind a rail that a host feeds; assumed."""
BASE_OHM = 100.0
"""The slope of a base to its emitter; assumed."""
SOURCES = ("cell holder", "coin holder", "18650 holder")
FEEDING = ("holder", "plug", "socket", "jack", "pads", "connector")
"""How the kinds of parts end through which a device is fed."""
At = Callable[[str, str], str]


@dataclass(frozen=True)
class Desk:
    """A circuit as it lies on the bench: its components with their parts, the rails and how they
    are made, and what everything draws while it waits (by thing: the net of its rail, volts and
    mA).
    """

    brief: Brief
    circuit: Circuit
    parts: Mapping[str, Part]
    made: tuple[Made, ...]
    loads: tuple[tuple[str, str, float, float], ...]
    source: str

    def kind(self, component: Component) -> str:
        """The kind of a component's part; `chip` for a microcontroller."""
        part = self.parts.get(component.part)
        return "chip" if component.is_chip or part is None else part.kind

    def named(self, component: Component) -> dict[str, list[str]]:
        """Pads by the terminals that they are."""
        part = self.parts.get(component.part)
        rows = {
            name: [pad for pad in terminal.pads if pad in component.pads]
            for name, terminal in (part.terminals if part else {}).items()
        }
        return {name: pads for name, pads in rows.items() if pads}


def desk_of(brief: Brief, circuit: Circuit, library: Library) -> Desk:
    """The bench of a circuit."""
    made = made_of(brief, library)
    rails = {m.rail.name: m.rail for m in made}
    loads = []
    for row in loads_of(brief, library.parts, library.screens):
        rail = rails.get(row.rail)
        if rail is not None and row.currents.idle > 0:
            loads.append((row.thing, rail.net, rail.usual_v, row.currents.idle))
    first = made[0].rail.fed_by if made else ""
    fed = [t.name for t in brief.things if t.source() is not None]
    source = first if first in fed else (fed[0] if fed else "")
    return Desk(brief, circuit, library.parts, made, tuple(loads), source)


@dataclass
class Elements:
    """What is collected for a network."""

    resistances: list[Resistance] = field(default_factory=list)
    valves: list[Valve] = field(default_factory=list)
    gates: list[Gate] = field(default_factory=list)
    batteries: list[Battery] = field(default_factory=list)
    regulators: list[Regulator] = field(default_factory=list)

    def join(self, a: str, b: str, ohm: float) -> None:
        """A resistance between two nodes that are not the same."""
        if a != b:
            self.resistances.append(Resistance(a, b, ohm))


def network_of(
    desk: Desk,
    at: At,
    gone: frozenset[str] = frozenset(),
    scaled: Mapping[str, float] | None = None,
    extra: tuple[Resistance, ...] = (),
    powered: bool = False,
    flat: bool = False,
) -> Network:
    """The network of a circuit: `at` names the node of a lead, parts that are `gone` are left out,
    values are `scaled`, `extra` joins nodes; on power a `flat` source gives nothing.
    """
    found = Elements(resistances=list(extra))
    for component in desk.circuit.components:
        if component.ref not in gone:
            scale = (scaled or {}).get(component.ref, 1.0)
            add_part(found, desk, component, at, scale, powered, flat)
    if powered:
        add_loads(found, desk, at, gone)
        add_own_plugs(found, desk)
    return Network(
        GROUND,
        tuple(found.resistances),
        tuple(found.valves),
        tuple(found.gates),
        tuple(found.batteries),
        tuple(found.regulators),
    )


def add_own_plugs(found: Elements, desk: Desk) -> None:
    """Rails that come in from a host on its own plug; the first rail where nothing at all feeds the
    device.
    """
    for row in desk.made:
        feeder = row.feeder
        outside = feeder is None or (
            feeder.source() is None and not feeder.LOWER_FEED and feeder.feed() is not None
        )
        if outside:
            rail = row.rail
            found.batteries.append(Battery(rail.net, GROUND, rail.usual_v, OUTSIDE_OHM))


def add_module(found: Elements, desk: Desk, component: Component, at: At) -> None:
    """A ready module makes its rail of the one that it takes."""
    thing = desk.brief.find(component.thing)
    if thing is None or not (thing.READY_MADE and thing.LOWER_FEED):
        return
    made = next((m for m in desk.made if m.rail.fed_by == thing.name), None)
    feed, taken = thing.feed(), rail_of(desk.brief, thing).net
    if made is None or feed is None or made.rail.net == taken:
        return
    ends = {net: pad for pad, net in component.pads.items()}
    if not {taken, made.rail.net, GROUND} <= ends.keys():
        return
    source = at(component.ref, ends[taken])
    found.regulators.append(
        Regulator(
            source=source,
            out=at(component.ref, ends[made.rail.net]),
            ground=at(component.ref, ends[GROUND]),
            enable=source,
            volts=feed.usual_v,
            least=MODULE_LEAST_V,
            most_a=feed.limit_ma / 1000,
        )
    )


def add_part(
    found: Elements,
    desk: Desk,
    component: Component,
    at: At,
    scale: float,
    powered: bool,
    flat: bool,
) -> None:
    """What one part is."""
    ref, kind, named = component.ref, desk.kind(component), desk.named(component)
    part = desk.parts.get(component.part)
    pads = list(component.pads)

    def node(name: str) -> str | None:
        return at(ref, named[name][0]) if name in named else None

    for legs in part.joined if part else ():
        for one, other in itertools.pairwise(legs):
            if one in component.pads and other in component.pads:
                found.join(at(ref, one), at(ref, other), CONTACT_OHM)
    match kind:
        case "resistor" | "inductor" | "fuse":
            ohm = ohms_of(component, kind, part) * scale
            if len(pads) >= 2:
                found.join(at(ref, pads[0]), at(ref, pads[1]), max(ohm, 0.001))
        case "buzzer":
            plus, minus = node("plus"), node("minus")
            if plus and minus and part:
                found.join(plus, minus, part.values.get("coil_ohm", 42.0))
        case "resistive stick" | "slider" | "slide trigger":
            add_track(found, component, named, part, at)
        case "slide switch":
            ends = [named[name][0] for name in ("on", "off") if name in named]
            end = component.on_pad if component.on_pad in component.pads else next(iter(ends), "")
            common = node("common")
            if common and end:
                found.join(common, at(ref, end), CONTACT_OHM)
        case "P-channel transistor" if powered:
            gate, source, drain = node("gate"), node("source"), node("drain")
            if gate and source and drain and part:
                found.gates.append(
                    Gate(gate, source, drain, part.values.get("threshold_v", 1.0), CHANNEL_OHM)
                )
                found.valves.append(Valve(drain, source, DIODE_V, DIODE_OHM))
        case "NPN transistor" if powered:
            base, emitter = node("base"), node("emitter")
            if base and emitter:
                found.valves.append(Valve(base, emitter, DIODE_V, BASE_OHM))
        case "diode" | "light" if powered:
            anode, cathode = node("anode"), node("cathode")
            if anode and cathode and part:
                found.valves.append(
                    Valve(anode, cathode, part.values.get("forward_v", DIODE_V), DIODE_OHM)
                )
        case "ideal diode" if powered:
            start, end_ = node("in"), node("out")
            if start and end_:
                found.valves.append(Valve(start, end_, IDEAL_V, IDEAL_OHM))
        case "linear regulator" | "buck converter" | "boost converter" | "buck-boost converter" if (
            powered
        ):
            add_regulator(found, desk, component, named, part, at)
        case _:
            pass
    add_chip(found, desk, component, at)
    if powered and component.is_chip:
        add_module(found, desk, component, at)
    if powered and desk.source and component.thing == desk.source and not flat:
        add_source(found, desk, component, named, at)
    if powered:
        add_power_key(found, desk, component, at)


def ohms_of(component: Component, kind: str, part: Part | None) -> float:
    """The resistance of a part with two ends."""
    if kind == "resistor":
        return read_si(component.value, "Ω") or 1e7
    if kind == "inductor":
        return part.values.get("resistance_ohm", 0.06) if part else 0.06
    return FUSE_OHM


def add_track(
    found: Elements, component: Component, named: dict[str, list[str]], part: Part | None, at: At
) -> None:
    """Resistive tracks: from the supply over the wiper to ground, in the middle; a trigger rests
    near ground.
    """
    track = part.values.get("track_ohm", 10_000.0) if part else 10_000.0
    supplies, grounds = named.get("supply", []), named.get("ground", [])
    terminals = part.terminals if part else {}
    wipers = [(n, p[0]) for n, p in named.items() if terminals[n].does == "analogue out"]
    for index, (name, wiper) in enumerate(sorted(wipers, reverse=True)):
        if not supplies or not grounds:
            return
        share = 0.95 if name == "pull" else 0.5
        supply, ground = (
            supplies[min(index, len(supplies) - 1)],
            grounds[min(index, len(grounds) - 1)],
        )
        found.join(at(component.ref, supply), at(component.ref, wiper), track * share)
        found.join(at(component.ref, wiper), at(component.ref, ground), track * (1 - share))


def add_chip(found: Elements, desk: Desk, component: Component, at: At) -> None:
    """What takes power between a rail and ground: some resistance while it is off, its pins of one
    net joined inside.
    """
    kind = desk.kind(component)
    rails = {m.rail.net for m in desk.made}
    if kind in PASSIVE or kind in SOURCES:
        return
    power = [pad for pad, net in component.pads.items() if net in rails]
    ground = [pad for pad, net in component.pads.items() if net == GROUND]
    for group in (power, ground):
        by_net: dict[str, list[str]] = {}
        for pad in group:
            by_net.setdefault(component.pads[pad], []).append(pad)
        for pads in by_net.values():
            for one, other in itertools.pairwise(pads):
                found.join(at(component.ref, one), at(component.ref, other), INNER_OHM)
    if power and ground and kind not in OPEN_INSIDE:
        found.join(at(component.ref, power[0]), at(component.ref, ground[0]), CHIP_OHM)


PASSIVE = frozenset(
    {
        "resistor",
        "capacitor",
        "inductor",
        "fuse",
        "diode",
        "light",
        "NPN transistor",
        "P-channel transistor",
        "button",
        "five-way",
        "slide switch",
        "buzzer",
        "resistive stick",
        "slider",
        "slide trigger",
        "encoder",
        "test point",
        "crystal",
        "clock crystal",
        "touch electrode",
        "fiducial",
    }
)
OPEN_INSIDE = frozenset(
    {"header", "socket", "USB-C socket", "USB socket", "barrel jack", "lead pads", "stick port"}
)


def add_regulator(
    found: Elements,
    desk: Desk,
    component: Component,
    named: dict[str, list[str]],
    part: Part | None,
    at: At,
) -> None:
    """A rail made of another one."""
    rail = next(
        (
            m.rail
            for m in desk.made
            if m.rail.net in component.pads.values() and fed_by(desk, m, component)
        ),
        None,
    )
    rail = rail or next((m.rail for m in desk.made if m.rail.fed_by == component.thing), None)
    if rail is None or part is None or "in" not in named or "ground" not in named:
        return
    ref = component.ref
    out = at(ref, named["out"][0]) if "out" in named else rail.net
    enable = at(ref, named["enable"][0]) if "enable" in named else at(ref, named["in"][0])
    found.regulators.append(
        Regulator(
            source=at(ref, named["in"][0]),
            out=out,
            ground=at(ref, named["ground"][0]),
            enable=enable,
            volts=rail.usual_v,
            least=part.values.get("input_min_v", 0.9),
            most_a=part.values.get("current_ma", 300.0) / 1000,
            efficiency=part.values.get("efficiency", 0.0),
        )
    )


def fed_by(desk: Desk, made: Made, component: Component) -> bool:
    """Whether a rail is what a regulator gives."""
    named = desk.named(component)
    return "out" in named and component.pads[named["out"][0]] == made.rail.net


def add_source(
    found: Elements, desk: Desk, component: Component, named: dict[str, list[str]], at: At
) -> None:
    """The cells, the plug of a cell, or the socket that feeds the device."""
    supply = desk.brief.thing(desk.source).source()
    if supply is None:
        return
    kind = desk.kind(component)
    if kind in PASSIVE or not kind.endswith(FEEDING):
        return
    count = 1
    if kind in SOURCES:
        count = sum(
            c.thing == component.thing and desk.kind(c) in SOURCES for c in desk.circuit.components
        )
    plus, minus = poles(component, named)
    if plus and minus:
        found.batteries.append(
            Battery(
                at(component.ref, plus),
                at(component.ref, minus),
                supply.usual_v / count,
                max(supply.resistance_ohm / count, 0.05),
            )
        )


def poles(component: Component, named: dict[str, list[str]]) -> tuple[str, str]:
    """The pads of plus and minus of a source; nothing where it is none."""
    for plus, minus in (("supply", "ground"), ("plus", "minus"), (way(1), way(2))):
        if plus in named and minus in named:
            return named[plus][0], named[minus][0]
    return "", ""


def add_loads(found: Elements, desk: Desk, at: At, gone: frozenset[str]) -> None:
    """What everything draws while it waits, at the first part of its thing that has its rail and
    ground.
    """
    for thing, rail, volts, ma in desk.loads:
        for component in desk.circuit.components:
            if component.thing != thing or component.ref in gone or desk.kind(component) in PASSIVE:
                continue
            supply = next((p for p, n in component.pads.items() if n == rail), "")
            ground = next((p for p, n in component.pads.items() if n == GROUND), "")
            if supply and ground:
                found.join(at(component.ref, supply), at(component.ref, ground), 1000 * volts / ma)
                break


def add_power_key(found: Elements, desk: Desk, component: Component, at: At) -> None:
    """A key that turns the device on is held down while the volts are read."""
    thing = desk.brief.find(component.thing)
    if thing is None:
        return
    for contact in thing.contacts():
        if contact.duty == "power" and component.role == thing.role(contact.body):
            ends = list(power_ends(contact.ends, desk, component))
            if len(ends) == 2:
                found.join(at(component.ref, ends[0]), at(component.ref, ends[1]), CONTACT_OHM)


def power_ends(ends: tuple[str, str], desk: Desk, component: Component) -> Iterator[str]:
    """The pads of both ends of a contact."""
    named = desk.named(component)
    for end in ends:
        held = [pad for pad in named.get(end, []) if pad in component.pads]
        if held:
            yield held[0]
