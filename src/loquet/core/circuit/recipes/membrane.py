"""The socket of a membrane."""

from loquet.core.brief.kinds.membrane import Membrane
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import BARE, line_port
from loquet.core.circuit.model import Fragment


def recipe(thing: Membrane, bench: Bench) -> Fragment:
    """The lines as they come."""
    return line_port(thing, bench, thing.lines, BARE)


RECIPE = (Membrane, recipe)
