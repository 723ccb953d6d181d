"""A board's stack: its walls, its pieces, and every gap between them."""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import partial
from math import hypot

import shapely
from shapely.geometry import Point
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import BoardView
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.library import Library
from loquet.core.plain.remembering import Remembered
from loquet.core.quantities.lengths import caliper_mm, fine_mm
from loquet.core.stack.model import Gap, Piece, Stack, Walls
from loquet.core.stack.pieces import (
    in_mm,
    loose_pieces,
    module_pieces,
    part_pieces,
    screw_pieces,
    screws_of,
    wire_pieces,
)
from loquet.core.stack.screw_sizes import ENGAGED, LENGTHS_MM, SKIN_MM, Screw

SPARE_MM = 0.5
"""Between the highest part and a wall that is proposed; common practice, no source."""
LEAST_ROOM_MM = 1.0
LEAST_GAP_MM = 0.2
"""Between bodies, and between a body and a wall; common practice, no source."""
CELL_GAP_MM = 1.0
"""Between a soft cell and anything that pierces; common practice, no source."""
CELL_EDGE_MM = 0.5
"""Between a soft cell and a hard edge; common practice, no source."""
BESIDE_MM = 3.0
HOLDS_BOARD = ("post",)
EMPTY = Point()


STACKS: Remembered[Stack] = Remembered(32)
PIECES: Remembered[Piece] = Remembered(2048)
TO_WALLS: Remembered[Gap] = Remembered(4096)
BETWEEN: Remembered[tuple[Gap, ...]] = Remembered(8192)


def stack_of(view: BoardView, library: Library, choices: StackChoices, board_mm: float) -> Stack:
    """Everything about a board, with the gaps from the tightest on; all lengths in mm.

    Kept as long as brief, placement and choices are.
    """
    about = (view.brief, view.placement, choices, library)
    name = f"{view.board.name} {board_mm}"
    return STACKS.of(about, lambda: stacked(view, library, choices, board_mm), name)


def stacked(view: BoardView, library: Library, choices: StackChoices, board_mm: float) -> Stack:
    """The stack of a board, worked out."""
    standing = [
        *part_pieces(view, library, board_mm),
        *module_pieces(view, library, board_mm),
        *wire_pieces(view, library, board_mm),
    ]
    loose = list(loose_pieces(view, choices, board_mm, standing))
    heads = [p for p in screw_pieces(view, choices, board_mm, 1.0, 1.0) if p.sort == "screw head"]
    walls = walls_about(view, choices, board_mm, [*standing, *loose, *heads])
    screws = screw_pieces(view, choices, board_mm, walls.far_room_mm, walls.near_room_mm)
    pieces = tuple(settled(piece) for piece in (*standing, *loose, *screws))
    things = list(view.brief.on(view.board.name))
    lying = [thing for thing in things if thing.loose() is not None]
    return Stack(
        board=view.board.name,
        outline=in_mm(view.outline),  # type: ignore[arg-type] # a polygon scaled is a polygon
        walls=walls,
        pieces=pieces,
        gaps=tightest_first(gaps_of(pieces, walls)),
        unplaced=tuple(thing.name for thing in lying if thing.place is None),
        guessed=tuple(t.name for t in lying if t.name not in choices.heights_mm),
    )


def tightest_first(gaps: Iterable[Gap]) -> tuple[Gap, ...]:
    """Gaps by what is left of them beyond the least that is asked."""
    return tuple(sorted(gaps, key=lambda g: (g.mm - g.least_mm, g.one, g.other)))


def settled(piece: Piece) -> Piece:
    """The very same object for the same piece, so that gaps beside what did not move are not worked
    out again.
    """
    if piece.sort in ("part", "leads"):
        return piece  # those of a part are the same as long as it stands where it is
    plain = replace(piece, area=EMPTY)
    return PIECES.of((), lambda: piece, f"{plain!r} {piece.area.wkb_hex}")


def walls_about(
    view: BoardView, choices: StackChoices, board_mm: float, pieces: Iterable[Piece]
) -> Walls:
    """The shell as it was measured, or as what is inside asks for it."""
    near = far = LEAST_ROOM_MM
    for piece in pieces:
        if piece.far:
            far = max(far, caliper_mm(-piece.shoulder_mm + SPARE_MM))
        else:
            near = max(near, caliper_mm(piece.shoulder_mm - board_mm + SPARE_MM))
    board = view.board
    for *_, screw in screws_of(view, choices):
        if choices.fixing == "posts":
            far = max(far, room_for(screw, board_mm, choices.wall_mm))
        else:
            near = max(near, room_for(screw, board_mm + far + choices.wall_mm, choices.wall_mm))
    return Walls(
        near_room_mm=near if board.near_room_mm is None else board.near_room_mm,
        far_room_mm=far if board.far_room_mm is None else board.far_room_mm,
        near_said=board.near_room_mm is not None,
        far_said=board.far_room_mm is not None,
        wall_mm=choices.wall_mm,
        side_gap_mm=choices.side_gap_mm,
        board_mm=board_mm,
    )


def room_for(screw: Screw, passed_mm: float, wall_mm: float) -> float:
    """The room behind what a screw passes, so that the shortest length that holds ends in the wall
    and not outside, in mm.
    """
    length = next((n for n in LENGTHS_MM if n >= passed_mm + ENGAGED * screw.d_mm - 1e-9), 0)
    return caliper_mm(length - passed_mm + SKIN_MM - wall_mm)


def gaps_of(pieces: tuple[Piece, ...], walls: Walls) -> Iterator[Gap]:
    """Every gap to a wall, and every gap between two bodies of which at least one does not stand on
    the board.
    """
    for piece in pieces:
        if piece.sort not in HOLDS_BOARD:
            yield TO_WALLS.of((piece,), partial(wall_gap, piece, walls), f"{walls!r}")
    tree = shapely.STRtree([piece.area for piece in pieces])
    for index, piece in enumerate(pieces):
        if piece.sort in ("part", "leads"):
            continue
        for other in tree.query(piece.area, predicate="dwithin", distance=BESIDE_MM).tolist():
            second = pieces[other]
            standing = second.sort in ("part", "leads")
            if other != index and (standing or other > index):
                yield from BETWEEN.of((piece, second), partial(gaps_between, piece, second))


def wall_gap(piece: Piece, walls: Walls) -> Gap:
    """From a body to the wall over it."""
    away = piece.shoulder_mm - walls.far_mm if piece.far else walls.near_mm - piece.shoulder_mm
    x, y = spot_of(piece.area)
    wall = "back wall" if piece.far else "front wall"
    return Gap(
        piece.words,
        f"the {wall}",
        fine_mm(away),
        "to the back wall" if piece.far else "to the front wall",
        x,
        y,
        piece.about,
        LEAST_GAP_MM,
    )


def gaps_between(one: Piece, other: Piece) -> tuple[Gap, ...]:
    """What `gap_between` finds."""
    return tuple(gap_between(one, other))


def gap_between(one: Piece, other: Piece) -> Iterator[Gap]:
    """How far two bodies are apart: above each other where they cover the same, side by side where
    they reach the same height; near a soft cell in every direction.
    """
    if one.thing and one.thing == other.thing:
        return
    apart = max(one.low_mm, other.low_mm) - min(one.high_mm, other.high_mm)
    beside = float(one.area.distance(other.area))
    soft = one.soft or other.soft
    least = LEAST_GAP_MM
    if soft:
        least = CELL_GAP_MM if one.sharp or other.sharp else CELL_EDGE_MM
    elif "loose" in (one.sort, other.sort) and abs(apart) < 1e-6:
        return
    where = nearest_spot(one.area, other.area)
    about = (*one.about, *other.about)
    if beside <= 1e-6 and one.area.intersection(other.area).area > 1e-6:
        yield Gap(one.words, other.words, fine_mm(apart), "above each other", *where, about, least)
    elif apart < 0:
        yield Gap(one.words, other.words, fine_mm(beside), "side by side", *where, about, least)
    elif soft:
        far = fine_mm(hypot(apart, beside))
        yield Gap(one.words, other.words, far, "side by side", *where, about, least)


def nearest_spot(one: BaseGeometry, other: BaseGeometry) -> tuple[float, float]:
    """A place between two areas, or within both."""
    shared = one.intersection(other)
    if not shared.is_empty:
        return spot_of(shared)
    (x1, y1), (x2, y2) = shapely.shortest_line(one, other).coords
    return fine_mm((x1 + x2) / 2), fine_mm((y1 + y2) / 2)


def spot_of(area: BaseGeometry) -> tuple[float, float]:
    """A place within an area."""
    point = area.representative_point()
    return fine_mm(point.x), fine_mm(point.y)
