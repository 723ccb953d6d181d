"""Parts that lie in the way of a current, and between which of their terminals."""

from loquet.core.circuit.model import Component
from loquet.core.parts import Part
from loquet.core.parts.terminal import ONE, OTHER

ONWARD = {
    "diode": ("anode", "cathode"),
    "P-channel transistor": ("drain", "source"),
    "ideal diode": ("in", "out"),
}
"""Kinds of parts that let current through one way before anything is switched: from, to."""
IN_THE_WAY = {"fuse": (ONE, OTHER), **ONWARD}


def way_through(component: Component, part: Part) -> tuple[str, str] | None:
    """The nets before and behind a landed part; nothing where it lies in no way."""
    ends = [part.terminals[end] for end in IN_THE_WAY.get(part.kind, ()) if end in part.terminals]
    nets = [component.pads.get(end.pads[0], "") for end in ends]
    return (nets[0], nets[1]) if len(nets) == 2 and all(nets) else None
