"""Reading the bare board netlist and the two lists back."""

import csv
import io
from dataclasses import dataclass

from loquet.core.proof.gerber_reader import FileFault

LARGEST_BYTES = 4_000_000


@dataclass(frozen=True)
class Contact:
    """A record of the bare board netlist: net, owner, place in micrometres, hole in micrometres,
    side code.
    """

    net: str
    ref: str
    pad: str
    x_um: int
    y_um: int
    hole_um: int
    access: str


def read_bare_board_netlist(data: bytes, file: str) -> list[Contact]:
    """All contacts of an IPC-D-356A file in metric units; raises FileFault."""
    if len(data) > LARGEST_BYTES:
        raise FileFault(
            file,
            1,
            f"is larger than {LARGEST_BYTES // 1_000_000} MB, which no netlist of this kind needs",
        )
    try:
        lines = data.decode("ascii").splitlines()
    except UnicodeDecodeError:
        raise FileFault(file, 1, "is not text") from None
    names: dict[str, str] = {}
    found: list[Contact] = []
    ended = False
    for number, line in enumerate(lines, 1):
        if ended:
            raise FileFault(file, number, "goes on after its end")
        ended = line.startswith("999")
        if line.startswith("P  NNAME"):
            alias, _, name = line[3:].partition("  ")
            names[alias] = name.strip()
        elif line.startswith(("317", "327", "367")):
            try:
                found.append(contact(line, names))
            except (ValueError, IndexError):
                raise FileFault(file, number, "has a record that is not understood") from None
        elif not line.startswith(("C", "P", "999")):
            raise FileFault(file, number, "has a line that is not understood")
    if not ended:
        raise FileFault(file, len(lines), "ends without its last record")
    return found


def contact(line: str, names: dict[str, str]) -> Contact:
    """One record by its columns; raises ValueError."""
    net = line[3:17].strip()
    hole = int(line[33:37]) if line[32] == "D" else 0
    return Contact(
        "" if net == "N/C" else names.get(net, net),
        line[20:26].strip(),
        line[27:31].strip(),
        int(line[42:49]),
        int(line[50:57]),
        hole,
        line[38:41],
    )


def read_csv(data: bytes, file: str) -> list[dict[str, str]]:
    """Rows by column name; raises FileFault."""
    try:
        text = data.decode("utf-8")
    except UnicodeDecodeError:
        raise FileFault(file, 1, "is not UTF-8 text") from None
    if len(data) > LARGEST_BYTES:
        raise FileFault(
            file,
            1,
            f"is larger than {LARGEST_BYTES // 1_000_000} MB, which no list of this kind needs",
        )
    try:
        rows = list(csv.DictReader(io.StringIO(text, newline="")))
    except csv.Error as problem:
        raise FileFault(file, 1, f"is no table ({problem})") from None
    for number, row in enumerate(rows, 2):
        if None in row or None in row.values():
            raise FileFault(file, number, "has more or fewer cells than the heading")
    return rows
