"""What a touch electrode asks."""

from loquet.core.brief.kinds.touch import Touch
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: Touch, ask: Asking) -> list[Need]:
    """A touch channel."""
    return [ask.need("", "touch", f"touch {thing.name}")]


NEEDS = (Touch, needs)
