"""Openings in the walls: what comes through or is plugged in, how large its opening must be drawn
so that it fits when it is made.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from math import radians, tan
from typing import Literal

from loquet.core.board.copper import BoardView
from loquet.core.brief.stack_choices import Process, StackChoices
from loquet.core.library import Library
from loquet.core.lookup.covers import covers_of
from loquet.core.parts.in_use import Plug
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.lengths import MM, caliper_mm, fine_mm
from loquet.core.stack.model import Walls
from loquet.core.stack.mouths import beyond_mm, middle_mm, mouth_of
from loquet.core.stack.pieces import plug_in, use_of

PLAY_MM = 0.25
"""On each side of something that moves or is plugged in; common practice, no source."""
GROWS_MM: dict[Process, float] = {
    "filament": 0.2,
    "resin": 0.1,
    "sintered": 0.15,
    "laser": -0.1,
    "milled": 0.05,
}
"""How much smaller than drawn each side of an opening comes out; a laser burns some away.

Common practice, no source: measure a test piece.
"""
PIVOT_SHARE = 0.4
"""A stick leans about a point this share of its height above the board; assumed."""


@dataclass(frozen=True)
class Opening:
    """An opening: for what, in which wall, around or with straight sides, its middle on the board
    (mm; for the sides of the shell also the height above the far face), the size that is needed and
    the size to draw (mm), and the working of the width to draw.
    """

    thing: str
    words: str
    wall: Literal["front wall", "back wall", "side"]
    round: bool
    x_mm: float
    y_mm: float
    z_mm: float
    turn_deg: float
    needed_mm: tuple[float, float]
    drawn_mm: tuple[float, float]
    working: Working


def openings_of(
    view: BoardView, library: Library, walls: Walls, choices: StackChoices
) -> Iterator[Opening]:
    """The openings for controls, screens and plugs, in the order of the parts."""
    for component in view.circuit.components:
        seat, use = view.seats[component.ref], use_of(component, library)
        height = view.heights_mm[component.ref]
        words = f"{component.ref} ({component.purpose})"
        wall: Literal["front wall", "back wall"] = "back wall" if seat.far else "front wall"
        if use.through_mm > 0:
            room = walls.far_room_mm if seat.far else walls.near_room_mm
            wide, high = use.opening_mm
            lean = 0.0
            if use.leans_deg:
                lean = max(0.0, room + walls.wall_mm - PIVOT_SHARE * height)
                lean *= tan(radians(use.leans_deg))
            size = (wide + 2 * lean, high + 2 * lean)
            yield opening(
                component.thing,
                words,
                wall,
                use.round,
                (seat.x / MM, seat.y / MM, 0.0, seat.turn_deg),
                size,
                PLAY_MM,
                lean,
                choices.process,
            )
        elif (plug := plug_in(view, component, library)) is not None:
            yield plug_opening(
                view, component.ref, component.thing, words, plug, walls, choices.process
            )
    for cover in covers_of(view.brief, library, view.board.name):
        thing = view.brief.thing(cover.thing)
        display = thing.display()
        if display is None or thing.place is None:
            continue
        module = library.screen(display.part)
        left, bottom, right, top = (value / MM for value in cover.rect)
        turn = float(thing.place.turn_deg)
        yield opening(
            cover.thing,
            f"the lit area of {cover.thing}",
            "back wall" if thing.place.far else "front wall",
            False,
            ((left + right) / 2, (bottom + top) / 2, 0.0, turn),
            module.active_mm,
            0.0,
            0.0,
            choices.process,
        )


def plug_opening(
    view: BoardView,
    ref: str,
    thing: str,
    words: str,
    plug: Plug,
    walls: Walls,
    process: Process,
) -> Opening:
    """The opening in the side of the shell in front of a socket: as large as the grip of its plug
    where the socket lies so deep that the grip has to go in, as large as the socket's mouth where
    not.
    """
    x, y = mouth_of(view, ref)
    deep = walls.wall_mm + walls.side_gap_mm - beyond_mm(view, (x, y))
    mouth = (view.patterns[ref].body.w / MM, view.heights_mm[ref])
    size = (plug.wide_mm, plug.high_mm) if deep > plug.meets_mm else mouth
    middle, turn = middle_mm(view, ref, walls.board_mm), view.seats[ref].turn_deg
    return opening(
        thing,
        f"the {plug.words} at {words}",
        "side",
        False,
        (x / MM, y / MM, middle, float(turn)),
        size,
        PLAY_MM,
        0.0,
        process,
    )


def opening(
    thing: str,
    words: str,
    wall: Literal["front wall", "back wall", "side"],
    is_round: bool,
    where: tuple[float, float, float, float],
    size: tuple[float, float],
    play: float,
    lean: float,
    process: Process,
) -> Opening:
    """An opening with play around what goes through and what the process makes smaller."""
    grows = GROWS_MM[process]
    drawn = tuple(caliper_mm(side + 2 * play + 2 * grows) for side in size)
    width = size[0] - 2 * lean
    working = Working(
        id=f"stack.opening.{thing}.{words}",
        title=f"Opening for {words}",
        value=drawn[0],
        unit="mm",
        shown=f"{drawn[0]:.2f} mm",
        formula="width + 2 x lean + 2 x play + 2 x process",
        inputs=(
            given("width", fine_mm(width), "mm", "profile of the part or drawing of the screen"),
            given("lean", fine_mm(lean), "mm", "how far it leans at the outside of the wall"),
            given("play", play, "mm", "common practice, no source"),
            given("process", grows, "mm", f"{process}: common practice, no source"),
        ),
        source=Source(
            kind="common practice", text="no source: measure a test piece of your own machine"
        ),
    )
    x, y, z, turn = where
    return Opening(
        thing,
        words,
        wall,
        is_round,
        fine_mm(x),
        fine_mm(y),
        fine_mm(z),
        turn,
        (caliper_mm(size[0]), caliper_mm(size[1])),
        (drawn[0], drawn[1]),
        working,
    )
