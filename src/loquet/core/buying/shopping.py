"""Lists of parts to buy: written in a format of our own, and read with a finding for every line
that a purchaser could misread.
"""

import csv
import io
import re
from collections.abc import Iterable

from loquet.core.drawers.lines import DrawerLine
from loquet.core.fabrication.tables import table
from loquet.core.library import Library
from loquet.core.parts.part import TwoEnds
from loquet.core.plain.frozen import Frozen

COLUMNS = ("Count", "What", "Value", "Size", "Pins", "Part", "Chosen part")
MOST_PINS = 12
MOST_BYTES, MOST_LINES, MOST_CELL = 1_000_000, 2_000, 200
# Inch code, metric code, length x width in mm: IEC 60115-8 and IEC 60384-21; the codes that stand
# in both columns are read wrongly.
SIZES = (
    ("008004", "0201", "0.25 x 0.125"),
    ("01005", "0402", "0.4 x 0.2"),
    ("0201", "0603", "0.6 x 0.3"),
    ("0402", "1005", "1.0 x 0.5"),
    ("0603", "1608", "1.6 x 0.8"),
    ("0805", "2012", "2.0 x 1.25"),
    ("1206", "3216", "3.2 x 1.6"),
    ("1210", "3225", "3.2 x 2.5"),
    ("2010", "5025", "5.0 x 2.5"),
    ("2512", "6332", "6.3 x 3.2"),
)
BARE_CODE = re.compile(r"^\s*(\d{4,6})\s*$")
NAMED_CODE = re.compile(r"(inch|metric)\s*(\d{4,6})", re.IGNORECASE)
VALUE = re.compile(r"^\s*\d+(?:[.,]\d+)?\s*([pnuµmkKMGR]?)\s*(Ω|ohm|F|H|V|Hz|A)?\s*\d*\s*$")


class ListError(Exception):
    """A list that cannot be read: what is wrong, and the way out."""

    def __init__(self, problem: str, way_out: str) -> None:
        super().__init__(f"{problem} {way_out}")
        self.problem, self.way_out = problem, way_out


class ReadLine(Frozen):
    """A line of a list as it was read, with what a purchaser could misread in it."""

    line: int
    count: int
    what: str
    value: str
    size: str
    part: str
    findings: tuple[str, ...]


def write_list(lines: Iterable[DrawerLine]) -> bytes:
    """The list of what is to buy; both codes of a size stand in every line."""
    rows = [
        (
            str(line.to_buy),
            line.what,
            line.value,
            line.size,
            pins_words(line.pins),
            line.part.removeprefix("chip:"),
            line.bought.maker_part if line.bought else "",
        )
        for line in lines
    ]
    return table(COLUMNS, rows)


def pins_words(pins: tuple[tuple[str, str], ...]) -> str:
    """The order of pins as a purchaser compares it: `1 cathode, 2 anode`; nothing where there are
    none or very many.
    """
    return ", ".join(f"{pad} {name}" for pad, name in pins) if len(pins) <= MOST_PINS else ""


def read_list(data: bytes, library: Library) -> tuple[ReadLine, ...]:
    """Every line with its findings; raises ListError for what is no such list.

    Columns are found by their names, in any order; only Count and What must be there.
    """
    if len(data) > MOST_BYTES:
        raise ListError("The list is larger than 1 MB.", "Split it.")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise ListError("The list is not UTF-8 text.", "Save it as CSV in UTF-8.") from None
    try:
        rows = list(csv.reader(io.StringIO(text, newline=""), strict=True))
    except csv.Error as error:
        raise ListError(f"The list is no CSV ({error}).", "Save it as CSV in UTF-8.") from None
    heads = [cell.strip().lower() for cell in rows[0]] if rows else []
    missing = [name for name in COLUMNS[:2] if name.lower() not in heads]
    if missing:
        way = f"Name the columns {', '.join(COLUMNS)} in the first line."
        raise ListError(f"The list has no column {' and no column '.join(missing)}.", way)
    if len(rows) > MOST_LINES:
        raise ListError(f"The list has more than {MOST_LINES} lines.", "Split it.")
    found: list[ReadLine] = []
    seen: dict[tuple[str, ...], int] = {}
    for number, row in enumerate(rows[1:], 2):
        cells = {head: cell.strip()[:MOST_CELL] for head, cell in zip(heads, row, strict=False)}
        if any(cells.values()):
            found.append(read_line(number, cells, seen, library))
    return tuple(found)


def read_line(
    number: int, cells: dict[str, str], seen: dict[tuple[str, ...], int], library: Library
) -> ReadLine:
    """One line; `seen` remembers where the same stood before."""
    what, value, size, part = (cells.get(name, "") for name in ("what", "value", "size", "part"))
    pins = cells.get("pins", "")
    found = [*count_findings(cells.get("count", "")), *size_findings(size)]
    found += value_findings(value, what)
    found += part_findings(part, size, library) + pin_findings(part, pins, library)
    key = (part, value) if part else (what.lower(), value.lower(), size.lower())
    if key in seen:
        found.append(f"The same stands in line {seen[key]}: put them together.")
    seen.setdefault(key, number)
    digits = cells.get("count", "")
    return ReadLine(
        line=number,
        count=int(digits) if digits.isascii() and digits.isdigit() and len(digits) < 8 else 0,
        what=what,
        value=value,
        size=size,
        part=part,
        findings=tuple(found),
    )


def count_findings(text: str) -> list[str]:
    """A count that is no whole number above nothing."""
    if text.isascii() and text.isdigit() and int(text[:9]) > 0 and len(text) < 8:
        return []
    return [f"'{text}' is no count: write a whole number from 1 on."]


def size_findings(text: str) -> list[str]:
    """A bare code that exists in both systems, or in none; a named code that its system does not
    have.
    """
    bare = BARE_CODE.match(text)
    if bare:
        code = bare[1]
        as_inch = next((row for row in SIZES if row[0] == code), None)
        as_metric = next((row for row in SIZES if row[1] == code), None)
        if as_inch and as_metric:
            return [
                (
                    f"{code} is {as_inch[2]} mm as an inch code and {as_metric[2]} mm as a metric "
                    f"one: write inch {code} or metric {code}."
                )
            ]
        if not as_inch and not as_metric:
            return [f"{code} is no size of a chip part in either system."]
        return []
    pairs = {(m[1].lower(), m[2]) for m in NAMED_CODE.finditer(text)}
    known = {("inch", row[0]) for row in SIZES} | {("metric", row[1]) for row in SIZES}
    return [f"There is no {system} size {code}." for system, code in sorted(pairs - known)]


def value_findings(value: str, what: str) -> list[str]:
    """A value of a resistor, capacitor or coil whose unit is not said."""
    passive = next((w for w in ("resistor", "capacitor", "inductor") if w in what.lower()), "")
    if not passive:
        return []
    unit = {"resistor": "Ω", "capacitor": "F", "inductor": "H"}[passive]
    match, article = VALUE.match(value), "an" if passive[0] == "i" else "a"
    if not value or not match:
        return [
            f"'{value}' is no value of {article} {passive}: write it as 4.7 k{unit} or 100 n{unit}."
        ]
    if match[1] == "m":
        return (
            [f"'{value}' may be milli or mega: write m{unit} or M{unit}."] if not match[2] else []
        )
    if match[2] is None and match[1] != "R":
        return [f"'{value}' does not say its unit: write {value.strip()} {unit} with its prefix."]
    return []


def part_findings(part: str, size: str, library: Library) -> list[str]:
    """A part that the catalogue does not have, or whose size is another one."""
    if not part:
        return []
    known = library.parts.get(part)
    if known is None:
        chip = any(row.name == part for row in library.list_chips())
        return [] if chip else [f"'{part}' is not in the catalogue, so it has no pattern."]
    codes = {m[2] for m in NAMED_CODE.finditer(size)}
    body = known.body
    if codes and isinstance(body, TwoEnds) and not codes <= {body.inch_code, body.metric_code}:
        return [f"{part} is {known.size_codes}, and the line says {size}."]
    return []


def pin_findings(part: str, pins: str, library: Library) -> list[str]:
    """Pins of a line that are not those of the part's pads, or have other names there."""
    known = library.parts.get(part)
    if known is None or not pins:
        return []
    pads = {pad.number for pad in library.pattern(part).pads if pad.number}
    found = []
    for word in (piece.strip() for piece in pins.split(",")):
        number, _, name = word.partition(" ")
        own = known.pin_names.get(number, "")
        if number not in pads:
            found.append(f"{part} has no pad '{number}': its pads are {', '.join(sorted(pads))}.")
        elif name and own and name.lower() != own:
            found.append(f"Pin {number} is '{name}' in the line and '{own}' in the catalogue.")
    return found
