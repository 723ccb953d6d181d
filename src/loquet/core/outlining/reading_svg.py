"""Drawings in SVG: XML by defusedxml, path data and transforms by svgelements; y is turned up."""

import re
from collections import Counter
from itertools import pairwise
from math import ceil, hypot, pi, tan
from typing import Any
from xml.etree.ElementTree import Element, ParseError

import defusedxml.ElementTree
import svgelements
from defusedxml import DefusedXmlException

from loquet.core.outlining.strokes import Drawing, DrawingRefused, Pen

MM_OF = {"mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72, "pc": 25.4 / 6}
"""Millimetres of the absolute units of CSS; a pixel says nothing about a board."""
DEEPEST = 60
MOST_ELEMENTS = 20_000
LONGEST_PATH = 400_000
CHORDS = 24
"""Chords of a Bezier curve, and of a quarter of an ellipse."""
PASSED_BY = frozenset({"title", "desc", "metadata", "style", "defs", "namedview", "symbol"})
GROUPS = frozenset({"g", "a", "svg", "switch"})
LENGTH = re.compile(r"([0-9.]+(?:e[-+]?\d+)?)\s?(mm|cm|in|pt|pc|px)?", re.IGNORECASE)
LONGEST_NUMBER, LONGEST_TRANSFORM = 60, 2_000


def read_svg(data: bytes) -> Drawing:
    """The strokes of an SVG file; raises DrawingRefused."""
    try:
        root = defusedxml.ElementTree.fromstring(data)
    except DefusedXmlException:
        raise DrawingRefused(
            "This SVG file defines entities, which can be used to choke a reader.",
            "Save it again as plain SVG.",
        ) from None
    except (ParseError, ValueError, LookupError) as error:
        raise DrawingRefused(
            f"This is not a whole SVG file ({str(error)[:80]}).", "Save it again as plain SVG."
        ) from None
    if tag_of(root) != "svg":
        raise DrawingRefused("This file is XML, but not SVG.", "Give an SVG or a DXF drawing.")
    reader = SvgReader(root)
    mm, scale = unit_of(root)
    reader.walk(root, svgelements.Matrix(f"scale({scale}, {-scale})"), 0)
    kinds = tuple(f"{count} {kind}" for kind, count in sorted(reader.passed_over.items()))
    return Drawing(tuple(reader.pen.strokes), mm, kinds)


def tag_of(element: Element) -> str:
    """The name of an element without its namespace."""
    return element.tag.rsplit("}", 1)[-1] if isinstance(element.tag, str) else ""


def unit_of(root: Element) -> tuple[float | None, float]:
    """Millimetres of a unit after scaling, or None where no absolute unit is named; and the scale
    from the view box.
    """
    width = length_of(root.get("width", ""))
    written = root.get("viewBox", "")[: 4 * LONGEST_NUMBER]
    box = [float(n) for n in re.findall(r"-?[0-9.]+(?:e[-+]?\d+)?", written)[:4]]
    mm = MM_OF.get(width[1]) if width else None
    if width and mm and len(box) == 4 and box[2] > 0:
        return mm, width[0] / box[2]
    return (mm, 1.0) if mm and not box else (None, 1.0)


def length_of(text: str) -> tuple[float, str] | None:
    """A length and its unit (in small letters, empty for none), or nothing where it is none; longer
    ones than anybody writes are none.
    """
    text = text.strip()
    found = LENGTH.fullmatch(text) if len(text) <= LONGEST_NUMBER else None
    return (float(found.group(1)), (found.group(2) or "").lower()) if found else None


class SvgReader:
    """Walks the tree of an SVG file."""

    def __init__(self, root: Element) -> None:
        self.named = {name: one for one in root.iter() if (name := one.get("id"))}
        self.pen = Pen()
        self.passed_over = Counter[str]()
        self.elements = 0

    def walk(self, element: Element, outer: Any, depth: int) -> None:
        """An element and what is in it, under the transforms around it."""
        self.elements += 1
        if depth > DEEPEST or self.elements > MOST_ELEMENTS:
            raise DrawingRefused(
                f"The drawing is nested deeper than {DEEPEST} groups or holds more than"
                f" {MOST_ELEMENTS} elements.",
                "Ungroup it and leave only the outline and its holes.",
            )
        if element.get("display") == "none" or "display:none" in element.get("style", ""):
            return
        tag = tag_of(element)
        try:
            turned = element.get("transform", "")
            if len(turned) > LONGEST_TRANSFORM:
                raise ValueError("transform")
            matrix = svgelements.Matrix(turned) * outer
            if tag in GROUPS:
                for child in element:
                    self.walk(child, matrix, depth + 1)
            elif tag == "use" and (used := self.named.get(link_of(element))) is not None:
                self.use(element, used, matrix, depth)
            elif tag not in PASSED_BY and not self.draw(tag, element, matrix):
                self.passed_over[tag or "comment"] += 1
        except (
            ValueError,
            TypeError,
            IndexError,
            ZeroDivisionError,
            AttributeError,
            OverflowError,
        ):
            raise DrawingRefused(
                f"A {tag} of the drawing makes no sense.", "Delete it, or draw it again."
            ) from None

    def use(self, element: Element, used: Element, matrix: Any, depth: int) -> None:
        """What is defined elsewhere in the drawing, at its place (SVG 2, 5.6); a symbol is fitted
        into the size that is asked. One that uses itself is stopped by the depth.
        """
        x, y = number(element, "x"), number(element, "y")
        inner = svgelements.Matrix(f"translate({x}, {y})") * matrix
        if tag_of(used) != "symbol":
            return self.walk(used, inner, depth + 1)
        box = [float(n) for n in used.get("viewBox", "").replace(",", " ").split()]
        if box:
            left, top, wide, high = box
            w, h = number(element, "width"), number(element, "height")
            if not w or not h:
                raise ValueError("a size in percent says nothing about a board")
            scale = min(w / wide, h / high)
            dx, dy = (w - scale * wide) / 2 - scale * left, (h - scale * high) / 2 - scale * top
            inner = svgelements.Matrix(f"matrix({scale}, 0, 0, {scale}, {dx}, {dy})") * inner
        for child in used:
            self.walk(child, inner, depth + 1)

    def draw(self, tag: str, element: Element, matrix: Any) -> bool:
        """A shape as strokes; whether it is one that is read."""
        match tag:
            case "path":
                data = element.get("d", "")
            case "rect":
                x, y, w, h = (number(element, n) for n in ("x", "y", "width", "height"))
                data = rectangle(x, y, w, h, *round_of(element))
            case "circle":
                r = number(element, "r")
                data = oval(number(element, "cx"), number(element, "cy"), r, r)
            case "ellipse":
                data = oval(*(number(element, n) for n in ("cx", "cy", "rx", "ry")))
            case "line":
                data = "M{} {}L{} {}".format(
                    *(number(element, n) for n in ("x1", "y1", "x2", "y2"))
                )
            case "polyline" | "polygon":
                points = element.get("points", "").strip()
                data = f"M{points}{'Z' if tag == 'polygon' else ''}" if points else ""
            case _:
                return False
        if len(data) > LONGEST_PATH:
            raise DrawingRefused(
                "A path of the drawing is longer than any outline.", "Simplify it and save again."
            )
        path = svgelements.Path(data)
        for segment in path:
            self.segment(segment, matrix)
        return True

    def segment(self, segment: Any, matrix: Any) -> None:
        """A segment of a path."""
        if isinstance(segment, svgelements.Line | svgelements.Close):
            if segment.start is not None and segment.end is not None:
                self.side(matrix, segment.start, segment.end, 0.0)
        elif isinstance(segment, svgelements.Arc):
            self.arc(matrix, segment)
        elif isinstance(segment, svgelements.QuadraticBezier | svgelements.CubicBezier):
            points = [segment.point(i / CHORDS) for i in range(CHORDS + 1)]
            for first, last in pairwise(points):
                self.side(matrix, first, last, 0.0)

    def side(self, matrix: Any, first: Any, last: Any, bulge: float) -> None:
        """A side where it stands in the drawing; a mirror turns its arc round."""
        one, other = matrix.point_in_matrix_space(first), matrix.point_in_matrix_space(last)
        turned = matrix.a * matrix.d - matrix.b * matrix.c < 0
        self.pen.side((one.x, one.y), (other.x, other.y), -bulge if turned else bulge)

    def arc(self, matrix: Any, arc: Any) -> None:
        """A round arc stays one where its transform keeps circles; all others become chords."""
        turn = float(arc.sweep)
        round_one = abs(arc.rx - arc.ry) < 1e-6 * max(arc.rx, 1e-9)
        even = abs(hypot(matrix.a, matrix.b) - hypot(matrix.c, matrix.d)) < 1e-6
        square = abs(matrix.a * matrix.c + matrix.b * matrix.d) < 1e-6
        keeps = round_one and even and square
        count = max(1, ceil(abs(turn) / pi - 1e-9)) if keeps else CHORDS * 4
        for index in range(count):
            first, last = (arc.point((index + step) / count) for step in (0, 1))
            self.side(matrix, first, last, tan(turn / count / 4) if keeps else 0.0)


def link_of(element: Element) -> str:
    """The name of what a `use` stands for; empty where it lies in another file."""
    link = element.get("href") or element.get("{http://www.w3.org/1999/xlink}href") or ""
    return link[1:] if link.startswith("#") else ""


def number(element: Element, name: str) -> float:
    """A plain number of an element, 0 where it says none; raises ValueError."""
    text = element.get(name, "0").strip()
    found = length_of(text.removeprefix("-"))
    if not found or found[1] not in ("", "px"):
        raise ValueError(name)
    return -found[0] if text.startswith("-") else found[0]


def round_of(element: Element) -> tuple[float, float]:
    """The radii of a rectangle's corners: one that is missing is like the other."""
    rx, ry = (number(element, n) if element.get(n) else None for n in ("rx", "ry"))
    return (rx if rx is not None else ry or 0.0), (ry if ry is not None else rx or 0.0)


def rectangle(x: float, y: float, w: float, h: float, rx: float, ry: float) -> str:
    """A rectangle as path data."""
    rx, ry = min(rx, w / 2), min(ry, h / 2)
    if not rx or not ry:
        return f"M{x} {y}h{w}v{h}h{-w}Z"
    return (
        f"M{x + rx} {y}h{w - 2 * rx}a{rx} {ry} 0 0 1 {rx} {ry}v{h - 2 * ry}a{rx} {ry} 0 0 1 {-rx}"
        f" {ry}h{2 * rx - w}a{rx} {ry} 0 0 1 {-rx} {-ry}v{2 * ry - h}a{rx} {ry} 0 0 1 {rx} {-ry}Z"
    )


def oval(cx: float, cy: float, rx: float, ry: float) -> str:
    """A circle or an ellipse as path data."""
    return f"M{cx + rx} {cy}a{rx} {ry} 0 0 1 {-2 * rx} 0a{rx} {ry} 0 0 1 {2 * rx} 0Z"
