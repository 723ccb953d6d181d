"""A panel laid out: copies of a board between two rails, held by tabs or parted by score lines; or
why it cannot be made.
"""

from dataclasses import dataclass

import shapely

from loquet.core.board import BoardView
from loquet.core.board.copper import Hole
from loquet.core.board.outline import Line, Piece, profile_of
from loquet.core.brief.panel_choice import PanelChoice
from loquet.core.geometry import Rect, polygon_of
from loquet.core.panel.frame import SHORTEST_NM, TOOLING_NM, Frame, Place, frame_of
from loquet.core.panel.milling import milled, plain_plate, score_lines
from loquet.core.panel.sides import (
    SIDES,
    Side,
    blocked_spans,
    common,
    flat_spans,
    overhang,
    without,
)
from loquet.core.panel.tabs import HOLE_NM, Tab, tab_places
from loquet.core.quantities.lengths import MM, show_mm


@dataclass(frozen=True)
class Trouble:
    """Why a panel cannot be made, and the way out."""

    sentence: str
    way_out: str


@dataclass(frozen=True)
class Panel:
    """A panel in nm, its lower left corner at (0, 0): where the origin of every copy lies, the
    rails (left, bottom, right, top), what is milled along, holes that are not the boards' own,
    marks, score lines by their ends, how many tabs hold it.
    """

    width: int
    height: int
    copies: tuple[Place, ...]
    rails: tuple[Rect, ...]
    pieces: tuple[Piece, ...]
    holes: tuple[Hole, ...]
    marks: tuple[Place, ...]
    scores: tuple[tuple[Place, Place], ...]
    tabs: int
    troubles: tuple[Trouble, ...]


def lay_panel(
    view: BoardView, choice: PanelChoice, score_nm: int, brittle: frozenset[str] = frozenset()
) -> Panel:
    """The panel of a board, with what keeps it from being made as its `troubles`.

    `score_nm` is how far copper keeps from a score line, `brittle` names the large ceramic
    capacitors.
    """
    if choice.by == "score":
        return scored(view, frame_of(view, choice, True), score_nm)
    below = tabbed(view, frame_of(view, choice, True), brittle)
    if not below.troubles:
        return below
    beside = tabbed(view, frame_of(view, choice, False), brittle)
    return below if beside.troubles else beside


def tabbed(view: BoardView, frame: Frame, brittle: frozenset[str]) -> Panel:
    """A panel with milled slots, held by tabs at both rails and between rows."""
    free = {
        side: without(flat_spans(view, side), blocked_spans(view, side, brittle))
        for side in (frame.first, frame.last)
    }
    inner = common(free[frame.first], free[frame.last])
    facing = [
        (f"the {frame.first} side", free[frame.first]),
        *[("both facing sides", inner)] * (len(frame.across) - 1),
        (f"the {frame.last} side", free[frame.last]),
    ]
    troubles, tabs = [], []
    for index, (where, allowed) in enumerate(facing):
        places = tab_places(allowed, frame.run)
        if not places:
            troubles.append(
                Trouble(
                    f"No tab finds room at {where} of {view.board.name}: it needs 5 mm of straight"
                    " edge, away from bodies, large ceramic capacitors, holes and bare copper.",
                    "Move what stands there, or order the boards singly.",
                )
            )
        low, high = frame.rows[index][1], frame.rows[index + 1][0]
        tabs += [
            Tab(start + place - frame.origin[0], low, high, index > 0, index < len(facing) - 1)
            for start in frame.along
            for place in places
        ]
    bites = [frame.at(*spot) for tab in tabs for spot in tab.bites(view.rules.edge_nm)]
    return Panel(
        *frame.size,
        frame.copies,
        rails_of(frame),
        milled(frame, view.profile, tuple(tabs)),
        (*tooling_of(frame), *(hole(x, y, HOLE_NM, "tab") for x, y in bites)),
        frame.marks,
        (),
        len(tabs),
        (*dict.fromkeys(troubles), *short_rails(frame)),
    )


def scored(view: BoardView, frame: Frame, score_nm: int) -> Panel:
    """A panel parted by straight score lines, which only a rectangle with square corners, nothing
    standing out and copper far enough inside can have.
    """
    outer = profile_of(view.board.outline)
    troubles = []
    if len(outer) != len(SIDES) or not all(isinstance(p, Line) and straight(p) for p in outer):
        troubles.append(
            Trouble(
                f"The board {view.board.name} is not a rectangle with square corners; score lines"
                " run straight through the whole panel.",
                "Part the boards by tabs, or give the outline square corners.",
            )
        )
    out: list[Side] = [side for side in SIDES if overhang(view, side)]
    if out:
        troubles.append(
            Trouble(
                f"Parts stand out over the edge of {view.board.name} ({', '.join(out)}), where the"
                " next board or a rail would lie.",
                "Part the boards by tabs.",
            )
        )
    gap = copper_to_edge(view)
    if gap < score_nm:
        troubles.append(
            Trouble(
                f"Copper lies {show_mm(gap)} from the edge of {view.board.name}; a score line asks"
                f" {show_mm(score_nm)}.",
                "Part the boards by tabs, or take a house that scores nearer.",
            )
        )
    return Panel(
        *frame.size,
        frame.copies,
        rails_of(frame),
        plain_plate(frame, view.profile, len(outer)),
        tooling_of(frame),
        frame.marks,
        score_lines(frame),
        0,
        (*troubles, *short_rails(frame)),
    )


def straight(line: Line) -> bool:
    """Whether a side runs level or upright."""
    return line.x1 == line.x2 or line.y1 == line.y2


def copper_to_edge(view: BoardView) -> int:
    """The least distance of copper from the outer edge, in nm."""
    shapes = [polygon_of(c.shape) for c in (*view.pads, *view.wiring)]
    shapes += [shapely.Polygon(piece.outer) for piece in view.poured]
    edge = shapely.LinearRing(view.outline.exterior.coords)
    return round(min((float(edge.distance(shape)) for shape in shapes), default=MM))


def rails_of(frame: Frame) -> tuple[Rect, ...]:
    """Both rails as rectangles."""
    return tuple(
        (*frame.at(0, low), *frame.at(frame.length, high))
        for low, high in (frame.rows[0], frame.rows[-1])
    )


def tooling_of(frame: Frame) -> tuple[Hole, ...]:
    """The tooling holes."""
    return tuple(hole(x, y, TOOLING_NM, "tooling") for x, y in frame.tooling)


def hole(x: int, y: int, d: int, owner: str) -> Hole:
    """An unplated hole."""
    return Hole(x, y, d, False, "", owner)


def short_rails(frame: Frame) -> tuple[Trouble, ...]:
    """Rails too short for tooling holes and marks."""
    if frame.length >= SHORTEST_NM:
        return ()
    return (
        Trouble(
            f"The rails are {show_mm(frame.length)} long; tooling holes and marks need"
            f" {show_mm(SHORTEST_NM)}.",
            "Lay more boards side by side.",
        ),
    )
