"""Edits of the project's own checks."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.brief.own_checks import MOST_CHECKS, OwnCheck
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, with_choices


class AddCheck(Counted):
    """A check more; one of the same title is replaced."""

    kind: Literal["add-check"] = "add-check"
    check: OwnCheck

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Check: {self.check.title}"

    def apply(self, design: Design) -> Design:
        """Keep it; raises EditRefused where there are far too many."""
        kept = tuple(c for c in design.choices.own_checks if c.title != self.check.title)
        if len(kept) >= MOST_CHECKS:
            raise EditRefused(f"There are {MOST_CHECKS} checks already.", "Take one out first.")
        return with_choices(design, own_checks=(*kept, self.check))


class DropCheck(Counted):
    """A check is taken out."""

    kind: Literal["drop-check"] = "drop-check"
    title: Annotated[str, Field(max_length=60)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"No check any more: {self.title}"

    def apply(self, design: Design) -> Design:
        """Leave it out; raises EditRefused where there is none of that title."""
        kept = tuple(c for c in design.choices.own_checks if c.title != self.title)
        if len(kept) == len(design.choices.own_checks):
            raise EditRefused(f"There is no check '{self.title}'.", "It may be out already.")
        return with_choices(design, own_checks=kept)
