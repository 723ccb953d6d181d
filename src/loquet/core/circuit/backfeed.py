"""Where current can flow from one source into another: through diodes, body diodes, transistors
that are on, converters turned round, fuses and switches.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from loquet.core.circuit.model import GROUND, Component
from loquet.core.parts import Part

BOTH_WAYS = frozenset({"fuse", "inductor", "slide switch"})
TURNED_ROUND = frozenset({"linear regulator", "buck converter"})
ONE_WAY = frozenset({"boost converter", "buck-boost converter", "ideal diode"})


@dataclass(frozen=True)
class Edge:
    """Current can flow from one net to another through a part; `gate` is the net whose power turns
    a transistor off.
    """

    start: str
    end: str
    ref: str
    gate: str = ""


@dataclass(frozen=True)
class Origin:
    """Where a source comes on to the board: the thing, and the net of its plus."""

    thing: str
    net: str


@dataclass(frozen=True)
class Back:
    """A way from one source into another: the parts on it, in order."""

    start: Origin
    end: Origin
    through: tuple[str, ...]


def edges_of(component: Component, part: Part) -> list[Edge]:
    """How current can flow through a part; a charger lets none out of its cell and is a wanted way
    in, so it has none here.
    """
    on = {
        name: component.pads[pad] for pad, name in part.pin_names.items() if pad in component.pads
    }
    ref = component.ref
    if part.kind == "diode" and {"anode", "cathode"} <= on.keys():
        return [Edge(on["anode"], on["cathode"], ref)]
    if {"gate", "source", "drain"} <= on.keys():
        gate = "" if on["gate"] == GROUND else on["gate"]
        channel = [Edge(on["source"], on["drain"], ref, gate or "never")]
        return [Edge(on["drain"], on["source"], ref), *channel]
    if part.kind in BOTH_WAYS:
        nets = list(dict.fromkeys(component.pads.values()))
        return [Edge(a, b, ref) for a in nets for b in nets if a != b]
    if part.kind in TURNED_ROUND | ONE_WAY and {"in", "out"} <= on.keys():
        found = [Edge(on["in"], on["out"], ref)]
        return [*found, Edge(on["out"], on["in"], ref)] if part.kind in TURNED_ROUND else found
    if part.kind == "guard array" and "supply" in on:
        return [Edge(on[n], on["supply"], ref) for n in ("line 1", "line 2") if n in on]
    return []


def origins_of(components: Iterable[Component], parts: Mapping[str, Part]) -> list[Origin]:
    """Where sources come in: plus of each cell, pack and plug (the top one of a row), and sockets
    that bring power.
    """
    plus: dict[str, str] = {}
    minus: set[str] = set()
    for component in components:
        part = parts.get(component.part)
        ends = [part.pad(pole) for pole in part.poles] if component.polar and part else []
        if ends and set(ends) <= component.pads.keys():
            plus[component.pads[ends[0]]] = component.thing
            minus.add(component.pads[ends[1]])
        elif part is not None and "gives_v" in part.values:
            pads = (pad for pad, name in part.pin_names.items() if name == "supply")
            pad = next((pad for pad in pads if pad in component.pads), None)
            if pad is not None:
                plus[component.pads[pad]] = component.thing
    return [Origin(thing, net) for net, thing in plus.items() if net not in minus]


def reached_from(start: str, edges: list[Edge]) -> dict[str, tuple[str, ...]]:
    """Every net that a source alone brings power to, with the parts on the way.

    A transistor whose gate's net has power is off; since more power only turns more of them off,
    nets are found anew until the set of powered gates stays the same.
    """
    off: set[str] = set()
    while True:
        ways = walk(start, [e for e in edges if e.gate not in off])
        now = {e.gate for e in edges if e.gate in ways}
        if now <= off:
            return ways
        off |= now


def walk(start: str, edges: list[Edge]) -> dict[str, tuple[str, ...]]:
    """Nets that can be reached, each with the shortest row of parts; never through ground."""
    onward: dict[str, list[Edge]] = {}
    for edge in edges:
        onward.setdefault(edge.start, []).append(edge)
    ways: dict[str, tuple[str, ...]] = {start: ()}
    waiting = [start]
    while waiting:
        here = waiting.pop(0)
        for edge in onward.get(here, ()):
            if edge.end not in ways and edge.end != GROUND:
                ways[edge.end] = (*ways[here], edge.ref)
                waiting.append(edge.end)
    return ways


def back_feeds(components: tuple[Component, ...], parts: Mapping[str, Part]) -> list[Back]:
    """Every way from one source into another."""
    edges = [
        edge
        for component in components
        if component.part in parts
        for edge in edges_of(component, parts[component.part])
    ]
    origins = origins_of(components, parts)
    found = []
    for start in origins:
        ways = reached_from(start.net, edges)
        found += [
            Back(start, end, ways[end.net])
            for end in origins
            if end.net in ways and end.thing != start.thing
        ]
    return found
