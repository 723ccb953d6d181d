"""Whether everything that is reached for can be reached in the state in which it is needed."""

from collections.abc import Iterator
from dataclasses import dataclass

from shapely.geometry import Polygon

from loquet.core.board.copper import BoardView
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.library import Library
from loquet.core.quantities.lengths import fine_mm
from loquet.core.stack.model import Piece, Stack
from loquet.core.stack.pieces import use_of

EDGE_MM = 1.5
"""A part no farther from the edge than this is reached through the side of the shell; common
practice, no source.
"""


@dataclass(frozen=True)
class Reached:
    """A thing that is reached for: what for, whether the shell is closed then, whether it is
    reached, and how or why not.
    """

    thing: str
    words: str
    closed: bool
    reached: bool
    how: str
    ref: str
    x_mm: float
    y_mm: float


def reached_things(
    view: BoardView, library: Library, stack: Stack, choices: StackChoices
) -> Iterator[Reached]:
    """Every thing with a service, by the first of its parts on the board."""
    for thing in view.brief.on(view.board.name):
        service = thing.service()
        piece = next((p for p in stack.pieces if p.thing == thing.name and p.sort == "part"), None)
        if service is None or piece is None:
            continue
        component = next(c for c in view.circuit.components if c.ref == piece.name)
        bridged = use_of(component, library).bridged_mm
        how, reached = reached_closed(piece, stack, bridged)
        if not service.closed:
            how, reached = reached_open(piece, stack, choices)
        spot = piece.area.representative_point()
        yield Reached(
            thing.name,
            service.words,
            service.closed,
            reached,
            how,
            piece.name,
            fine_mm(spot.x),
            fine_mm(spot.y),
        )


def reached_closed(piece: Piece, stack: Stack, bridged_mm: float = 0.0) -> tuple[str, bool]:
    """With the shell closed: through the wall above, through the side, or by a slider of the shell
    that bridges so much.
    """
    if piece.through:
        return ("through the back wall" if piece.far else "through the front wall"), True
    edge = Polygon(stack.outline.exterior).boundary
    away = float(piece.area.distance(edge))
    inside = stack.outline.contains(piece.area)
    if not inside or away <= EDGE_MM:
        return "through the side of the shell", True
    if away <= bridged_mm:
        return f"by a slider in the shell that bridges {away:.1f} mm", True
    return f"it lies {away:.1f} mm behind the edge, under the wall", False


def reached_open(piece: Piece, stack: Stack, choices: StackChoices) -> tuple[str, bool]:
    """With the shell open: by whichever wall comes off, unless something lies over it."""
    for other in stack.pieces:
        if other.far != piece.far or other.name == piece.name or other.thing == piece.thing:
            continue
        outside = other.low_mm < piece.low_mm if piece.far else other.high_mm > piece.high_mm
        covering = other.sort in ("module", "loose") and outside
        if covering and other.area.intersection(piece.area).area > 0.5 * piece.area.area:
            return f"{other.words} lies over it", False
    wall = "back" if piece.far else "front"
    if piece.far and choices.fixing == "posts":
        return "behind the board: through a door in the back wall", True
    return f"with the {wall} wall off", True
