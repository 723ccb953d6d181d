"""A matrix of plain lights."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing

LIGHT, STEP_NM = "light-2012-amber", 4_000_000
ROW_MA = 20.0


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
        return tuple(
            Body(
                f"{row + 1} {column + 1}",
                LIGHT,
                (),
                round((column - (self.columns - 1) / 2) * STEP_NM),
                round(((self.rows - 1) / 2 - row) * STEP_NM),
                90,
            )
            for row in range(self.rows)
            for column in range(self.columns)
        )

    def current_ma(self) -> float:
        """One row is lit at a time."""
        return ROW_MA
