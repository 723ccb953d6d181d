"""The Release station: files, layers read back, quotes, orders, download."""

import io
import zipfile
from datetime import UTC, date, datetime, timedelta
from typing import Annotated

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, Field
from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.api.context import Context, ContextNow, SessionNow
from loquet.api.describing import all_findings
from loquet.api.errors import Refused
from loquet.api.houses import houses_for
from loquet.api.shapes import LayerView, OrderView, QuoteView, ReleaseFile, ReleaseView
from loquet.core.design import Design
from loquet.core.geometry import Bar, Box, Round
from loquet.core.ordering.house import OWN_HOUSE, House
from loquet.core.ordering.noting import NOTED_STATES, noted_state
from loquet.core.plain.frozen import digest_of
from loquet.core.proof.drill_reader import read_drill
from loquet.core.proof.figures import proof_workings
from loquet.core.proof.gerber_reader import read_gerber
from loquet.costing import asked_of
from loquet.standins.board_house import (
    PART_STATES,
    STATES,
    WAITING,
    Quote,
    order_state,
    parts_state,
    quote,
)
from loquet.standins.file_inspection import inspect
from loquet.standins.quote_figures import each_figure, line_figures, ordered_figure, total_figure
from loquet.store.designs import head_of, load_design
from loquet.store.logbook import open_cards
from loquet.store.releases import latest_release, order, orders_of, place_order, release_files
from loquet.store.shelf import own_houses
from loquet.store.tables import OrderRow, ReleaseFileRow, ReleaseRow

router = APIRouter(prefix="/api", tags=["releases"])


@router.get("/projects/{project_id}/release")
def get_release(project_id: int, session: SessionNow) -> ReleaseView | None:
    """The newest release, or nothing."""
    head = head_of(session, project_id)
    row = latest_release(session, head.revision.id)
    if row is None:
        return None
    files = session.scalars(
        select(ReleaseFileRow)
        .where(ReleaseFileRow.release_id == row.id)
        .order_by(ReleaseFileRow.path)
    ).all()
    current = row.design_digest == digest_of(load_design(session, head.version))
    return ReleaseView(
        id=row.id,
        current=current,
        proof=list(proof_workings(row.proof, len(files))),
        files=[ReleaseFile(path=f.path, bytes=len(f.content), sha256=f.sha256) for f in files],
    )


@router.get("/releases/{release_id}/layers/{file:path}")
def get_layer(release_id: int, file: str, session: SessionNow) -> LayerView:
    """A layer read back from the stored bytes; `file` is its place in the package."""
    data = (
        release_files(session, release_id).get(file)
        if "fabrication/" in file or "panel/" in file
        else None
    )
    if data is None:
        raise Refused(
            f"There is no layer '{file[:40]}' in this release.", "Choose one of the list.", 404
        )
    if file.endswith(".drl"):
        holes = read_drill(data, file)
        flashes = [("round", h.x / 1e6, h.y / 1e6, h.d / 1e6, h.d / 1e6, 0.0) for h in holes]
        return LayerView(
            file=file, function="Drill", flashes=flashes, strokes=[], arcs=[], regions=[]
        )
    return describe_layer(data, file)


def describe_layer(data: bytes, file: str) -> LayerView:
    """What is in a Gerber file, in millimetres."""
    layer = read_gerber(data, file)
    flashes: list[tuple[str, float, float, float, float, float]] = []
    strokes: list[tuple[float, float, float, float, float]] = []
    for item in layer.objects:
        match item.shape:
            case Round() as disc:
                flashes.append(("round", disc.x / 1e6, disc.y / 1e6, disc.d / 1e6, disc.d / 1e6, 0))
            case Box() as box:
                flashes.append(
                    ("box", box.x / 1e6, box.y / 1e6, box.w / 1e6, box.h / 1e6, box.turn)
                )
            case Bar() as bar:
                strokes.append(
                    (bar.x1 / 1e6, bar.y1 / 1e6, bar.x2 / 1e6, bar.y2 / 1e6, bar.w / 1e6)
                )
    return LayerView(
        file=file,
        function=layer.attributes.get(".FileFunction", ""),
        flashes=flashes,
        strokes=strokes,
        arcs=[
            (a.x1 / 1e6, a.y1 / 1e6, a.x2 / 1e6, a.y2 / 1e6, a.cx / 1e6, a.cy / 1e6)
            for a in layer.arcs
        ],
        regions=[(r.dark, [(x / 1e6, y / 1e6) for x, y in r.ring]) for r in layer.regions],
    )


@router.get("/releases/{release_id}/package.zip", response_class=Response)
def download(release_id: int, session: SessionNow) -> Response:
    """The package as a zip; the same release gives the same bytes."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for path, data in sorted(release_files(session, release_id).items()):
            archive.writestr(
                zipfile.ZipInfo(path, (2000, 1, 1, 0, 0, 0)), data, zipfile.ZIP_DEFLATED
            )
    headers = {"Content-Disposition": f'attachment; filename="loquet-release-{release_id}.zip"'}
    return Response(out.getvalue(), media_type="application/zip", headers=headers)


def current_release(session: Session, project_id: int) -> tuple[ReleaseRow, Design]:
    """The newest release, which must be of the design as it stands."""
    head = head_of(session, project_id)
    row = latest_release(session, head.revision.id)
    if row is None:
        raise Refused("There are no files yet.", "Write and prove them first.")
    design = load_design(session, head.version)
    if row.design_digest != digest_of(design):
        raise Refused(
            "The design has changed since the files were written.", "Write and prove them again."
        )
    return row, design


@router.get("/projects/{project_id}/quotes")
def get_quotes(
    project_id: int, session: SessionNow, context: ContextNow, quantity: int | None = None
) -> list[QuoteView]:
    """Simulated quotes of every house, side by side, each from the files it reads itself."""
    row, design = current_release(session, project_id)
    files = release_files(session, row.id)
    number = design.brief.quantity if quantity is None else quantity
    if not 1 <= number <= 10_000:
        raise Refused("The quantity must be between 1 and 10000.", "Give another quantity.")
    on_shelf = own_houses(session)
    return [
        describe_quote(ask(house, files, design, number), house, design, on_shelf)
        for house in houses_for(session, context, design)
    ]


def ask(house: House, files: dict[str, bytes], design: Design, quantity: int) -> Quote:
    """A quote with the design's choices, or the nearest that the house offers where it is not the
    chosen one.
    """
    today = datetime.now(UTC).date()
    return quote(house, inspect(files, house), quantity, asked_of(house, design), today)


def is_changed(house: House, now: House | None) -> bool:
    """Whether the shelf has a house otherwise than it was asked."""
    return now is not None and now.in_euro != house


def describe_quote(
    given: Quote, house: House, design: Design, on_shelf: dict[str, House]
) -> QuoteView:
    """A quote with what else the house offers, and the house as it is on the shelf."""
    return QuoteView(
        house=house.id,
        house_name=house.name,
        simulated=house.simulated,
        within_cents=house.within_cents,
        own=on_shelf.get(house.id),
        changed=is_changed(house, on_shelf.get(house.id)),
        about=house.about,
        quantity=given.quantity,
        lines=line_figures(given, house),
        total=total_figure(given.lines, given.total_cents, house.priced_by),
        each=each_figure(given, house.priced_by),
        ready_on=given.ready_on,
        arrives_on=given.arrives_on,
        in_time=date.fromisoformat(given.arrives_on) <= design.brief.wanted_by,
        next_break=given.next_break,
        cheaper=given.cheaper,
        complaints=list(given.complaints),
        finishes=list(house.finishes),
        colours=list(house.colours),
        thickness_um=list(house.thickness_um),
        copper_um=list(house.copper_um),
        shipping=[s.name for s in house.shipping],
    )


class OrderRequest(BaseModel):
    """How many to order at the chosen house, and a key of the page's own: the same key never orders
    twice. `again` says that the same boards are wanted once more.
    """

    quantity: int
    again: bool = False
    key: Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,64}$")]


class DayRequest(BaseModel):
    """The simulated day that the page shows; the next one comes only where that is still the
    present day.
    """

    day: int


@router.post("/projects/{project_id}/orders", status_code=201)
def new_order(
    project_id: int, wanted: OrderRequest, session: SessionNow, context: ContextNow
) -> OrderView:
    """Order the current release at the chosen (simulated) house; refused while the house
    complains.
    """
    row, design = current_release(session, project_id)
    if not 1 <= wanted.quantity <= 10_000:
        raise Refused("The quantity must be between 1 and 10000.", "Give another quantity.")
    refuse_stops(session, context, project_id, design)
    if not wanted.again:
        refuse_twice(session, project_id, row, "boards", wanted.key)
    return order_boards(session, context, row, design, wanted.quantity, wanted.key)


def refuse_twice(session: Session, project_id: int, row: ReleaseRow, kind: str, key: str) -> None:
    """What was ordered of a release already is asked about before it is ordered again; raises
    Refused with place `again`.
    """
    placed = [o for o, _ in orders_of(session, project_id) if o.kind == kind]
    before = next((o for o in placed if o.release_id == row.id), None)
    if before is not None and before.request_key != key:
        what = "These boards were" if kind == "boards" else "Their parts were"
        raise Refused(
            f"{what} ordered on {before.placed_on:%Y-%m-%d} already, "
            f"for {before.quote['quantity']} devices.",
            "Say that you want them once more.",
            409,
            "again",
        )


def refuse_open_cards(session: Session, project_id: int) -> None:
    """Nothing is ordered while a fault is open in the log; raises Refused."""
    cards = open_cards(session, project_id)
    if cards:
        raise Refused(
            f"A fault is open in the log: {cards[0].title}.",
            "Fix it and say so at the Log, or waive it with a reason.",
            409,
        )


def refuse_stops(session: Session, context: Context, project_id: int, design: Design) -> None:
    """Nothing is ordered past a stop, be it of a rule or an open card of the log; raises
    Refused.
    """
    refuse_open_cards(session, project_id)
    stop = next(
        (f for f in all_findings(design, context.known(design)) if f.severity == "stop"), None
    )
    if stop is not None:
        raise Refused(f"A stop stands against the order: {stop.sentence}", stop.way_out, 409)


def order_boards(
    session: Session, context: Context, row: ReleaseRow, design: Design, quantity: int, key: str
) -> OrderView:
    """An order of the boards of a release at the house of its design; refused while the house
    complains.
    """
    house = context.known(design).house(design.choices.house)
    given = ask(house, release_files(session, row.id), design, quantity)
    if given.complaints:
        raise Refused(
            f"{house.name} does not take this order: {given.complaints[0]}",
            "Change the choice, or take another house.",
        )
    now = datetime.now(UTC)
    placed = OrderRow(
        revision_id=row.revision_id,
        release_id=row.id,
        house=house.id,
        quote={**given.plain(), "house_name": house.name, "priced_by": house.priced_by},
        placed_on=now.date(),
        day=0,
        created_at=now,
        request_key=key,
    )
    return describe_order(place_order(session, placed), context)


@router.get("/projects/{project_id}/orders")
def list_orders(project_id: int, session: SessionNow, context: ContextNow) -> list[OrderView]:
    """Orders of all revisions, the newest first."""
    head_of(session, project_id)
    return [describe_order(row, context, letter) for row, letter in orders_of(session, project_id)]


@router.post("/orders/{order_id}/next-day")
def next_day(
    order_id: int, wanted: DayRequest, session: SessionNow, context: ContextNow
) -> OrderView:
    """Let one simulated day pass; a request that is repeated changes nothing more."""
    row = order(session, order_id, lock=True)
    if not simulated(row):
        raise Refused("Nothing here is simulated.", "Its days go by as days do.")
    if row.day == wanted.day:
        row.day += 1
    session.flush()
    return describe_order(row, context)


OWN_SUPPLIERS = "one's own suppliers"
"""Who is named for parts that are bought by one's own price lists."""


def simulated(row: OrderRow) -> bool:
    """Whether an order lies with those that ship with Loquet."""
    return not row.house.startswith(OWN_HOUSE) and row.house != OWN_SUPPLIERS


def describe_order(row: OrderRow, context: Context, revision: str = "") -> OrderView:
    """An order with its state on its simulated day, and the letter of its revision where that is
    asked.
    """
    own = not simulated(row)
    if own:
        name, states = str(row.quote.get("house_name", OWN_SUPPLIERS)), list(NOTED_STATES)
        state, sentence = noted_state(row.quote, row.placed_on, datetime.now(UTC).date())
    elif row.kind == "parts":
        state, sentence = parts_state(row.quote, row.placed_on, row.day)
        name, states = row.house, list(PART_STATES)
    else:
        house = context.library.house(row.house)
        name, states = house.name, list(STATES)
        state, sentence = order_state(
            house, row.quote, row.placed_on, row.day, row.answer, row.waited
        )
    day = datetime.now(UTC).date() if own else row.placed_on + timedelta(days=row.day)
    return OrderView(
        id=row.id,
        revision=revision,
        kind=row.kind,
        asks=state == WAITING,
        answer=row.answer or "",
        release=row.release_id,
        house_name=name,
        quantity=row.quote["quantity"],
        total=ordered_figure(row.quote, str(row.quote.get("priced_by", f"{name} (simulated)"))),
        state=state,
        sentence=sentence,
        day=row.day,
        date=day.isoformat(),
        simulated=not own,
        states=states,
    )
