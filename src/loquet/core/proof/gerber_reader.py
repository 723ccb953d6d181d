"""Reading Gerber (Ucamco Gerber Layer Format Specification 2023.08): standard apertures, strokes,
arcs, regions, polarity.

Written apart from the writer: it knows the published format, not how Loquet writes. Lengths are
integer nanometres.
"""

import re
from dataclasses import dataclass, field
from fractions import Fraction
from functools import lru_cache

from loquet.core.geometry import Bar, Box, Round, Shape

COORDINATE = re.compile(r"([XYIJ])([+-]?\d{1,12})")
NUMBER = re.compile(r"^[+-]?\d{0,6}\.?\d{1,12}$")
MACRO = re.compile(r"21,1,(\d{0,3}\.\d{1,9}),(\d{0,3}\.\d{1,9}),0,0,(\d{1,3})")
MACRO_NAME = re.compile(r"[A-Za-z]\w{1,60}")
PIECES = re.compile(r"[%*]|[^%*]+")
MOST_OBJECTS, MOST_COMMANDS, MOST_APERTURES, MOST_CORNERS = 200_000, 600_000, 2_000, 20_000
LARGEST_BYTES, LONGEST_COMMAND = 12_000_000, 4_000
FARTHEST_NM = 1_000_000_000  # a board is smaller than a metre


class FileFault(Exception):
    """A file that cannot be read: its name, line, and what is wrong."""

    def __init__(self, file: str, line: int, problem: str) -> None:
        super().__init__(f"{file}, line {line}: {problem}")
        self.file, self.line, self.problem = file, line, problem


@dataclass(frozen=True)
class ReadObject:
    """A flash or stroke with its attributes; `dark` is False in clear polarity; `order` is its
    place in the file.
    """

    shape: Shape
    dark: bool
    order: int
    net: str = ""
    ref: str = ""
    pad: str = ""
    function: str = ""


@dataclass(frozen=True)
class ReadRegion:
    """A filled contour."""

    ring: tuple[tuple[int, int], ...]
    dark: bool
    order: int
    net: str = ""


@dataclass(frozen=True)
class ReadArc:
    """A circular stroke, from, to and middle, anticlockwise or clockwise."""

    x1: int
    y1: int
    x2: int
    y2: int
    cx: int
    cy: int
    anticlockwise: bool
    order: int


@dataclass
class ReadLayer:
    """A layer as read: its file attributes, objects, regions and arcs."""

    file: str
    attributes: dict[str, str] = field(default_factory=dict)
    objects: list[ReadObject] = field(default_factory=list)
    regions: list[ReadRegion] = field(default_factory=list)
    arcs: list[ReadArc] = field(default_factory=list)


@dataclass
class State:
    """The graphics state of the format."""

    unit_nm: int = 0
    decimals: int = -1
    x: int = 0
    y: int = 0
    aperture: int = 0
    mode: str = "G01"
    dark: bool = True
    in_region: bool = False
    contour: list[tuple[int, int]] = field(default_factory=list)
    apertures: dict[int, tuple[str, tuple[int, ...], str]] = field(default_factory=dict)
    aperture_attributes: dict[str, str] = field(default_factory=dict)
    object_attributes: dict[str, str] = field(default_factory=dict)
    count: int = 0
    ended: bool = False


@lru_cache(maxsize=64)
def read_gerber(data: bytes, file: str) -> ReadLayer:
    """A layer from its bytes, kept for those very bytes and not to be changed; raises FileFault
    with the line for anything outside the format.
    """
    reader = GerberReader(file)
    if len(data) > LARGEST_BYTES:
        raise FileFault(
            file,
            1,
            f"is larger than {LARGEST_BYTES // 1_000_000} MB, which no board of this kind needs",
        )
    try:
        text = data.decode("utf-8")
    except UnicodeDecodeError:
        raise FileFault(file, 1, "is not text") from None
    for line, is_extended, command in commands(text, file):
        reader.line = line
        if reader.state.ended:
            raise FileFault(file, line, "goes on after its end")
        if is_extended:
            reader.extended(command)
        else:
            reader.word(command)
    if not reader.state.ended:
        raise FileFault(file, reader.line, "ends without M02")
    return reader.layer


def commands(text: str, file: str) -> list[tuple[int, bool, str]]:
    """All commands with their line; extended ones stand between percent signs."""
    found: list[tuple[int, bool, str]] = []
    line, start, extended, rest = 1, 1, False, ""
    for piece in PIECES.findall(text):
        if piece == "%":
            if rest.strip():
                raise FileFault(file, line, "has a command without its end")
            extended, rest = not extended, ""
        elif piece == "*":
            found.append((start, extended, rest))
            if len(found) > MOST_COMMANDS:
                raise FileFault(file, line, "holds more commands than any board of this kind")
            rest = ""
        else:
            if len(piece) > LONGEST_COMMAND:
                raise FileFault(
                    file, line, f"has a command of more than {LONGEST_COMMAND} characters"
                )
            body = piece.lstrip()
            start = line + piece[: len(piece) - len(body)].count("\n")
            line, rest = line + piece.count("\n"), body.replace("\r", "").replace("\n", "").strip()
    if extended or rest:
        raise FileFault(file, line, "ends in the middle of a command")
    return found


class GerberReader:
    """Turns commands into objects."""

    def __init__(self, file: str) -> None:
        self.layer = ReadLayer(file)
        self.state = State()
        self.line = 1
        self.in_macro = ""
        self.macros: dict[str, tuple[int, int, int]] = {}

    def fail(self, problem: str) -> FileFault:
        """A fault at the present line."""
        return FileFault(self.layer.file, self.line, problem)

    def extended(self, command: str) -> None:
        """FS, MO, AD, LP and the attribute commands."""
        state = self.state
        if self.in_macro:
            self.macro(command)
            return
        match command[:2]:
            case "FS":
                found = re.fullmatch(r"FSLAX(\d)(\d)Y\1\2", command)
                if not found:
                    raise self.fail("has a coordinate format that is not in use any more")
                state.decimals = int(found[2])
            case "MO":
                if command not in ("MOMM", "MOIN"):
                    raise self.fail(f"has the unknown unit {command[2:8]}")
                state.unit_nm = 1_000_000 if command == "MOMM" else 25_400_000
            case "AM":
                self.in_macro = command[2:]
            case "AD":
                self.define(command)
            case "LP":
                if command not in ("LPD", "LPC"):
                    raise self.fail("has an unknown polarity")
                state.dark = command == "LPD"
            case "TF" | "TA" | "TO":
                self.attribute(command)
            case "TD":
                self.delete(command[2:])
            case _:
                raise self.fail(f"has the unsupported command {command[:8]}")

    def attribute(self, command: str) -> None:
        """Set a file, aperture or object attribute."""
        name, _, value = command[2:].partition(",")
        target = {
            "F": self.layer.attributes,
            "A": self.state.aperture_attributes,
            "O": self.state.object_attributes,
        }[command[1]]
        target[name] = value

    def delete(self, name: str) -> None:
        """Delete one attribute, or all of apertures and objects."""
        for attributes in (self.state.aperture_attributes, self.state.object_attributes):
            if name:
                attributes.pop(name, None)
            else:
                attributes.clear()

    def macro(self, command: str) -> None:
        """The one primitive of a macro that is read: a centre line (21), lit, about the origin,
        turned by whole degrees.
        """
        name, self.in_macro = self.in_macro, ""
        found = MACRO.fullmatch(command)
        if not found or not MACRO_NAME.fullmatch(name) or name in self.macros:
            raise self.fail(f"has an aperture macro that is not a turned rectangle: {command[:20]}")
        w, h = (round(Fraction(n) * self.unit()) for n in found.groups()[:2])
        turn = int(found[3]) % 180
        self.macros[name] = (h, w, turn - 90) if turn >= 90 else (w, h, turn)

    def define(self, command: str) -> None:
        """An aperture: circle, rectangle or obround, without a hole."""
        by_macro = re.fullmatch(r"ADD(\d{2,6})([A-Za-z]\w{1,60})", command)
        if by_macro and by_macro[2] in self.macros:
            function = self.state.aperture_attributes.get(".AperFunction", "")
            self.state.apertures[int(by_macro[1])] = ("M", self.macros[by_macro[2]], function)
            return
        found = re.fullmatch(r"ADD(\d{2,6})([CRO]),([0-9.X]+)", command)
        if not found:
            raise self.fail(
                f"has an aperture that is not a circle, rectangle or obround: {command[:20]}"
            )
        numbers = found[3].split("X")
        if len(numbers) != (1 if found[2] == "C" else 2) or not all(
            NUMBER.match(n) for n in numbers
        ):
            raise self.fail("has an aperture with wrong sizes")
        sizes = tuple(round(Fraction(n) * self.unit()) for n in numbers)
        if max(sizes) > FARTHEST_NM or len(self.state.apertures) >= MOST_APERTURES:
            raise self.fail("has an aperture larger than a board, or more apertures than any board")
        self.state.apertures[int(found[1])] = (
            found[2],
            sizes,
            self.state.aperture_attributes.get(".AperFunction", ""),
        )

    def unit(self) -> int:
        """Nanometres of the unit; raises where none is set."""
        if not self.state.unit_nm:
            raise self.fail("has no unit yet")
        return self.state.unit_nm

    def word(self, command: str) -> None:
        """G, D and M codes and coordinates."""
        state = self.state
        if command.startswith("G04"):
            return
        if command == "M02":
            state.ended = True
            return
        found = re.match(r"^G(\d{1,2})", command)
        if found:
            self.mode(int(found[1]))
            command = command[found.end() :]
            if not command:
                return
        if re.fullmatch(r"D[1-9]\d{1,5}", command):
            state.aperture = int(command[1:7])
            if state.aperture not in state.apertures:
                raise self.fail(f"uses the aperture {command}, which is not defined")
            return
        self.operation(command)

    def mode(self, code: int) -> None:
        """Interpolation and region modes."""
        state = self.state
        match code:
            case 1 | 2 | 3:
                state.mode = f"G0{code}"
            case 36:
                state.in_region, state.contour = True, []
            case 37:
                self.close_contour()
                state.in_region = False
            case 75:
                pass
            case _:
                raise self.fail(f"has the unsupported code G{code:02d}")

    def operation(self, command: str) -> None:
        """Draw, move or flash."""
        found = re.fullmatch(r"((?:[XYIJ][+-]?\d{1,12})*)D0?([123])", command)
        if not found:
            raise self.fail(f"has a word that is not understood: {command[:20]}")
        if self.state.decimals < 0:
            raise self.fail("has no coordinate format yet")
        values = {letter: self.scaled(digits) for letter, digits in COORDINATE.findall(found[1])}
        x, y = values.get("X", self.state.x), values.get("Y", self.state.y)
        match found[2]:
            case "1":
                self.draw(x, y, values.get("I", 0), values.get("J", 0))
            case "2":
                self.close_contour()
                if self.state.in_region:
                    self.state.contour = [(x, y)]
            case "3":
                self.flash(x, y)
        self.state.x, self.state.y = x, y

    def scaled(self, digits: str) -> int:
        """A coordinate in nm."""
        value, scale = int(digits) * self.unit(), 10**self.state.decimals
        scaled = value // scale if value % scale == 0 else round(Fraction(value, scale))
        if abs(scaled) > FARTHEST_NM:
            raise self.fail("has a place more than a metre away")
        return scaled

    def draw(self, x: int, y: int, i: int, j: int) -> None:
        """A stroke with the present aperture, or a side of a contour."""
        state = self.state
        if state.in_region:
            if state.mode != "G01":
                raise self.fail("has an arc in a region, which is not supported")
            state.contour.append((x, y))
            if len(state.contour) > MOST_CORNERS:
                raise self.fail(f"has a contour of more than {MOST_CORNERS} corners")
            return
        kind, sizes, function = self.current()
        if kind != "C":
            raise self.fail("strokes with an aperture that is not a circle")
        if state.mode == "G01":
            self.add(Bar(state.x, state.y, x, y, sizes[0]), function)
        else:
            arc = ReadArc(
                state.x,
                state.y,
                x,
                y,
                state.x + i,
                state.y + j,
                state.mode == "G03",
                self.next_order(),
            )
            self.layer.arcs.append(arc)

    def flash(self, x: int, y: int) -> None:
        """A pad."""
        kind, sizes, function = self.current()
        match kind:
            case "C":
                self.add(Round(x, y, sizes[0]), function)
            case "R" | "M":
                self.add(Box(x, y, *sizes), function)
            case _:
                w, h = sizes
                reach = abs(w - h) // 2
                self.add(
                    (
                        Bar(x - reach, y, x + reach, y, h)
                        if w >= h
                        else Bar(x, y - reach, x, y + reach, w)
                    ),
                    function,
                )

    def current(self) -> tuple[str, tuple[int, ...], str]:
        """The present aperture."""
        if self.state.aperture not in self.state.apertures:
            raise self.fail("draws before an aperture is chosen")
        return self.state.apertures[self.state.aperture]

    def add(self, shape: Shape, function: str) -> None:
        """Keep an object with its attributes."""
        attributes = self.state.object_attributes
        ref, _, pad = attributes.get(".P", "").partition(",")
        net = attributes.get(".N", "")
        self.layer.objects.append(
            ReadObject(
                shape,
                self.state.dark,
                self.next_order(),
                "" if net == "N/C" else net,
                ref,
                pad.partition(",")[0],
                function,
            )
        )

    def close_contour(self) -> None:
        """A finished contour becomes a region."""
        state = self.state
        if state.in_region and state.contour:
            if len(state.contour) < 4 or state.contour[0] != state.contour[-1]:
                raise self.fail("has a contour that is not closed")
            self.layer.regions.append(
                ReadRegion(
                    tuple(state.contour[:-1]),
                    state.dark,
                    self.next_order(),
                    state.object_attributes.get(".N", ""),
                )
            )
        state.contour = []

    def next_order(self) -> int:
        """A running number; a file with too many objects is refused."""
        self.state.count += 1
        if self.state.count > MOST_OBJECTS:
            raise self.fail("holds more objects than any board of this kind")
        return self.state.count
