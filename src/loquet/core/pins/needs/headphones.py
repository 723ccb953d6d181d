"""What a headphone socket asks."""

from loquet.core.brief.kinds.headphones import Headphones
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: Headphones, ask: Asking) -> list[Need]:
    """Detection of the plug."""
    if not thing.detection:
        return []
    return [ask.need("detect", "input", "headphone detection", extra=True)]


NEEDS = (Headphones, needs)
