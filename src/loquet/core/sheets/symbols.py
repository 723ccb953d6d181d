"""Symbols of parts with two ends, after IEC 60617: each lies along x from 0 to 4 units, its first
end at 0.
"""

from collections.abc import Callable
from math import cos, pi, sin

from loquet.core.sheets.drawn import Pen, Point, Turn

Symbol = Callable[[Pen, Turn, str], None]
LENGTH = 4.0


def leads(pen: Pen, turn: Turn, ref: str, start: float, end: float) -> None:
    """The wires from both ends to the body."""
    pen.line(turn(0, 0), turn(start, 0), ref=ref)
    pen.line(turn(end, 0), turn(LENGTH, 0), ref=ref)


def ring(turn: Turn, middle: Point, radius: float, start: float = 0, end: float = 2) -> list[Point]:
    """Points on an arc; angles in half turns."""
    steps = max(6, round(12 * abs(end - start)))
    angles = [(start + (end - start) * i / steps) * pi for i in range(steps + 1)]
    return [turn(middle[0] + radius * cos(a), middle[1] + radius * sin(a)) for a in angles]


def box(turn: Turn, start: float, end: float, half: float) -> list[Point]:
    """A closed rectangle about the axis."""
    corners = [(start, -half), (end, -half), (end, half), (start, half), (start, -half)]
    return [turn(x, y) for x, y in corners]


def resistor(pen: Pen, turn: Turn, ref: str) -> None:
    """04-01-01: a rectangle."""
    leads(pen, turn, ref, 0.8, 3.2)
    pen.line(*box(turn, 0.8, 3.2, 0.45), ref=ref)


def fuse(pen: Pen, turn: Turn, ref: str) -> None:
    """07-21-01: a rectangle with the wire through it."""
    pen.line(turn(0, 0), turn(LENGTH, 0), ref=ref)
    pen.line(*box(turn, 0.8, 3.2, 0.45), ref=ref)


def capacitor(pen: Pen, turn: Turn, ref: str) -> None:
    """04-02-01: two plates."""
    leads(pen, turn, ref, 1.8, 2.2)
    for x in (1.8, 2.2):
        pen.line(turn(x, -0.85), turn(x, 0.85), ref=ref, bold=True)


def inductor(pen: Pen, turn: Turn, ref: str) -> None:
    """04-03-01: four half rings."""
    leads(pen, turn, ref, 0.8, 3.2)
    for i in range(4):
        pen.line(*ring(turn, (1.1 + 0.6 * i, 0), 0.3, 1, 2), ref=ref)


def diode(pen: Pen, turn: Turn, ref: str) -> None:
    """05-03-01: anode at the first end, the bar at the cathode."""
    pen.line(turn(0, 0), turn(LENGTH, 0), ref=ref)
    pen.line(turn(1.4, -0.65), turn(1.4, 0.65), turn(2.5, 0), turn(1.4, -0.65), ref=ref)
    pen.line(turn(2.5, -0.65), turn(2.5, 0.65), ref=ref, bold=True)


def schottky(pen: Pen, turn: Turn, ref: str) -> None:
    """A diode whose bar is bent at both ends."""
    diode(pen, turn, ref)
    pen.line(turn(2.5, -0.65), turn(2.2, -0.65), turn(2.2, -0.45), ref=ref)
    pen.line(turn(2.5, 0.65), turn(2.8, 0.65), turn(2.8, 0.45), ref=ref)


def light(pen: Pen, turn: Turn, ref: str) -> None:
    """05-03-02: a diode with two arrows away from it."""
    diode(pen, turn, ref)
    for x in (1.7, 2.3):
        pen.line(turn(x, -0.8), turn(x + 0.5, -1.4), ref=ref)
        pen.line(turn(x + 0.15, -1.4), turn(x + 0.5, -1.4), turn(x + 0.5, -1.05), ref=ref)


def crystal(pen: Pen, turn: Turn, ref: str) -> None:
    """04-07-01: a rectangle between two plates."""
    leads(pen, turn, ref, 1.4, 2.6)
    for x in (1.4, 2.6):
        pen.line(turn(x, -0.7), turn(x, 0.7), ref=ref, bold=True)
    pen.line(*box(turn, 1.7, 2.3, 0.8), ref=ref)


def push_switch(pen: Pen, turn: Turn, ref: str) -> None:
    """07-07-02: a make contact with a push rod."""
    leads(pen, turn, ref, 1.2, 2.8)
    pen.line(turn(1.2, 0), turn(2.75, -0.75), ref=ref)
    pen.line(turn(2.0, -0.4), turn(2.0, -1.2), ref=ref)
    pen.line(turn(1.6, -1.2), turn(2.4, -1.2), ref=ref)


def cells(pen: Pen, turn: Turn, ref: str) -> None:
    """06-15-01: the long plate is plus, at the first end."""
    leads(pen, turn, ref, 1.8, 2.2)
    pen.line(turn(1.8, -1.0), turn(1.8, 1.0), ref=ref)
    pen.line(turn(2.2, -0.5), turn(2.2, 0.5), ref=ref, bold=True)


def sounder(pen: Pen, turn: Turn, ref: str) -> None:
    """08-10-10: half a ring on two feet."""
    leads(pen, turn, ref, 1.2, 2.8)
    pen.line(*ring(turn, (2.0, 0), 0.8, 1, 2), ref=ref)
    pen.line(turn(1.2, 0), turn(2.8, 0), ref=ref)


FIRST_ENDS = ("anode", "plus")
SYMBOLS: dict[str, Symbol] = {
    "resistor": resistor,
    "fuse": fuse,
    "capacitor": capacitor,
    "inductor": inductor,
    "diode": diode,
    "schottky": schottky,
    "light": light,
    "crystal": crystal,
    "clock crystal": crystal,
    "button": push_switch,
    "cell holder": cells,
    "coin holder": cells,
    "18650 holder": cells,
    "buzzer": sounder,
}
