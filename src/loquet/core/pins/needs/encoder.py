"""What an encoder asks beside its press."""

from loquet.core.brief.kinds.encoder import Encoder
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: Encoder, ask: Asking) -> list[Need]:
    """Both of its contacts."""
    return [ask.need(s, "input", f"{thing.name} {s}", reads=True) for s in ("a", "b")]


NEEDS = (Encoder, needs)
