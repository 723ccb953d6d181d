"""Resistor ladders: the volts of a line with each of its keys held."""

import re
from collections.abc import Iterable
from itertools import pairwise

from loquet.core.circuit.model import GROUND
from loquet.core.circuit.nodal.known import Axis, Curve, Known
from loquet.core.circuit.nodal.reading import element_of, pressed
from loquet.core.circuit.nodal.solving import Element, at_rest

TOP = re.compile(r".*key ladder \d+ pull-up")
KEYS = ("button", "five-way")


def ladders(known: Known) -> Iterable[Curve]:
    """A resistor ladder: the volts of its line with each key held, from the netlist."""
    components, parts, rail = known.circuit.components, known.parts, known.rail_v
    tops = [c for c in components if TOP.fullmatch(c.role)]
    switches = [c for c in components if c.part in parts and parts[c.part].kind in KEYS]
    for top in tops:
        line = next((net for net in top.pads.values() if net not in known.supply), None)
        if line is None or element_of(top, parts) is None:
            continue
        supplies = known.supply & set(top.pads.values())
        power = [Element("source", net, GROUND, rail) for net in supplies]
        idle = at_rest([*known.elements, *power])[line]
        held = [(c, at_rest([*known.elements, *power, *pressed(c)])[line]) for c in switches]
        held = sorted((row for row in held if row[1] < idle - 1e-3), key=lambda row: row[1])
        if len(held) < 2:
            continue
        volts = [v for _, v in held] + [idle]
        gap, place = min((b - a, i) for i, (a, b) in enumerate(pairwise(volts)))
        yield Curve(
            id=f"ladder {line}",
            block=top.block,
            board=top.board,
            title=f"Steps of the ladder at {line}",
            parts=(top.ref, *(c.ref for c, _ in held)),
            across=Axis(title="key, from the lowest", unit=""),
            up=Axis(title=line, unit="V"),
            points=tuple((float(i + 1), v) for i, v in enumerate(volts)),
            mark=(float(place + 1), volts[place]),
            says=f"Closest steps {gap * 1e3:.0f} mV apart, at {held[place][0].ref}.",
            assumes=f"rail at {rail:.2f} V, resistors at their values, one key at a time",
        )
