"""A cut-out in the board."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Fault, NoPart, Opening


class CutOut(NoPart):
    """A rectangular cut-out; its inside corners are as round as the cutter."""

    GROUP = "marks"
    TITLE = "Cut-out"
    WORD = "cut-out"
    MARK = "opening"
    DRAWN_BY_BOARD = True

    kind: Literal["cut-out"] = "cut-out"
    width_mm: Annotated[float, Field(ge=2, le=200)] = 10.0
    height_mm: Annotated[float, Field(ge=2, le=200)] = 10.0
    corner_mm: Annotated[
        float, Field(ge=0.5, le=50, description="what the round cutter leaves in a corner")
    ] = 1.0

    def bodies(self) -> tuple[Body, ...]:
        """The opening."""
        return (Body(size_mm=(self.width_mm, self.height_mm)),)

    def opening(self) -> Opening:
        """The rectangle with its corners."""
        return Opening(self.width_mm, self.height_mm, self.corner_mm)

    def faults(self) -> tuple[Fault, ...]:
        """Corners that fit."""
        least = min(self.width_mm, self.height_mm)
        if 2 * self.corner_mm <= least:
            return ()
        problem = f"is {self.corner_mm:g} mm in a cut-out {least:g} mm wide"
        way = f"Choose a corner radius of {least / 2:g} mm at the most."
        return (Fault("corner_mm", problem, way),)
