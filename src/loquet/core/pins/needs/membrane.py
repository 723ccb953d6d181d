"""What a membrane asks."""

from loquet.core.brief.kinds.membrane import Membrane
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: Membrane, ask: Asking) -> list[Need]:
    """A plain line a way; what is row and what is column is the membrane's own."""
    return [n.but(reads=True, load="key") for n in ask.lines(thing.lines)]


NEEDS = (Membrane, needs)
