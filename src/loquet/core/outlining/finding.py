"""The outline, holes and openings that a drawing holds; what is unclear is asked, what cannot be
made is refused with its place.
"""

from math import sqrt
from typing import Literal

import shapely
from shapely.affinity import translate
from shapely.geometry import Polygon

from loquet.core.brief import Outline, PolygonOutline, outline_polygon_mm
from loquet.core.brief.outline_shapes import RoundedRectangle
from loquet.core.outlining.closing import Joined, Loop, joined, straightened
from loquet.core.outlining.opening_shapes import (
    FoundFree,
    FoundHole,
    FoundOpening,
    corner_of,
    differing,
    opening_of,
    rounded,
)
from loquet.core.outlining.reading_svg import read_svg
from loquet.core.outlining.strokes import Drawing, DrawingRefused, Stroke
from loquet.core.plain.frozen import Frozen

Unit = Literal["mm", "inch"]
MM_OF_UNIT: dict[Unit, float] = {"mm": 1.0, "inch": 25.4}
LARGEST_BYTES = 1_000_000
LEAST_MM, MOST_MM = 10.0, 300.0
MOST_POINTS = 400
MOST_OPENINGS = 100
APART_MM = 0.1  # more between drawing and calipers than hands and calipers differ


class OutlineRefused(Exception):
    """A drawing that gives no outline: why, the way out, and whether only its unit is missing."""

    def __init__(self, why: str, way_out: str, asks_unit: bool = False) -> None:
        super().__init__(f"{why} {way_out}")
        self.why, self.way_out, self.asks_unit = why, way_out, asks_unit


class Found(Frozen):
    """What a drawing holds, from its lower left corner in mm, and what there is to say of it."""

    outline: Outline
    holes: tuple[FoundHole, ...] = ()
    openings: tuple[FoundOpening, ...] = ()
    free: tuple[FoundFree, ...] = ()
    notes: tuple[str, ...] = ()


def find_outline(
    data: bytes, unit: Unit | None = None, heal_mm: float = 0.05, flipped: bool = False
) -> Found:
    """The outline in a DXF or SVG file; `flipped` mirrors left to right what was drawn from behind.

    Raises OutlineRefused.
    """
    try:
        drawing = read_drawing(data)
        mm = drawing.mm if drawing.mm is not None else MM_OF_UNIT[unit or "mm"]
        strokes = tuple(in_mm(stroke, mm, flipped) for stroke in drawing.strokes)
        if not strokes:
            raise DrawingRefused(
                "The drawing holds no line.", "Draw the outline as lines, arcs or a path."
            )
        found = joined(strokes, heal_mm)
        outer, inner, beside = sorted_loops(found)
        if drawing.mm is None and unit is None:
            raise asking_unit(outer.polygon())
        return found_in(outer, inner, beside, found, drawing)
    except DrawingRefused as error:
        raise OutlineRefused(error.why, error.way_out) from None


def read_drawing(data: bytes) -> Drawing:
    """The strokes of a file of either kind; raises DrawingRefused."""
    if len(data) > LARGEST_BYTES:
        raise DrawingRefused(
            f"The drawing is {len(data) / 1e6:.1f} MB large.",
            "An outline needs less than 1 MB: leave out everything else.",
        )
    head = data[:2000].lstrip(b"\xef\xbb\xbf \t\r\n")
    if head.startswith(b"<"):
        return read_svg(data)
    if b"\0" in head and not head.startswith(b"AutoCAD Binary"):
        raise DrawingRefused("This file is not text.", "Give a drawing as DXF or SVG.")
    from loquet.core.outlining.reading_dxf import read_dxf  # it loads a large library, for few

    return read_dxf(data)


def in_mm(stroke: Stroke, mm: float, flipped: bool) -> Stroke:
    """A stroke in millimetres."""
    way = -mm if flipped else mm
    (ax, ay), (bx, by) = stroke.first, stroke.last
    bulge = -stroke.bulge if flipped else stroke.bulge
    return Stroke((ax * way, ay * mm), (bx * way, by * mm), bulge)


def sorted_loops(found: Joined) -> tuple[Loop, list[Loop], list[Loop]]:
    """The outline, what lies in it, what lies elsewhere; raises DrawingRefused."""
    if not found.loops:
        raise open_ended(found)
    areas = [(loop, loop.polygon()) for loop in found.loops]
    for _, area in areas:
        if not area.is_valid:
            said = shapely.is_valid_reason(area)
            x, y = (float(n) for n in said.partition("[")[2].rstrip("]").split())
            raise DrawingRefused(
                f"A closed line crosses itself at {x:.2f}, {y:.2f} mm.", "Mend it in the drawing."
            )
    outer, ground = max(areas, key=lambda pair: pair[1].area)
    open_ones = [
        shapely.linestrings([s.first for s in line] + [line[-1].last]) for line in found.open_lines
    ]
    if any(not ground.buffer(1).contains(line) for line in open_ones):
        raise open_ended(found)
    inner: list[Loop] = []
    beside: list[Loop] = []
    holes = [pair for pair in areas if pair[0] is not outer]
    for loop, area in holes:
        if ground.contains_properly(area):
            within = any(o is not area and o.contains_properly(area) for _, o in holes)
            (beside if within else inner).append(loop)
        elif ground.intersects(area):
            inside = area.representative_point()
            raise DrawingRefused(
                f"A closed line at {inside.x:.2f}, {inside.y:.2f} mm crosses or touches the"
                " outline.",
                "Draw the outline as one closed line.",
            )
        else:
            beside.append(loop)
    return outer, inner, beside


def open_ended(found: Joined) -> DrawingRefused:
    """The refusal for lines that do not close, with the widest gap that matters."""
    line = max(found.open_lines, key=lambda chain: len(chain))
    (ax, ay), (bx, by) = line[0].first, line[-1].last
    gap = sqrt((ax - bx) ** 2 + (ay - by) ** 2)
    return DrawingRefused(
        f"A line is open: it begins at {ax:.2f}, {ay:.2f} mm and ends at {bx:.2f}, {by:.2f} mm,"
        f" {gap:.2f} mm apart.",
        (
            "Close it in the drawing, or allow a wider gap to be healed."
            if gap <= 1
            else "Close it in the drawing."
        ),
    )


def asking_unit(outer: Polygon) -> OutlineRefused:
    """The question for the unit, with both sizes."""
    left, bottom, right, top = outer.bounds
    w, h = right - left, top - bottom
    return OutlineRefused(
        f"The drawing does not say its unit: the outline is {w:.2f} by {h:.2f}, which is"
        f" {w * 25.4:.1f} by {h * 25.4:.1f} mm if it is in inches.",
        "Say which unit it is in.",
        asks_unit=True,
    )


def found_in(
    outer: Loop, inner: list[Loop], beside: list[Loop], found: Joined, drawing: Drawing
) -> Found:
    """Everything from the lower left corner of the outline."""
    left, bottom, right, top = outer.polygon().bounds
    w, h = right - left, top - bottom
    if not (min(w, h) >= LEAST_MM and max(w, h) <= MOST_MM):
        raise DrawingRefused(
            f"The outline is {w:.2f} by {h:.2f} mm; boards from {LEAST_MM:g} to {MOST_MM:g} mm are"
            " made.",
            "Check the unit and the scale of the drawing.",
        )
    if len(inner) > MOST_OPENINGS:
        raise DrawingRefused(
            f"The drawing holds {len(inner)} holes; {MOST_OPENINGS} are the most.",
            "Leave out those that the parts bring along.",
        )
    notes = [
        f"A gap of {gap:.3f} mm at {x - left:.2f}, {y - bottom:.2f} mm was closed."
        for (x, y), gap in found.healed
    ]
    holes, openings, free = [], [], []
    for loop in inner:
        area = translate(loop.polygon(), -left, -bottom)
        taken = opening_of(area, loop.area())
        if isinstance(taken, str):
            notes.append(taken)
        elif isinstance(taken, FoundHole):
            holes.append(taken)
        elif taken is None:
            free.append(free_opening(loop, left, bottom))
        else:
            openings.append(taken)
            if taken.corner_mm == 0:
                notes.append(
                    f"The cut-out at {taken.x_mm:.2f}, {taken.y_mm:.2f} mm has sharp corners; the"
                    " cutter leaves 0.5 mm."
                )
    notes += [
        f"{count} closed line{'s' if count > 1 else ''} outside the outline or inside a hole"
        f" {'are' if count > 1 else 'is'} left out."
        for count in (len(beside),)
        if count
    ]
    notes += [
        f"{count} open line{'s' if count > 1 else ''} inside the outline"
        f" {'are' if count > 1 else 'is'} left out."
        for count in (len(found.open_lines),)
        if count
    ]
    if drawing.passed_over:
        notes.append(f"Passed over: {', '.join(drawing.passed_over)}.")
    return Found(
        outline=outline_of(outer, left, bottom),
        holes=tuple(sorted(holes, key=lambda o: (o.x_mm, o.y_mm))),
        openings=tuple(sorted(openings, key=lambda o: (o.x_mm, o.y_mm))),
        free=tuple(sorted(free, key=lambda o: (o.x_mm, o.y_mm))),
        notes=tuple(notes),
    )


def free_opening(loop: Loop, left: float, bottom: float) -> FoundFree:
    """An opening with the line it has; raises DrawingRefused where it has too many corners."""
    x1, y1, x2, y2 = loop.polygon().bounds
    return FoundFree(
        x_mm=round((x1 + x2) / 2 - left, 4),
        y_mm=round((y1 + y2) / 2 - bottom, 4),
        line=line_of(loop, x1, y1, "opening"),
    )


def outline_of(outer: Loop, left: float, bottom: float) -> Outline:
    """A rounded rectangle where it is one, else its points and bulges; raises DrawingRefused where
    it has too many.
    """
    area = outer.polygon()
    w, h = area.bounds[2] - left, area.bounds[3] - bottom
    corner = corner_of(outer.area(), w, h)
    box = translate(rounded(w, h, corner), (w / 2) + left, (h / 2) + bottom)
    if 2 * corner < min(w, h) - 1e-6 and differing(area, box) <= 0.005:
        return RoundedRectangle(
            width_mm=round(w, 4), height_mm=round(h, 4), corner_mm=round(corner, 3)
        )
    return line_of(outer, left, bottom, "outline")


def line_of(outer: Loop, left: float, bottom: float, word: str) -> PolygonOutline:
    """A closed line as points and bulges from a corner, with no more corners than it needs."""
    area = outer.polygon()
    for within in (0.002, 0.01, 0.02):
        loop = straightened(outer, within)
        if len(loop.sides) <= MOST_POINTS:
            break
    else:
        raise DrawingRefused(
            f"The {word} has {len(loop.sides)} corners; {MOST_POINTS} are the most.",
            "Draw curves as arcs instead of short lines.",
        )
    sides = loop.sides
    if not area.exterior.is_ccw:
        sides = tuple(side.turned_round() for side in reversed(sides))
    rows = [(s.first, round(s.bulge, 8)) for s in sides]
    if len(sides) == 2:  # half a disc: its chord is cut in two
        rows = [row for s in sides for row in halved(s)]
    return PolygonOutline(
        points_mm=tuple(
            (round(max(x - left, 0), 4), round(max(y - bottom, 0), 4)) for (x, y), _ in rows
        ),
        bulges=tuple(bulge for _, bulge in rows) if any(bulge for _, bulge in rows) else (),
    )


def halved(side: Stroke) -> list[tuple[tuple[float, float], float]]:
    """Where a side begins, with its bulge; a straight one in two halves."""
    if abs(side.bulge) > 1e-8:
        return [(side.first, round(side.bulge, 8))]
    (ax, ay), (bx, by) = side.first, side.last
    return [(side.first, 0.0), (((ax + bx) / 2, (ay + by) / 2), 0.0)]


def against_calipers(found: Found, width_mm: float | None, height_mm: float | None) -> list[str]:
    """What calipers say against the drawing, where they were used."""
    left, bottom, right, top = outline_polygon_mm(found.outline).bounds
    said = []
    for word, drawn, measured in (
        ("wide", right - left, width_mm),
        ("high", top - bottom, height_mm),
    ):
        if measured is None:
            continue
        off = drawn - measured
        if abs(off) <= APART_MM:
            said.append(f"The drawing is {drawn:.2f} mm {word}; the calipers agree.")
        else:
            said.append(
                f"The drawing is {drawn:.2f} mm {word}, the calipers say {measured:.2f}:"
                f" {abs(off):.2f} mm {'too much' if off > 0 else 'too little'}. Measure once more,"
                f" or scale the drawing by {measured / drawn:.4f}."
            )
    return said
