"""What an expansion connector asks."""

from loquet.core.brief.kinds.expansion import Expansion
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: Expansion, ask: Asking) -> list[Need]:
    """Plain lines."""
    return ask.lines(thing.lines)


NEEDS = (Expansion, needs)
