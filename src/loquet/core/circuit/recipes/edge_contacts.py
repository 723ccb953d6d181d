"""Contacts at the board's edge."""

from loquet.core.brief.kinds.edge_contacts import EdgeContacts
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import SUPPLY_FIRST, line_port
from loquet.core.circuit.model import Fragment


def recipe(thing: EdgeContacts, bench: Bench) -> Fragment:
    """Supply, the lines, ground."""
    return line_port(thing, bench, thing.lines, SUPPLY_FIRST)


RECIPE = (EdgeContacts, recipe)
