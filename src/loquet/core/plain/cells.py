"""Tables as text of cells parted by commas, for people and their spreadsheets."""

import csv
import io
import re
from collections.abc import Iterable, Sequence

FORMULA = re.compile(r"^[=+@\t\r]|^-(?![0-9.])")


def cell_table(columns: Sequence[str], rows: Iterable[Sequence[str]], end: str = "\n") -> str:
    """CSV text; cells that a spreadsheet would take for a formula get a leading apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator=end)
    for row in (columns, *rows):
        writer.writerow([f"'{cell}" if FORMULA.match(cell) else cell for cell in row])
    return out.getvalue()
