"""What a lithium cell asks."""

from loquet.core.brief.kinds.lithium_cell import LithiumCell
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: LithiumCell, ask: Asking) -> list[Need]:
    """A channel that measures it."""
    if not thing.sense:
        return []
    return [ask.need("sense", "analogue", "cell voltage").but(target=None)]


NEEDS = (LithiumCell, needs)
