"""`loquet shelf`: packs checked, listed, taken on to the workshop's shelf and written from it."""

from collections.abc import Sequence
from pathlib import Path
from typing import Any

from loquet.catalogue.bundled import parts, roles
from loquet.compiling import Unusable, own_parts
from loquet.core.parts import Part
from loquet.core.shelf.differing import differences
from loquet.core.shelf.pack import Pack, write_pack
from loquet.store import shelf
from loquet.store.engine import sessions

AUTHOR = "command line"


def run(what: str, packs: Sequence[Path], out: Path | None) -> tuple[int, dict[str, Any]]:
    """One of check, list, add (which refuses what is there and differs), import (which makes new
    versions of it) and export; the exit code (0 done, 2 parts that lack
    something) and a report with its `text`. Raises Unusable.
    """
    if what in ("check", "add", "import") and not packs:
        raise Unusable(f"loquet shelf {what} wants a pack. Give the path of a .toml file.")
    if what == "check":
        return reported(own_parts(packs), "Checked")
    if what == "list":
        return reported({**parts(), **(own_parts(packs) if packs else {})}, "On the shelf")
    with sessions().begin() as session:
        now = {row.part_id: row.version for row in shelf.rows_now(session)}
        if what == "export":
            return written(shelf.own_parts(session), out)
        found, here = own_parts(packs), shelf.own_parts(session)
        changed = {key: differences(here[key], part) for key, part in found.items() if key in here}
        told = [
            f"{key}: {row.field} {row.before} -> {row.after}"
            for key, rows in changed.items()
            for row in rows
        ]
        if told and what == "add":
            way_out = "These are on the shelf already. Take them with: loquet shelf import"
            raise Unusable("\n".join([*told, way_out]))
        for part in found.values():
            shelf.put_part(session, part, now.get(part.id, 0), AUTHOR)
    code, report = reported(found, "Taken")
    return code, {**report, "changed": told, "text": "\n".join([*told, report["text"]])}


def reported(found: dict[str, Part], word: str) -> tuple[int, dict[str, Any]]:
    """What each part lacks of its role."""
    known, rows, lines = roles(), [], []
    for part in found.values():
        lacks = known.lacks(part)
        rows.append(
            {"id": part.id, "role": part.kind, "lacks": [lack.model_dump() for lack in lacks]}
        )
        if lacks:
            words = "; ".join(lack.words for lack in lacks)
            serves = "is not checked for" if all(lack.serves for lack in lacks) else "cannot serve"
            lines.append(f"{part.id} ({part.kind}) {serves}: {words}")
    text = "\n".join([*lines, f"{word}: {len(found)} parts, {len(lines)} lack something."])
    return (2 if lines else 0), {"parts": rows, "text": text}


def written(found: dict[str, Part], out: Path | None) -> tuple[int, dict[str, Any]]:
    """The workshop's own parts as a pack; raises Unusable where it cannot be written."""
    data = write_pack(
        Pack(name="workshop", title="The workshop's own parts", part=tuple(found.values()))
    )
    if out is None:
        return 0, {"parts": sorted(found), "text": data.decode()}
    try:
        out.write_bytes(data)
    except OSError as error:
        raise Unusable(
            f"{out} cannot be written ({error.strerror}). Choose another file."
        ) from None
    return 0, {"parts": sorted(found), "text": f"{len(found)} parts written to {out}."}
