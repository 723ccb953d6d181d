"""Reading XNC drill files: tools, holes in millimetres or inches, plating from the file
function.
"""

import re
from dataclasses import dataclass
from fractions import Fraction

from loquet.core.proof.gerber_reader import FileFault

PLACE = re.compile(r"^X([+-]?\d{0,6}\.?\d{1,9})Y([+-]?\d{0,6}\.?\d{1,9})$")
TOOL = re.compile(r"^T(\d{1,3})C(\d{0,3}\.\d{1,9})$")
LARGEST_BYTES, MOST_HOLES, FARTHEST_NM = 4_000_000, 50_000, 1_000_000_000


@dataclass(frozen=True)
class ReadHole:
    """A hole as read, in nm."""

    x: int
    y: int
    d: int
    plated: bool


def read_drill(data: bytes, file: str) -> list[ReadHole]:
    """All holes; raises FileFault with the line for anything outside the format."""
    if len(data) > LARGEST_BYTES:
        raise FileFault(
            file,
            1,
            f"is larger than {LARGEST_BYTES // 1_000_000} MB, which no board of this kind needs",
        )
    try:
        lines = data.decode("ascii").splitlines()
    except UnicodeDecodeError:
        raise FileFault(file, 1, "is not text") from None
    found: list[ReadHole] = []
    unit, plated, tools, tool, in_header, ended = 0, None, {}, 0, True, False
    for number, line in enumerate(lines, 1):
        text = line.strip()
        if ended and text:
            raise FileFault(file, number, "goes on after its end")
        if text.startswith(";"):
            if "TF.FileFunction," in text:
                plated = ",PTH" in text and "NonPlated" not in text
            continue
        if text in ("", "M48", "G05", "G90", "FMAT,2"):
            continue
        if text in ("METRIC", "INCH"):
            unit = 1_000_000 if text == "METRIC" else 25_400_000
        elif text == "%":
            in_header = False
        elif text == "M30":
            ended = True
        elif definition := TOOL.match(text):
            if not unit:
                raise FileFault(file, number, "defines a tool before the unit")
            tools[int(definition[1])] = round(Fraction(definition[2]) * unit)
        elif not in_header and re.fullmatch(r"T\d{1,3}", text):
            tool = int(text[1:])
            if tool not in tools:
                raise FileFault(file, number, f"uses the tool {text}, which is not defined")
        elif place := PLACE.match(text):
            if plated is None or tool not in tools:
                raise FileFault(file, number, "drills before plating and tool are known")
            x, y = round(Fraction(place[1]) * unit), round(Fraction(place[2]) * unit)
            if max(abs(x), abs(y)) > FARTHEST_NM or len(found) >= MOST_HOLES:
                raise FileFault(
                    file,
                    number,
                    "has a hole more than a metre away, or more holes than any board of this kind",
                )
            found.append(ReadHole(x, y, tools[tool], plated))
        else:
            raise FileFault(file, number, f"has a line that is not understood: {text[:30]}")
    if not ended:
        raise FileFault(file, len(lines), "ends without M30")
    return found
