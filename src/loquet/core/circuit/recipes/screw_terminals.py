"""Screw terminals."""

from loquet.core.brief.kinds.screw_terminals import ScrewTerminals
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import GROUND_LAST, line_port
from loquet.core.circuit.model import Fragment


def recipe(thing: ScrewTerminals, bench: Bench) -> Fragment:
    """The lines, and ground last."""
    return line_port(thing, bench, thing.lines, GROUND_LAST)


RECIPE = (ScrewTerminals, recipe)
