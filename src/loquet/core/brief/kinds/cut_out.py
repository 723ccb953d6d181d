"""A cut-out in the board."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, NoPart


class CutOut(NoPart):
    """A rectangular cut-out."""

    GROUP = "marks"
    TITLE = "Cut-out"
    WORD = "cut-out"
    MARK = "hole"

    kind: Literal["cut-out"] = "cut-out"
    width_mm: Annotated[float, Field(ge=2, le=200)] = 10.0
    height_mm: Annotated[float, Field(ge=2, le=200)] = 10.0

    def bodies(self) -> tuple[Body, ...]:
        """The opening."""
        return (Body(size_mm=(self.width_mm, self.height_mm)),)
