"""What a flat cable asks."""

from loquet.core.brief.kinds.flat_cable import FlatCable
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: FlatCable, ask: Asking) -> list[Need]:
    """Plain lines."""
    return ask.lines(thing.lines)


NEEDS = (FlatCable, needs)
