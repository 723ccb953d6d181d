"""Tables. Times are UTC; keys and digests compare by bytes."""

from datetime import UTC, date, datetime
from typing import Any

from sqlalchemy import (
    JSON,
    Date,
    ForeignKey,
    Integer,
    LargeBinary,
    String,
    Text,
    TypeDecorator,
    UniqueConstraint,
)
from sqlalchemy.dialects.mysql import DATETIME, LONGBLOB, LONGTEXT
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

KEY = String(64, collation="utf8mb4_bin")
LONG_TEXT = Text().with_variant(LONGTEXT(), "mysql", "mariadb")
LONG_BYTES = LargeBinary().with_variant(LONGBLOB(), "mysql", "mariadb")


class UtcTime(TypeDecorator[datetime]):
    """A moment in UTC to the microsecond; the database keeps no zone, so it is put on and taken off
    here.
    """

    impl = DATETIME(fsp=6)
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Zone off."""
        if value is None:
            return None
        if value.tzinfo is None:
            raise ValueError("a moment without a zone cannot be stored")
        return value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Zone on."""
        return value.replace(tzinfo=UTC) if value else None


class Base(DeclarativeBase):
    """Base of all tables."""


class ProjectRow(Base):
    """A project; `demo` names the scenario it was seeded from, `kept` is shelf, archive or
    removed.
    """

    __tablename__ = "projects"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    demo: Mapped[str] = mapped_column(String(40), default="")
    kept: Mapped[str] = mapped_column(String(12), default="shelf", server_default="shelf")
    created_at: Mapped[datetime] = mapped_column(UtcTime)


class RevisionRow(Base):
    """A revision letter of a project: `head` is what is shown, `tip` where redo leads, `turn` the
    optimistic lock.
    """

    __tablename__ = "revisions"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    project_id: Mapped[int] = mapped_column(
        ForeignKey("projects.id", ondelete="CASCADE"), index=True
    )
    letter: Mapped[str] = mapped_column(String(2))
    head_id: Mapped[int | None] = mapped_column(Integer)
    tip_id: Mapped[int | None] = mapped_column(Integer)
    turn: Mapped[int] = mapped_column(Integer, default=0)


class SliceRow(Base):
    """A slice of a design under the digest of its canonical JSON."""

    __tablename__ = "slices"
    digest: Mapped[str] = mapped_column(KEY, primary_key=True)
    content: Mapped[str] = mapped_column(LONG_TEXT)


class AnswerRow(Base):
    """An answer that took long, under the digest of what it depends on."""

    __tablename__ = "answers"
    digest: Mapped[str] = mapped_column(KEY, primary_key=True)
    content: Mapped[str] = mapped_column(LONG_TEXT)
    created_at: Mapped[datetime] = mapped_column(UtcTime)


class ShelfRow(Base):
    """A version of a part, house or supplier of one's own; the highest of an id is what it is now,
    `gone` where it was taken off the shelf.
    """

    __tablename__ = "shelf_entries"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    entry_id: Mapped[str] = mapped_column(KEY, index=True)
    version: Mapped[int] = mapped_column(Integer)
    digest: Mapped[str] = mapped_column(KEY)
    content: Mapped[str] = mapped_column(LONG_TEXT)
    gone: Mapped[bool] = mapped_column(default=False)
    author: Mapped[str] = mapped_column(String(40))
    created_at: Mapped[datetime] = mapped_column(UtcTime)
    __table_args__ = (UniqueConstraint("entry_id", "version"),)


class PriceRow(Base):
    """A line of a supplier's price list; `part` is the part of the shelf that it names, if it does,
    `number_key` its maker's number as numbers are compared.
    """

    __tablename__ = "price_lines"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    supplier: Mapped[str] = mapped_column(KEY, index=True)
    order_number: Mapped[str] = mapped_column(String(80))
    part: Mapped[str] = mapped_column(String(300), index=True)
    number_key: Mapped[str] = mapped_column(String(80), index=True)
    content: Mapped[str] = mapped_column(LONG_TEXT)
    __table_args__ = (UniqueConstraint("supplier", "order_number"),)


class VersionRow(Base):
    """An immutable version: the digests of its slices, its parent, and the edit that made it;
    `former_slices` of a version that was turned, `slices_before_making` of one whose choices still
    said how its boards are made.
    """

    __tablename__ = "versions"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    revision_id: Mapped[int] = mapped_column(
        ForeignKey("revisions.id", ondelete="CASCADE"), index=True
    )
    parent_id: Mapped[int | None] = mapped_column(Integer)
    slices: Mapped[dict[str, Any]] = mapped_column(JSON)
    former_slices: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    slices_before_making: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    label: Mapped[str] = mapped_column(String(200))
    author: Mapped[str] = mapped_column(String(80))
    created_at: Mapped[datetime] = mapped_column(UtcTime)


class ReleaseRow(Base):
    """A proven package of a version."""

    __tablename__ = "releases"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    revision_id: Mapped[int] = mapped_column(
        ForeignKey("revisions.id", ondelete="CASCADE"), index=True
    )
    version_id: Mapped[int] = mapped_column(Integer)
    design_digest: Mapped[str] = mapped_column(KEY)
    proof: Mapped[dict[str, Any]] = mapped_column(JSON)
    created_at: Mapped[datetime] = mapped_column(UtcTime)


class ReleaseFileRow(Base):
    """A file of a release with its SHA-256."""

    __tablename__ = "release_files"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    release_id: Mapped[int] = mapped_column(
        ForeignKey("releases.id", ondelete="CASCADE"), index=True
    )
    path: Mapped[str] = mapped_column(String(120))
    sha256: Mapped[str] = mapped_column(KEY)
    content: Mapped[bytes] = mapped_column(LONG_BYTES)


class OrderRow(Base):
    """An order at a simulated house; `day` counts its simulated days, `request_key` is that of the
    request that placed it; `kind` says boards or parts, `answer` what was answered to the house's
    query, `waited` the days that went by before that.
    """

    __tablename__ = "orders"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    revision_id: Mapped[int] = mapped_column(
        ForeignKey("revisions.id", ondelete="CASCADE"), index=True
    )
    release_id: Mapped[int] = mapped_column(
        ForeignKey("releases.id", ondelete="CASCADE"), index=True
    )
    house: Mapped[str] = mapped_column(String(64))
    quote: Mapped[dict[str, Any]] = mapped_column(JSON)
    placed_on: Mapped[date] = mapped_column(Date)
    day: Mapped[int] = mapped_column(Integer, default=0)
    created_at: Mapped[datetime] = mapped_column(UtcTime)
    request_key: Mapped[str | None] = mapped_column(KEY, unique=True)
    kind: Mapped[str] = mapped_column(String(12), default="boards", server_default="boards")
    answer: Mapped[str | None] = mapped_column(String(300))
    waited: Mapped[int] = mapped_column(Integer, default=0, server_default="0")


class JobRow(Base):
    """Long work: what, in which state, and what it said."""

    __tablename__ = "jobs"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    revision_id: Mapped[int] = mapped_column(
        ForeignKey("revisions.id", ondelete="CASCADE"), index=True
    )
    kind: Mapped[str] = mapped_column(String(20))
    state: Mapped[str] = mapped_column(String(12))
    message: Mapped[str] = mapped_column(String(500), default="")
    created_at: Mapped[datetime] = mapped_column(UtcTime)
    finished_at: Mapped[datetime | None] = mapped_column(UtcTime)


class UnitRow(Base):
    """A device that is built: its serial number, and the version that it was built from; where it
    is simulated, the fault that is set in it and the seed of its meter.
    """

    __tablename__ = "units"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    revision_id: Mapped[int] = mapped_column(
        ForeignKey("revisions.id", ondelete="CASCADE"), index=True
    )
    version_id: Mapped[int | None] = mapped_column(Integer)
    serial: Mapped[str] = mapped_column(String(24))
    simulated: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    created_at: Mapped[datetime] = mapped_column(UtcTime)


class RecordRow(Base):
    """Something that was read or done on a unit; never changed."""

    __tablename__ = "records"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    unit_id: Mapped[int] = mapped_column(ForeignKey("units.id", ondelete="CASCADE"), index=True)
    sort: Mapped[str] = mapped_column(String(20))
    content: Mapped[dict[str, Any]] = mapped_column(JSON)
    created_at: Mapped[datetime] = mapped_column(UtcTime)


class FaultRow(Base):
    """A card of the log: what went wrong in which revision, what it hangs on (`part:U1`), how it
    was found, the patch, hours and cents, and where it stands; `fixed_in` is the revision that
    fixes it.
    """

    __tablename__ = "fault_cards"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    project_id: Mapped[int] = mapped_column(
        ForeignKey("projects.id", ondelete="CASCADE"), index=True
    )
    revision_id: Mapped[int] = mapped_column(
        ForeignKey("revisions.id", ondelete="CASCADE"), index=True
    )
    title: Mapped[str] = mapped_column(String(120))
    about: Mapped[str] = mapped_column(String(120), default="")
    found_how: Mapped[str] = mapped_column(String(300), default="")
    patch: Mapped[str] = mapped_column(String(600), default="")
    sort: Mapped[str] = mapped_column(String(20), default="")
    minutes: Mapped[int] = mapped_column(Integer, default=0)
    cents: Mapped[int] = mapped_column(Integer, default=0)
    state: Mapped[str] = mapped_column(String(12), default="open")
    reason: Mapped[str] = mapped_column(String(300), default="")
    fixed_in: Mapped[int | None] = mapped_column(Integer)
    created_at: Mapped[datetime] = mapped_column(UtcTime)


class HoursRow(Base):
    """Work and money spent on a revision."""

    __tablename__ = "hours"
    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    revision_id: Mapped[int] = mapped_column(
        ForeignKey("revisions.id", ondelete="CASCADE"), index=True
    )
    words: Mapped[str] = mapped_column(String(120))
    minutes: Mapped[int] = mapped_column(Integer, default=0)
    cents: Mapped[int] = mapped_column(Integer, default=0)
    day: Mapped[date] = mapped_column(Date)
    created_at: Mapped[datetime] = mapped_column(UtcTime)
