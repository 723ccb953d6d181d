"""What a person decides at the stack: the shell's walls, how the board is held, what was
measured.
"""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.plain.frozen import Frozen

Process = Literal["filament", "resin", "sintered", "laser", "milled"]
Millimetres = Annotated[float, Field(ge=0, le=60)]


class StackChoices(Frozen):
    """The shell and the fixing: thickness of the walls, the gap around the board, how the shell is
    made; `fixing` by screws from the near side into posts of the back, or through the device from
    the back; their heads; heights of loose things by name, as they were measured.
    """

    wall_mm: Annotated[float, Field(ge=0.8, le=8)] = 2.0
    side_gap_mm: Annotated[float, Field(ge=0.1, le=10)] = 0.5
    process: Process = "filament"
    fixing: Literal["posts", "through"] = "posts"
    heads: Literal["pan", "countersunk"] = "pan"
    heights_mm: dict[str, Millimetres] = {}
