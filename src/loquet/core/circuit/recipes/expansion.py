"""An expansion connector."""

from loquet.core.brief.kinds.expansion import Expansion
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import SUPPLY_FIRST, line_port
from loquet.core.circuit.model import Fragment


def recipe(thing: Expansion, bench: Bench) -> Fragment:
    """Supply, the lines, ground."""
    return line_port(thing, bench, thing.lines, SUPPLY_FIRST)


RECIPE = (Expansion, recipe)
