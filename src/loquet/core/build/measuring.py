"""Readings: what each test would show with each fault."""

from dataclasses import dataclass, replace
from functools import cached_property
from math import log
from typing import Literal

from loquet.core.build.faults import GOOD, Fault, Lead, Manner, affected, faulty, manner_of
from loquet.core.build.meter import OPEN_OHM, Meter
from loquet.core.circuit.model import GROUND
from loquet.core.energising.answering import Answers, Given
from loquet.core.energising.conditions import METERED, held, switched
from loquet.core.energising.device import SOURCES, Device
from loquet.core.energising.elements import THERMAL_V, Junction, Network
from loquet.core.energising.energised import settled
from loquet.core.energising.states import Level, State, given_of, ways_of
from loquet.core.quantities.shown import read_si

TestSort = Literal["ohm", "volt", "diode", "farad", "look"]
COST: dict[TestSort, float] = {"ohm": 1.0, "volt": 1.2, "diode": 1.2, "farad": 1.2, "look": 1.3}
"""What a test costs against a resistance read with the power off; common practice, no source."""
DEAD_SHARE, HOT_A = 0.9, 0.2


@dataclass(frozen=True)
class Probe:
    """A test: between which leads, or of which lead against ground, or at which part or pair of
    leads one looks with a glass.
    """

    sort: TestSort
    one: Lead
    other: Lead = ("", "")

    @property
    def words(self) -> str:
        """What is to be done."""
        one, other = f"{self.one[0]} pad {self.one[1]}", f"{self.other[0]} pad {self.other[1]}"
        match self.sort:
            case "ohm":
                return f"With the power off, read the resistance between {one} and {other}."
            case "volt":
                return f"With the power on, read the volts at {one} against ground."
            case "diode":
                return f"With the power off, read the diode test from {one} to {other}."
            case "farad":
                return f"With the power off, read the capacitance between {one} and {other}."
            case "look" if self.other[0]:
                return f"Look with a glass between {one} and {other}."
            case "look":
                return f"Look with a glass at {self.one[0]} and its joints."


@dataclass(frozen=True)
class Symptom:
    """What a person sees first: that nothing works, that it draws far too much, what does not work,
    and in which manner.
    """

    dead: bool = False
    hot: bool = False
    broken: frozenset[str] = frozenset()
    manner: Manner = ""


class Faulty:
    """A device with one fault: its nodes, resistances and volts, worked out when they are asked
    for.
    """

    def __init__(self, desk: Device, fault: Fault) -> None:
        self.desk, self.fault = desk, fault
        self.read: dict[Probe, float] = {}

    @cached_property
    def nets(self) -> dict[Lead, str]:
        """The node of every lead."""
        opened = set(self.fault.leads) if self.fault.sort == "open" else set()
        return {
            (c.ref, pad): f"{c.ref}.{pad}" if (c.ref, pad) in opened else net
            for c in self.desk.circuit.components
            for pad, net in c.pads.items()
        }

    @cached_property
    def network(self) -> Network:
        """What it is with its fault."""
        return faulty(self.desk, self.fault)

    @cached_property
    def off(self) -> Meter:
        """It with the power off, its switch on."""
        slid = (switched(t.name, True) for t in self.desk.brief.things if t.SWITCHES)
        return Meter(self.network, frozenset({METERED, *slid}))

    @cached_property
    def ohms(self):  # type: ignore[no-untyped-def] # a matrix of floats
        """Resistances between all nodes."""
        return self.off.between()

    @cached_property
    def answer(self) -> Answers:
        """It on power, fed by its first source, its brains not yet running."""
        return settled(self.desk, self.network, [at_the_bench(self.desk, self.fault)])

    @cached_property
    def volts(self) -> dict[str, float]:
        """Volts of every node on power; none where no answer keeps its own sums."""
        if not self.answer.sound[0]:
            return {}
        return {node: float(self.answer.volts[0, row]) for node, row in self.answer.made.at.items()}

    def ohm(self, one: Lead, other: Lead) -> float:
        """What a meter reads between two leads; `OPEN_OHM` at the most."""
        a, b = self.nets[one], self.nets[other]
        if self.fault.sort == "missing" and self.fault.ref in (one[0], other[0]):
            return OPEN_OHM
        if a == b:
            return 0.0
        at = self.off.at
        if a not in at or b not in at:
            return OPEN_OHM
        return float(min(self.ohms[at[a], at[b]], OPEN_OHM))

    def volt(self, lead: Lead) -> float:
        """Volts of a lead against ground."""
        return self.volts.get(self.nets[lead], 0.0) - self.volts.get(GROUND, 0.0)

    def diode(self, one: Lead, other: Lead) -> float:
        """What the diode test shows from one lead to another: volts, or 2 where nothing
        conducts.
        """
        ohm = self.ohm(one, other)
        if ohm < 500:
            return round(ohm / 1000, 3)
        a, b = self.nets[one], self.nets[other]
        found = [round(forward_v(d), 3) for d in self.network.junctions if (d.a, d.b) == (a, b)]
        return min(found, default=2.0)

    def farad(self, one: Lead, other: Lead) -> float:
        """The capacitance between two leads in F, of all capacitors that lie between their nets."""
        ends = {self.nets[one], self.nets[other]}
        scale = {self.fault.ref: self.fault.factor} if self.fault.sort == "value" else {}
        whole = 0.0
        for component in self.desk.circuit.components:
            if self.desk.kind(component) != "capacitor":
                continue
            if self.fault.sort == "missing" and self.fault.ref == component.ref:
                continue
            pads = {self.nets[component.ref, pad] for pad in component.pads}
            if pads == ends:
                value = read_si(component.value, "F") or 0.0
                whole += value * scale.get(component.ref, 1.0)
        return whole

    def seen(self, probe: Probe) -> int:
        """What a glass shows there: 0 nothing, 1 the fault, or which of the joints it is, counted
        from 2.
        """
        fault = self.fault
        if fault.sort in ("none", "flat", "stuck", "drift"):
            return 0
        if probe.other[0]:
            ends = {self.nets[probe.one], self.nets[probe.other]}
            return int(fault.sort == "bridge" and set(fault.nets) == ends)
        if fault.sort == "bridge" or fault.ref != probe.one[0]:
            return 0
        if fault.sort != "open":
            return 1
        component = next(c for c in self.desk.circuit.components if c.ref == fault.ref)
        return 2 + list(component.pads).index(fault.leads[0][1])

    def reading(self, probe: Probe) -> float:
        """What a test shows, as a number; kept."""
        if probe not in self.read:
            self.read[probe] = self.measured(probe)
        return self.read[probe]

    def measured(self, probe: Probe) -> float:
        """What a test shows, worked out."""
        match probe.sort:
            case "ohm":
                return self.ohm(probe.one, probe.other)
            case "volt":
                return self.volt(probe.one)
            case "diode":
                return self.diode(probe.one, probe.other)
            case "farad":
                return self.farad(probe.one, probe.other)
            case "look":
                return float(self.seen(probe))

    def current_a(self) -> float:
        """What is drawn from the source."""
        if not self.answer.sound[0]:
            return 0.0
        flows = self.answer.currents["sources"][0, :, 0]
        return float(max(-flows, default=0.0))

    def rail(self) -> tuple[float, float]:
        """Volts of the first brain's rail, and what it should have."""
        made = self.desk.made
        if not made:
            return 0.0, 0.0
        chip = next((c for c in self.desk.circuit.components if c.is_chip), None)
        nets = set(chip.pads.values()) if chip else set()
        rail = next((m.rail for m in made if m.rail.net in nets), made[0].rail)
        return self.volts.get(rail.net, 0.0) - self.volts.get(GROUND, 0.0), rail.usual_v

    def symptom(self) -> Symptom:
        """What is seen first."""
        got, wanted = self.rail()
        dead = got < DEAD_SHARE * wanted * 0.9
        hot = self.current_a() > HOT_A + usual_current(self.desk)
        broken = frozenset() if dead else affected(self.desk, self.fault)
        return Symptom(dead, hot, broken, manner_of(self.desk, self.fault) if broken else "")


def usual_current(desk: Device) -> float:
    """What everything draws while it waits, in A."""
    return sum(load.currents.idle for load in desk.loads) / 1000


METER_A = 1e-3
"""What a diode test sends; common practice."""


def forward_v(junction: Junction) -> float:
    """What the diode test shows of a junction, in V."""
    return junction.ideality * THERMAL_V * log(METER_A / junction.saturation_a + 1)


def at_the_bench(desk: Device, fault: Fault) -> Given:
    """The first source at its usual volts, a flat one at none, hosts on their own plugs there, the
    key that turns it on held, its brains not yet running.
    """
    ways = ways_of(desk)
    own = {thing.name for thing in desk.sources}
    fed = [way.name for way in ways if way.name == desk.source or way.name not in own]
    there: list[tuple[str, Level]] = [(name, "usual") for name in fed if fault.ref != name]
    given = given_of(desk, ways, State(tuple(there), "reset", "idle"))
    keys = {
        held(thing.role(contact.body), contact.ends)
        for thing in desk.brief.things
        for contact in thing.contacts()
        if contact.duty == "power"
    }
    return replace(given, on=given.on | keys)


def probes_of(desk: Device, faults: list[Fault]) -> list[Probe]:
    """The tests that can be made: along every net, across every part, between nets that may be
    bridged, volts of every net, and looks.
    """
    hubs: dict[str, Lead] = {}
    found: dict[Probe, None] = {}
    good = Faulty(desk, GOOD)
    for lead in sorted(good.nets, key=lambda lead: rank(desk, lead)):
        net = good.nets[lead]
        hub = hubs.setdefault(net, lead)
        found[Probe("ohm", hub, lead) if hub != lead else Probe("volt", lead)] = None
    grounds = [hubs[GROUND]] if GROUND in hubs else []
    grounds += [hubs[m.rail.net] for m in desk.made if m.rail.net in hubs]
    for net, hub in sorted(hubs.items()):
        for ground in grounds:
            if good.nets[ground] != net:
                found[Probe("ohm", hub, ground)] = None
    for component in desk.circuit.components:
        if component.bare:
            continue
        pads, named = list(component.pads), desk.named(component)
        found[Probe("look", (component.ref, pads[0] if pads else ""))] = None
        if "anode" in named and "cathode" in named:
            found[
                Probe(
                    "diode",
                    (component.ref, named["anode"][0]),
                    (component.ref, named["cathode"][0]),
                )
            ] = None
        if desk.kind(component) == "capacitor" and len(pads) == 2:
            found[Probe("farad", hubs[component.pads[pads[0]]], hubs[component.pads[pads[1]]])] = (
                None
            )
        elif len(pads) == 2:
            found[Probe("ohm", (component.ref, pads[0]), (component.ref, pads[1]))] = None
        if desk.kind(component) in SOURCES and len(pads) >= 2:
            found[Probe("volt", (component.ref, pads[0]))] = None
    for fault in faults:
        if fault.sort == "bridge":
            a, b = (hubs[net] for net in fault.nets)
            found[Probe("ohm", a, b)] = None
            found[Probe("look", *fault.leads)] = None
    return list(found)


def rank(desk: Device, lead: Lead) -> tuple[int, str, str]:
    """Leads that are easy to touch first: test points, then parts with few leads, then chips."""
    component = next(c for c in desk.circuit.components if c.ref == lead[0])
    easy = 0 if desk.kind(component) == "test point" else 1 + len(component.pads)
    return easy, lead[0], lead[1]
