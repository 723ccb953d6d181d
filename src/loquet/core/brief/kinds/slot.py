"""A slot in the board."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, NoPart


class Slot(NoPart):
    """A long hole with round ends."""

    GROUP = "marks"
    TITLE = "Slot"
    WORD = "slot"
    MARK = "hole"

    kind: Literal["slot"] = "slot"
    length_mm: Annotated[float, Field(ge=1, le=60)] = 6.0
    width_mm: Annotated[float, Field(ge=0.8, le=20)] = 2.0

    def bodies(self) -> tuple[Body, ...]:
        """The slot."""
        return (Body(size_mm=(self.length_mm, self.width_mm)),)
