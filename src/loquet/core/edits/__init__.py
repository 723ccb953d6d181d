"""Typed edits: what a person can do to a design, one file a family."""

from typing import Annotated

from pydantic import Field, TypeAdapter

from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, checked
from loquet.core.edits.board_edits import ReleasePart, SeatPart
from loquet.core.edits.brief_edits import (
    AddButton,
    MoveThing,
    RemoveButton,
    RenameButton,
    ReplaceBrief,
    SetChip,
    SetExtra,
    SetQuantity,
    SetReading,
)
from loquet.core.edits.pin_edits import LockPin, ReleasePin
from loquet.core.edits.release_edits import ChooseHouse

Edit = Annotated[
    MoveThing | AddButton | RemoveButton | RenameButton | SetReading | SetQuantity | SetChip | SetExtra | ReplaceBrief
    | LockPin | ReleasePin | SeatPart | ReleasePart | ChooseHouse,
    Field(discriminator="kind"),
]  # fmt: skip
EDITS: TypeAdapter[Edit] = TypeAdapter(Edit)


def apply(design: Design, edit: Edit) -> Design:
    """The design after an edit; raises EditRefused with the reason and the way out."""
    return checked(design, edit.apply(design))


__all__ = ["EDITS", "Edit", "EditRefused", "apply"]
