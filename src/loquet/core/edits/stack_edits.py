"""Edits of the stack: the shell about the board, and heights that were measured."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.brief.stack_choices import Millimetres, StackChoices
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, found, with_choices


class SetStack(Counted):
    """The shell and how the board is held in it; measured heights stay as they are."""

    kind: Literal["set-stack"] = "set-stack"
    stack: StackChoices

    @property
    def label(self) -> str:
        """Words for the history."""
        return (
            f"Shell of {self.stack.wall_mm:g} mm, {self.stack.process}, board held by"
            f" {self.stack.fixing}"
        )

    def apply(self, design: Design) -> Design:
        """Keep it."""
        heights = design.choices.stack.heights_mm
        return with_choices(design, stack=self.stack.model_copy(update={"heights_mm": heights}))


class MeasureHeight(Counted):
    """How high a thing is that lies loose in the shell; None goes back to the usual height."""

    kind: Literal["measure-height"] = "measure-height"
    thing: Annotated[str, Field(max_length=40)]
    height_mm: Millimetres | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Height of {self.thing}"

    def apply(self, design: Design) -> Design:
        """Keep it by the thing's name; raises EditRefused for what does not lie loose."""
        if found(design.brief, self.thing).loose() is None:
            raise EditRefused(
                f"{self.thing} does not lie loose in the shell.", "Its height is that of its part."
            )
        stack = design.choices.stack
        heights = {n: mm for n, mm in stack.heights_mm.items() if n != self.thing}
        if self.height_mm is not None:
            heights[self.thing] = self.height_mm
        return with_choices(design, stack=stack.model_copy(update={"heights_mm": heights}))
