"""What a person decides at the stack: the shell's walls, how the board is held, what was
measured.
"""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.plain.frozen import Frozen

Process = Literal["filament", "resin", "sintered", "laser", "milled"]
Millimetres = Annotated[float, Field(ge=0, le=60)]


class OwnScrew(Frozen):
    """A screw that no standard has, such as one that cuts its thread in plastic: across its thread,
    across its head, and how high that is, in mm.
    """

    thread_mm: Annotated[float, Field(ge=0.8, le=6)] = 2.2
    head_mm: Annotated[float, Field(ge=1, le=12)] = 4.0
    head_high_mm: Annotated[float, Field(ge=0.3, le=8)] = 1.6

    @property
    def words(self) -> str:
        """Its head in words."""
        return f"head {self.head_mm:g} x {self.head_high_mm:g} mm"


class StackChoices(Frozen):
    """The shell and the fixing: thickness of the walls, the gap around the board, how the shell is
    made; `fixing` by screws from the near side into posts of the back, or through the device from
    the back; their heads, or a screw of one's own in their place; heights of loose things by name,
    as they were measured.
    """

    wall_mm: Annotated[float, Field(ge=0.8, le=8)] = 2.0
    side_gap_mm: Annotated[float, Field(ge=0.1, le=10)] = 0.5
    process: Process = "filament"
    fixing: Literal["posts", "through"] = "posts"
    heads: Literal["pan", "countersunk", "own"] = "pan"
    own_screw: OwnScrew = OwnScrew()
    heights_mm: dict[str, Millimetres] = {}

    @property
    def head_words(self) -> str:
        """Their heads in words."""
        return self.own_screw.words if self.heads == "own" else f"{self.heads} head"
