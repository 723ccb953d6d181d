"""`loquet shelf`: packs checked, listed, taken on to the workshop's shelf and written from it."""

from collections.abc import Sequence
from pathlib import Path
from typing import Any

from sqlalchemy.orm import Session

from loquet.catalogue.bundled import parts, roles
from loquet.compiling import Unusable, own_packs
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
        return reported(own_packs(packs), "Checked")
    if what == "list":
        given = own_packs(packs)
        every = given.model_copy(update={"part": (*parts().values(), *given.part)})
        return reported(every, "On the shelf")
    with sessions().begin() as session:
        if what == "export":
            return written(workshop_pack(session), out)
        found = own_packs(packs)
        told = []
        for entry in found.entries.values():
            row = shelf.newest(session, entry.id)
            if row is not None and not row.gone:
                rows = differences(shelf.entry_in(row), entry)
                told += [f"{entry.id}: {r.field} {r.before} -> {r.after}" for r in rows]
        if told and what == "add":
            way_out = "These are on the shelf already. Take them with: loquet shelf import"
            raise Unusable("\n".join([*told, way_out]))
        for entry in found.entries.values():
            row = shelf.newest(session, entry.id)
            seen = row.version if row is not None and not row.gone else 0
            shelf.put_entry(session, entry, seen, AUTHOR)
        for supplier in found.supplier:
            lines = [line for line in found.price if line.supplier == supplier.id]
            shelf.put_prices(session, supplier.id, lines)
    code, report = reported(found, "Taken")
    return code, {**report, "changed": told, "text": "\n".join([*told, report["text"]])}


def workshop_pack(session: Session) -> Pack:
    """Everything of one's own on the shelf, with the price lists."""
    return Pack(
        name="workshop",
        title="The workshop's own shelf",
        part=tuple(shelf.own_parts(session).values()),
        house=tuple(shelf.own_houses(session).values()),
        supplier=tuple(shelf.own_suppliers(session).values()),
        paste=tuple(shelf.own_pastes(session).values()),
        price=shelf.all_prices(session),
    )


def reported(found: Pack, word: str) -> tuple[int, dict[str, Any]]:
    """What each part lacks of its role, and how much of everything there is."""
    known, rows, lines = roles(), [], []
    for part in found.part:
        lacks = known.lacks(part)
        rows.append(
            {"id": part.id, "role": part.kind, "lacks": [lack.model_dump() for lack in lacks]}
        )
        if lacks:
            words = "; ".join(lack.words for lack in lacks)
            serves = "is not checked for" if all(lack.serves for lack in lacks) else "cannot serve"
            lines.append(f"{part.id} ({part.kind}) {serves}: {words}")
    counts = [f"{len(found.part)} parts"]
    for count, words in (
        (len(found.house), "houses"),
        (len(found.supplier), "suppliers"),
        (len(found.paste), "pastes"),
        (len(found.price), "prices"),
    ):
        counts += [f"{count} {words}"] if count else []
    text = "\n".join([*lines, f"{word}: {', '.join(counts)}, {len(lines)} lack something."])
    others = {name: [e.id for e in getattr(found, name)] for name in ("house", "supplier", "paste")}
    report = {"parts": rows, **others, "prices": len(found.price), "text": text}
    return (2 if lines else 0), report


def written(pack: Pack, out: Path | None) -> tuple[int, dict[str, Any]]:
    """The workshop's own shelf as a pack; raises Unusable where it cannot be written."""
    data = write_pack(pack)
    if out is None:
        return 0, {"entries": sorted(pack.entries), "text": data.decode()}
    try:
        out.write_bytes(data)
    except OSError as error:
        raise Unusable(
            f"{out} cannot be written ({error.strerror}). Choose another file."
        ) from None
    words = f"{len(pack.entries)} entries and {len(pack.price)} prices written to {out}."
    return 0, {"entries": sorted(pack.entries), "text": words}
