"""Suppliers of one's own: their terms, their price lists taken in, carts for them."""

from collections.abc import Iterator
from datetime import date
from typing import Annotated, Any

from fastapi import APIRouter
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, Field, ValidationError
from sqlalchemy.orm import Session

from loquet.api.context import AUTHOR, Context, ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.core.buying.kit import BY_KIT, kit_key, kit_of
from loquet.core.design import Design, slice_of
from loquet.core.library import Library
from loquet.core.ordering.market import Cart, Market, Needed, keys_of
from loquet.core.ordering.price_list import (
    FIELDS,
    Decimal,
    ListFault,
    ListRefused,
    PriceLine,
    guessed_columns,
    guessed_decimal,
    read_lines,
    table_in,
)
from loquet.core.ordering.supplier import Supplier
from loquet.core.shelf.faults import supplier_faults
from loquet.core.shelf.pack import SORTS, part_faults
from loquet.costing import carts
from loquet.store import shelf
from loquet.store.designs import NotFound, head_of, load_design

router = APIRouter(prefix="/api", tags=["shelf"])
TELL_EVERY, MOST_FAULTS, SHOWN = 250, 20, 6
Text = Annotated[str, Field(max_length=20_000_000)]


class SupplierRow(BaseModel):
    """A supplier on the shelf, and how many prices its list has; `version` 0 ships with Loquet."""

    supplier: Supplier
    version: int
    prices: int


@router.get("/shelf/suppliers")
def get_suppliers(session: SessionNow, context: ContextNow) -> list[SupplierRow]:
    """Those of one's own, then the simulated ones."""
    counts = shelf.price_counts(session)
    own = [
        SupplierRow(
            supplier=Supplier.model_validate_json(row.content),
            version=row.version,
            prices=counts.get(row.entry_id, 0),
        )
        for row in shelf.rows_now(session, "supplier")
    ]
    bundled = context.library.suppliers.values()
    return [*own, *(SupplierRow(supplier=one, version=0, prices=0) for one in bundled)]


class TypedSupplier(BaseModel):
    """A supplier as it was typed, and the version that was seen (0: new)."""

    supplier: dict[str, Any]
    version: Annotated[int, Field(ge=0)] = 0


@router.put("/shelf/supplier")
def keep_supplier(given: TypedSupplier, session: SessionNow) -> SupplierRow:
    """Keep a supplier of one's own; raises Refused for one that cannot be, ShelfConflict."""
    try:
        supplier = Supplier.model_validate(given.supplier)
    except ValidationError as error:
        first = part_faults(error)[0]
        words = f"{first.field} {first.problem}."
        raise Refused(words, first.way_out, place=first.field) from None
    if not supplier.id.startswith(SORTS["supplier"]):
        way_out = "Call it supplier/NAME."
        raise Refused(f"'{supplier.id}' is no name of a supplier of one's own.", way_out)
    if faults := supplier_faults(supplier):
        raise Refused(f"{faults[0].problem}.", faults[0].way_out)
    row = shelf.put_entry(session, supplier, given.version, AUTHOR)
    counts = shelf.price_counts(session)
    return SupplierRow(supplier=supplier, version=row.version, prices=counts.get(supplier.id, 0))


class ListGiven(BaseModel):
    """A price list as it came, and of whom."""

    supplier: Annotated[str, Field(max_length=64)]
    text: Text


class ListLook(BaseModel):
    """What a list looks like: its headings, what they hold as it is remembered or by their words,
    how prices are written, its first rows, what a column may hold.
    """

    headings: list[str]
    columns: dict[str, str]
    remembered: bool
    decimal: Decimal
    rows: list[list[str]]
    lines: int
    fields: list[str]


@router.post("/shelf/price-list/look")
def look_at_list(given: ListGiven, session: SessionNow) -> ListLook:
    """A look at a price list before it is taken in; raises Refused, NotFound."""
    supplier = supplier_named(session, given.supplier)
    try:
        headings, rows = table_in(given.text)
        first = [row for _, row in zip(range(200), (row for _, row in rows), strict=False)]
    except ListRefused as error:
        raise refused(error) from None
    known = {h: f for h, f in supplier.columns.items() if h in headings}
    columns = known or guessed_columns(headings)
    prices = [h for h, f in columns.items() if f.startswith("price")]
    cells = [row[headings.index(h)] for row in first for h in prices if len(row) == len(headings)]
    return ListLook(
        headings=headings,
        columns=columns,
        remembered=bool(known),
        decimal=supplier.decimal if known else guessed_decimal(cells),
        rows=first[:SHOWN],
        lines=max(0, given.text.count("\n")),
        fields=list(FIELDS),
    )


class ListTaken(ListGiven):
    """A price list to take in: what its columns hold, how prices are written, when it was seen;
    `leave_out` takes it without the lines that cannot be read.
    """

    columns: Annotated[dict[str, str], Field(max_length=80)]
    decimal: Decimal = "."
    seen_on: date
    leave_out: bool = False


class ListStep(BaseModel):
    """A line of the answer while a list is taken in: how many lines were read of how many; at last
    how many were kept, or what is wrong, and then nothing is kept.
    """

    done: int
    of: int
    kept: int | None = None
    faults: list[ListFault] = []
    more_faults: int = 0


@router.post(
    "/shelf/price-list", response_class=StreamingResponse, responses={200: {"model": ListStep}}
)
def take_list(given: ListTaken, session: SessionNow, context: ContextNow) -> StreamingResponse:
    """Take a price list in place of the one before, telling how far it is; its columns are kept
    with the supplier. Raises Refused, NotFound.
    """
    supplier_named(session, given.supplier)
    try:
        table_in(given.text)
    except ListRefused as error:
        raise refused(error) from None
    return StreamingResponse(
        (f"data: {step.model_dump_json()}\n\n" for step in taking(given, context)),
        media_type="text/event-stream",
        headers={"Cache-Control": "no-cache"},
    )


def taking(given: ListTaken, context: Context) -> Iterator[ListStep]:
    """The steps of taking a list in; all of it or nothing is kept."""
    of = max(1, given.text.count("\n"))
    lines: list[PriceLine] = []
    faults: list[ListFault] = []
    rows = read_lines(given.text, given.supplier, given.columns, given.decimal, given.seen_on)
    try:
        for count, row in enumerate(rows, 1):
            if isinstance(row, PriceLine):
                lines.append(row)
            else:
                faults.append(row)
            if count % TELL_EVERY == 0:
                yield ListStep(done=count, of=max(of, count))
    except ListRefused as error:
        wrong = ListFault(line=error.line, column="", problem=error.problem, way_out=error.way_out)
        yield ListStep(done=of, of=of, faults=[wrong])
        return
    done = len(lines) + len(faults)
    told, more = faults[:MOST_FAULTS], max(0, len(faults) - MOST_FAULTS)
    if (faults and not given.leave_out) or not lines:
        yield ListStep(done=done, of=done, faults=told, more_faults=more)
        return
    with context.factory.begin() as session:
        supplier = supplier_named(session, given.supplier)
        learnt = {"columns": dict(given.columns), "decimal": given.decimal}
        row_now = shelf.newest(session, supplier.id)
        seen = row_now.version if row_now else 0
        shelf.put_entry(session, supplier.model_copy(update=learnt), seen, AUTHOR)
        kept = shelf.put_prices(session, supplier.id, lines)
    yield ListStep(done=done, of=done, kept=kept, faults=told, more_faults=more)


def refused(error: ListRefused) -> Refused:
    """A list that cannot be read, as an answer."""
    words = f"line {error.line}: {error.problem}."
    return Refused(words, error.way_out, place=f"line {error.line}")


def supplier_named(session: Session, supplier_id: str) -> Supplier:
    """A supplier of one's own; raises NotFound."""
    found = shelf.own_suppliers(session).get(supplier_id)
    if found is None:
        raise NotFound(f"There is no supplier {supplier_id} on the shelf.")
    return found


class PricesView(BaseModel):
    """Lines of a price list, and how many there are."""

    lines: list[PriceLine]
    count: int


@router.get("/shelf/prices")
def get_prices(
    supplier: str, session: SessionNow, words: Annotated[str, Field(max_length=80)] = ""
) -> PricesView:
    """The first lines of a supplier's list that hold some words."""
    lines, count = shelf.prices_of(session, supplier[:64], words.strip(), 60)
    return PricesView(lines=list(lines), count=count)


class PriceLink(BaseModel):
    """Which part of the shelf a line sells, or `kit:` and the words of a line of kits; none takes
    it back.
    """

    supplier: Annotated[str, Field(max_length=64)]
    order_number: Annotated[str, Field(max_length=80)]
    part: Annotated[str, Field(max_length=300)]


@router.put("/shelf/price-link")
def link_price(given: PriceLink, session: SessionNow, context: ContextNow) -> PriceLine:
    """Say which part a line sells, or what of a kit; raises Refused for a part that is not there,
    NotFound.
    """
    there = context.library.parts.keys() | shelf.own_parts(session).keys()
    free = given.part.startswith(("chip:", BY_KIT))
    if given.part and given.part not in there and not free:
        raise Refused(f"There is no part {given.part[:80]} on the shelf.", "Type its id.")
    return shelf.link_price(session, given.supplier, given.order_number, given.part)


def market_for(session: Session, design: Design, library: Library) -> Market:
    """One's own suppliers with what they ask for the parts of a design."""
    if not design.circuit:
        return shelf.market_of(session, ())
    circuit = slice_of(design.circuit)
    used = {p for c in circuit.components for p in (c.part, *c.sits_in)}
    keys = {key for part in used for key in keys_of(part, library.parts.get(part))}
    keys |= {kit_key(line.what) for line in kit_of(design, library).lines}
    return shelf.market_of(session, sorted(keys))


class CartsView(BaseModel):
    """A cart for every supplier of one's own, and what none of them sells."""

    carts: list[Cart]
    nowhere: list[Needed]


@router.get("/projects/{project_id}/carts")
def get_carts(
    project_id: int,
    session: SessionNow,
    context: ContextNow,
    quantity: Annotated[int | None, Field(ge=1, le=10_000)] = None,
) -> CartsView:
    """What to put into the cart of each supplier for so many devices."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        return CartsView(carts=[], nowhere=[])
    library = context.known(design)
    number = quantity or design.brief.quantity
    found, nowhere = carts(design, library, market_for(session, design, library), number)
    return CartsView(carts=list(found), nowhere=list(nowhere))
