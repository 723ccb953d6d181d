"""Screws by their threads: pan heads of ISO 7045, countersunk ones of ISO 7046, and what a thread
wants of the plastic that it is driven into.
"""

from dataclasses import dataclass

from loquet.core.brief import Thing
from loquet.core.brief.kinds.hole import Hole
from loquet.core.brief.stack_choices import StackChoices


@dataclass(frozen=True)
class Screw:
    """A screw thread by its pan head (ISO 7045) and countersunk head (ISO 7046): diameter and
    height in mm.
    """

    d_mm: float
    pan_mm: tuple[float, float]
    sunk_mm: tuple[float, float]


SCREWS: dict[str, Screw] = {
    "M1.6": Screw(1.6, (3.2, 1.3), (3.0, 1.0)),
    "M2": Screw(2.0, (4.0, 1.6), (3.8, 1.2)),
    "M2.5": Screw(2.5, (5.0, 2.1), (4.7, 1.5)),
    "M3": Screw(3.0, (5.6, 2.4), (5.5, 1.65)),
    "M4": Screw(4.0, (8.0, 3.1), (8.4, 2.7)),
}


def screw_of(thing: Thing, choices: StackChoices) -> tuple[str, Screw] | None:
    """The screw at a fixing hole, and what it is called: of the standards, or one's own; nothing
    where it takes none.
    """
    if not isinstance(thing, Hole) or thing.screw == "none":
        return None
    if choices.heads != "own":
        return thing.screw, SCREWS[thing.screw]
    own = choices.own_screw
    head = (own.head_mm, own.head_high_mm)
    return f"of {own.thread_mm:g} mm", Screw(own.thread_mm, head, head)


LENGTHS_MM = (3, 4, 5, 6, 8, 10, 12, 16, 20, 25, 30, 35, 40, 45, 50)
"""Preferred lengths of ISO 7045 and ISO 7046; from memory."""
ENGAGED = 2.0
"""A screw holds in plastic with so many diameters; common practice, no source."""
POST = 2.5
"""A post is so many diameters of its screw wide; common practice, no source."""
SKIN_MM = 0.8
"""So much of a wall stays before the tip of a screw; common practice, no source."""
