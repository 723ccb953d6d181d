"""A supplier's price list as it gives it out: rows of cells parted by a mark, whose columns are
said once and kept with the supplier.
"""

import csv
import io
import re
from collections.abc import Iterator, Mapping, Sequence
from datetime import date
from typing import Annotated, Any, Literal

from pydantic import Field

from loquet.core.plain.frozen import Frozen

MOST_BYTES, MOST_LINES = 20_000_000, 200_000
Decimal = Literal[".", ","]
"""How a price is written: `0.034` or `0,034`."""
MARKS = "\t;,|"
FIELDS = (
    "order number",
    "maker number",
    "part",
    "description",
    "pack",
    "minimum",
    "stock",
    "days",
)
"""What a column may hold beside prices, which are `price N` for N pieces and more."""
PRICE = re.compile(r"price (\d{1,7})")
NAMES: tuple[tuple[str, str], ...] = (
    (
        "order number",
        r"(order|stock|article|item|catalog(ue)?|sku).*(no|num|code|#|id)|sku|article",
    ),
    ("maker number", r"(maker|manuf|mfr|mpn|type).*(no|num|part|#)?|part no.*|part number"),
    ("description", r"desc.*|designation|text|title|name"),
    ("pack", r"pack.*|pack.*size|multiple|unit of sale"),
    ("minimum", r"min.*|moq"),
    ("stock", r"stock|avail.*|qty.*|on hand|in stock"),
    ("days", r"lead.*|days|delivery.*"),
)
"""Headings that say themselves what their column holds; common words of price lists."""


class PriceLine(Frozen):
    """A line of a supplier's price list: its order number, the maker's number or the part of the
    shelf that it is, pieces there and days to the bench where it says so, packs, and cents each of
    its own currency from a quantity on; seen on a day.
    """

    supplier: Annotated[str, Field(max_length=64)]
    order_number: Annotated[str, Field(min_length=1, max_length=80)]
    maker_number: Annotated[str, Field(max_length=80)] = ""
    part: Annotated[str, Field(max_length=300)] = ""
    description: Annotated[str, Field(max_length=200)] = ""
    pack: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    minimum: Annotated[int, Field(ge=1, le=10_000_000)] = 1
    stock: Annotated[int, Field(ge=0, le=2_000_000_000)] | None = None
    days: Annotated[int, Field(ge=0, le=4000)] | None = None
    breaks: Annotated[
        tuple[tuple[Annotated[int, Field(ge=1)], Annotated[float, Field(ge=0)]], ...],
        Field(min_length=1, max_length=20),
    ]
    seen_on: date


class ListFault(Frozen):
    """Where a list is wrong: its line, the heading of its column, what is wrong, the way out."""

    line: int
    column: str
    problem: str
    way_out: str


class ListRefused(Exception):
    """A list that cannot be read at all: where, what is wrong, the way out."""

    def __init__(self, line: int, problem: str, way_out: str) -> None:
        super().__init__(f"line {line}: {problem}. {way_out}")
        self.line, self.problem, self.way_out = line, problem, way_out


def table_in(text: str) -> tuple[list[str], Iterator[tuple[int, list[str]]]]:
    """The headings of a list, and its rows with their line numbers; raises ListRefused."""
    if len(text) > MOST_BYTES:
        raise ListRefused(1, f"it is {len(text) / 1e6:.0f} MB large", "Give at most 20 MB at once.")
    text = text.removeprefix("\ufeff")
    first = next((row for row in text.splitlines() if row.strip()), "")
    mark = max(MARKS, key=first.count)
    if not first.count(mark):
        problem = "its first line has one column"
        raise ListRefused(1, problem, "Save it with columns parted by commas, semicolons or tabs.")
    reader = csv.reader(io.StringIO(text), delimiter=mark)
    headings = [cell.strip()[:80] for cell in next(row for row in reader if any(row))]
    twice = [h for h in headings if h and headings.count(h) > 1]
    if twice:
        problem = f"two columns are called '{twice[0]}'"
        raise ListRefused(reader.line_num, problem, "Give one of them another heading.")
    return headings, rows_of(reader)


def rows_of(reader: Any) -> Iterator[tuple[int, list[str]]]:
    """Rows with their line numbers; raises ListRefused."""
    while True:
        try:
            row = next(reader)
        except StopIteration:
            return
        except csv.Error as error:
            problem = f"cannot be read ({error})"
            raise ListRefused(reader.line_num, problem, "Mend this line.") from None
        if reader.line_num > MOST_LINES:
            problem = f"there are more than {MOST_LINES} lines"
            raise ListRefused(reader.line_num, problem, "Give fewer at once.")
        if any(cell.strip() for cell in row):
            yield reader.line_num, row


def guessed_columns(headings: Sequence[str]) -> dict[str, str]:
    """What the columns hold by their headings; one that says nothing is left out."""
    found: dict[str, str] = {}
    for heading in headings:
        words = re.sub(r"[_.]+", " ", heading).strip().lower()
        number = re.search(r"(\d+)\s*\+?", words)
        if number and (re.search(r"price|pric|cost|each|eur|usd|\+", words) or words.isdigit()):
            found[heading] = f"price {max(1, int(number.group(1)))}"
        elif re.fullmatch(r"(unit )?(price|cost)( each)?( \(?(eur|usd|gbp|€|\$)\)?)?", words):
            found[heading] = "price 1"
        else:
            for field, pattern in NAMES:
                if field not in found.values() and re.fullmatch(pattern, words):
                    found[heading] = field
                    break
    return found


def guessed_decimal(cells: Sequence[str]) -> Decimal:
    """How prices are written: by the last mark of each cell that is not a mark of thousands."""
    commas = sum(bool(re.search(r",\d{1,2}\D*$|,\d{4,}\D*$", cell)) for cell in cells)
    points = sum(bool(re.search(r"\.\d{1,2}\D*$|\.\d{4,}\D*$", cell)) for cell in cells)
    return "," if commas > points else "."


def column_faults(columns: Mapping[str, str], headings: Sequence[str]) -> list[ListFault]:
    """What is wrong with what was said of the columns."""
    found = []
    holds = list(columns.values())
    for heading, field in columns.items():
        if heading not in headings:
            problem, way_out = "is not in this list", f"It has: {', '.join(headings)[:200]}."
        elif field not in FIELDS and not PRICE.fullmatch(field):
            problem, way_out = f"cannot hold '{field}'", f"One of: {', '.join(FIELDS)}, price N."
        elif holds.count(field) > 1:
            problem, way_out = f"is not the only one for '{field}'", "Choose one of them."
        else:
            continue
        found.append(ListFault(line=1, column=heading, problem=problem, way_out=way_out))
    for field, there in (
        ("order number", "order number" in holds),
        ("price", any(PRICE.fullmatch(f) for f in holds)),
    ):
        if not there:
            way_out = "Say which column it is."
            problem = f"no column holds the {field}"
            found.append(ListFault(line=1, column="", problem=problem, way_out=way_out))
    return found


def read_lines(
    text: str,
    supplier: str,
    columns: Mapping[str, str],
    decimal: Decimal,
    seen_on: date,
) -> Iterator[PriceLine | ListFault]:
    """Line by line what a list says whose columns are known, or what is wrong with that line;
    raises ListRefused.
    """
    headings, rows = table_in(text)
    wrong = column_faults(columns, headings)
    if wrong:
        yield from wrong
        return
    place = {field: headings.index(heading) for heading, field in columns.items()}
    first: dict[str, int] = {}
    for number, row in rows:
        try:
            line = line_of(row, place, headings, supplier, decimal, seen_on)
            if line.order_number in first:
                problem = f"'{line.order_number}' stands in line {first[line.order_number]} too"
                raise Cell("order number", problem, "An order number stands once.")
            first[line.order_number] = number
            yield line
        except Cell as cell:
            heading = next((h for h, f in columns.items() if f == cell.field), cell.field)
            yield ListFault(line=number, column=heading, problem=cell.problem, way_out=cell.way_out)


class Cell(Exception):
    """A cell that cannot be read."""

    def __init__(self, field: str, problem: str, way_out: str) -> None:
        super().__init__(problem)
        self.field, self.problem, self.way_out = field, problem, way_out


def line_of(
    row: list[str],
    place: Mapping[str, int],
    headings: Sequence[str],
    supplier: str,
    decimal: Decimal,
    seen_on: date,
) -> PriceLine:
    """A line; raises Cell."""

    def cell(field: str) -> str:
        at = place.get(field, -1)
        return row[at].strip() if 0 <= at < len(row) else ""

    if len(row) > len(headings):
        problem = f"it has {len(row)} cells and the list {len(headings)} columns"
        raise Cell("", problem, "Put a cell that holds the mark between cells into quotes.")
    number = cell("order number")
    if not number:
        raise Cell("order number", "it is empty", "Every line has one.")
    prices = sorted(
        (int(match.group(1)), cents)
        for field in place
        if (match := PRICE.fullmatch(field))
        and (cents := cents_in(cell(field), decimal, field)) is not None
    )
    if not prices:
        field = next(f for f in place if PRICE.fullmatch(f))
        raise Cell(field, "there is no price", "Leave the line out, or give it one.")
    whole = {
        field: whole_in(cell(field), field, decimal)
        for field in ("pack", "minimum", "stock", "days")
    }
    for field in ("pack", "minimum"):
        if whole[field] == 0:
            raise Cell(field, "it is 0", "It is at least 1.")
    return PriceLine(
        supplier=supplier,
        order_number=shown(number, "order number", 80),
        maker_number=shown(cell("maker number"), "maker number", 80),
        part=shown(cell("part"), "part", 300),
        description=cell("description")[:200],
        pack=whole["pack"] or 1,
        minimum=whole["minimum"] or 1,
        stock=whole["stock"],
        days=whole["days"],
        breaks=tuple(prices),
        seen_on=seen_on,
    )


def shown(text: str, field: str, most: int) -> str:
    """A text of at most so many characters; raises Cell."""
    if len(text) > most:
        raise Cell(field, f"it has {len(text)} characters", f"At most {most}.")
    return text


def plain_number(text: str, decimal: Decimal) -> str:
    """A number as Python reads it: without its unit and the marks of thousands."""
    bare = re.sub(r"[^\d.,-]", "", text)
    other = "," if decimal == "." else "."
    return bare.replace(other, "").replace(decimal, ".")


def cents_in(text: str, decimal: Decimal, field: str) -> float | None:
    """A price in cents; nothing for an empty cell. Raises Cell."""
    if not text or text in ("-", "n/a"):
        return None
    try:
        cents = float(plain_number(text, decimal)) * 100
    except ValueError:
        raise Cell(field, f"'{text[:30]}' is no price", "Write it as 0.034.") from None
    if not 0 <= cents <= 1e9:
        raise Cell(field, f"'{text[:30]}' cannot be a price", "Write it as 0.034.")
    return round(cents, 6)


def whole_in(text: str, field: str, decimal: Decimal) -> int | None:
    """A whole number; nothing for an empty cell. Raises Cell."""
    if not text or text in ("-", "n/a"):
        return None
    most = {"pack": 1_000_000, "minimum": 10_000_000, "days": 4000}.get(field, 2_000_000_000)
    try:
        number = round(float(plain_number(text, decimal)))
    except (ValueError, OverflowError):
        raise Cell(field, f"'{text[:30]}' is no number", "Write digits alone.") from None
    if not 0 <= number <= most:
        raise Cell(field, f"'{text[:30]}' cannot be", f"0 to {most}.")
    return number
