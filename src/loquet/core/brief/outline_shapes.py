"""The shapes that a line about something may have: an upright rectangle with round corners, or
sides that are straight or arcs; in mm.
"""

from collections.abc import Iterator
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from loquet.core.brief.places import PlaceMm
from loquet.core.plain.frozen import Frozen


class RoundedRectangle(Frozen):
    """An upright rectangle with rounded corners."""

    kind: Literal["rounded-rectangle"] = "rounded-rectangle"
    width_mm: Annotated[float, Field(ge=10, le=300)]
    height_mm: Annotated[float, Field(ge=10, le=300)]
    corner_mm: Annotated[float, Field(ge=0, le=50)] = 3.0


Bulge = Annotated[
    float,
    Field(
        ge=-1,
        le=1,
        description=(
            "tangent of a quarter of the angle that a side turns through: positive anticlockwise, 0"
            " straight, 1 half a circle"
        ),
    ),
]


LEAST_OF_TWO = 0.1  # the bulge of an arc that encloses something with one other


class PolygonOutline(Frozen):
    """A closed outline of sides that are straight or arcs; the last point joins the first."""

    kind: Literal["polygon"] = "polygon"
    points_mm: Annotated[tuple[tuple[PlaceMm, PlaceMm], ...], Field(min_length=2, max_length=400)]
    bulges: Annotated[
        tuple[Bulge, ...],
        Field(max_length=400, description="one for each side, from its point on; empty: straight"),
    ] = ()

    @model_validator(mode="after")
    def encloses_something(self) -> Self:
        """One bulge a side, or none; two points only where both sides are real arcs."""
        count = len(self.points_mm)
        if len(self.bulges) not in (0, count):
            raise ValueError(f"one bulge for each of the {count} sides, 0 for a straight one")
        if count == 2 and (not self.bulges or min(map(abs, self.bulges)) < LEAST_OF_TWO):
            raise ValueError("three points at least, or two that are joined by two arcs")
        return self

    def sides(self) -> Iterator[tuple[tuple[float, float], tuple[float, float], float]]:
        """Each side: where it begins, where it ends, its bulge."""
        ends = (*self.points_mm[1:], self.points_mm[0])
        bulges = self.bulges or (0.0,) * len(self.points_mm)
        return zip(self.points_mm, ends, bulges, strict=True)


Outline = Annotated[RoundedRectangle | PolygonOutline, Field(discriminator="kind")]
