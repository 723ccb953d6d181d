"""What contacts at the edge ask."""

from loquet.core.brief.kinds.edge_contacts import EdgeContacts
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: EdgeContacts, ask: Asking) -> list[Need]:
    """Plain lines."""
    return ask.lines(thing.lines)


NEEDS = (EdgeContacts, needs)
