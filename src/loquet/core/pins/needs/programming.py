"""What a programming port asks of the brain that it loads."""

from loquet.core.brief import Brief
from loquet.core.brief.kinds.programming import Programming
from loquet.core.pins.asking import Asking, net_of
from loquet.core.pins.model import Need, NeedKind

WORD = "debug"
FOUR_LINES = ("atm", "att", "at90")
"""Beginnings of names of chips that are loaded over data in, data out, clock and reset; from memory
of their data sheets.
"""
PAIR: tuple[tuple[str, NeedKind, int], ...] = (
    ("data", "debug data", 3),
    ("clock", "debug clock", 1),
)
SET: tuple[tuple[str, NeedKind, int], ...] = (
    ("out", "program out", 1),
    ("clock", "program clock", 2),
    ("in", "program in", 4),
)


def ways_for(part: str) -> int:
    """How many ways a port has for a chip of that name."""
    return 6 if part.startswith(FOUR_LINES) else 5


def starts_by_itself(brief: Brief) -> bool:
    """Whether the brain of a share gets its program elsewhere: a host from its card, a module
    without pads for a probe over what is on it.
    """
    brain = brief.brain
    if brain is None:
        return brief.role == "host-key-reader"
    table = brief.shelf.pin_table(getattr(brain, "table", ""))
    probed = table is not None and any(c.startswith("debug") for p in table.pads for c in p.can)
    return brain.HAS_FILES or (table is not None and table.module and not probed)


def needs(thing: Programming, ask: Asking) -> list[Need]:
    """The lines of the probe; a brain that starts from a card has none."""
    brain = ask.brief.brain
    if starts_by_itself(ask.brief):
        return []
    ways = ways_for(brain.part) if brain else 5
    found = []
    for piece, kind, way in SET if ways == 6 else PAIR:
        signal = thing.role(piece, WORD)
        found.append(
            ask.need(piece, kind, f"programming {piece}", ask.way(ways, way)).but(
                signal=signal, net=net_of(signal)
            )
        )
    return found


NEEDS = (Programming, needs)
