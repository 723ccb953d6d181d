"""A slot in the board."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Fault, NoPart, Opening


class Slot(NoPart):
    """A long hole with round ends."""

    GROUP = "marks"
    TITLE = "Slot"
    WORD = "slot"
    MARK = "slot"
    DRAWN_BY_BOARD = True

    kind: Literal["slot"] = "slot"
    length_mm: Annotated[float, Field(ge=1, le=60)] = 6.0
    width_mm: Annotated[float, Field(ge=0.8, le=20)] = 2.0

    def bodies(self) -> tuple[Body, ...]:
        """The slot."""
        return (Body(size_mm=(self.length_mm, self.width_mm)),)

    def opening(self) -> Opening:
        """Its ends are half circles."""
        return Opening(self.length_mm, self.width_mm, min(self.length_mm, self.width_mm) / 2)

    def faults(self) -> tuple[Fault, ...]:
        """A slot is longer than it is wide."""
        if self.length_mm > self.width_mm:
            return ()
        problem = f"is {self.length_mm:g} mm for a slot {self.width_mm:g} mm wide"
        return (Fault("length_mm", problem, "Make it longer, or take a cut-out."),)
