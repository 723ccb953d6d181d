"""What a panel is milled along: the outlines of all copies and the rails, left open where a tab
crosses, closed along its flanks.
"""

from collections.abc import Iterable

from loquet.core.board.openings import moved
from loquet.core.board.outline import Line, Piece, rounded_rectangle
from loquet.core.geometry import Seat
from loquet.core.panel.frame import Frame, Place
from loquet.core.panel.sides import FLUSH_NM, Span, without
from loquet.core.panel.tabs import Tab


def milled(frame: Frame, profile: tuple[Piece, ...], tabs: tuple[Tab, ...]) -> tuple[Piece, ...]:
    """All lines and arcs of a panel with tabs: rails, copies, tabs."""
    ends = crossed(tabs)
    lines: list[Piece] = []
    for number, (low, high) in enumerate((frame.rows[0], frame.rows[-1])):
        inner = low if number else high
        lines += rail_lines(frame, low, high, inner, ends.get(inner, []))
    for x, y in frame.copies:
        for piece in profile:
            lines += opened(frame, moved(piece, Seat(x, y), 0, 0), ends)
    for tab in tabs:
        lines += [Line(*frame.at(u, tab.low), *frame.at(u, tab.high)) for u in tab.span]
    return tuple(lines)


def crossed(tabs: Iterable[Tab]) -> dict[int, list[Span]]:
    """The spans that tabs take, by the line across the panel on which they end."""
    found: dict[int, list[Span]] = {}
    for tab in tabs:
        for v in (tab.low, tab.high):
            found.setdefault(v, []).append(tab.span)
    return found


def rail_lines(frame: Frame, low: int, high: int, inner: int, spans: list[Span]) -> list[Piece]:
    """The four sides of a rail, its inner one open where tabs begin."""
    end = frame.length
    parts = without([(0, end)], spans)
    outer = low if inner == high else high
    corners = [((0, outer), (end, outer)), ((0, low), (0, high)), ((end, low), (end, high))]
    corners += [((a, inner), (b, inner)) for a, b in parts]
    return [Line(*frame.at(*first), *frame.at(*second)) for first, second in corners]


def opened(frame: Frame, piece: Piece, ends: dict[int, list[Span]]) -> list[Piece]:
    """A piece of a copy's outline without what tabs take of it; only straight pieces along a line
    on which tabs end are opened.
    """
    if not isinstance(piece, Line):
        return [piece]
    (u1, v1), (u2, v2) = frame.at(piece.x1, piece.y1), frame.at(piece.x2, piece.y2)
    spans = [
        span
        for v, found in ends.items()
        if max(abs(v1 - v), abs(v2 - v)) <= FLUSH_NM
        for span in found
    ]
    if not spans:
        return [piece]
    parts = without([(min(u1, u2), max(u1, u2))], spans)
    return [Line(*frame.at(a, v1), *frame.at(b, v2)) for a, b in parts]


def plain_plate(frame: Frame, profile: tuple[Piece, ...], outer: int) -> tuple[Piece, ...]:
    """All lines of a panel parted by score: one rectangle, and the openings in every copy (the
    pieces after the first `outer`).
    """
    lines: list[Piece] = list(rounded_rectangle(*frame.size, 0))
    for x, y in frame.copies:
        lines += [moved(piece, Seat(x, y), 0, 0) for piece in profile[outer:]]
    return tuple(lines)


def score_lines(frame: Frame) -> tuple[tuple[Place, Place], ...]:
    """Straight through the whole panel: between rails and boards, and between boards."""
    across = (frame.rail, *(v + frame.deep for v in frame.across))
    level_lines = [((0, v), (frame.length, v)) for v in across]
    upright = [((u, 0), (u, frame.height)) for u in frame.along[1:]]
    return tuple((frame.at(*a), frame.at(*b)) for a, b in (*level_lines, *upright))
