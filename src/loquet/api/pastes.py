"""Solder pastes of one's own, typed from their data sheets."""

from typing import Annotated, Any

from fastapi import APIRouter
from pydantic import BaseModel, Field, ValidationError

from loquet.api.context import AUTHOR, ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.core.build.reflow import Point, profile
from loquet.core.parts.paste import Paste
from loquet.core.shelf.faults import PartFault, paste_faults
from loquet.core.shelf.pack import SORTS, part_faults
from loquet.store import shelf

router = APIRouter(prefix="/api/shelf", tags=["shelf"])


class PasteRow(BaseModel):
    """A paste on the shelf; `version` 0 ships with Loquet."""

    paste: Paste
    version: int


@router.get("/pastes")
def get_pastes(session: SessionNow, context: ContextNow) -> list[PasteRow]:
    """Those of one's own, then those of the standard."""
    own = [
        PasteRow(paste=Paste.model_validate_json(row.content), version=row.version)
        for row in shelf.rows_now(session, "paste")
    ]
    bundled = (PasteRow(paste=paste, version=0) for paste in context.library.pastes.values())
    return [*own, *bundled]


class TypedPaste(BaseModel):
    """A paste as it was typed, and the version that was seen (0: new)."""

    paste: dict[str, Any]
    version: Annotated[int, Field(ge=0)] = 0


class PasteLooked(BaseModel):
    """What is wrong with a paste, and the profile inside its limits where nothing is."""

    faults: list[PartFault]
    profile: tuple[Point, ...] = ()


@router.post("/paste/look")
def look_at_paste(given: TypedPaste) -> PasteLooked:
    """What is wrong with a paste while it is typed, and its curve."""
    try:
        paste = Paste.model_validate(given.paste)
    except ValidationError as error:
        return PasteLooked(faults=part_faults(error))
    faults = [fault for fault in paste_faults(paste) if fault.field != "known"]
    return PasteLooked(faults=faults, profile=() if faults else profile(paste))


@router.put("/paste")
def keep_paste(given: TypedPaste, session: SessionNow) -> PasteRow:
    """Keep a paste of one's own; raises Refused for one that cannot be, ShelfConflict."""
    faults = look_at_paste(given).faults
    if faults:
        raise Refused(f"{faults[0].problem}.", faults[0].way_out, place=faults[0].field)
    paste = Paste.model_validate({**given.paste, "known": "typed"})
    if not paste.id.startswith(SORTS["paste"]):
        raise Refused(f"'{paste.id}' is no name of a paste of one's own.", "Call it paste/NAME.")
    row = shelf.put_entry(session, paste, given.version, AUTHOR)
    return PasteRow(paste=paste, version=row.version)


def pastes_for(session: SessionNow, context: ContextNow) -> dict[str, Paste]:
    """Every paste by id: those of the standard first."""
    return {**context.library.pastes, **shelf.own_pastes(session)}
