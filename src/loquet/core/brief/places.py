"""Names and places as every thing of a brief writes them."""

from typing import Annotated, Literal

from pydantic import Field

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
PartId = Annotated[str, Field(max_length=60)]
QuarterTurn = Literal[0, 90, 180, 270]
