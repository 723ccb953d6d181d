"""Slices as values: each is read once and kept under its digest, and a value that came from here is
known by its digest again.
"""

from collections import OrderedDict
from threading import Lock
from typing import Any

from sqlalchemy import select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from loquet.core.brief import Brief
from loquet.core.design import Choices
from loquet.core.pipeline import MADE
from loquet.core.plain.frozen import Frozen, canonical, digest_of
from loquet.store.tables import SliceRow

MODELS: dict[str, type[Frozen]] = {
    "brief": Brief,
    "choices": Choices,
    **{str(name): model for name, model in MADE.items()},
}
MOST = 600


class Shelf:
    """The slices used last, by digest and by which object they are."""

    def __init__(self) -> None:
        self.values: OrderedDict[tuple[str, str], Frozen] = OrderedDict()
        self.digests: dict[int, str] = {}
        self.lock = Lock()

    def get(self, name: str, digest: str) -> Frozen | None:
        """A slice that was used before."""
        with self.lock:
            found = self.values.get((name, digest))
            if found is not None:
                self.values.move_to_end((name, digest))
            return found

    def put(self, name: str, digest: str, value: Frozen) -> Frozen:
        """Keep a slice; the one that is kept already where there is one."""
        with self.lock:
            kept = self.values.setdefault((name, digest), value)
            self.digests[id(kept)] = digest
            while len(self.values) > MOST:
                _, old = self.values.popitem(last=False)
                self.digests.pop(id(old), None)
            return kept

    def digest(self, value: Frozen) -> str | None:
        """The digest of a value that is kept here."""
        with self.lock:
            return self.digests.get(id(value))


SHELF = Shelf()


def read_slices(session: Session, wanted: list[tuple[str, str]]) -> dict[tuple[str, str], Frozen]:
    """Slices by name and digest, from memory or from the database."""
    found = {key: value for key in wanted if (value := SHELF.get(*key)) is not None}
    missing = [key for key in wanted if key not in found]
    if missing:
        digests = {digest for _, digest in missing}
        rows = session.execute(
            select(SliceRow.digest, SliceRow.content).where(SliceRow.digest.in_(digests))
        )
        contents: dict[str, str] = {row.digest: row.content for row in rows}
        for name, digest in missing:
            value = MODELS[name].model_validate_json(contents[digest])
            found[name, digest] = SHELF.put(name, digest, value)
    return found


def store_slice(session: Session, name: str, value: Frozen) -> str:
    """Keep a slice once; returns its digest.

    A slice that is there is only looked at: writing it again would make every edit of every project
    wait for one row. What this process has read or written before is looked at by its digest alone.
    """
    known = SHELF.digest(value)
    plain: Any = value.model_dump(mode="json") if known is None else None
    digest = known or digest_of(plain)
    if session.scalar(select(SliceRow.digest).where(SliceRow.digest == digest)) is None:
        content = canonical(value.model_dump(mode="json") if plain is None else plain)
        session.execute(
            insert(SliceRow).prefix_with("IGNORE").values(digest=digest, content=content)
        )
    SHELF.put(name, digest, value)
    return digest
