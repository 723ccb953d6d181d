"""What a programming port asks."""

from loquet.core.brief.kinds.programming import Programming
from loquet.core.pins.asking import Asking, net_of
from loquet.core.pins.model import Need, NeedKind

WORD = "debug"
LINES: tuple[tuple[str, NeedKind, int], ...] = (
    ("data", "debug data", 3),
    ("clock", "debug clock", 1),
)


def needs(thing: Programming, ask: Asking) -> list[Need]:
    """Data and clock of the probe; a host that reads the keys itself has none."""
    if ask.brief.role == "host-key-reader":
        return []
    found = []
    for piece, kind, way in LINES:
        signal = thing.role(piece, WORD)
        found.append(
            ask.need(piece, kind, f"programming {piece}", ask.way(5, way)).but(
                signal=signal, net=net_of(signal)
            )
        )
    return found


NEEDS = (Programming, needs)
