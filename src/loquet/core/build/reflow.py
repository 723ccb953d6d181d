"""Heating: a reflow profile inside the limits of a paste and of the most sensitive part
(J-STD-020), and a recorded curve held against them.
"""

import csv
import io
from collections.abc import Sequence
from itertools import pairwise

from loquet.core.parts.paste import Paste
from loquet.core.plain.frozen import Frozen

MOST_ROWS = 20_000


class Point(Frozen):
    """A moment of a curve: seconds from the start and °C."""

    s: float
    c: float


class Check(Frozen):
    """One limit held against a curve: its words, what was found, what is asked, and whether it is
    kept.
    """

    words: str
    found: str
    asked: str
    kept: bool


class BadCurve(Exception):
    """A recorded curve that cannot be read: what is wrong, and the way out."""


def profile(paste: Paste, hottest_c: float = 260.0) -> tuple[Point, ...]:
    """A profile inside the limits whose peak no part minds that stands `hottest_c`: 2 K/s up, 90 s
    of soak, 80 s above the melting point.
    """
    peak = min(hottest_c - 5, (paste.peak_c[0] + paste.peak_c[1]) / 2)
    points = [Point(s=0, c=25)]
    at = (paste.soak_c[0] - 25) / 2.0
    points.append(Point(s=round(at, 1), c=paste.soak_c[0]))
    at += 90
    points.append(Point(s=round(at, 1), c=paste.soak_c[1]))
    slow = (paste.liquid_c - paste.soak_c[1]) / 1.0 if paste.liquid_c > paste.soak_c[1] else 0.0
    at += slow
    points.append(Point(s=round(at, 1), c=paste.liquid_c))
    at += 45
    points.append(Point(s=round(at, 1), c=peak))
    at += 35
    points.append(Point(s=round(at, 1), c=paste.liquid_c))
    at += (paste.liquid_c - 60) / 2.5
    points.append(Point(s=round(at, 1), c=60))
    return tuple(points)


def read_curve(data: bytes) -> tuple[Point, ...]:
    """A curve of any logger: a CSV whose first two columns of numbers are seconds and °C; raises
    BadCurve.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise BadCurve("The file is no text. Save the curve as CSV.") from None
    sample = text[:2000]
    mark = next((m for m in (";", "\t") if m in sample), ",")
    points: list[Point] = []
    for number, row in enumerate(csv.reader(io.StringIO(text), delimiter=mark), 1):
        values = [v for cell in row if (v := number_of(cell)) is not None]
        if len(values) < 2:
            if points:
                raise BadCurve(
                    f"Line {number} has no two numbers. Give seconds and °C in two columns."
                )
            continue
        if number > MOST_ROWS:
            raise BadCurve(f"The curve has more than {MOST_ROWS} lines. Thin it out.")
        if points and values[0] <= points[-1].s:
            raise BadCurve(
                f"The time of line {number} does not grow. Give seconds in the first column."
            )
        if not -50 <= values[1] <= 500:
            raise BadCurve(f"Line {number} says {values[1]:g} °C. Give °C in the second column.")
        points.append(Point(s=values[0], c=values[1]))
    if len(points) < 5:
        raise BadCurve(
            "There are fewer than five moments in it. Give seconds and °C in two columns."
        )
    return tuple(points)


def number_of(cell: str) -> float | None:
    """A number as loggers write it, with point or comma; None where it is none."""
    try:
        value = float(cell.strip().replace(",", "."))
    except ValueError:
        return None
    return value if abs(value) < 1e7 else None


def seconds_between(points: Sequence[Point], low: float, high: float, rising: bool) -> float:
    """How long a curve is between two temperatures, on the way up alone where `rising`, up to the
    peak.
    """
    peak = max(range(len(points)), key=lambda i: points[i].c)
    used = points[: peak + 1] if rising else points
    whole = 0.0
    for a, b in pairwise(used):
        whole += inside(a, b, low, high)
    return whole


def inside(a: Point, b: Point, low: float, high: float) -> float:
    """The seconds of a straight piece between two temperatures."""
    if a.c == b.c:
        return b.s - a.s if low <= a.c <= high else 0.0
    first, last = sorted(((low - a.c) / (b.c - a.c), (high - a.c) / (b.c - a.c)))
    return (b.s - a.s) * max(0.0, min(1.0, last) - max(0.0, first))


def slopes(points: Sequence[Point], over_s: float = 10.0) -> tuple[float, float]:
    """The steepest way up and down, each over at least so many seconds, in K/s."""
    up = down = 0.0
    start = 0
    for end in range(1, len(points)):
        while start < end - 1 and points[end].s - points[start + 1].s >= over_s:
            start += 1
        span = points[end].s - points[start].s
        if span > 0:
            slope = (points[end].c - points[start].c) / span
            up, down = max(up, slope), max(down, -slope)
    return up, down


def checked_curve(
    points: Sequence[Point], paste: Paste, hottest_c: float = 260.0
) -> tuple[Check, ...]:
    """Every limit held against a curve; parts that stand less heat than the paste allows lower the
    peak.
    """
    top = max(p.c for p in points)
    most = min(paste.peak_c[1], hottest_c)
    soak = seconds_between(points, *paste.soak_c, rising=True)
    liquid = seconds_between(points, paste.liquid_c, 1000, rising=False)
    up, down = slopes(points)
    at_peak = next(p.s for p in points if p.c == top)
    warm = next((p.s for p in points if p.c >= 25), points[0].s)
    whole = at_peak - warm

    def row(words: str, value: float, low: float, high: float, unit: str) -> Check:
        asked = f"{low:g} to {high:g} {unit}" if low else f"at most {high:g} {unit}"
        return Check(
            words=words, found=f"{value:.1f} {unit}", asked=asked, kept=low <= value <= high
        )

    return (
        row(
            f"Soak between {paste.soak_c[0]:g} and {paste.soak_c[1]:g} °C",
            *(soak, *paste.soak_s, "s"),
        ),
        row(f"Above {paste.liquid_c:g} °C", liquid, *paste.liquid_s, "s"),
        row("Peak", top, paste.peak_c[0], most, "°C"),
        row("Steepest way up", up, 0, paste.up_k_s, "K/s"),
        row("Steepest way down", down, 0, paste.down_k_s, "K/s"),
        row("From 25 °C to the peak", whole, 0, paste.whole_s, "s"),
    )
