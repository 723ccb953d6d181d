"""The workshop's own parts: every version is kept, the last one of an id counts."""

from datetime import UTC, datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from loquet.core.parts import Part
from loquet.core.plain.frozen import digest_of
from loquet.store.designs import NotFound
from loquet.store.tables import ShelfRow


class ShelfConflict(Exception):
    """Somebody changed a part since it was seen: which one, and its version now."""

    def __init__(self, part_id: str, version: int) -> None:
        super().__init__(f"{part_id} was changed meanwhile; it is version {version} now.")
        self.part_id, self.version = part_id, version


def rows_now(session: Session) -> list[ShelfRow]:
    """The last version of every part that is on the shelf, by id."""
    last = select(func.max(ShelfRow.id)).group_by(ShelfRow.part_id)
    query = select(ShelfRow).where(ShelfRow.id.in_(last), ShelfRow.gone.is_(False))
    return list(session.scalars(query.order_by(ShelfRow.part_id)))


def part_in(row: ShelfRow) -> Part:
    """The part of a version."""
    return Part.model_validate_json(row.content)


def own_parts(session: Session) -> dict[str, Part]:
    """All parts on the shelf as they are now."""
    return {row.part_id: part_in(row) for row in rows_now(session)}


def versions_of(session: Session, part_id: str) -> list[ShelfRow]:
    """All versions of a part, the newest first."""
    query = select(ShelfRow).where(ShelfRow.part_id == part_id)
    return list(session.scalars(query.order_by(ShelfRow.version.desc())))


def put_part(session: Session, part: Part, seen: int, author: str) -> ShelfRow:
    """Keep a part as a new version; the same content makes none. Raises ShelfConflict where another
    version than the `seen` one (0: none) is there.
    """
    last = newest(session, part.id)
    if (0 if last is None or last.gone else last.version) != seen:
        raise ShelfConflict(part.id, last.version if last else 0)
    digest = digest_of(part)
    if last is not None and last.digest == digest and not last.gone:
        return last
    return added(session, part.id, last, part.model_dump_json(), digest, author)


def drop_part(session: Session, part_id: str, seen: int, author: str) -> None:
    """Take a part off the shelf; its versions stay. Raises NotFound, ShelfConflict."""
    last = newest(session, part_id)
    if last is None or last.gone:
        raise NotFound(f"There is no part {part_id} on the shelf.")
    if last.version != seen:
        raise ShelfConflict(part_id, last.version)
    added(session, part_id, last, last.content, last.digest, author).gone = True


def newest(session: Session, part_id: str) -> ShelfRow | None:
    """The last version of a part, locked until the transaction ends."""
    query = select(ShelfRow).where(ShelfRow.part_id == part_id)
    return session.scalar(query.order_by(ShelfRow.version.desc()).limit(1).with_for_update())


def added(
    session: Session, part_id: str, last: ShelfRow | None, content: str, digest: str, author: str
) -> ShelfRow:
    """The next version of a part."""
    row = ShelfRow(
        part_id=part_id,
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
