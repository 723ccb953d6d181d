"""What a memory card asks."""

from loquet.core.brief.kinds.memory_card import MemoryCard
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need, NeedKind

LINES: tuple[tuple[str, NeedKind], ...] = (
    ("clock", "serial clock"),
    ("to card", "serial out"),
    ("from card", "serial in"),
)


def needs(thing: MemoryCard, ask: Asking) -> list[Need]:
    """A serial bus of its own, a select and a detect line."""
    found = [ask.need(n, k, f"{thing.name} {n}", bus=thing.role()) for n, k in LINES]
    found.append(ask.need("select", "output", f"{thing.name} select"))
    if thing.detect:
        found.append(ask.need("detect", "input", f"{thing.name} detect", extra=True))
    return found


NEEDS = (MemoryCard, needs)
