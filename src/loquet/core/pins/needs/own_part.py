"""What a part of one's own asks."""

from loquet.core.brief.kinds.own_part import OwnPart
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: OwnPart, ask: Asking) -> list[Need]:
    """Plain lines."""
    return ask.lines(thing.lines)


NEEDS = (OwnPart, needs)
