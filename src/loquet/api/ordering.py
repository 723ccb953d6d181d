"""Ordering beside the quotes: what devices cost at the door, the curve over quantities, the
calendar, orders of parts, answers to a house, the order book.
"""

from datetime import UTC, date, datetime, timedelta
from math import ceil
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field
from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.api.context import Context, ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.api.houses import houses_for
from loquet.api.releases import (
    OWN_SUPPLIERS,
    ask,
    current_release,
    describe_order,
    order_boards,
    refuse_open_cards,
    refuse_stops,
    refuse_twice,
    simulated,
)
from loquet.api.shapes import OrderView
from loquet.api.suppliers import market_for
from loquet.core.comparing.briefs import Change, compare
from loquet.core.design import Design
from loquet.core.ordering.calendar import Calendar, Leg, after_open_days, calendar
from loquet.core.ordering.house import House
from loquet.core.ordering.landed import (
    CURVE,
    CurvePoint,
    Fitting,
    Landed,
    OptionCost,
    Stencil,
    Wanted,
    curve,
)
from loquet.core.provenance import Source, Working, given
from loquet.costing import landed_at, option_costs, parts_cost, parts_days, soldered_parts
from loquet.standins.file_inspection import Inspection, inspect
from loquet.standins.part_supplier import SUPPLIER
from loquet.store.designs import head_of, load_design
from loquet.store.history import version_of
from loquet.store.releases import order, place_order, release_files
from loquet.store.tables import OrderRow, ProjectRow, ReleaseRow, RevisionRow, VersionRow

router = APIRouter(prefix="/api", tags=["ordering"])
HAND_MINUTES, DAY_MINUTES = 0.75, 240
"""Soldering takes so many minutes a part, and somebody solders so many minutes a day; common
practice, no source.
"""
BRING_UP_DAYS = 2
Number = Annotated[int, Field(ge=1, le=10_000)]


class LandedView(BaseModel):
    """What devices cost with the boards of one house, the curve, and what each other option would
    change.
    """

    house: str
    house_name: str
    landed: Landed
    curve: tuple[CurvePoint, ...]
    options: tuple[OptionCost, ...]
    fits: bool
    complaints: list[str]


class CalendarView(BaseModel):
    """The calendar with the working of the soldering days."""

    calendar: Calendar
    soldering: Working


class BookRow(BaseModel):
    """An order of any project."""

    id: int
    project: int
    project_name: str
    revision: str
    house: str
    kind: str
    quantity: int
    total_cents: int
    state: str
    placed_on: date


class AnswerWanted(BaseModel):
    """An answer to the query of a house."""

    words: Annotated[str, Field(min_length=2, max_length=300)]


class RepeatWanted(BaseModel):
    """Once more; the same key never orders twice."""

    key: Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,64}$")]


class PartsWanted(BaseModel):
    """An order of parts for so many devices; the same key never orders twice, `again` says that
    they are wanted once more.
    """

    quantity: Number
    again: bool = False
    key: Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,64}$")]


@router.get("/projects/{project_id}/landed")
def get_landed(
    project_id: int,
    session: SessionNow,
    context: ContextNow,
    quantity: Number | None = None,
    stencil: Stencil = "sheet",
    fitting: Fitting = "hand",
) -> list[LandedView]:
    """What the devices cost at the door with every house, for a quantity and as a curve; from the
    files that the houses read themselves.
    """
    row, design = current_release(session, project_id)
    files = release_files(session, row.id)
    wanted = Wanted(stencil=stencil, fitting=fitting)
    number = quantity or design.brief.quantity
    found = []
    library = context.known(design)
    market = market_for(session, design, library)
    for house in houses_for(session, context, design):
        seen = inspect(files, house)
        complaints = list(ask(house, files, design, number).complaints)
        if stencil != "none":
            complaints += seen.stencil

        def cost(n: int, house: House = house, seen: Inspection = seen) -> Landed:
            return landed_at(house, seen, design, library, market, wanted, n)

        breaks = [least for least, _ in house.breaks if least >= CURVE[0]]
        found.append(
            LandedView(
                house=house.id,
                house_name=house.name,
                landed=cost(number),
                curve=curve([*CURVE, *breaks, number], cost),
                options=option_costs(house, seen, design, library, market, wanted, number),
                fits=house.fit_cents > 0,
                complaints=complaints,
            )
        )
    return found


@router.get("/projects/{project_id}/calendar")
def get_calendar(
    project_id: int, session: SessionNow, context: ContextNow, fitting: Fitting = "hand"
) -> CalendarView:
    """The calendar backwards from the day on which the devices are wanted."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        raise Refused("There is no circuit yet.", "Make it first.", 404)
    library, number = context.known(design), design.brief.quantity
    house = library.house(design.choices.house)
    road = next(
        (s.days for s in house.shipping if s.name == design.choices.shipping),
        house.shipping[0].days,
    )
    days, slowest = parts_days(design, library, market_for(session, design, library), number)
    by_house = fitting == "house" and house.fit_cents > 0
    working = soldering_days(design, number)
    legs = [
        Leg(
            name="parts",
            words=f"Parts, last of them: {slowest}",
            work_days=0,
            road_days=days,
            ordered=True,
        ),
        Leg(
            name="boards",
            words=f"Boards from {house.name}",
            work_days=house.work_days,
            road_days=0 if by_house else road,
            ordered=True,
            closed_on=house.closed_on,
        ),
    ]
    if by_house:
        legs.append(
            Leg(
                name="fitting",
                words=f"Fitting at {house.name}",
                work_days=house.fit_days,
                road_days=road,
                after=("parts", "boards"),
                closed_on=house.closed_on,
            )
        )
        before: tuple[str, ...] = ("fitting",)
    else:
        legs.append(
            Leg(
                name="soldering",
                words="Soldering here",
                work_days=int(working.value),
                after=("parts", "boards"),
            )
        )
        before = ("soldering",)
    legs.append(
        Leg(name="bring-up", words="Bring-up and tests", work_days=BRING_UP_DAYS, after=before)
    )
    today = datetime.now(UTC).date()
    return CalendarView(calendar=calendar(legs, today, design.brief.wanted_by), soldering=working)


def soldering_days(design: Design, number: int) -> Working:
    """How many days of work soldering by hand takes."""
    parts = soldered_parts(design)
    days = ceil(parts * number * HAND_MINUTES / DAY_MINUTES)
    return Working(
        id="calendar.soldering",
        title="Days of soldering by hand",
        value=days,
        unit="days",
        shown="1 day" if days == 1 else f"{days} days",
        formula="ceil(parts x devices x minutes / day)",
        inputs=(
            given("parts", parts, "", "circuit"),
            given("devices", number, "", "brief"),
            given("minutes", HAND_MINUTES, "min", "common practice, no source"),
            given("day", DAY_MINUTES, "min", "common practice, no source"),
        ),
        source=Source(kind="common practice", text="a practised hand; no source"),
    )


@router.post("/projects/{project_id}/parts-orders", status_code=201)
def order_parts(
    project_id: int, wanted: PartsWanted, session: SessionNow, context: ContextNow
) -> OrderView:
    """Order the parts of so many devices at the simulated suppliers, or note what is bought at
    one's own.
    """
    row, design = current_release(session, project_id)
    refuse_stops(session, context, project_id, design)
    if not wanted.again:
        refuse_twice(session, project_id, row, "parts", wanted.key)
    return order_parts_of(session, context, row, design, wanted.quantity, wanted.key)


def order_parts_of(
    session: Session, context: Context, row: ReleaseRow, design: Design, quantity: int, key: str
) -> OrderView:
    """An order of the parts of so many devices of a release."""
    library = context.known(design)
    market = market_for(session, design, library)
    cost = parts_cost(design, library, market, quantity)
    cents = cost.whole_cents
    now = datetime.now(UTC)
    arrives = now.date() + timedelta(days=parts_days(design, library, market, quantity)[0])
    quoted = {
        "quantity": quantity,
        "lines": [[f"parts for {quantity} devices with spares", cents]],
        "total_cents": cents,
        "arrives_on": arrives.isoformat(),
        "ready_on": after_open_days(now.date(), 2, ()).isoformat(),
        "priced_by": cost.priced_by,
    }
    placed = OrderRow(
        revision_id=row.revision_id,
        release_id=row.id,
        house=OWN_SUPPLIERS if cost.own else SUPPLIER,
        kind="parts",
        quote=quoted,
        placed_on=now.date(),
        day=0,
        created_at=now,
        request_key=key,
    )
    return describe_order(place_order(session, placed), context)


@router.post("/orders/{order_id}/repeat", status_code=201)
def repeat_order(
    order_id: int, wanted: RepeatWanted, session: SessionNow, context: ContextNow
) -> OrderView:
    """The same once more at today's prices: the very files of that order, even where the design has
    gone on since.
    """
    before = order(session, order_id)
    row = session.get(ReleaseRow, before.release_id)
    revision = session.get(RevisionRow, before.revision_id)
    if revision is not None:
        refuse_open_cards(session, revision.project_id)
    version = session.get(VersionRow, row.version_id) if row else None
    if row is None or version is None:
        raise Refused("The files of this order are not there any more.", "Write them again.", 404)
    make = order_parts_of if before.kind == "parts" else order_boards
    design, number = load_design(session, version), int(before.quote["quantity"])
    return make(session, context, row, design, number, wanted.key)


@router.post("/orders/{order_id}/answer")
def answer_house(
    order_id: int, wanted: AnswerWanted, session: SessionNow, context: ContextNow
) -> OrderView:
    """Answer the query of a house; it goes on from the next day."""
    row = order(session, order_id, lock=True)
    asked = simulated(row) and row.kind == "boards"
    if not asked or not context.library.house(row.house).asks:
        raise Refused("Nobody has asked anything about this order.", "It goes on by itself.")
    if row.answer is not None:
        raise Refused("This query is answered.", "The house goes on with the order.", 409)
    row.answer, row.waited = wanted.words, max(0, row.day - 1)
    session.flush()
    return describe_order(row, context)


@router.get("/orders")
def list_book(session: SessionNow, context: ContextNow) -> list[BookRow]:
    """The order book of all projects, the newest first."""
    query = (
        select(OrderRow, RevisionRow, ProjectRow)
        .join(RevisionRow, RevisionRow.id == OrderRow.revision_id)
        .join(ProjectRow, ProjectRow.id == RevisionRow.project_id)
        .where(ProjectRow.kept != "removed")
        .order_by(OrderRow.id.desc())
        .limit(200)
    )
    return [
        book_row(placed, revision, project, context)
        for placed, revision, project in session.execute(query)
    ]


def book_row(
    placed: OrderRow, revision: RevisionRow, project: ProjectRow, context: Context
) -> BookRow:
    """An order in the book."""
    shown = describe_order(placed, context)
    return BookRow(
        id=placed.id,
        project=project.id,
        project_name=project.name,
        revision=revision.letter,
        house=shown.house_name,
        kind=placed.kind,
        quantity=placed.quote["quantity"],
        total_cents=placed.quote["total_cents"],
        state=shown.state,
        placed_on=placed.placed_on,
    )


@router.get("/projects/{project_id}/orders/changes")
def changes_since_order(project_id: int, session: SessionNow) -> list[Change]:
    """What the brief has changed since the boards were ordered last, in any revision; nothing
    before the first order.
    """
    head = head_of(session, project_id)
    last = last_ordered(session, project_id)
    if last is None:
        return []
    before = load_design(session, version_of(session, head, last.version_id))
    return list(compare(before.brief, load_design(session, head.version).brief))


def last_ordered(session: Session, project_id: int) -> ReleaseRow | None:
    """The release of the last order of boards."""
    query = (
        select(ReleaseRow)
        .join(OrderRow, OrderRow.release_id == ReleaseRow.id)
        .join(RevisionRow, RevisionRow.id == OrderRow.revision_id)
        .where(RevisionRow.project_id == project_id, OrderRow.kind == "boards")
        .order_by(OrderRow.id.desc())
        .limit(1)
    )
    return session.scalars(query).first()
