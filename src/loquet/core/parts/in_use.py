"""How a part goes on beyond its body: what comes through the wall, what is plugged into it, what it
is mated with, and how it is tried before it is soldered.
"""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.plain.frozen import Frozen

FINGERS_MM = 2.0
"""Between two plugs, so that one can be pulled alone; common practice, no source."""
LEAD_MM = 1.5
"""A trimmed lead stands out so far beyond the board; IPC-A-610 allows 2.5 mm for class 2; from
memory.
"""

Length = Annotated[float, Field(ge=0, le=300)]
Gender = Literal["pins", "sockets", "contacts", "cable end"]
Side = Literal["", "top", "bottom"]


class Plug(Frozen):
    """What is put into a part from outside: its words, its widest section, and how long it is with
    the bend of its lead, in mm; `meets_mm` is how far behind the outside of a wall its socket may
    lie before the plug's grip is stopped by the wall.
    """

    words: Annotated[str, Field(min_length=2, max_length=60)]
    wide_mm: Length
    high_mm: Length
    long_mm: Length
    meets_mm: Length


class InUse(Frozen):
    """A part in use: how much of its height comes through the wall above it (0 stays inside), the
    opening that this takes, how far it moves down and how far it leans, what is plugged into it,
    how much room its wires take above it, and how far behind the edge a slider of the shell still
    moves it; lengths in mm.
    """

    through_mm: Length = 0.0
    opening_mm: tuple[Length, Length] = (0.0, 0.0)
    round: bool = True
    travel_mm: Length = 0.0
    leans_deg: Annotated[float, Field(ge=0, le=60)] = 0.0
    capped: bool = False
    plug: Plug | None = None
    bend_mm: Length = 0.0
    bridged_mm: Length = 0.0


STAYS = InUse()


class Mates(Frozen):
    """What a connector is mated with: its family in our own words, its gender, how often it may be
    opened and where that stands; a `shape` of its own has no pitch.
    """

    family: Annotated[str, Field(min_length=2, max_length=30)]
    gender: Gender
    cycles: Annotated[int, Field(ge=1, le=1_000_000)]
    source: Annotated[str, Field(max_length=120)] = ""
    keyed: bool = False
    latch: bool = False
    shape: bool = False
