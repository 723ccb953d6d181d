"""What a port sees of the capacitors of a device in the moment it is plugged in."""

from collections.abc import Iterator, Mapping

from loquet.core.circuit.in_the_way import ONWARD, way_through
from loquet.core.circuit.model import GROUND, Circuit, Component
from loquet.core.parts import Part
from loquet.core.quantities.shown import read_si

STRAIGHT = ("fuse", "inductor", "slide switch")
LOW_OHM = 10.0
"""A resistor below this slows nothing; common practice, no source."""


def seen_by_port(circuit: Circuit, parts: Mapping[str, Part], plug: str) -> tuple[Component, ...]:
    """The capacitors that fill from a net at once, in their order: over fuses, coils, closed
    switches and diodes, up to the next converter.
    """
    reached, ways = {plug}, list(ways_of(circuit, parts))
    grown = True
    while grown:
        more = {b for a, b in ways if a in reached} - reached
        reached |= more
        grown = bool(more)
    reached.discard(GROUND)
    return tuple(
        c
        for c in circuit.components
        if kind(c, parts) == "capacitor"
        and GROUND in c.pads.values()
        and set(c.pads.values()) & reached
    )


def ways_of(circuit: Circuit, parts: Mapping[str, Part]) -> Iterator[tuple[str, str]]:
    """Nets from which a step of volts gets to which."""
    for component in circuit.components:
        what = kind(component, parts)
        ohm = read_si(component.value, "Ω") if what == "resistor" else None
        low = ohm is not None and ohm < LOW_OHM
        nets = list(dict.fromkeys(component.pads.values()))
        if what in STRAIGHT or low:
            yield from ((a, b) for a in nets for b in nets if a != b)
        elif what in ONWARD:
            ends = way_through(component, parts[component.part])
            if ends is not None:
                yield ends


def kind(component: Component, parts: Mapping[str, Part]) -> str:
    """The kind of its part; nothing for one that is on no shelf."""
    part = parts.get(component.part)
    return part.kind if part is not None else ""


def farads(component: Component) -> float:
    """What its value says, in F."""
    return read_si(component.value, "F") or 0.0
