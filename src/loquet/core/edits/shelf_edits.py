"""Edits of the parts that a project has of its own, and of which part is taken for a kind."""

import re
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.design import Choices, Design
from loquet.core.edits.applying import EditRefused
from loquet.core.parts import Part
from loquet.core.shelf.faults import faults_of
from loquet.core.shelf.pack import OWN_ID

MOST = 200
OwnId = Annotated[str, Field(pattern=OWN_ID)]


class TakePart(Counted):
    """A part of one's own in this project, as it is on the shelf now."""

    kind: Literal["take-part"] = "take-part"
    part: Part

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{self.part.short} taken from the shelf"

    def apply(self, design: Design) -> Design:
        """Keep it by its id; raises EditRefused for a part that cannot be, or one too many."""
        if not re.fullmatch(OWN_ID, self.part.id):
            raise EditRefused(
                f"{self.part.id} is no id of a part of one's own.", "Call it own/NAME."
            )
        faults = faults_of(self.part)
        if faults:
            first = faults[0]
            raise EditRefused(f"{self.part.id}: {first.problem}.", first.way_out)
        kept = {**design.choices.shelf, self.part.id: self.part}
        if len(kept) > MOST:
            raise EditRefused(f"More than {MOST} parts of one's own.", "Take some out.")
        return chosen(design, shelf=kept)


class LeavePart(Counted):
    """A part of one's own taken out of this project."""

    kind: Literal["leave-part"] = "leave-part"
    part: OwnId

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{self.part} taken out"

    def apply(self, design: Design) -> Design:
        """Forget it, and that it was preferred; raises EditRefused where a thing names it."""
        naming = [t.name for t in design.brief.things if self.part in (b.part for b in t.bodies())]
        if naming:
            way_out = "Choose another part for it first."
            raise EditRefused(f"{naming[0]} is made with {self.part}.", way_out)
        shelf = {key: part for key, part in design.choices.shelf.items() if key != self.part}
        rows = design.choices.preferred.items()
        preferred = {kind: part for kind, part in rows if part != self.part}
        return chosen(design, shelf=shelf, preferred=preferred)


class PreferPart(Counted):
    """Which part is taken for a kind of parts; none leaves it to Loquet."""

    kind: Literal["prefer-part"] = "prefer-part"
    role: Annotated[str, Field(min_length=1, max_length=40)]
    part: Annotated[str, Field(max_length=80)] = ""

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{self.part} as {self.role}" if self.part else f"Any {self.role} that can"

    def apply(self, design: Design) -> Design:
        """Keep it by the kind."""
        kept = {kind: part for kind, part in design.choices.preferred.items() if kind != self.role}
        if self.part:
            kept[self.role] = self.part
        return chosen(design, preferred=kept)


def chosen(design: Design, **changes: object) -> Design:
    """The design with other choices, checked."""
    rows = {name: getattr(design.choices, name) for name in Choices.model_fields}
    return design.model_copy(update={"choices": Choices(**{**rows, **changes})})
