"""What the Parts station shows."""

from typing import Annotated

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field

from loquet.api.context import ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.core.confirming import MeasuringCard, cards_of
from loquet.core.design import slice_of
from loquet.core.drawers import DrawerLine, part_lines
from loquet.core.ends import EndLine, end_lines
from loquet.core.kit import Kit, kit_of
from loquet.core.measuring_pages import write_measuring_cards
from loquet.core.shopping import ListError, ReadLine, read_list, write_list
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["parts"])


class Drawers(BaseModel):
    """The bench: what is on the boards (nothing before there is a circuit), and the kit."""

    on_board: list[DrawerLine]
    kit: Kit
    cards: list[MeasuringCard]
    ends: list[EndLine]
    quantity: int


@router.get("/projects/{project_id}/parts")
def get_parts(project_id: int, session: SessionNow, context: ContextNow) -> Drawers:
    """Parts of the circuit as it was made last, and the kit as the brief stands."""
    design = load_design(session, head_of(session, project_id).version)
    lines: tuple[DrawerLine, ...] = ()
    ends: tuple[EndLine, ...] = ()
    if design.circuit:
        circuit = slice_of(design.circuit)
        lines = part_lines(circuit, context.library, design.brief.quantity)
        ends = end_lines(circuit, design.choices, context.library)
    return Drawers(
        on_board=list(lines),
        kit=kit_of(design, context.library),
        cards=list(cards_of(design, context.library)),
        ends=list(ends),
        quantity=design.brief.quantity,
    )


@router.get("/projects/{project_id}/measuring-cards", response_class=Response)
def get_measuring_cards(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """The cards of all parts that have to be made sure of, as pages of A5."""
    design = load_design(session, head_of(session, project_id).version)
    data = write_measuring_cards(cards_of(design, context.library))
    headers = {"Content-Disposition": 'inline; filename="measuring-cards.pdf"'}
    return Response(data, media_type="application/pdf", headers=headers)


@router.get("/projects/{project_id}/parts-list", response_class=Response)
def get_parts_list(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """What is to buy for the boards, as CSV; refused before there is a circuit."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        raise Refused("There is no circuit yet.", "Make it first.", 404)
    lines = part_lines(slice_of(design.circuit), context.library, design.brief.quantity)
    headers = {"Content-Disposition": 'attachment; filename="parts-to-buy.csv"'}
    return Response(write_list(lines), media_type="text/csv; charset=utf-8", headers=headers)


class ListText(BaseModel):
    """The text of a parts list."""

    text: Annotated[str, Field(max_length=1_000_000)]


@router.post("/parts-lists")
def read_parts_list(given: ListText, context: ContextNow) -> list[ReadLine]:
    """A parts list read line by line, with what a purchaser could misread; nothing is kept of it."""
    try:
        return list(read_list(given.text.encode(), context.library))
    except ListError as error:
        raise Refused(error.problem, error.way_out, 422) from None
