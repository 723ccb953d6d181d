"""A project as one file that another machine can read: designs with their history, releases with
their bytes, orders, units, records, the log; checked before anything is stored.
"""

import hashlib
import io
import json
import zipfile
import zlib
from collections.abc import Iterable
from datetime import UTC, date, datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from loquet.core.brief import Brief, BriefError
from loquet.core.brief.making import moved, of_before
from loquet.core.brief.sense import check_sense
from loquet.core.plain.frozen import canonical, digest_of
from loquet.store.designs import DECIDED, NotFound
from loquet.store.row_shapes import checked_row
from loquet.store.slices import MODELS as SLICE_MODELS
from loquet.store.tables import (
    Base,
    FaultRow,
    HoursRow,
    OrderRow,
    ProjectRow,
    RecordRow,
    ReleaseFileRow,
    ReleaseRow,
    RevisionRow,
    SliceRow,
    UnitRow,
    VersionRow,
)

FORMAT = "loquet-project-1"
MOST_BYTES, MOST_MEMBERS, MOST_ROWS = 200_000_000, 20_000, 20_000
LARGEST_ROWS, MOST_PACKED, NEVER_PACKED = 60_000_000, 200, 1_000_000
"""The rows of a project, and how far a member may be packed before it is a trick: JSON and Gerber
shrink to a tenth or a twentieth.
"""
OF_REVISION: tuple[type[Base], ...] = (
    VersionRow,
    ReleaseRow,
    OrderRow,
    UnitRow,
    FaultRow,
    HoursRow,
)
LINKS = {
    "project_id": "projects",
    "revision_id": "revisions",
    "version_id": "versions",
    "parent_id": "versions",
    "head_id": "versions",
    "tip_id": "versions",
    "release_id": "releases",
    "unit_id": "units",
    "fixed_in": "revisions",
}
ORDER: tuple[type[Base], ...] = (
    RevisionRow,
    VersionRow,
    ReleaseRow,
    ReleaseFileRow,
    OrderRow,
    UnitRow,
    RecordRow,
    FaultRow,
    HoursRow,
)


UNREADABLE = (
    zipfile.BadZipFile,
    zlib.error,
    KeyError,
    ValueError,
    TypeError,
    AttributeError,
    NotImplementedError,
    RuntimeError,
    EOFError,
    OSError,
)
"""What a damaged zip, or one that is locked or packed in another way, may raise while it is read.
"""


class BadProject(Exception):
    """A file that is no whole project of ours: what is wrong with it, in a sentence."""


def write_project(session: Session, project_id: int) -> bytes:
    """Everything of a project as a zip; raises NotFound. The same project gives the same bytes."""
    project = session.get(ProjectRow, project_id)
    if project is None:
        raise NotFound(f"There is no project {project_id}.")
    rows = rows_of(session, project_id)
    digests = sorted({d for v in rows["versions"] for d in digests_in(v["slices"])})
    slices = {
        row.digest: row.content
        for row in session.scalars(select(SliceRow).where(SliceRow.digest.in_(digests)))
    }
    blobs = {
        row.sha256: row.content
        for row in session.scalars(
            select(ReleaseFileRow).where(
                ReleaseFileRow.release_id.in_([r["id"] for r in rows["releases"]])
            )
        )
    }
    members = {f"slices/{d}.json": text.encode() for d, text in slices.items()}
    members |= {f"files/{sha}": data for sha, data in blobs.items()}
    members["rows.json"] = json.dumps(rows, sort_keys=True, ensure_ascii=False).encode()
    sums = {name: hashlib.sha256(data).hexdigest() for name, data in sorted(members.items())}
    head = {"format": FORMAT, "name": project.name, "sha256": sums}
    members["project.json"] = json.dumps(head, indent=1, sort_keys=True).encode()
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in sorted(members.items()):
            archive.writestr(
                zipfile.ZipInfo(name, (1980, 1, 1, 0, 0, 0)), data, zipfile.ZIP_DEFLATED
            )
    return out.getvalue()


def rows_of(session: Session, project_id: int) -> dict[str, list[dict[str, Any]]]:
    """All rows of a project by table, without the bytes of files."""

    def picked(model: type[Base], column: str, ids: Iterable[int]) -> list[dict[str, Any]]:
        query = (
            select(model)
            .where(getattr(model, column).in_(list(ids)))
            .order_by(model.__table__.c.id)
        )
        return [plain(row) for row in session.scalars(query)]

    found = {"revisions": picked(RevisionRow, "project_id", [project_id])}
    ids = [row["id"] for row in found["revisions"]]
    for model in OF_REVISION:
        found[model.__tablename__] = picked(model, "revision_id", ids)
    found["release_files"] = picked(
        ReleaseFileRow, "release_id", [r["id"] for r in found["releases"]]
    )
    found["records"] = picked(RecordRow, "unit_id", [u["id"] for u in found["units"]])
    return found


def plain(row: Base) -> dict[str, Any]:
    """A row as JSON values; bytes are left out, they lie beside."""
    found: dict[str, Any] = {}
    for column in row.__table__.columns:
        value = getattr(row, column.name)
        if isinstance(value, bytes):
            continue
        if isinstance(value, datetime):
            value = value.astimezone(UTC).isoformat()
        elif isinstance(value, date):
            value = value.isoformat()
        found[column.name] = value
    return found


def digests_in(slices: dict[str, Any]) -> list[str]:
    """All digests that a version names."""
    return [
        d for kept in slices.values() for d in ([kept] if isinstance(kept, str) else kept.values())
    ]


def read_project(session: Session, data: bytes, now: datetime) -> int:
    """Store the project of a file under new numbers; returns its number.

    Raises BadProject before anything is stored.
    """
    members = checked_members(data)
    name, rows = rows_in(members)
    moved_as_now(members, rows)
    slices = checked_slices(members, rows)
    for digest, content in slices:
        row = {"digest": digest, "content": content}
        session.execute(insert(SliceRow).prefix_with("IGNORE").values(**row))
    project = ProjectRow(name=name, demo="", created_at=now)
    session.add(project)
    session.flush()
    put_rows(session, rows, members, project.id)
    return project.id


def checked_rows(data: bytes) -> tuple[str, dict[str, list[dict[str, Any]]]]:
    """The name of a project and its rows by table, without storing anything; raises BadProject."""
    members = checked_members(data)
    name, rows = rows_in(members)
    moved_as_now(members, rows)
    checked_slices(members, rows)
    return name, rows


def moved_as_now(members: dict[str, bytes], rows: dict[str, Any]) -> None:
    """Versions of a file of before, whose choices still say how the boards are made, as they are
    stored now; raises BadProject.
    """
    try:
        for version in rows["versions"]:
            kept = version["slices"]
            pair = [json.loads(members[f"slices/{kept[name]}.json"]) for name in DECIDED]
            if of_before(pair[1]):
                for name, plain in zip(DECIDED, moved(*pair), strict=True):
                    kept[name] = digest_of(plain)
                    members[f"slices/{kept[name]}.json"] = canonical(plain).encode()
    except (KeyError, ValueError, TypeError, AttributeError, RecursionError):
        raise BadProject("A version in it cannot be read.") from None


def rows_in(members: dict[str, bytes]) -> tuple[str, dict[str, list[dict[str, Any]]]]:
    """The name of a project and its rows by table; raises BadProject."""
    try:
        head, rows = json.loads(members["project.json"]), json.loads(members["rows.json"])
        name = str(head.get("name", ""))[:80]
    except (KeyError, ValueError, AttributeError, RecursionError):
        raise BadProject("This is no project file of Loquet.") from None
    if not name or not isinstance(rows, dict):
        raise BadProject("The file names no project.")
    return name, rows


def checked_members(data: bytes) -> dict[str, bytes]:
    """The members of a file, each as its sum says; raises BadProject."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            infos = archive.infolist()
            large = sum(i.file_size for i in infos) > MOST_BYTES
            if len(infos) > MOST_MEMBERS or large or any(is_trick(i) for i in infos):
                raise BadProject("The file is far too large to be a project.")
            members = {info.filename: archive.read(info) for info in infos}
        head = json.loads(members["project.json"])
        sums = dict(head["sha256"])
    except UNREADABLE:
        raise BadProject("This is no project file of Loquet.") from None
    if head.get("format") != FORMAT:
        raise BadProject(f"The format {str(head.get('format'))[:40]!r} is not known here.")
    if set(sums) != set(members) - {"project.json"}:
        raise BadProject("Files are missing in it, or were added.")
    for name, wanted in sums.items():
        found = hashlib.sha256(members[name]).hexdigest()
        own = name.removeprefix("files/") if name.startswith("files/") else found
        if found != wanted or found != own:
            raise BadProject(f"{name[:80]} is damaged.")
    return members


def is_trick(info: zipfile.ZipInfo) -> bool:
    """Whether a member grows to far more than such members do."""
    if info.filename == "rows.json" and info.file_size > LARGEST_ROWS:
        return True
    return info.file_size > NEVER_PACKED and info.file_size > MOST_PACKED * info.compress_size


def checked_slices(members: dict[str, bytes], rows: dict[str, Any]) -> list[tuple[str, str]]:
    """Every slice that a version names, validated and under its own digest; raises BadProject."""
    wanted: dict[str, str] = {}
    try:
        if sum(len(table) for table in rows.values()) > MOST_ROWS:
            raise BadProject("There are far too many rows in it.")
        check_heads(rows)
        for version in rows["versions"]:
            if not {"brief", "choices"} <= version["slices"].keys():
                raise BadProject("A version in it has no brief.")
            for name, kept in version["slices"].items():
                for digest in digests_in({name: kept}):
                    wanted[digest] = name
        found = []
        for digest, name in sorted(wanted.items()):
            content = members[f"slices/{digest}.json"]
            value = SLICE_MODELS[name].model_validate_json(content)
            if isinstance(value, Brief):
                check_sense(value)
            if hashlib.sha256(content).hexdigest() != digest:
                raise BadProject(f"The {name} of a version does not have its digest.")
            found.append((digest, content.decode()))
    except BriefError as error:
        raise BadProject(f"A brief in it makes no sense: {error}") from None
    except (KeyError, ValueError, TypeError, AttributeError, RecursionError):
        raise BadProject("A version in it cannot be read.") from None
    return found


def check_heads(rows: dict[str, Any]) -> None:
    """Every revision shows a version of its own, and no version comes after itself; raises
    BadProject.
    """
    versions = {int(row["id"]): row for row in rows["versions"]}
    if not rows["revisions"] or len(versions) != len(rows["versions"]):
        raise BadProject("There is no revision in it, or a version stands twice.")
    for revision in rows["revisions"]:
        for end in ("head_id", "tip_id"):
            shown = versions.get(revision[end])
            if shown is None or shown["revision_id"] != revision["id"]:
                raise BadProject(f"Revision {str(revision.get('letter'))[:2]} shows no version.")
    behind: set[int] = set()
    for number in versions:
        way: dict[int, None] = {}
        here: int | None = number
        while here is not None and here not in behind:
            if here in way:
                raise BadProject("A version in it comes after itself.")
            way[here] = None
            here = versions[here]["parent_id"] if here in versions else None
        behind.update(way)


def put_rows(
    session: Session, rows: dict[str, Any], members: dict[str, bytes], project_id: int
) -> None:
    """All rows under new numbers, their links with them; raises BadProject where one leads
    nowhere.
    """
    numbers: dict[str, dict[int, int]] = {"projects": {}}
    shown = {row["id"]: row["head_id"] for row in rows["revisions"]}
    later: list[tuple[Base, dict[str, Any]]] = []
    try:
        for model in ORDER:
            table = model.__tablename__
            made: list[tuple[Any, dict[str, Any]]] = []
            for values in rows.get(table, []):
                checked_row(table, values)
                if model is UnitRow and values.get("version_id") is None:  # files of before
                    values = {**values, "version_id": shown[values["revision_id"]]}
                made.append((model(**fresh(model, values, numbers, project_id, members)), values))
            session.add_all([row for row, _ in made])
            session.flush()
            numbers[table] = {int(values["id"]): row.id for row, values in made}
            later += made
        for row, values in later:
            for column in ("parent_id", "head_id", "tip_id", "fixed_in"):
                if values.get(column) is not None and column in row.__table__.columns:
                    setattr(row, column, numbers[LINKS[column]][int(values[column])])
        session.flush()
    except (KeyError, TypeError, ValueError, AttributeError):
        raise BadProject("A row in it leads nowhere, or is not as such rows are.") from None
    except SQLAlchemyError:
        raise BadProject("A row in it does not fit into its table.") from None


def fresh(
    model: type[Base],
    values: dict[str, Any],
    numbers: dict[str, dict[int, int]],
    project_id: int,
    members: dict[str, bytes],
) -> dict[str, Any]:
    """The values of a row for this machine."""
    found: dict[str, Any] = {}
    for column in model.__table__.columns:
        name = column.name
        if name == "id" or name in ("parent_id", "head_id", "tip_id", "fixed_in"):
            continue
        if name == "project_id":
            found[name] = project_id
        elif name in LINKS:
            found[name] = numbers[LINKS[name]][int(values[name])]
        elif name == "content" and model is ReleaseFileRow:
            found[name] = members[f"files/{values['sha256']}"]
        elif name == "request_key":
            found[name] = None
        else:
            found[name] = read_value(
                column.type.python_type if name != "created_at" else datetime, values.get(name)
            )
    return found


def read_value(kind: Any, value: Any) -> Any:
    """A value as its column wants it."""
    if value is None:
        return None
    if kind is datetime:
        return datetime.fromisoformat(value)
    if kind is date:
        return date.fromisoformat(value)
    return value
