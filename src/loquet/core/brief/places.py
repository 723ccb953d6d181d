"""Names and places as every thing of a brief writes them."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted

PlaceMm = Annotated[
    float, Field(ge=-10, le=500, description="mm from the lower left corner of the outline")
]
Name = Annotated[
    str,
    Field(
        pattern=r"^[A-Za-z][A-Za-z0-9 -]{0,23}$",
        description="letters, digits, spaces and hyphens; starts with a letter",
    ),
]
OtherName = Annotated[str, Field(pattern=r"^([A-Za-z][A-Za-z0-9 -]{0,23})?$")]
PartId = Annotated[str, Field(max_length=60)]
QuarterTurn = Literal[0, 90, 180, 270]
Degrees = Annotated[
    int, Field(ge=0, le=359, description="whole degrees anticlockwise, seen from the near side")
]


class Place(Counted):
    """Where a thing sits: its middle in mm, its turn, and whether it is on the far side (mirrored
    left to right first).
    """

    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: Degrees = 0
    far: bool = False


Compared = Annotated[
    str,
    Field(
        max_length=120,
        description="the drawing that its pins were compared with: name, page, date",
    ),
]
