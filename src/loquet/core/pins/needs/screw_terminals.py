"""What screw terminals ask."""

from loquet.core.brief.kinds.screw_terminals import ScrewTerminals
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: ScrewTerminals, ask: Asking) -> list[Need]:
    """Plain lines."""
    return ask.lines(thing.lines)


NEEDS = (ScrewTerminals, needs)
