"""A circuit as it is switched on: its components with their parts, its rails and how they are made,
what everything draws, and what the brains do at their pins.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property

from loquet.core.brief import Brief, Thing
from loquet.core.circuit import Circuit, Component
from loquet.core.energising.elements import Resistance
from loquet.core.parts import Part
from loquet.core.parts.terminal import way
from loquet.core.pins.model import NeedKind
from loquet.core.power.budget import LoadRow, Made

At = Callable[[str, str], str]
"""The node of a lead, by reference and pad."""
SOURCES = ("cell holder", "coin holder", "18650 holder")
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
"""Kinds of parts that take no power between a rail and ground, or only what their tracks take."""


@dataclass(frozen=True)
class Use:
    """What a brain does at a pin, and whether the pin is known to take 5 V."""

    kind: NeedKind
    five_volt: bool | None = None


@dataclass(frozen=True)
class Device:
    """A circuit with its parts by id, its rails, the currents of its loads, and by component and
    pad of the brains what they do there.
    """

    brief: Brief
    circuit: Circuit
    parts: Mapping[str, Part]
    made: tuple[Made, ...]
    loads: tuple[LoadRow, ...]
    uses: Mapping[str, Mapping[str, Use]]

    @cached_property
    def things(self) -> dict[str, Thing]:
        """Things by name."""
        return {thing.name: thing for thing in self.brief.things}

    @cached_property
    def rails(self) -> dict[str, Made]:
        """How each rail is made, by its net."""
        return {row.rail.net: row for row in self.made}

    @cached_property
    def by_ref(self) -> dict[str, Component]:
        """Components by reference."""
        return {c.ref: c for c in self.circuit.components}

    @cached_property
    def sources(self) -> tuple[Thing, ...]:
        """What brings power over the boards, in the order of the brief."""
        fed = {c.thing for c in self.circuit.components}
        return tuple(t for t in self.brief.things if t.name in fed and brings(t))

    @property
    def source(self) -> str:
        """The source that stands for all at the bench: that of the first rail, or the first."""
        first = self.made[0].rail.fed_by if self.made else ""
        own = [t.name for t in self.brief.things if t.source() is not None]
        return first if first in own else (own[0] if own else "")

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


def brings(thing: Thing) -> bool:
    """Whether power comes in through a thing: a source, or a port with 5 V."""
    if thing.READY_MADE or thing.LOWER_FEED:
        return False
    return thing.source() is not None or thing.plug_v() > 0


def poles(named: Mapping[str, list[str]]) -> tuple[str, str]:
    """The pads of plus and minus of a source; nothing where it is none."""
    for plus, minus in (("supply", "ground"), ("plus", "minus"), (way(1), way(2))):
        if plus in named and minus in named:
            return named[plus][0], named[minus][0]
    return "", ""


@dataclass(frozen=True)
class Spot:
    """A component on its place: how its leads are joined, and by how much its value and those of
    `others` are off.
    """

    device: Device
    component: Component
    at: At
    scale: float = 1.0
    others: Mapping[str, float] = field(default_factory=dict)

    @cached_property
    def named(self) -> dict[str, list[str]]:
        """Pads by the terminals that they are."""
        return self.device.named(self.component)

    @property
    def part(self) -> Part | None:
        """Its part in the catalogue."""
        return self.device.parts.get(self.component.part)

    @property
    def ref(self) -> str:
        """Its reference."""
        return self.component.ref

    def figure(self, name: str, otherwise: float) -> float:
        """What its part says, or what is assumed."""
        return self.part.values.get(name, otherwise) if self.part else otherwise

    def node(self, name: str) -> str | None:
        """The node of a terminal; nothing where it is on no net."""
        pads = self.named.get(name)
        return self.at(self.ref, pads[0]) if pads else None

    def two(self, one: str, other: str) -> tuple[str, str] | None:
        """The nodes of two terminals; nothing where one is on no net."""
        a, b = self.node(one), self.node(other)
        return (a, b) if a and b else None

    def three(self, one: str, two: str, three: str) -> tuple[str, str, str] | None:
        """The nodes of three terminals; nothing where one is on no net."""
        a, b, c = self.node(one), self.node(two), self.node(three)
        return (a, b, c) if a and b and c else None

    def leads(self) -> list[str]:
        """The nodes of all its leads, in the order of its pads."""
        return [self.at(self.ref, pad) for pad in self.component.pads]

    def resistance(self, a: str, b: str, ohm: float, when: str = "") -> Resistance:
        """A resistance that belongs to it."""
        return Resistance(a, b, ohm, self.ref, when)
