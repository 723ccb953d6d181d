"""A pack: parts, board houses, suppliers, prices and pastes as a file that people write, exchange
and keep.

The format is `loquet-pack-1`: TOML with a head and a table for every entry. A pack that is written
and read again gives the same bytes.
"""

import re
import tomllib
from collections.abc import Iterator
from typing import Annotated, Any, Literal

import tomli_w
from pydantic import Field, ValidationError

from loquet.core.ordering.house import House
from loquet.core.ordering.price_list import PriceLine
from loquet.core.ordering.supplier import Supplier
from loquet.core.parts import Part
from loquet.core.parts.paste import Paste
from loquet.core.plain.frozen import Frozen
from loquet.core.shelf.faults import PartFault, faults_of

FORMAT: Literal["loquet-pack-1"] = "loquet-pack-1"
LARGEST_BYTES, MOST_PARTS, MOST_FAULTS = 12_000_000, 2_000, 20
MOST_PRICES = 60_000
OWN = "own/"
SORTS: dict[str, str] = {
    "part": "own/",
    "house": "house/",
    "supplier": "supplier/",
    "paste": "paste/",
}
"""How ids of entries of one's own begin, by their table in a pack."""
TABLES = (*SORTS, "price")
OWN_ID = r"^own/[a-z0-9][a-z0-9.-]{0,59}$"
"""How ids of parts of one's own are written; no bundled part has one like that."""
PackName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,39}$")]


class Pack(Frozen):
    """Parts, houses, suppliers, pastes and lines of price lists under a name; `title` says what
    they are, in a line.
    """

    format: Literal["loquet-pack-1"] = FORMAT
    name: PackName
    title: Annotated[str, Field(max_length=120)] = ""
    part: Annotated[tuple[Part, ...], Field(max_length=MOST_PARTS)] = ()
    house: Annotated[tuple[House, ...], Field(max_length=200)] = ()
    supplier: Annotated[tuple[Supplier, ...], Field(max_length=200)] = ()
    paste: Annotated[tuple[Paste, ...], Field(max_length=200)] = ()
    price: Annotated[tuple[PriceLine, ...], Field(max_length=MOST_PRICES)] = ()

    @property
    def entries(self) -> dict[str, "Entry"]:
        """Everything that lies on the shelf by itself, by id."""
        every: list[Entry] = [*self.part, *self.house, *self.supplier, *self.paste]
        return {entry.id: entry for entry in every}


Entry = Part | House | Supplier | Paste
"""What lies on the shelf under an id of its own."""


class PackFault(Frozen):
    """Where a pack is wrong: the file, its line (0 where none can be told), the part and field,
    what is wrong, and the way out.
    """

    file: str
    line: int
    place: str
    problem: str
    way_out: str

    @property
    def sentence(self) -> str:
        """All of it in a line."""
        where = f"{self.file}, line {self.line}" if self.line else self.file
        return f"{where}: {self.place} {self.problem}. {self.way_out}".replace("  ", " ")


class PackRefused(Exception):
    """A pack that cannot be taken: all that is wrong with it, up to twenty faults."""

    def __init__(self, faults: tuple[PackFault, ...]) -> None:
        super().__init__("\n".join(fault.sentence for fault in faults))
        self.faults = faults


def read_pack(data: bytes, file: str = "the pack") -> Pack:
    """The pack that `data` (UTF-8 TOML) holds; raises PackRefused with every fault at once."""
    if len(data) > LARGEST_BYTES:
        large = f"is {len(data) / 1e6:.1f} MB large"
        raise refused(
            file, "", large, "A pack is at most 12 MB; check that this is the right file."
        )
    try:
        text = data.decode("utf-8")
        plain = tomllib.loads(text)
    except UnicodeDecodeError as error:
        at = f"byte {error.start}"
        raise refused(file, at, "is not UTF-8 text", "Save the file as UTF-8.") from None
    except tomllib.TOMLDecodeError as error:
        words = str(error)[:160]
        line = int(found.group(1)) if (found := re.search(r"line (\d+)", words)) else 0
        problem = f"is not TOML ({words})"
        raise refused(file, "", problem, "Mend it at that place.", line) from None
    except (RecursionError, ValueError) as error:
        problem = f"cannot be read ({str(error)[:80] or 'nested too deeply'})"
        raise refused(file, "", problem, "Write it as docs/shelf.md says.") from None
    return pack_of(plain, text, file)


def pack_of(plain: dict[str, Any], text: str, file: str) -> Pack:
    """The pack of plain values; raises PackRefused."""
    if plain.get("format") != FORMAT:
        way_out = f'Its first line is: format = "{FORMAT}"'
        raise refused(file, "format", "does not say that it is a pack", way_out, 1)
    lines = {table: entry_lines(text, table) for table in TABLES}
    try:
        pack = Pack.model_validate(plain)
    except ValidationError as error:
        told = error.errors(include_url=False)[:MOST_FAULTS]
        raise PackRefused(
            tuple(told_fault(row, plain, lines, text, file) for row in told)
        ) from None
    faults = tuple(own_faults(pack, lines, text, file))[:MOST_FAULTS]
    if faults:
        raise PackRefused(faults)
    return pack


Lines = dict[str, list[int]]
"""The lines at which the entries of each table begin."""


def own_faults(pack: Pack, lines: Lines, text: str, file: str) -> Iterator[PackFault]:
    """Entries of which two have one id, entries that cannot be, and prices of a supplier that the
    pack does not have.
    """
    for table in SORTS:
        seen: dict[str, int] = {}
        for index, entry in enumerate(getattr(pack, table)):
            start = lines[table][index] if index < len(lines[table]) else 0
            if entry.id in seen:
                problem = f"stands twice, first in line {seen[entry.id]}"
                way_out = "Give one of them another id."
                place = f"{table} '{entry.id}'"
                yield PackFault(
                    file=file, line=start, place=place, problem=problem, way_out=way_out
                )
            seen.setdefault(entry.id, start)
            for fault in faults_of(entry) if isinstance(entry, Part) else ():
                yield PackFault(
                    file=file,
                    line=field_line(text, start, fault.field),
                    place=f"part '{entry.id}', {fault.field}:",
                    problem=fault.problem,
                    way_out=fault.way_out,
                )
    known = {supplier.id for supplier in pack.supplier}
    for index, price in enumerate(pack.price):
        if price.supplier not in known:
            yield PackFault(
                file=file,
                line=lines["price"][index] if index < len(lines["price"]) else 0,
                place=f"price '{price.order_number}', supplier:",
                problem=f"'{price.supplier}' is not in this pack",
                way_out="Put the supplier into the same pack.",
            )


def told_fault(row: Any, plain: dict[str, Any], lines: Lines, text: str, file: str) -> PackFault:
    """What the model says of a place, as a fault with its line."""
    loc = [str(piece) for piece in row["loc"]]
    start, named = 0, ""
    if loc[0] in TABLES and len(loc) > 1 and loc[1].isdigit():
        table, index = loc[0], int(loc[1])
        start = lines[table][index] if index < len(lines[table]) else field_line(text, 0, table)
        rows = plain.get(table)
        own = rows[index] if isinstance(rows, list) and index < len(rows) else None
        name = str(own.get("id", index + 1))[:60] if isinstance(own, dict) else str(index + 1)
        named, loc = f"{table} '{name}', ", loc[2:]
    field = ".".join(piece for piece in loc if piece not in FAMILIES)
    return PackFault(
        file=file,
        line=field_line(text, start, field),
        place=f"{(named + field).removesuffix(', ')}:",
        problem=SAID.get(row["type"], str(row["msg"])[:120].removeprefix("Value error, ")),
        way_out=WAYS_OUT.get(row["type"], "Write it as docs/shelf.md says."),
    )


def part_faults(error: ValidationError) -> list[PartFault]:
    """Everything that a model says of one entry."""
    return [
        PartFault(
            field=".".join(str(p) for p in row["loc"] if p not in FAMILIES) or "part",
            problem=SAID.get(row["type"], str(row["msg"])[:120].removeprefix("Value error, ")),
            way_out=WAYS_OUT.get(row["type"], "Write it as docs/shelf.md says."),
        )
        for row in error.errors(include_url=False)[:MOST_FAULTS]
    ]


FAMILIES = ("two-ends", "gull-wings", "no-leads", "rows", "drawn")
SAID = {"string_too_short": "is empty", "missing": "is missing"}
WAYS_OUT = {
    "string_too_short": "Type it.",
    "missing": "Add it.",
    "extra_forbidden": "Take it out, or spell it as docs/shelf.md does.",
    "literal_error": "Choose one of these words.",
    "union_tag_invalid": "Choose one of these families.",
}


def entry_lines(text: str, table: str) -> list[int]:
    """The line at which each entry of a table begins."""
    rows, begins = enumerate(text.splitlines(), 1), re.compile(rf"\s*\[\[\s*{table}\s*\]\]")
    return [number for number, line in rows if begins.match(line)]


def field_line(text: str, start: int, field: str) -> int:
    """The line of a field of the part that begins at a line; the last that could be found on the
    way to it.
    """
    rows, here = text.splitlines(), start
    for name in (piece for piece in field.split(".") if not piece.isdigit()):
        named = re.compile(rf'(^|[\s{{\[.,])"?{re.escape(name)}"?\s*[=\]]')
        if here and here > start and named.search(rows[here - 1]):
            continue
        for number, line in enumerate(rows[here:], here + 1):
            if start and re.match(r"\s*\[\[", line):
                break
            if named.search(line):
                here = number
                break
    return here


def refused(file: str, place: str, problem: str, way_out: str, line: int = 0) -> PackRefused:
    """One fault alone."""
    fault = PackFault(file=file, line=line, place=place, problem=problem, way_out=way_out)
    return PackRefused((fault,))


def write_pack(pack: Pack) -> bytes:
    """The pack as TOML; what is as usual is left out."""
    plain = pack.model_dump(mode="json", exclude_defaults=True)
    tables = {table: plain.pop(table) for table in TABLES if plain.get(table)}
    rows = {table: [shown(row) for row in found] for table, found in tables.items()}
    return tomli_w.dumps({"format": FORMAT, **plain, **rows}).encode()


def shown(row: dict[str, Any]) -> dict[str, Any]:
    """An entry with its tables behind its plain fields, as TOML wants them."""
    tables = {name: value for name, value in row.items() if isinstance(value, dict)}
    return {**{n: v for n, v in row.items() if n not in tables}, **tables}
