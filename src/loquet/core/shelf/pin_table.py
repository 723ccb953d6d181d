"""A pin table as it is copied out of a data sheet: one row a pin or a function, cells parted by
tabs, commas, semicolons or runs of spaces.
"""

import re

from loquet.core.parts.terminal import Does
from loquet.core.plain.frozen import Frozen

MOST_ROWS = 600
WORDS: tuple[tuple[str, Does], ...] = (
    (r"n\.?c\.?|no connect\w*|not connected|open|spare|reserved|dnc", "nothing"),
    (r"exposed|thermal|heat|ep|epad|pgnd pad", "heat"),
    (r"gnd|ground|vss|agnd|pgnd|dgnd|0 ?v", "ground"),
    (r"open.?drain|od", "open drain"),
    (r"vout|out(put)? (volt|supply)\w*|regulated out\w*", "supply out"),
    (r"vcc|vdd|vin|supply|power|vbus|vbat|avdd|dvdd|v\+", "supply"),
    (r"boot|bst|switch|sw|lx|coil", "coil"),
    (r"contact|common contact|pole", "contact"),
    (r"way", "way"),
    (r"end", "end"),
    (r"i/?o|bidirectional|in/?out", "both ways"),
    (r"analog(ue)? in\w*|ain\d*", "analogue in"),
    (r"analog(ue)? out\w*|aout\d*", "analogue out"),
    (r"i|input|in", "input"),
    (r"o|output|out", "output"),
)
"""What words of a type column, or of a name, say that a pin is; the first that fits counts. Common
abbreviations of data sheets, from memory.
"""


class PinRow(Frozen):
    """A terminal as it was read: name, pads, and what it does; `guessed` from words."""

    name: str
    pads: tuple[str, ...]
    does: Does
    guessed: bool


class UnreadRow(Frozen):
    """A row that could not be read: its line, its text, and why."""

    line: int
    text: str
    why: str


def read_pin_table(text: str) -> tuple[tuple[PinRow, ...], tuple[UnreadRow, ...]]:
    """Terminals in the order in which they first stand, and rows that could not be read. Pins of
    one name are one terminal.
    """
    found: dict[str, tuple[list[str], Does, bool]] = {}
    unread: list[UnreadRow] = []
    for number, line in enumerate(text.splitlines()[:MOST_ROWS], 1):
        if not line.strip():
            continue
        pads, named = parted(cells_of(line))
        if not pads or not named:
            if number > 1:
                why = "no pin number" if named else "no name"
                unread.append(UnreadRow(line=number, text=line.strip()[:80], why=why))
            continue
        name = re.sub(r"[^ -~]", "", named[0]).strip().lower()[:40] or f"pin {pads[0]}"
        does, guessed = what_it_does(named)
        kept = found.setdefault(name, ([], does, guessed))
        kept[0].extend(pad for pad in pads if pad not in kept[0])
    rows = (
        PinRow(name=name, pads=tuple(pads), does=does, guessed=guessed)
        for name, (pads, does, guessed) in found.items()
    )
    return tuple(rows), tuple(unread)


SAME_AS: dict[str, str] = {
    "ground": r"gnd\d*|vss\w*|agnd|pgnd|dgnd|0 ?v",
    "supply": r"vcc\w*|vdd\w*|v\+|vin|vs|power|3v3|5v",
    "in": r"vin|input|vi|vbus|vcc|in\d?",
    "out": r"vout|output|vo|out\d?|vreg",
    "enable": r"en|ce|shdn|/shdn|sd|on/off|chip enable",
    "feedback": r"fb|adj|vfb",
    "switch": r"sw|lx|ph|vsw",
    "boot": r"bst|boost|bs|cb",
    "clock": r"scl|sck|clk|bclk|sclk",
    "data": r"sda|dat|sdi|din",
    "alert": r"int|alrt|drdy|irq",
    "changed": r"int|irq|/int|nint",
    "data or command": r"dc|d/c|rs|a0",
    "strobe": r"wr|/wr|e|strb",
    "read": r"rd|/rd",
    "reset": r"rst|reset|/rst|nrst|res",
    "backlight": r"bl|led|blk|led-?a",
    "in plus": r"in\+|inp|in_p",
    "in minus": r"in-|inn|in_n|inm",
    "out plus": r"out\+|outp|vo\+|vo1",
    "out minus": r"out-|outn|vo-|vo2",
    "bypass": r"byp|bypass|byps|vref",
    "select": r"cs|ncs|ss|/cs",
    "cell": r"bat|vbat|batt|b\+",
    "program": r"prog|iset|rprog",
    "status": r"stat|chg|/chg|chrg",
    "gate": "g",
    "source": "s",
    "drain": "d",
    "base": "b",
    "emitter": "e",
    "collector": "c",
    "anode": r"a|\+",
    "cathode": r"k|c|-",
    "plus": r"\+|d\+|dp|pos\w*",
    "minus": r"-|d-|dm|neg\w*",
}
"""Other names of terminals that roles ask for; common abbreviations of data sheets, from memory."""
NUMBERED: tuple[tuple[str, str], ...] = (
    (r"line (\d+)", r"(p|io|gp|gpio|k|kl|row|col|l|d)_?0?{0}|p0[._]?{0}"),
    (r"address (\d+)", r"(a|ad|adr|addr)_?{0}"),
    (r"address", r"a0?|ad0|addr|adr|sa0|sdo"),
    (r"channel (\d+)", r"(ch|ain|in|y|x|a)_?0?{0}"),
    (r"select (\d+)", r"(s|sel|[abc])_?{0}"),
    (r"data (\d+)", r"(d|db|dat)_?0?{0}"),
    (r"upstream (minus|plus)", r"{1}(0|u|up|us)|usb{1}(0|u|up|us)?|{1}_(up|us)"),
    (r"port (\d+) (minus|plus)", r"(usb)?{1}_?{0}|{1}dn?{0}"),
)
"""The same of terminals that are counted; `{0}` is their number, `{1}` the end of a pair."""
ENDS = {"minus": r"(dm|d-|m)", "plus": r"(dp|d\+|p)"}


def other_names(name: str) -> str:
    """How data sheets may call a terminal that a role asks for, as a pattern."""
    for asked, pattern in NUMBERED:
        found = re.fullmatch(asked, name)
        if found:
            counts = [word for word in found.groups() if word and word.isdigit()]
            ends = [ENDS[word] for word in found.groups() if word in ENDS]
            return pattern.format(*(counts or [""]), *ends)
    return SAME_AS.get(name, re.escape(name))


def for_role(rows: tuple[PinRow, ...], asked: tuple[str, ...]) -> tuple[PinRow, ...]:
    """The rows with the names that a role asks for, where just one row can be meant."""
    named = {row.name for row in rows}
    renamed: dict[str, str] = {}
    for name in asked:
        if name in named:
            continue
        words = other_names(name)
        alike = [r.name for r in rows if r.name not in asked and re.fullmatch(words, r.name)]
        if len(alike) == 1 and alike[0] not in renamed:
            renamed[alike[0]] = name
    return tuple(row.model_copy(update={"name": renamed.get(row.name, row.name)}) for row in rows)


def cells_of(line: str) -> list[str]:
    """The cells of a row."""
    for mark in ("\t", ";", "|"):
        if mark in line:
            return [cell.strip() for cell in line.split(mark) if cell.strip()]
    if re.search(r"\S {2,}\S", line):
        return [cell.strip() for cell in re.split(r" {2,}", line) if cell.strip()]
    quoted = re.findall(r'"([^"]*)"|([^,]+)', line)
    return [(a or b).strip() for a, b in quoted if (a or b).strip()]


def pads_of(cell: str) -> list[str]:
    """The pads that a cell names: `3`, `A1`, `4, 5`, `1-4`; nothing for other words."""
    found: list[str] = []
    for piece in re.split(r"[,/\s]+", cell.strip()):
        if span := re.fullmatch(r"(\d{1,3})\s*[-\u2013]\s*(\d{1,3})", piece):
            low, high = int(span[1]), int(span[2])
            found += [str(n) for n in range(low, high + 1)] if 0 < high - low < 100 else []
        elif re.fullmatch(r"\d{1,3}|[A-Z]{1,2}\d{1,2}", piece):
            found.append(piece)
        else:
            return []
    return found


def parted(cells: list[str]) -> tuple[list[str], list[str]]:
    """The pads of a row and its other cells: the first cell of digits alone is the pads, since a
    name such as `P0` may look like one; where there is none, the first that looks like pads.
    """
    counted = (i for i, cell in enumerate(cells) if re.match(r"\d", cell) and pads_of(cell))
    lettered = (i for i, cell in enumerate(cells) if pads_of(cell))
    at = next(counted, next(lettered, None))
    if at is None:
        return [], cells
    others = (cell for i, cell in enumerate(cells) if i != at)
    return pads_of(cells[at]), [c for c in others if not re.fullmatch(r"\d[\d\s,/-]*", c)]


def what_it_does(cells: list[str]) -> tuple[Does, bool]:
    """What a pin is by the words of its row: its type column where there is one, else its name."""
    for cell in (*cells[1:2], cells[0], *cells[2:]):
        for words, does in WORDS:
            if re.fullmatch(words, cell.strip(), re.IGNORECASE):
                return does, True
    for words, does in WORDS[:6]:
        if re.search(rf"\b({words})\b", cells[0], re.IGNORECASE):
            return does, True
    return "passive", False
