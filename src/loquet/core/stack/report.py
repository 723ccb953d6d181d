"""Everything that is said of a stack, as plain values: for the station, the command and the
templates.
"""

import shapely
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import BoardView
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.library import Library
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.lengths import fine_mm
from loquet.core.stack.model import Gap, Piece, Stack
from loquet.core.stack.openings import openings_of
from loquet.core.stack.order import order_of
from loquet.core.stack.pieces import use_of
from loquet.core.stack.plugging import plugs_of
from loquet.core.stack.reaching import reached_things
from loquet.core.stack.screws import screw_fits
from loquet.core.stack.section import hull
from loquet.core.stack.stacking import LEAST_ROOM_MM, SPARE_MM, stack_of
from loquet.core.stack.wires import WireRun, wire_runs

Spot = tuple[float, float]
TIGHTEST = 5
PROUD_MM = 1.5
"""A cap stands so far out of the wall; common practice, no source."""


class StackBody(Frozen):
    """A body: what it is, the rings of its area (mm), from where to where it reaches."""

    name: str
    words: str
    sort: str
    rings: tuple[tuple[Spot, ...], ...]
    low_mm: float
    high_mm: float
    far: bool
    through: bool
    soft: bool


class GapView(Frozen):
    """A gap between two bodies, or to a wall."""

    one: str
    other: str
    mm: float
    least_mm: float
    way: str
    x_mm: float
    y_mm: float


class ScrewView(Frozen):
    """A screw at a hole, with the post under it."""

    thing: str
    thread: str
    head: str
    length_mm: int | None
    least_mm: float
    most_mm: float
    post_mm: float
    sunk_mm: float
    working: Working


class OpeningView(Frozen):
    """An opening in a wall, as it is needed and as it is drawn."""

    thing: str
    words: str
    wall: str
    round: bool
    x_mm: float
    y_mm: float
    z_mm: float
    turn_deg: float
    needed_mm: Spot
    drawn_mm: Spot
    working: Working


class PlugView(Frozen):
    """A plug in its socket, outside."""

    words: str
    ring: tuple[Spot, ...]
    low_mm: float
    high_mm: float


class ReachView(Frozen):
    """Something that is reached for."""

    thing: str
    words: str
    closed: bool
    reached: bool
    how: str


class TogetherView(Frozen):
    """In which order it goes together."""

    steps: tuple[str, ...]
    watch: tuple[str, ...]
    impossible: tuple[str, ...]


class StackView(Frozen):
    """The stack of a board."""

    board: str
    board_mm: float
    near_room_mm: float
    far_room_mm: float
    near_said: bool
    far_said: bool
    wall_mm: float
    side_gap_mm: float
    outline: tuple[Spot, ...]
    inside: tuple[Spot, ...]
    cut_outs: tuple[tuple[Spot, ...], ...]
    pieces: tuple[StackBody, ...]
    tightest: tuple[GapView, ...]
    gaps: int
    screws: tuple[ScrewView, ...]
    openings: tuple[OpeningView, ...]
    plugs: tuple[PlugView, ...]
    wires: tuple[WireRun, ...]
    reached: tuple[ReachView, ...]
    order: TogetherView
    workings: tuple[Working, ...]
    loose: tuple[str, ...]
    guessed: tuple[str, ...]
    unplaced: tuple[str, ...]


def stack_report(
    view: BoardView, library: Library, choices: StackChoices, board_mm: float
) -> StackView:
    """All of a board's stack."""
    stack = stack_of(view, library, choices, board_mm)
    walls = stack.walls
    plugs = tuple(plugs_of(view, library, board_mm))
    order = order_of(stack, plugs, choices)
    return StackView(
        board=stack.board,
        board_mm=board_mm,
        near_room_mm=walls.near_room_mm,
        far_room_mm=walls.far_room_mm,
        near_said=walls.near_said,
        far_said=walls.far_said,
        wall_mm=walls.wall_mm,
        side_gap_mm=walls.side_gap_mm,
        outline=ring_of(stack.outline),
        inside=ring_of(hull(stack)),
        cut_outs=tuple(ring_of(shapely.Polygon(ring)) for ring in stack.outline.interiors),
        pieces=tuple(body_view(piece) for piece in stack.pieces),
        tightest=tuple(gap_view(gap) for gap in stack.gaps[:TIGHTEST]),
        gaps=len(stack.gaps),
        screws=tuple(ScrewView(**vars(fit)) for fit in screw_fits(view, walls, choices)),
        openings=tuple(
            OpeningView(**vars(one)) for one in openings_of(view, library, walls, choices)
        ),
        plugs=tuple(
            PlugView(words=p.words, ring=ring_of(p.area), low_mm=p.low_mm, high_mm=p.high_mm)
            for p in plugs
        ),
        wires=wire_runs(view, library, stack),
        reached=tuple(
            ReachView(thing=r.thing, words=r.words, closed=r.closed, reached=r.reached, how=r.how)
            for r in reached_things(view, library, stack, choices)
        ),
        order=TogetherView(steps=order.steps, watch=order.watch, impossible=order.impossible),
        workings=(*room_workings(stack), whole_working(stack), *cap_workings(view, library, stack)),
        loose=tuple(t.name for t in view.brief.on(stack.board) if t.loose() is not None),
        guessed=stack.guessed,
        unplaced=stack.unplaced,
    )


def body_view(piece: Piece) -> StackBody:
    """A body with its rings."""
    return StackBody(
        name=piece.name,
        words=piece.words,
        sort=piece.sort,
        rings=tuple(ring_of(part) for part in shapely.get_parts(piece.area)),
        low_mm=fine_mm(piece.low_mm),
        high_mm=fine_mm(piece.high_mm),
        far=piece.far,
        through=piece.through,
        soft=piece.soft,
    )


def gap_view(gap: Gap) -> GapView:
    """A gap without what it is about."""
    return GapView(
        one=gap.one,
        other=gap.other,
        mm=gap.mm,
        least_mm=gap.least_mm,
        way=gap.way,
        x_mm=gap.x_mm,
        y_mm=gap.y_mm,
    )


def ring_of(area: BaseGeometry) -> tuple[Spot, ...]:
    """The outer line of an area in mm, without its repeated last point."""
    points = shapely.get_coordinates(area.exterior if hasattr(area, "exterior") else area)
    return tuple((fine_mm(x), fine_mm(y)) for x, y in points[:-1])


def room_workings(stack: Stack) -> tuple[Working, ...]:
    """How the room on both sides was found."""
    walls = stack.walls
    sides = (
        ("near", walls.near_room_mm, walls.near_said, False),
        ("far", walls.far_room_mm, walls.far_said, True),
    )
    return tuple(room_working(stack, *side) for side in sides)


def room_working(stack: Stack, side: str, room: float, said: bool, far: bool) -> Working:
    """The room on a side: measured, or what the highest body and the screws ask for."""
    title = f"Room on the {side} side"
    if said:
        origin = given("room", room, "mm", "measured, at the Brief")
        source, formula, inputs = (
            Source(kind="brief", text="measured with a caliper"),
            "room",
            (origin,),
        )
    else:
        tops = [
            (-p.shoulder_mm if far else p.shoulder_mm - stack.walls.board_mm, p.words)
            for p in stack.pieces
            if p.far == far and p.sort != "post"
        ]
        highest, words = max(tops, default=(0.0, "nothing stands here"))
        post = room if room > max(highest + SPARE_MM, LEAST_ROOM_MM) + 1e-6 else 0.0
        formula = "max(highest + spare, least, post)"
        inputs = (
            given("highest", fine_mm(highest), "mm", words),
            given("spare", SPARE_MM, "mm", "common practice, no source"),
            given("least", LEAST_ROOM_MM, "mm", "common practice, no source"),
            given("post", post, "mm", "what the screws of this side need, where that is more"),
        )  # type: ignore[assignment] # as many inputs as the formula has
        source = Source(kind="computed", text="proposed for a shell of one's own; measure yours")
    return Working(
        id=f"stack.room.{side}",
        title=title,
        value=room,
        unit="mm",
        shown=f"{room:.1f} mm",
        formula=formula,
        inputs=inputs,
        source=source,
    )


def whole_working(stack: Stack) -> Working:
    """How thick the device is."""
    walls = stack.walls
    return Working(
        id="stack.whole",
        title="Device from outside to outside",
        value=walls.whole_mm,
        unit="mm",
        shown=f"{walls.whole_mm:.1f} mm",
        formula="far + board + near + 2 x wall",
        inputs=(
            given("far", walls.far_room_mm, "mm", "room behind the board"),
            given("board", walls.board_mm, "mm", "thickness at Release"),
            given("near", walls.near_room_mm, "mm", "room before the board"),
            given("wall", walls.wall_mm, "mm", "this station"),
        ),
        source=Source(kind="computed", text="the layers of the stack added up"),
    )


def cap_workings(view: BoardView, library: Library, stack: Stack) -> tuple[Working, ...]:
    """How long the caps have to be that stand on controls; one for each height."""
    found: dict[tuple[str, float, bool], Working] = {}
    for component in view.circuit.components:
        if not use_of(component, library).capped:
            continue
        height, far = view.heights_mm[component.ref], view.seats[component.ref].far
        part = library.parts[component.part]
        key = (part.id, height, far)
        room = stack.walls.far_room_mm if far else stack.walls.near_room_mm
        long = room + stack.walls.wall_mm + PROUD_MM - height
        found.setdefault(
            key,
            Working(
                id=f"stack.cap.{part.id}.{'far' if far else 'near'}",
                title=f"Cap on {part.short}",
                value=long,
                unit="mm",
                shown=f"{long:.1f} mm",
                formula="room + wall + proud - height",
                inputs=(
                    given("room", room, "mm", "room over the board"),
                    given("wall", stack.walls.wall_mm, "mm", "this station"),
                    given("proud", PROUD_MM, "mm", "common practice, no source"),
                    given("height", height, "mm", part.evidence_text or "drawing of the part"),
                ),
                source=Source(
                    kind="computed", text="from the top of the part to where it stands out"
                ),
            ),
        )
    return tuple(found.values())
