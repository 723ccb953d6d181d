"""What a clock crystal asks."""

from loquet.core.brief.kinds.clock_crystal import ClockCrystal
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: ClockCrystal, ask: Asking) -> list[Need]:
    """Both pins of the slow oscillator."""
    return [
        ask.need("in", "slow crystal in", f"{thing.name} in"),
        ask.need("out", "slow crystal out", f"{thing.name} out"),
    ]


NEEDS = (ClockCrystal, needs)
