"""Edits of the kit: where a thing to buy stands."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.design import Bought, Design
from loquet.core.edits.applying import EditRefused

MOST = 200


class MarkKit(Counted):
    """A line of the kit as bought, in the drawer, or missing."""

    kind: Literal["mark-kit"] = "mark-kit"
    what: Annotated[str, Field(min_length=1, max_length=200)]
    state: Literal["missing", "bought", "in the drawer"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{self.what[:120]}: {self.state}"

    def apply(self, design: Design) -> Design:
        """Keep it by its words, so that it stays marked while the same is needed; raises
        EditRefused where far too much is marked.
        """
        kept = {what: state for what, state in design.choices.kit.items() if what != self.what}
        if self.state != "missing":
            kept[self.what] = self.state
        if len(kept) > MOST:
            raise EditRefused(f"More than {MOST} lines are marked.", "Set some back to missing.")
        return design.model_copy(
            update={"choices": design.choices.model_copy(update={"kit": kept})}
        )


class NameBought(Counted):
    """What was really bought for a line of the parts list or of the kit; nothing takes it back."""

    kind: Literal["name-bought"] = "name-bought"
    line: Annotated[str, Field(min_length=1, max_length=200)]
    bought: Bought | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        what = self.bought.maker_part if self.bought else "nothing yet"
        return f"Bought for {self.line[:100]}: {what}"

    def apply(self, design: Design) -> Design:
        """Keep it by the line's words; raises EditRefused where far too much is kept."""
        kept = {line: row for line, row in design.choices.bought.items() if line != self.line}
        if self.bought is not None:
            kept[self.line] = self.bought
        if len(kept) > MOST:
            raise EditRefused(f"More than {MOST} lines are named.", "Take some back.")
        return design.model_copy(
            update={"choices": design.choices.model_copy(update={"bought": kept})}
        )
