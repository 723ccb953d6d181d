"""A backup of everything that is stored: one zip, read in one consistent view, checked before
anything is restored.
"""

import base64
import hashlib
import json
import zipfile
import zlib
from collections.abc import Iterator
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, MetaData, Table, insert, select, text
from sqlalchemy.engine import make_url

from loquet.store.engine import make_engine
from loquet.store.migrating import known_revisions, stored_revision, upgrade

FORMAT = "loquet-backup-1"
CHUNK = 500
LARGEST_MEMBER = 4_000_000_000
NOTE = "alembic_version"
KINDS = {"bytes": bytes, "time": datetime, "day": date}


class BadBackup(Exception):
    """A file that is no whole backup of ours, in a sentence."""


def back_up(url: str, path: Path, now: datetime) -> dict[str, int]:
    """Write all tables into a zip while the application runs; returns rows by table.

    The file is put in place whole.
    """
    draft = path.with_name(f".{path.name}.draft")
    engine = make_engine(url)
    counts: dict[str, int] = {}
    sums: dict[str, str] = {}
    try:
        with (
            engine.connect() as connection,
            zipfile.ZipFile(draft, "w", zipfile.ZIP_DEFLATED) as archive,
        ):
            connection.exec_driver_sql("SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ")
            connection.exec_driver_sql("START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY")
            tables = reflected(connection)
            for table in tables.sorted_tables:
                lines = list(rows_as_text(connection, table))
                data = "".join(lines).encode()
                counts[table.name], sums[table.name] = len(lines), hashlib.sha256(data).hexdigest()
                archive.writestr(f"{table.name}.jsonl", data)
            manifest = {
                "format": FORMAT,
                "revision": stored_revision(url),
                "written": now.astimezone(UTC).isoformat(),
                "rows": counts,
                "sha256": sums,
            }
            archive.writestr("manifest.json", json.dumps(manifest, indent=1))
        read_back(draft, path, counts)
        draft.replace(path)
    finally:
        draft.unlink(missing_ok=True)
        engine.dispose()
    return counts


def read_back(draft: Path, path: Path, counts: dict[str, int]) -> None:
    """A backup is one only when it can be read: raises BadBackup where what was written does not
    hold what was read.
    """
    try:
        _, rows = read_backup(draft)
    except BadBackup as error:
        raise BadBackup(
            f"The backup could not be read back, and {path} was not written: {error}"
        ) from None
    found = {name: len(table) for name, table in rows.items()}
    if found != counts:
        name = next(n for n in counts if found.get(n) != counts[n])
        raise BadBackup(
            f"The backup could not be read back, and {path} was not written: "
            f"{name} has {found.get(name, 0)} rows instead of {counts[name]}."
        )


def reflected(connection: Connection) -> MetaData:
    """All of our tables as they are now, without the note of the migrations."""
    found = MetaData()
    found.reflect(connection, only=lambda name, _: name != NOTE)
    return found


def rows_as_text(connection: Connection, table: Table) -> Iterator[str]:
    """Each row as a line of JSON."""
    order = list(table.primary_key.columns)
    for row in connection.execution_options(stream_results=True).execute(
        select(table).order_by(*order)
    ):
        yield (
            json.dumps(
                {name: plain(value) for name, value in row._mapping.items()}, ensure_ascii=False
            )
            + "\n"
        )


def plain(value: Any) -> Any:
    """A cell as JSON: bytes and moments are marked."""
    match value:
        case bytes():
            return {"bytes": base64.b64encode(value).decode()}
        case datetime():
            return {"time": value.isoformat()}
        case date():
            return {"day": value.isoformat()}
    return value


def cell(value: Any) -> Any:
    """A marked cell as it was."""
    match value:
        case {"bytes": str(word)}:
            return base64.b64decode(word, validate=True)
        case {"time": str(word)}:
            return datetime.fromisoformat(word)
        case {"day": str(word)}:
            return date.fromisoformat(word)
    return value


def read_backup(path: Path) -> tuple[str, dict[str, list[dict[str, Any]]]]:
    """Revision and rows by table; raises BadBackup for anything that is not a whole backup."""
    try:
        with zipfile.ZipFile(path) as archive:
            if any(info.file_size > LARGEST_MEMBER for info in archive.infolist()):
                raise BadBackup(
                    f"{path} holds more than a backup of Loquet can. Check that this is the right"
                    " file."
                )
            manifest = json.loads(archive.read("manifest.json"))
            if manifest.get("format") != FORMAT:
                raise BadBackup(
                    f"{path} is not a backup of Loquet. Give a file that ./loquet backup wrote."
                )
            found: dict[str, list[dict[str, Any]]] = {}
            for name, wanted in manifest["sha256"].items():
                data = archive.read(f"{name}.jsonl")
                if hashlib.sha256(data).hexdigest() != wanted:
                    raise BadBackup(
                        f"{path} is damaged: {name} is not what was written. Take another backup."
                    )
                found[name] = [
                    {k: cell(v) for k, v in json.loads(line).items()}
                    for line in data.decode().split("\n")
                    if line
                ]
            return str(manifest["revision"]), found
    except (
        zipfile.BadZipFile,
        zlib.error,
        EOFError,
        NotImplementedError,
        KeyError,
        ValueError,
        AttributeError,
        TypeError,
        OSError,
    ) as problem:
        raise BadBackup(
            f"{path} cannot be read as a backup ({type(problem).__name__}). Give a file that"
            " ./loquet backup wrote."
        ) from None


def restore(url: str, path: Path) -> dict[str, int]:
    """Put a backup in place of everything that is stored; returns rows by table.

    It is loaded and migrated beside the present data, which are exchanged in one step at the end:
    until then nothing has changed.
    """
    revision, rows = read_backup(path)
    if revision not in known_revisions():
        raise BadBackup(
            f"{path} was written by a newer Loquet (step {revision}). Restore it with that one."
        )
    here = make_url(url)
    name = here.database or "loquet"
    fresh, former = f"{name}_restored", f"{name}_replaced"
    engine = make_engine(url)
    beside = here.set(database=fresh).render_as_string(hide_password=False)
    try:
        with engine.begin() as connection:
            for other in (fresh, former):
                connection.execute(text(f"DROP DATABASE IF EXISTS `{other}`"))
                connection.execute(
                    text(
                        f"CREATE DATABASE `{other}` CHARACTER SET utf8mb4 COLLATE"
                        " utf8mb4_unicode_ci"
                    )
                )
        upgrade(beside, revision)
        load(beside, rows)
        upgrade(beside)
        with engine.begin() as connection:
            exchange(connection, name, fresh, former)
            for other in (fresh, former):
                connection.execute(text(f"DROP DATABASE `{other}`"))
    finally:
        engine.dispose()
    return {table: len(found) for table, found in rows.items()}


def load(url: str, rows: dict[str, list[dict[str, Any]]]) -> None:
    """All rows into empty tables; raises BadBackup where they do not fit."""
    engine = make_engine(url)
    try:
        with engine.begin() as connection:
            tables = reflected(connection)
            if unknown := sorted(set(rows) - set(tables.tables)):
                raise BadBackup(
                    f"The backup holds a table that Loquet does not know: {unknown[0]}."
                )
            for table in tables.sorted_tables:
                found = rows.get(table.name, [])
                for start in range(0, len(found), CHUNK):
                    connection.execute(insert(table), found[start : start + CHUNK])
    finally:
        engine.dispose()


def exchange(connection: Connection, name: str, fresh: str, former: str) -> None:
    """The tables of two databases change places in one statement."""
    moves = [f"`{name}`.`{table}` TO `{former}`.`{table}`" for table in tables_of(connection, name)]
    moves += [
        f"`{fresh}`.`{table}` TO `{name}`.`{table}`" for table in tables_of(connection, fresh)
    ]
    connection.execute(text(f"RENAME TABLE {', '.join(moves)}"))


def tables_of(connection: Connection, name: str) -> list[str]:
    """Names of a database's tables."""
    return [
        str(row[0])
        for row in connection.execute(
            text("SELECT table_name FROM information_schema.tables WHERE table_schema = :name"),
            {"name": name},
        )
    ]
