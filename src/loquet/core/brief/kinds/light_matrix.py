"""A matrix of plain lights."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class LightMatrix(Thing):
    """A matrix of plain lights, rows driven hard."""

    GROUP = "shows"
    TITLE = "Light matrix"
    WORD = "lights"
    MARK = "grid"

    kind: Literal["light-matrix"] = "light-matrix"
    rows: Annotated[int, Field(ge=2, le=16)] = 4
    columns: Annotated[int, Field(ge=2, le=16)] = 4

    def bodies(self) -> tuple[Body, ...]:
        """A field of lights, 4 mm apart."""
        return (Body(size_mm=(4.0 * self.columns, 4.0 * self.rows)),)
