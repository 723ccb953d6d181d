"""Typed edits: what a person can do to a design, one file a family."""

from typing import Annotated

from pydantic import Field, TypeAdapter

from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, checked
from loquet.core.edits.board_edits import ReleasePart, SeatPart
from loquet.core.edits.brief_edits import (
    MoveThing,
    ReplaceBrief,
    SetChip,
    SetExtra,
    SetQuantity,
    SetReading,
)
from loquet.core.edits.control_edits import (
    AddControl,
    ArrangeControls,
    ChangeControl,
    MirrorControls,
    MoveControls,
    RemoveControl,
    RenameControl,
)
from loquet.core.edits.device_edits import (
    AddCornerHoles,
    SetAnalogue,
    SetBatterySense,
    SetChords,
    SetOutline,
    SetPower,
    SetRole,
    SetScheme,
    SetShell,
    UsePinTable,
)
from loquet.core.edits.link_edits import AddLink, RemoveLink, SetClocks, SetLights, SetSensors
from loquet.core.edits.pin_edits import LockPin, ReleasePin, TakePlacedTargets
from loquet.core.edits.release_edits import ChooseHouse
from loquet.core.edits.screen_edits import SetScreen, SetScreenBits, SetScreenWish

Edit = Annotated[
    MoveThing
    | AddControl
    | ChangeControl
    | RemoveControl
    | RenameControl
    | MoveControls
    | ArrangeControls
    | MirrorControls
    | SetRole
    | SetChords
    | SetScheme
    | SetScreen
    | SetScreenBits
    | SetScreenWish
    | SetAnalogue
    | AddLink
    | RemoveLink
    | SetSensors
    | SetPower
    | SetBatterySense
    | AddCornerHoles
    | SetClocks
    | SetLights
    | SetOutline
    | SetShell
    | UsePinTable
    | SetReading
    | SetQuantity
    | SetChip
    | SetExtra
    | ReplaceBrief
    | LockPin
    | ReleasePin
    | TakePlacedTargets
    | SeatPart
    | ReleasePart
    | ChooseHouse,
    Field(discriminator="kind"),
]
EDITS: TypeAdapter[Edit] = TypeAdapter(Edit)


def apply(design: Design, edit: Edit) -> Design:
    """The design after an edit; raises EditRefused with the reason and the way out."""
    return checked(design, edit.apply(design))


__all__ = ["EDITS", "Edit", "EditRefused", "apply"]
