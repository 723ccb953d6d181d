"""What is on each template: lines to cut, holes to drill, a line to check with; all in mm, seen
from the front unless said.
"""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import combinations
from math import hypot

import shapely
from shapely.affinity import rotate, scale
from shapely.geometry import LineString, Point, Polygon

from loquet.core.board.copper import BoardView
from loquet.core.brief.seats import seat_of_thing
from loquet.core.design import Choices
from loquet.core.library import Library
from loquet.core.quantities.lengths import MM
from loquet.core.stack.model import Stack
from loquet.core.stack.openings import GROWS_MM, PLAY_MM, Opening, openings_of
from loquet.core.stack.section import hull
from loquet.core.stack.stacking import stack_of
from loquet.core.stack.wires import WireRun, wire_runs

Spot = tuple[float, float]
GUIDE_MM = 3.0
RIM_MM = 2.0


@dataclass(frozen=True)
class Sheet:
    """A drawing: its title and which side it is seen from, the plate with its openings, marks that
    are drawn and not cut, middles of holes with their diameters, a line whose length is to be
    measured on the print, and how thick a body of it is.
    """

    title: str
    seen: str
    plate: Polygon
    marks: tuple[Polygon, ...]
    holes: tuple[tuple[float, float, float], ...]
    check: tuple[Spot, Spot] | None
    thick_mm: float

    @property
    def check_mm(self) -> float:
        """How long the line is that is to be measured."""
        if self.check is None:
            return 0.0
        (x1, y1), (x2, y2) = self.check
        return hypot(x2 - x1, y2 - y1)

    def mirrored(self) -> "Sheet":
        """The same from the other side, about the middle of its plate."""
        left, _, right, _ = self.plate.bounds
        middle = (left + right) / 2

        def turned(area: Polygon) -> Polygon:
            return scale(area, -1, 1, origin=(middle, 0))

        other = "behind" if self.seen == "the front" else "the front"
        check = self.check and (
            (2 * middle - self.check[0][0], self.check[0][1]),
            (2 * middle - self.check[1][0], self.check[1][1]),
        )
        return Sheet(
            self.title,
            other,
            turned(self.plate),
            tuple(turned(mark) for mark in self.marks),
            tuple((2 * middle - x, y, d) for x, y, d in self.holes),
            check,
            self.thick_mm,
        )


@dataclass(frozen=True)
class Room:
    """What a template is made from."""

    view: BoardView
    stack: Stack
    openings: tuple[Opening, ...]
    choices: Choices
    wires: tuple[WireRun, ...] = ()


@dataclass(frozen=True)
class Template:
    """A drawing or a body that can be had: its name, what it is for, its formats, and how it is
    made.
    """

    name: str
    words: str
    formats: tuple[str, ...]
    make: Callable[[Room], Sheet]


def sheet_for(template: Template, view: BoardView, library: Library, choices: Choices) -> Sheet:
    """The drawing of a template for a board."""
    stack = stack_of(view, library, choices.stack, view.brief.making.thickness_mm)
    openings = tuple(openings_of(view, library, stack.walls, choices.stack))
    return template.make(Room(view, stack, openings, choices, wire_runs(view, library, stack)))


def panel(room: Room, wall: str, title: str, screws: bool) -> Sheet:
    """A wall of the shell with its openings as they are to be drawn."""
    walls = room.stack.walls
    plate = Polygon(hull(room.stack).buffer(walls.wall_mm, join_style="mitre").exterior)
    holes = drill_holes(room) if screws else ()
    cut = [shape_of(one) for one in room.openings if one.wall == wall]
    cut += [Point(x, y).buffer(d / 2, quad_segs=24) for x, y, d in holes]
    left_over = plate.difference(shapely.union_all(cut)) if cut else plate
    whole = max(shapely.get_parts(left_over), key=lambda part: part.area)
    marks = (Polygon(room.stack.outline.exterior),)
    return Sheet(title, "the front", whole, marks, holes, check_line(holes, plate), walls.wall_mm)


def front_panel(room: Room) -> Sheet:
    """The front wall."""
    return panel(room, "front wall", "front panel", screws=False)


def back_panel(room: Room) -> Sheet:
    """The back wall; screws go through it where they hold the device together."""
    return panel(room, "back wall", "back panel", room.choices.stack.fixing == "through")


def drill_guide(room: Room) -> Sheet:
    """The board with its fixing holes, as a plate that guides the drill."""
    holes = drill_holes(room)
    plate = Polygon(room.stack.outline.exterior)
    drilled = [Point(x, y).buffer(d / 2, quad_segs=24) for x, y, d in holes]
    left_over = max(
        shapely.get_parts(plate.difference(shapely.union_all(drilled))), key=lambda p: p.area
    )
    return Sheet(
        "drill guide", "the front", left_over, (), holes, check_line(holes, plate), GUIDE_MM
    )


def pockets(room: Room) -> Sheet:
    """The board with pockets for what lies loose, with their play, and the channels of its
    wires.
    """
    grows = PLAY_MM + GROWS_MM[room.choices.stack.process]
    lying = tuple(
        Polygon(p.area.buffer(grows, join_style="mitre").exterior)
        for p in room.stack.pieces
        if p.sort == "loose"
    )
    plate = Polygon(room.stack.outline.exterior)
    marks = (*lying, *channels(room))
    return Sheet("pockets", "the front", plate, marks, (), check_line((), plate), GUIDE_MM)


def channels(room: Room) -> tuple[Polygon, ...]:
    """The channels of wires, as wide as they have to be."""
    return tuple(
        Polygon(LineString(leg).buffer(run.channel_mm / 2, quad_segs=8).exterior)
        for run in room.wires
        for _, leg in run.legs
        if len(leg) > 1
    )


def spacer(room: Room) -> Sheet:
    """A rim along the edge of the board that carries it over the back wall."""
    whole = Polygon(room.stack.outline.exterior)
    inside = whole.buffer(-RIM_MM, join_style="mitre")
    rim = whole.difference(inside)
    part = max(shapely.get_parts(rim), key=lambda one: one.area)
    return Sheet(
        "spacer", "the front", part, (), (), check_line((), whole), room.stack.walls.far_room_mm
    )


def drill_holes(room: Room) -> tuple[tuple[float, float, float], ...]:
    """Middles and diameters of the holes that are drilled."""
    found = []
    for thing in room.view.brief.on(room.view.board.name):
        drilled = thing.drilled()
        if drilled is not None:
            seat = seat_of_thing(room.view.brief, thing)
            found.append((seat.x / MM, seat.y / MM, drilled.d_mm))
    return tuple(found)


def shape_of(one: Opening) -> Polygon:
    """An opening in a wall as it is drawn."""
    wide, high = one.drawn_mm
    if one.round:
        return Point(one.x_mm, one.y_mm).buffer(wide / 2, quad_segs=24)
    flat = shapely.box(
        one.x_mm - wide / 2, one.y_mm - high / 2, one.x_mm + wide / 2, one.y_mm + high / 2
    )
    return rotate(flat, one.turn_deg, origin=(one.x_mm, one.y_mm))


def check_line(
    holes: tuple[tuple[float, float, float], ...], plate: Polygon
) -> tuple[Spot, Spot] | None:
    """Between the two holes that are farthest apart, or along the lower edge."""
    spots = [(x, y) for x, y, _ in holes]
    pairs = combinations(spots, 2)
    longest = max(pairs, key=lambda p: hypot(p[1][0] - p[0][0], p[1][1] - p[0][1]), default=None)
    if longest is not None:
        return longest
    left, bottom, right, _ = plate.bounds
    return (left, bottom), (right, bottom)


DRAWN = ("pdf", "svg", "dxf")
TEMPLATES = (
    Template("front-panel", "the front wall with its openings", (*DRAWN, "stl"), front_panel),
    Template("back-panel", "the back wall with its openings", (*DRAWN, "stl"), back_panel),
    Template("drill-guide", "the board's holes with a line to check", (*DRAWN, "stl"), drill_guide),
    Template(
        "pockets", "where cells and speakers lie, and the channels of their wires", DRAWN, pockets
    ),
    Template("spacer", "a rim that carries the board", (*DRAWN, "stl"), spacer),
)
