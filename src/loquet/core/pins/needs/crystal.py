"""What a crystal asks."""

from loquet.core.brief.kinds.crystal import Crystal
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: Crystal, ask: Asking) -> list[Need]:
    """Both pins of the oscillator."""
    return [
        ask.need("in", "crystal in", f"{thing.name} in"),
        ask.need("out", "crystal out", f"{thing.name} out"),
    ]


NEEDS = (Crystal, needs)
