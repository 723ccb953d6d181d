"""What a line between two brains asks: each one sends where the other listens."""

from loquet.core.brief.kinds.brain_talk import BrainTalk
from loquet.core.pins.asking import Asking, net_of
from loquet.core.pins.model import Need, NeedKind

ENDS: dict[bool, tuple[tuple[str, NeedKind, str], ...]] = {
    True: (("send", "port transmit", "there"), ("hear", "port receive", "back")),
    False: (("send", "port transmit", "back"), ("hear", "port receive", "there")),
}


def needs(thing: BrainTalk, ask: Asking) -> list[Need]:
    """Two lines of one serial port; `there` runs from the first end to the other."""
    brain = ask.brief.brain
    first = brain is None or brain.name == thing.brain
    end = "" if first else "other "
    return [
        ask.need(
            f"{end}{word}", kind, f"{thing.name} {end}{word}", bus=thing.role(f"{end}port")
        ).but(net=net_of(thing.role(line)))
        for word, kind, line in ENDS[first]
    ]


NEEDS = (BrainTalk, needs)
