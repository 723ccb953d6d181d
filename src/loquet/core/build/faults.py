"""Everything that can be wrong with a board as it is built: each fault, how likely it is, and the
network that it makes.
"""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass
from math import exp
from typing import Literal

import numpy as np

from loquet.core.board.copper import BoardView
from loquet.core.circuit import Component
from loquet.core.circuit.model import GROUND
from loquet.core.energising.device import PASSIVE, SOURCES, Device
from loquet.core.energising.elements import Network, Resistance
from loquet.core.energising.network import network_of
from loquet.core.geometry import gap_between, polygon_of
from loquet.core.geometry.neighbours import near_pairs

Sort = Literal["none", "bridge", "open", "missing", "value", "swapped", "flat", "stuck", "drift"]
BRIDGE_OHM = 0.2
BRIDGE_REACH_MM = 0.6
"""Solder bridges farther than this are not looked for; common practice, no source."""
Lead = tuple[str, str]
WORDS = {
    "bridge": "solder bridge",
    "open": "joint without contact",
    "missing": "part missing",
    "value": "wrong value",
    "swapped": "pins the wrong way round",
    "flat": "dead cell",
    "stuck": "key that stays closed",
    "drift": "stick off its centre",
}


@dataclass(frozen=True)
class Fault:
    """Something wrong: of which sort, at which leads or part, how likely against others; `factor`
    scales a value; `ends` counts the leads of its part. `cause` is what it is called when nothing
    tells it from others of the same effect.
    """

    sort: Sort
    ref: str = ""
    leads: tuple[Lead, ...] = ()
    nets: tuple[str, ...] = ()
    factor: float = 1.0
    weight: float = 1.0
    words: str = ""
    ends: int = 0

    @property
    def cause(self) -> str:
        """The name of the cause: for a bridge its two nets, for a part with two ends the part."""
        if self.sort == "bridge":
            return f"bridge {' and '.join(sorted(self.nets))}"
        if self.sort in ("open", "missing") and self.ends <= 2:
            return f"{self.ref} without contact or missing"
        if self.sort == "open":
            return f"no contact at {self.ref} pad {self.leads[0][1]}"
        return f"{WORDS.get(self.sort, self.sort)} {self.ref}".strip()


GOOD = Fault("none")


def possible_faults(desk: Device, views: tuple[BoardView, ...]) -> list[Fault]:
    """Every single fault of a device with how likely it is against the others; weights are common
    practice, no source: bridges by how near pads lie, joints by how fine they are, hand work before
    machines.
    """
    found: list[Fault] = []
    for view in views:
        found += bridges(desk, view)
    for component in desk.circuit.components:
        kind = desk.kind(component)
        if component.bare or kind in ("test point", "fiducial"):
            continue
        words = f"{component.ref} ({component.purpose})"
        fine = 2.0 if len(component.pads) > 8 else 1.0
        hand = 1.5 if kind in SOURCES or kind == "header" else 1.0
        for pad in component.pads:
            found.append(
                Fault(
                    "open",
                    component.ref,
                    ((component.ref, pad),),
                    (component.pads[pad],),
                    weight=fine * hand,
                    ends=len(component.pads),
                    words=f"{words} pad {pad} has no contact",
                )
            )
        if len(component.pads) > 1:
            found.append(
                Fault(
                    "missing",
                    component.ref,
                    weight=0.4,
                    ends=len(component.pads),
                    words=f"{words} is missing",
                )
            )
        if kind == "resistor":
            for factor in (0.1, 10.0):
                found.append(
                    Fault(
                        "value",
                        component.ref,
                        factor=factor,
                        weight=0.6,
                        words=(
                            f"{words} has {'a tenth' if factor < 1 else 'ten times'} of its value"
                        ),
                    )
                )
        if kind in ("diode", "light") or "stick" in kind:
            found.append(
                Fault("swapped", component.ref, weight=0.8, words=f"{words} is the wrong way round")
            )
        if kind in ("button", "five-way"):
            found.append(Fault("stuck", component.ref, weight=0.5, words=f"{words} stays closed"))
        if "stick" in kind:
            found.append(
                Fault("drift", component.ref, weight=0.8, words=f"{words} is off its centre")
            )
    if desk.source:
        found.append(Fault("flat", desk.source, weight=1.5, words=f"{desk.source} gives nothing"))
    return found


def bridges(desk: Device, view: BoardView) -> Iterator[Fault]:
    """Pads of different nets that lie near each other on one side, the nearest first."""
    bare = {c.ref for c in desk.circuit.components if c.bare}
    pads = [p for p in view.pads if p.net and p.ref not in bare and not p.covered]
    seen: dict[tuple[str, str], Fault] = {}
    shapes = np.array([polygon_of(p.shape) for p in pads], dtype=object)
    for one, other in zip(*near_pairs(shapes, BRIDGE_REACH_MM * 1e6 / 2), strict=True):
        a, b = pads[one], pads[other]
        if a.net == b.net or not set(a.sides) & set(b.sides):
            continue
        apart = gap_between(a.shape, b.shape) / 1e6
        weight = 2.0 * exp(-apart / 0.15)
        key = (min(a.net, b.net), max(a.net, b.net))
        if key not in seen or seen[key].weight < weight:
            leads = ((a.ref, a.pad), (b.ref, b.pad))
            words = (
                f"solder between {a.ref} pad {a.pad} ({a.net}) and {b.ref} pad {b.pad} ({b.net}),"
                f" {apart:.2f} mm apart"
            )
            seen[key] = Fault("bridge", leads=leads, nets=key, weight=weight, words=words)
    yield from sorted(seen.values(), key=lambda f: (-f.weight, f.nets))


def faulty(desk: Device, fault: Fault) -> Network:
    """The network of a device with a fault."""
    nets = {c.ref: c.pads for c in desk.circuit.components}
    opened = set(fault.leads) if fault.sort == "open" else set()
    turned = turned_pads(desk, fault) if fault.sort == "swapped" else {}

    def at(ref: str, pad: str) -> str:
        pad = turned.get((ref, pad), pad)
        return f"{ref}.{pad}" if (ref, pad) in opened else nets[ref][pad]

    extra: tuple[Resistance, ...] = ()
    if fault.sort == "bridge":
        extra = (Resistance(fault.nets[0], fault.nets[1], BRIDGE_OHM),)
    if fault.sort == "stuck":
        ends = sorted(set(nets[fault.ref].values()))
        extra = tuple(Resistance(a, b, 0.05) for a, b in itertools.pairwise(ends))[:1]
    if fault.sort == "drift":
        extra = drifted(desk, fault)
    return network_of(
        desk,
        at,
        gone=frozenset({fault.ref}) if fault.sort == "missing" else frozenset(),
        scaled={fault.ref: fault.factor} if fault.sort == "value" else None,
        extra=extra,
    )


def turned_pads(desk: Device, fault: Fault) -> dict[Lead, str]:
    """What a part that was put in the wrong way round has on which pad: its first two pins, or
    supply and ground, exchanged.
    """
    component = next(c for c in desk.circuit.components if c.ref == fault.ref)
    named = desk.named(component)
    pairs = [("anode", "cathode"), ("supply", "ground")]
    found: dict[Lead, str] = {}
    for one, other in pairs:
        for a, b in zip(named.get(one, []), named.get(other, []), strict=False):
            found[fault.ref, a], found[fault.ref, b] = b, a
    return found


def drifted(desk: Device, fault: Fault) -> tuple[Resistance, ...]:
    """A wiper that sits off its middle: as if a part of the track were bridged."""
    component = next(c for c in desk.circuit.components if c.ref == fault.ref)
    named = desk.named(component)
    if "x" not in named or "supply" not in named:
        return ()
    return (Resistance(component.pads[named["x"][0]], component.pads[named["supply"][0]], 9_000.0),)


KEYED = ("button",)
"""Parts that are a key each; a cross of several keys is one function."""
UNSTEADY = "unsteady"
"""What is seen where a capacitor is missing: it works, and resets or hums at times."""


def function_of(desk: Device, component: Component) -> str:
    """What stops working with a part: a key by its role, else its thing; capacitors make it
    unsteady.
    """
    kind = desk.kind(component)
    if kind == "capacitor":
        return UNSTEADY
    return component.role if kind in KEYED else component.thing


def affected(desk: Device, fault: Fault) -> frozenset[str]:
    """What no longer does what it should: the function of the part, or of all parts whose leads
    hang on a net that is bridged or has lost its contact.
    """
    if fault.sort in ("none", "flat"):
        return frozenset()
    components = {c.ref: c for c in desk.circuit.components}
    rails = {m.rail.net for m in desk.made} | {GROUND}

    def on(nets: set[str]) -> frozenset[str]:
        found = {
            function_of(desk, c)
            for c in components.values()
            if nets & set(c.pads.values()) and not c.is_chip
        }
        return frozenset(found - {"", UNSTEADY})

    if fault.sort == "bridge":
        return on(set(fault.nets) - rails)
    own = components[fault.ref]
    if fault.sort == "open" and desk.kind(own) not in PASSIVE and fault.nets[0] not in rails:
        return on({fault.nets[0]})
    return frozenset({function_of(desk, own)} - {""})


Manner = Literal["", "dead", "always", "together", "off"]


def manner_of(desk: Device, fault: Fault) -> Manner:
    """How what is broken behaves: dead, always on, together with something else, or off its
    place.
    """
    if fault.sort == "drift" or fault.sort == "value":
        return "off"
    if fault.sort == "stuck":
        return "always"
    if fault.sort != "bridge":
        return "dead"
    rails = {m.rail.net for m in desk.made} | {GROUND}
    return "always" if set(fault.nets) & rails else "together"
