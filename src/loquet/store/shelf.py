"""The workshop's own parts, houses, suppliers and pastes: every version is kept, the last of an id
counts; and the price lists of the suppliers as they are now.
"""

from collections.abc import Iterable
from datetime import UTC, datetime

from sqlalchemy import delete, func, insert, or_, select
from sqlalchemy.orm import Session

from loquet.core.ordering.house import House
from loquet.core.ordering.market import Market, number_key
from loquet.core.ordering.price_list import PriceLine
from loquet.core.ordering.supplier import Supplier
from loquet.core.parts import Part
from loquet.core.parts.paste import Paste
from loquet.core.plain.frozen import digest_of
from loquet.core.shelf.pack import SORTS, Entry
from loquet.store.designs import NotFound
from loquet.store.tables import PriceRow, ShelfRow

MODELS: dict[str, type[Entry]] = {
    SORTS["part"]: Part,
    SORTS["house"]: House,
    SORTS["supplier"]: Supplier,
    SORTS["paste"]: Paste,
}
AT_ONCE = 1000


class ShelfConflict(Exception):
    """Somebody changed an entry since it was seen: which one, and its version now."""

    def __init__(self, entry_id: str, version: int) -> None:
        super().__init__(f"{entry_id} was changed meanwhile; it is version {version} now.")
        self.entry_id, self.version = entry_id, version


def rows_now(session: Session, sort: str = "part") -> list[ShelfRow]:
    """The last version of every entry of a sort that is on the shelf, by id."""
    last = select(func.max(ShelfRow.id)).group_by(ShelfRow.entry_id)
    begins = ShelfRow.entry_id.startswith(SORTS[sort], autoescape=True)
    query = select(ShelfRow).where(ShelfRow.id.in_(last), ShelfRow.gone.is_(False), begins)
    return list(session.scalars(query.order_by(ShelfRow.entry_id)))


def entry_in(row: ShelfRow) -> Entry:
    """The entry of a version."""
    model = next(model for begins, model in MODELS.items() if row.entry_id.startswith(begins))
    return model.model_validate_json(row.content)


def part_in(row: ShelfRow) -> Part:
    """The part of a version."""
    return Part.model_validate_json(row.content)


def own_parts(session: Session) -> dict[str, Part]:
    """All parts on the shelf as they are now."""
    return {row.entry_id: part_in(row) for row in rows_now(session)}


def own_houses(session: Session) -> dict[str, House]:
    """All houses of one's own as they are now."""
    rows = rows_now(session, "house")
    return {row.entry_id: House.model_validate_json(row.content) for row in rows}


def own_suppliers(session: Session) -> dict[str, Supplier]:
    """All suppliers of one's own as they are now."""
    rows = rows_now(session, "supplier")
    return {row.entry_id: Supplier.model_validate_json(row.content) for row in rows}


def own_pastes(session: Session) -> dict[str, Paste]:
    """All pastes of one's own as they are now."""
    rows = rows_now(session, "paste")
    return {row.entry_id: Paste.model_validate_json(row.content) for row in rows}


def versions_of(session: Session, entry_id: str) -> list[ShelfRow]:
    """All versions of an entry, the newest first."""
    query = select(ShelfRow).where(ShelfRow.entry_id == entry_id)
    return list(session.scalars(query.order_by(ShelfRow.version.desc())))


def put_entry(session: Session, entry: Entry, seen: int, author: str) -> ShelfRow:
    """Keep an entry as a new version; the same content makes none. Raises ShelfConflict where
    another version than the `seen` one (0: none) is there.
    """
    last = newest(session, entry.id)
    if (0 if last is None or last.gone else last.version) != seen:
        raise ShelfConflict(entry.id, last.version if last else 0)
    digest = digest_of(entry)
    if last is not None and last.digest == digest and not last.gone:
        return last
    return added(session, entry.id, last, entry.model_dump_json(), digest, author)


def drop_entry(session: Session, entry_id: str, seen: int, author: str) -> None:
    """Take an entry off the shelf; its versions stay, the price list of a supplier goes. Raises
    NotFound, ShelfConflict.
    """
    last = newest(session, entry_id)
    if last is None or last.gone:
        raise NotFound(f"There is no {entry_id} on the shelf.")
    if last.version != seen:
        raise ShelfConflict(entry_id, last.version)
    added(session, entry_id, last, last.content, last.digest, author).gone = True
    session.execute(delete(PriceRow).where(PriceRow.supplier == entry_id))


def newest(session: Session, entry_id: str) -> ShelfRow | None:
    """The last version of an entry, locked until the transaction ends."""
    query = select(ShelfRow).where(ShelfRow.entry_id == entry_id)
    return session.scalar(query.order_by(ShelfRow.version.desc()).limit(1).with_for_update())


def added(
    session: Session, entry_id: str, last: ShelfRow | None, content: str, digest: str, author: str
) -> ShelfRow:
    """The next version of an entry."""
    row = ShelfRow(
        entry_id=entry_id,
        version=last.version + 1 if last else 1,
        digest=digest,
        content=content,
        gone=False,
        author=author,
        created_at=datetime.now(UTC),
    )
    session.add(row)
    session.flush()
    return row


def put_prices(session: Session, supplier: str, lines: Iterable[PriceLine]) -> int:
    """The price list of a supplier in place of the one before; returns its lines."""
    session.execute(delete(PriceRow).where(PriceRow.supplier == supplier))
    rows = [
        {
            "supplier": supplier,
            "order_number": line.order_number,
            "part": line.part,
            "number_key": number_key(line.maker_number),
            "content": line.model_dump_json(),
        }
        for line in lines
    ]
    for start in range(0, len(rows), AT_ONCE):
        session.execute(insert(PriceRow), rows[start : start + AT_ONCE])
    return len(rows)


def price_counts(session: Session) -> dict[str, int]:
    """How many lines the price list of each supplier has."""
    query = select(PriceRow.supplier, func.count()).group_by(PriceRow.supplier)
    rows = session.execute(query).all()
    return {str(row[0]): int(row[1]) for row in rows}


def all_prices(session: Session) -> tuple[PriceLine, ...]:
    """Every line of every price list."""
    query = select(PriceRow.content).order_by(PriceRow.supplier, PriceRow.id)
    return tuple(PriceLine.model_validate_json(text) for text in session.scalars(query))


def prices_of(
    session: Session, supplier: str, words: str, most: int
) -> tuple[tuple[PriceLine, ...], int]:
    """Lines of a supplier's list that hold some words, the first so many, and how many there
    are.
    """
    found = select(PriceRow).where(PriceRow.supplier == supplier)
    if words:
        found = found.where(PriceRow.content.contains(words, autoescape=True))
    count = session.scalar(select(func.count()).select_from(found.subquery())) or 0
    rows = session.scalars(found.order_by(PriceRow.id).limit(most))
    return tuple(PriceLine.model_validate_json(row.content) for row in rows), count


def link_price(session: Session, supplier: str, order_number: str, part: str) -> PriceLine:
    """Say which part of the shelf a line sells; raises NotFound."""
    query = select(PriceRow).where(
        PriceRow.supplier == supplier, PriceRow.order_number == order_number
    )
    row = session.scalar(query.with_for_update())
    if row is None:
        raise NotFound(f"The list has no line {order_number}.")
    line = PriceLine.model_validate_json(row.content).model_copy(update={"part": part})
    row.part, row.content = part, line.model_dump_json()
    session.flush()
    return line


def market_of(session: Session, keys: Iterable[str]) -> Market:
    """One's own suppliers with the lines of their lists for parts by their keys."""
    suppliers, wanted = own_suppliers(session), list(keys)
    if not suppliers or not wanted:
        return Market(suppliers)
    query = select(PriceRow.content).where(
        or_(PriceRow.part.in_(wanted), PriceRow.number_key.in_(wanted))
    )
    lines = (PriceLine.model_validate_json(text) for text in session.scalars(query))
    return Market.of(suppliers.values(), lines)
