"""Dividers: two resistors from a supply to ground."""

from collections.abc import Iterable

from loquet.core.circuit.model import GROUND
from loquet.core.circuit.nodal.known import Axis, Curve, Known, on, other_end, to_ground
from loquet.core.circuit.nodal.solving import Element, at_rest


def dividers(known: Known) -> Iterable[Curve]:
    """Two resistors from a rail or a port to ground: the volts between them over those above."""
    resistors = known.of_kind("resistor")
    for low, below in resistors:
        if not to_ground(below):
            continue
        net = other_end(below, GROUND)
        tops = [row for row in on(resistors, net) if row[0] is not low]
        if net in known.supply or len(tops) != 1:
            continue
        top, above = tops[0]
        source = other_end(above, net)
        if source not in known.supply:
            continue
        most = known.most_v(source)
        volts = [most * i / 10 for i in range(11)]
        given = [[*known.elements, Element("source", source, GROUND, v)] for v in volts]
        points = [(v, at_rest(each)[net]) for v, each in zip(volts, given, strict=True)]
        yield Curve(
            id=f"divider {net}",
            block=low.block,
            board=low.board,
            title=f"Divider at {net}",
            parts=(top.ref, low.ref),
            across=Axis(title=source, unit="V"),
            up=Axis(title=net, unit="V"),
            points=tuple(points),
            mark=points[-1],
            says=f"{points[-1][1]:.3f} V at {net} when {source} is {most:.2f} V.",
            assumes="pins take no current; volts at rest",
            working=top.working or low.working,
        )
