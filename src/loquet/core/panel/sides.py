"""The four sides of a board, each seen with its run `u` along it, so that one way of thinking
serves rails below and rails at the left.

A span is a pair of places along a side, in nm.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

import shapely

from loquet.core.board import BoardView
from loquet.core.board.outline import Line
from loquet.core.geometry import polygon_of

Side = Literal["left", "bottom", "right", "top"]
Span = tuple[int, int]
SIDES: tuple[Side, ...] = ("left", "bottom", "right", "top")
FLUSH_NM = 20_000
BODY_NM, BRITTLE_NM, HOLE_NM = 1_000_000, 3_000_000, 1_500_000
"""A tab keeps so far from a body at the edge, a large ceramic capacitor, a hole; common practice,
no source.
"""


@dataclass(frozen=True)
class Extent:
    """The upright rectangle about a board, in nm."""

    left: int
    bottom: int
    right: int
    top: int

    def at(self, side: Side) -> int:
        """Where a side lies, across its run."""
        return int(getattr(self, side))

    def run(self, side: Side) -> Span:
        """From where to where a side runs."""
        return (self.left, self.right) if level(side) else (self.bottom, self.top)


def level(side: Side) -> bool:
    """Whether a side runs from left to right."""
    return side in ("bottom", "top")


def extent_of(view: BoardView) -> Extent:
    """The rectangle about the outline of a board."""
    return Extent(*(round(v) for v in view.outline.bounds))


def overhang(view: BoardView, side: Side) -> int:
    """How far the bodies of parts stand out over a side, in nm; 0 where none does."""
    edge, bounds = extent_of(view).at(side), bodies(view)
    index = SIDES.index(side)
    out = [b[index] - edge if index > 1 else edge - b[index] for _, b in bounds]
    return max(0, *(round(v) for v in out), 0)


def bodies(view: BoardView) -> list[tuple[str, tuple[float, float, float, float]]]:
    """The bounds of every part's body on the board, by reference."""
    return [(ref, view.body(ref).bounds) for ref in view.seats]


def flat_spans(view: BoardView, side: Side) -> list[Span]:
    """Where the outline runs straight along the outermost line of a side."""
    edge = extent_of(view).at(side)
    found = []
    for piece in view.profile:
        if not isinstance(piece, Line):
            continue
        ends = ((piece.x1, piece.y1), (piece.x2, piece.y2))
        across = [p[1] if level(side) else p[0] for p in ends]
        along = [p[0] if level(side) else p[1] for p in ends]
        if all(abs(a - edge) <= FLUSH_NM for a in across):
            found.append((min(along), max(along)))
    return sorted(found)


def blocked_spans(view: BoardView, side: Side, brittle: frozenset[str]) -> list[Span]:
    """Where nothing may be broken off at a side: near bodies, near large ceramic capacitors
    (`brittle`, by reference), near holes, and where copper reaches the edge.
    """
    edge, index = extent_of(view).at(side), SIDES.index(side)
    low, high = (0, 2) if level(side) else (1, 3)
    sign = 1 if index > 1 else -1

    def reach(bounds: tuple[float, float, float, float], keep: int) -> Span | None:
        near = sign * (edge - bounds[index]) < keep
        return (round(bounds[low]) - keep, round(bounds[high]) + keep) if near else None

    rows = [(b, BRITTLE_NM if ref in brittle else BODY_NM) for ref, b in bodies(view)]
    rows += [
        (shapely.Point(h.x, h.y).buffer(h.d / 2).bounds, HOLE_NM)
        for h in view.holes
        if not h.plated
    ]
    rows += [(polygon_of(c.shape).bounds, view.rules.edge_nm) for c in (*view.pads, *view.wiring)]
    return [span for bounds, keep in rows if (span := reach(bounds, keep)) is not None]


def without(spans: Iterable[Span], blocked: Iterable[Span]) -> list[Span]:
    """What is left of spans."""
    left = list(spans)
    for low, high in blocked:
        left = [
            part
            for a, b in left
            for part in ((a, min(b, low)), (max(a, high), b))
            if part[0] < part[1]
        ]
    return sorted(left)


def common(one: Iterable[Span], two: Iterable[Span]) -> list[Span]:
    """Where both are."""
    second = list(two)
    return sorted(
        (max(a, c), min(b, d)) for a, b in one for c, d in second if max(a, c) < min(b, d)
    )
