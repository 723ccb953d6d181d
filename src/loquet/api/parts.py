"""What the Parts station shows."""

from datetime import UTC, date, datetime
from typing import Annotated

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field

from loquet.api.context import ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.api.suppliers import market_for
from loquet.core.buying.kit import Kit, kit_of
from loquet.core.buying.shopping import ListError, ReadLine, read_list, write_list
from loquet.core.design import slice_of
from loquet.core.drawers.confirming import MeasuringCard, cards_of
from loquet.core.drawers.ends import EndLine, end_lines
from loquet.core.drawers.lines import DrawerLine, part_lines
from loquet.core.drawers.measuring_pages import write_measuring_cards
from loquet.core.drawers.substitutes import drop_ins
from loquet.core.ordering.offer import Offer
from loquet.costing import offers_for
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
        circuit, library = slice_of(design.circuit), context.known(design)
        bought = design.choices.bought
        lines = part_lines(circuit, library, design.brief.quantity, bought)
        ends = end_lines(circuit, design.choices, library)
    return Drawers(
        on_board=list(lines),
        kit=kit_of(design, context.known(design)),
        cards=list(cards_of(design, context.known(design))),
        ends=list(ends),
        quantity=design.brief.quantity,
    )


@router.get("/projects/{project_id}/measuring-cards", response_class=Response)
def get_measuring_cards(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """The cards of all parts that have to be made sure of, as pages of A5."""
    design = load_design(session, head_of(session, project_id).version)
    data = write_measuring_cards(cards_of(design, context.known(design)))
    headers = {"Content-Disposition": 'inline; filename="measuring-cards.pdf"'}
    return Response(data, media_type="application/pdf", headers=headers)


@router.get("/projects/{project_id}/parts-list", response_class=Response)
def get_parts_list(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """What is to buy for the boards, as CSV; refused before there is a circuit."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        raise Refused("There is no circuit yet.", "Make it first.", 404)
    bought = design.choices.bought
    lines = part_lines(
        slice_of(design.circuit), context.known(design), design.brief.quantity, bought
    )
    headers = {"Content-Disposition": 'attachment; filename="parts-to-buy.csv"'}
    return Response(write_list(lines), media_type="text/csv; charset=utf-8", headers=headers)


class OfferRow(BaseModel):
    """What a supplier asks for a line: how many are there and when, how many must be taken, cents
    each and in all, the quantity from which they cost less, and of one's own suppliers the order
    number and the day on which the price was seen.
    """

    supplier: str
    pieces: int
    days: int
    buys: int
    each_cents: float
    total_cents: float
    next_break: int
    order_number: str = ""
    seen_on: date | None = None
    old: bool = False


class LineOffers(BaseModel):
    """The offers for a line, and what fits in its place: part and words."""

    line: str
    offers: list[OfferRow]
    drop_ins: list[tuple[str, str]]


@router.get("/projects/{project_id}/offers")
def get_offers(project_id: int, session: SessionNow, context: ContextNow) -> list[LineOffers]:
    """What suppliers ask for the parts of the boards; nothing before there is a circuit."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        return []
    library = context.known(design)
    market = market_for(session, design, library)
    found = []
    for line in part_lines(slice_of(design.circuit), library, design.brief.quantity):
        part, asked = library.parts.get(line.part), offers_for(line, library, market)
        if not asked and line.price_cents is None:
            continue
        offers = [offer_row(offer, line.to_buy) for offer in asked]
        others = drop_ins(part, library) if part is not None else ()
        fitting = [(p.id, p.description) for p in others]
        found.append(LineOffers(line=line.line, offers=offers, drop_ins=fitting))
    return found


def offer_row(offer: Offer, count: int) -> OfferRow:
    """An offer for so many."""
    buys = offer.buys(count)
    each = offer.each_cents(buys)
    later = (least for least, cents in offer.breaks if least > buys and cents < each)
    return OfferRow(
        supplier=offer.supplier,
        pieces=offer.pieces,
        days=offer.days_for(count),
        buys=buys,
        each_cents=each,
        total_cents=round(each * buys, 2),
        next_break=next(later, 0),
        order_number=offer.order_number,
        seen_on=offer.seen_on,
        old=offer.old(datetime.now(UTC).date()),
    )


class ListText(BaseModel):
    """The text of a parts list."""

    text: Annotated[str, Field(max_length=1_000_000)]


@router.post("/parts-lists")
def read_parts_list(given: ListText, context: ContextNow) -> list[ReadLine]:
    """A parts list read line by line, with what a purchaser could misread; nothing is kept of
    it.
    """
    try:
        return list(read_list(given.text.encode(), context.library))
    except ListError as error:
        raise Refused(error.problem, error.way_out, 422) from None
