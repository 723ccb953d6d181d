"""Typed edits: what a person can do to a design, one file a family.

No edit knows more of a kind than that it is a thing.

May import the design and all that makes it; only jobs and the review stand above.
"""

from typing import Annotated

from pydantic import Field, TypeAdapter, ValidationError

from loquet.core.design import Design, SliceName
from loquet.core.edits.applying import EditRefused, checked, refused_value
from loquet.core.edits.arranging import ArrangeThings, MirrorThings, MoveThings, PasteThings
from loquet.core.edits.board_edits import (
    AddBoard,
    AddCornerHoles,
    ChooseArrangement,
    RemoveBoard,
    RenameBoard,
    SetBuild,
    SetOutline,
    SetRoom,
)
from loquet.core.edits.check_edits import AddCheck, DropCheck
from loquet.core.edits.circuit_edits import ChangeCircuit, DropCircuitChange
from loquet.core.edits.evidence_edits import ConfirmPart, SayHalf, SetPinOrder
from loquet.core.edits.kit_edits import MarkKit, NameBought
from loquet.core.edits.outline_edits import ShapeOutline, TakeOutline
from loquet.core.edits.part_arranging import ArrangeParts
from loquet.core.edits.part_patterns import ArrayParts, MirrorParts
from loquet.core.edits.pin_edits import LockPin, ReleasePin, TakePlacedTargets
from loquet.core.edits.pour_edits import AddPourArea, DropPourArea, PreferPourArea, SetTearDrops
from loquet.core.edits.release_edits import ChooseHouse, ChoosePanel, SetMaking
from loquet.core.edits.renaming import RenameThing
from loquet.core.edits.seat_edits import ReleasePart, SeatPart
from loquet.core.edits.shelf_edits import LeavePart, PreferPart, TakePart
from loquet.core.edits.stack_edits import MeasureHeight, SetStack
from loquet.core.edits.thing_edits import (
    AddThing,
    ChangeThing,
    MoveThing,
    ReleaseThing,
    RemoveThings,
)
from loquet.core.edits.wire_edits import CutTrack, DrawTracks, KeepNets, LayNet, ReleaseNets
from loquet.core.edits.wish_edits import (
    ReplaceBrief,
    SetAnalogue,
    SetChords,
    SetQuantity,
    SetReading,
    SetRole,
    SetScheme,
    SetShell,
    SetWords,
    UsePinTable,
)

Edit = Annotated[
    AddThing
    | ChangeThing
    | RemoveThings
    | MoveThing
    | ReleaseThing
    | RenameThing
    | MoveThings
    | ArrangeThings
    | MirrorThings
    | PasteThings
    | AddBoard
    | RemoveBoard
    | RenameBoard
    | SetOutline
    | ShapeOutline
    | TakeOutline
    | SetRoom
    | SetBuild
    | ChooseArrangement
    | AddCornerHoles
    | SetRole
    | SetChords
    | SetScheme
    | SetAnalogue
    | SetReading
    | SetQuantity
    | SetWords
    | SetShell
    | UsePinTable
    | ReplaceBrief
    | LockPin
    | ReleasePin
    | TakePlacedTargets
    | SeatPart
    | ArrangeParts
    | ArrayParts
    | MirrorParts
    | ReleasePart
    | AddPourArea
    | DropPourArea
    | PreferPourArea
    | SetTearDrops
    | DrawTracks
    | KeepNets
    | ReleaseNets
    | CutTrack
    | LayNet
    | ChooseHouse
    | ChoosePanel
    | SetMaking
    | SetStack
    | AddCheck
    | DropCheck
    | MeasureHeight
    | MarkKit
    | NameBought
    | ConfirmPart
    | SayHalf
    | SetPinOrder
    | TakePart
    | LeavePart
    | PreferPart
    | ChangeCircuit
    | DropCircuitChange,
    Field(discriminator="kind"),
]
EDITS: TypeAdapter[Edit] = TypeAdapter(Edit)


def apply(design: Design, edit: Edit) -> Design:
    """The design after an edit; raises EditRefused with the reason and the way out."""
    try:
        return checked(design, edit.apply(design))
    except ValidationError as error:
        raise refused_value(edit.label, error) from None


def rests_on(edit: Edit) -> tuple[SliceName, ...]:
    """The made slices that an edit speaks of piece by piece: wiring lies between parts and beside
    other wiring.
    """
    if isinstance(edit, DrawTracks | KeepNets | ReleaseNets | CutTrack | LayNet):
        return ("placement", "routing")
    return ()


__all__ = ["EDITS", "Edit", "EditRefused", "apply", "rests_on"]
