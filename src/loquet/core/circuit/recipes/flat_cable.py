"""A flat cable."""

from loquet.core.brief.kinds.flat_cable import FlatCable
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import GROUND_BOTH, line_port
from loquet.core.circuit.model import Fragment


def recipe(thing: FlatCable, bench: Bench) -> Fragment:
    """The lines between two of ground; hold-downs at ground."""
    return line_port(thing, bench, thing.lines, GROUND_BOTH)


RECIPE = (FlatCable, recipe)
