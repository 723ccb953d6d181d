"""The elements of which a switched-on device is made: what conducts between its nodes, and by which
law.

Volts, amperes and ohm throughout; a current counts from the first node to the second.
`when` names what must be so for an element to be there at all: a key held, a driver on. Nothing
means always.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from math import exp

THERMAL_V = 0.025852
"""kT/q at 300 K (handbook value: k = 1.380649e-23 J/K, q = 1.602177e-19 C)."""


@dataclass(frozen=True)
class Resistance:
    """Ohm's law between two nodes."""

    a: str
    b: str
    ohm: float
    ref: str = ""
    when: str = ""


@dataclass(frozen=True)
class Junction:
    """A diode from a to b after Shockley: I = Is (exp(V / (n kT/q)) - 1)."""

    a: str
    b: str
    saturation_a: float
    ideality: float = 1.0
    ref: str = ""
    when: str = ""


@dataclass(frozen=True)
class Channel:
    """The channel of a MOS transistor by its square law (Shichman and Hodges, 1968): `sign` is -1
    for P; beyond its threshold `k` (A/V²) says how well it conducts. Its body diode is a junction
    beside it.
    """

    gate: str
    drain: str
    source: str
    sign: int
    threshold_v: float
    k: float
    ref: str = ""
    when: str = ""


@dataclass(frozen=True)
class Bipolar:
    """An NPN transistor after Ebers and Moll, with its gain forwards and backwards."""

    base: str
    collector: str
    emitter: str
    saturation_a: float
    gain: float
    reverse_gain: float = 1.0
    ref: str = ""
    when: str = ""


@dataclass(frozen=True)
class Source:
    """So many volts from minus to plus behind so many ohm, and no more than so many amperes;
    `name` is that under which a state says what share of its volts it has.
    """

    plus: str
    minus: str
    volts: float
    ohm: float
    most_a: float = 1e3
    ref: str = ""
    when: str = ""
    name: str = ""


@dataclass(frozen=True)
class Draw:
    """A load: so many amperes at its usual volts and above, less where it gets fewer than it needs
    to work: I = I0 u / sqrt(u² + 0.09) x 1.044 with u = V / Vusual. `name` is that under which a
    state says how much it draws.
    """

    a: str
    b: str
    amperes: float
    usual_v: float
    ref: str = ""
    when: str = ""
    name: str = ""


@dataclass(frozen=True)
class Converter:
    """What makes `volts` at `out` of what stands at `source`, up to so many amperes, while `enable`
    is up and `source` has at least so many volts.

    It drops out over `drop_ohm` where it cannot make more than it gets (`steps_up` says that it
    can). With an efficiency it draws the power that it gives by it, a linear one (0) the current;
    `quiet_a` is its own. A charger is one whose `out` is the cell.
    """

    source: str
    out: str
    ground: str
    enable: str
    volts: float
    least_v: float
    most_a: float
    efficiency: float = 0.0
    drop_ohm: float = 0.1
    steps_up: bool = False
    quiet_a: float = 0.0
    ref: str = ""
    when: str = ""


Element = Resistance | Junction | Channel | Bipolar | Source | Draw | Converter


@dataclass
class Network:
    """Everything that conducts; `ground` is the node that volts count from."""

    ground: str
    resistances: list[Resistance] = field(default_factory=list)
    junctions: list[Junction] = field(default_factory=list)
    channels: list[Channel] = field(default_factory=list)
    bipolars: list[Bipolar] = field(default_factory=list)
    sources: list[Source] = field(default_factory=list)
    draws: list[Draw] = field(default_factory=list)
    converters: list[Converter] = field(default_factory=list)

    def elements(self) -> Iterator[Element]:
        """All of them, kind by kind."""
        yield from self.resistances
        yield from self.junctions
        yield from self.channels
        yield from self.bipolars
        yield from self.sources
        yield from self.draws
        yield from self.converters

    def add(self, *elements: Element) -> None:
        """Put elements in; one from a node to itself carries nothing and is left out."""
        for element in elements:
            match element:
                case Resistance(a, b) if a != b:
                    self.resistances.append(element)
                case Junction(a, b) if a != b:
                    self.junctions.append(element)
                case Channel():
                    self.channels.append(element)
                case Bipolar():
                    self.bipolars.append(element)
                case Source(plus, minus) if plus != minus:
                    self.sources.append(element)
                case Draw(a, b) if a != b:
                    self.draws.append(element)
                case Converter():
                    self.converters.append(element)
                case _:
                    pass


def nodes_of(element: Element) -> tuple[str, ...]:
    """The nodes of an element, in the order in which its currents are given."""
    match element:
        case Resistance(a, b) | Junction(a, b) | Draw(a, b):
            return a, b
        case Channel(gate, drain, source):
            return gate, drain, source
        case Bipolar(base, collector, emitter):
            return base, collector, emitter
        case Source(plus, minus):
            return plus, minus
        case Converter(source, out, ground, enable):
            return source, out, ground, enable


def junction_of(volts: float, amperes: float, ideality: float = 1.0) -> float:
    """The saturation current in A of a diode that has so many volts at so many amperes."""
    return amperes / (exp(volts / (ideality * THERMAL_V)) - 1)
