"""What a touch electrode asks."""

from loquet.core.brief.kinds.touch import Touch
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: Touch, ask: Asking) -> list[Need]:
    """A touch channel, and another pin of its group for the capacitor on which the charge is
    counted.
    """
    bus, title = f"touch of {thing.name}", f"touch {thing.name}"
    return [
        ask.need("", "touch", title, bus=bus),
        ask.need("sample", "touch sample", f"{title} sample", bus=bus),
    ]


NEEDS = (Touch, needs)
