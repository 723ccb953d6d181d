"""What a block of one's own asks."""

from loquet.core.brief.kinds.own_block import OwnBlock
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: OwnBlock, ask: Asking) -> list[Need]:
    """Lines that it drives, and lines that drive it; its bus is shared with the others."""
    found = [
        ask.need(f"gives {i + 1}", "input", f"{thing.name} gives {i + 1}")
        for i in range(thing.inputs)
    ]
    return found + [
        ask.need(f"takes {i + 1}", "output", f"{thing.name} takes {i + 1}")
        for i in range(thing.outputs)
    ]


NEEDS = (OwnBlock, needs)
