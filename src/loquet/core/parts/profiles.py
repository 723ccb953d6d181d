"""How parts go on beyond their bodies: what comes through the wall, what is plugged in, how far a
tip stands out.
"""

from dataclasses import dataclass

FINGERS_MM = 2.0
"""Between two plugs, so that one can be pulled alone; common practice, no source."""
LEAD_MM = 1.5
"""A trimmed lead stands out so far beyond the board; IPC-A-610 allows 2.5 mm for class 2; from
memory.
"""


@dataclass(frozen=True)
class Plug:
    """What is put into a part from outside: its words, its widest section, and how long it is with
    the bend of its lead; `meets_mm` is how far behind the outside of a wall its socket may lie
    before the plug's grip is stopped by the wall.
    """

    words: str
    wide_mm: float
    high_mm: float
    long_mm: float
    meets_mm: float


@dataclass(frozen=True)
class Profile:
    """A part in use: how much of its height comes through the wall above it (0 stays inside), the
    opening that this takes, how far it moves down and how far it leans, what is plugged into it,
    how much room its wires take above it, and how far behind the edge a slider of the shell still
    moves it.
    """

    through_mm: float = 0.0
    opening_mm: tuple[float, float] = (0.0, 0.0)
    round: bool = True
    travel_mm: float = 0.0
    leans_deg: float = 0.0
    capped: bool = False
    plug: Plug | None = None
    bend_mm: float = 0.0
    bridged_mm: float = 0.0


STAYS = Profile()
PROFILES: dict[str, Profile] = {
    "button": Profile(0.8, (6.0, 6.0), travel_mm=0.3, capped=True),
    "five-way": Profile(2.0, (8.0, 8.0), travel_mm=0.4, leans_deg=10, capped=True),
    "resistive stick": Profile(5.0, (5.0, 5.0), travel_mm=0.5, leans_deg=25, capped=True),
    "magnetic stick": Profile(5.0, (5.0, 5.0), travel_mm=0.5, leans_deg=25, capped=True),
    "encoder": Profile(0.5, (7.0, 7.0), travel_mm=0.5, capped=True),
    "slider": Profile(1.5, (24.0, 4.0), round=False),
    "slide switch": Profile(bridged_mm=4.0),
    "USB-C socket": Profile(plug=Plug("USB-C plug", 12.35, 6.5, 35.0, 0.8)),
    "USB socket": Profile(plug=Plug("USB plug", 16.0, 8.0, 45.0, 2.0)),
    "barrel jack": Profile(plug=Plug("barrel plug", 11.0, 11.0, 45.0, 1.5)),
    "headphone socket": Profile(plug=Plug("headphone plug", 8.5, 8.5, 35.0, 1.0)),
    "card socket": Profile(plug=Plug("card and a fingertip", 14.0, 8.0, 15.0, 1.5)),
    "stick port": Profile(plug=Plug("9-way plug", 31.0, 16.0, 50.0, 1.0)),
    "header": Profile(bend_mm=8.0),
}
"""By kind of part.

The USB-C grip is the largest of the USB Type-C specification (from memory); everything else is
common practice, no source.
"""
PROFILES_OF_PARTS: dict[str, Profile] = {
    "button-side-pushed": Profile(bridged_mm=4.0),
    "button-carbon-fingers": Profile(),
}
"""Parts that are not used as others of their kind: pushed from the side, or bare fingers under a
rubber dome.
"""


def profile_for(part: str, kind: str) -> Profile:
    """How a part of a kind goes on beyond its body."""
    return PROFILES_OF_PARTS.get(part) or PROFILES.get(kind, STAYS)


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
LENGTHS_MM = (3, 4, 5, 6, 8, 10, 12, 16, 20, 25, 30, 35, 40, 45, 50)
"""Preferred lengths of ISO 7045 and ISO 7046; from memory."""
ENGAGED = 2.0
"""A screw holds in plastic with so many diameters; common practice, no source."""
POST = 2.5
"""A post is so many diameters of its screw wide; common practice, no source."""
SKIN_MM = 0.8
"""So much of a wall stays before the tip of a screw; common practice, no source."""
