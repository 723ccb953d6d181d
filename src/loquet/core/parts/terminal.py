"""What a part offers to a circuit: its terminals by function, whatever their pads are called."""

from collections.abc import Mapping
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from loquet.core.plain.frozen import Frozen

Does = Literal[
    "supply",
    "supply out",
    "ground",
    "input",
    "output",
    "open drain",
    "both ways",
    "analogue in",
    "analogue out",
    "passive",
    "contact",
    "coil",
    "heat",
    "nothing",
    "end",
    "way",
]
"""What a terminal is. An `end` is like the other end of its part, a `way` one of a row of numbered
contacts: which pad is which needs no name there.
"""
PadNumber = Annotated[str, StringConstraints(min_length=1, max_length=6)]
NAMELESS: tuple[Does, ...] = ("end", "way")
ONE, OTHER = "one", "other"
"""The two ends of a part that may be turned round, and of a contact."""
HOLDS = "hold-down"
"""What holds a connector to the board: metal without a contact, laid at ground."""


class Terminal(Frozen):
    """A function of a part and its pads.

    Where they are `joined` by the part's own metal, one of them is enough: the first. `open` says
    why it may stay on no net; without it, it must be on one. `most_v` is what it stands against
    ground whatever else is on, in V.
    """

    pads: Annotated[tuple[PadNumber, ...], Field(min_length=1)]
    does: Does = "passive"
    joined: bool = False
    open: str = ""
    most_v: Annotated[float, Field(gt=0, le=200)] | None = None


def way(number: int) -> str:
    """The name of a contact of a row: `way 3`."""
    return f"way {number}"


def way_count(terminals: Mapping[str, Terminal]) -> int:
    """How many contacts of a row there are."""
    return sum(terminal.does == "way" for terminal in terminals.values())


def ways(count: int, first_pad: int = 1) -> dict[str, Terminal]:
    """The contacts of a row, numbered like their pads."""
    return {way(i + 1): Terminal(pads=(str(first_pad + i),), does="way") for i in range(count)}
