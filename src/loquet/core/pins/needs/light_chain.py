"""What a chain of lights asks."""

from loquet.core.brief.kinds.light_chain import LightChain
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: LightChain, ask: Asking) -> list[Need]:
    """One timed line, or a clock and its data."""
    if thing.wires == "one timed":
        return [ask.need("chain", "timer", "light chain", rate="light chain", load="light")]
    bus = thing.role()
    return [
        ask.need("clock", "serial clock", f"{thing.name} clock", bus=bus, load="light"),
        ask.need("data", "serial out", f"{thing.name} data", bus=bus, load="light"),
    ]


NEEDS = (LightChain, needs)
