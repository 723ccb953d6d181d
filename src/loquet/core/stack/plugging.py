"""What is plugged in from outside: its volume, and what stands in its way."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import combinations
from math import hypot

import shapely
from shapely.geometry import Polygon

from loquet.core.board.copper import BoardView
from loquet.core.library import Library
from loquet.core.parts.in_use import FINGERS_MM
from loquet.core.quantities.lengths import MM, caliper_mm, fine_mm
from loquet.core.stack.model import Piece, Stack
from loquet.core.stack.mouths import beyond_mm, middle_mm, mouth_of
from loquet.core.stack.pieces import plug_in, thing_of


@dataclass(frozen=True)
class Plugged:
    """A plug in its socket: its words, the part and the thing, the area that it covers outside
    (mm), its height, and the way that it comes (a step of length 1 outwards).
    """

    words: str
    ref: str
    thing: str
    area: Polygon
    low_mm: float
    high_mm: float
    way: tuple[float, float]
    beyond_mm: float


@dataclass(frozen=True)
class InTheWay:
    """A plug and what it meets: another plug, or a body; how far apart they are in mm (0 where they
    are in one another).
    """

    plug: Plugged
    other: str
    mm: float
    about: tuple[str, ...]


def plugs_of(view: BoardView, library: Library, board_mm: float) -> Iterator[Plugged]:
    """Every plug in its socket."""
    for component in view.circuit.components:
        plug = plug_in(view, component, library)
        if plug is None:
            continue
        seat, body = view.seats[component.ref], view.patterns[component.ref].body
        mouth = mouth_of(view, component.ref)
        inside = seat.point(body.x, body.y)
        deep = hypot(mouth[0] - inside[0], mouth[1] - inside[1])
        way = ((mouth[0] - inside[0]) / deep, (mouth[1] - inside[1]) / deep)
        x = mouth[0] / MM + way[0] * plug.meets_mm
        y = mouth[1] / MM + way[1] * plug.meets_mm
        side = (-way[1] * plug.wide_mm / 2, way[0] * plug.wide_mm / 2)
        long = plug.long_mm - plug.meets_mm
        out = (way[0] * long, way[1] * long)
        corners = [
            (x + side[0], y + side[1]),
            (x - side[0], y - side[1]),
            (x - side[0] + out[0], y - side[1] + out[1]),
            (x + side[0] + out[0], y + side[1] + out[1]),
        ]
        middle = middle_mm(view, component.ref, board_mm)
        yield Plugged(
            f"the {plug.words} at {component.ref}",
            component.ref,
            component.thing,
            Polygon(corners),
            middle - plug.high_mm / 2,
            middle + plug.high_mm / 2,
            way,
            fine_mm(beyond_mm(view, mouth)),
        )


def plugs_in_the_way(stack: Stack, plugs: tuple[Plugged, ...]) -> Iterator[InTheWay]:
    """Plugs that are nearer to one another than fingers need, and plugs that run into a body of the
    device.
    """
    for one, other in combinations(plugs, 2):
        if overlap(one.low_mm, one.high_mm, other.low_mm, other.high_mm):
            apart = float(one.area.distance(other.area))
            if apart < FINGERS_MM:
                about = (*thing_of(one.thing), *thing_of(other.thing))
                yield InTheWay(one, other.words, caliper_mm(apart), about)
    tree = shapely.STRtree([piece.area for piece in stack.pieces])
    for plug in plugs:
        for piece in (stack.pieces[index] for index in sorted(tree.query(plug.area).tolist())):
            if meets(plug, piece):
                yield InTheWay(plug, piece.words, 0.0, (*thing_of(plug.thing), *piece.about))


def meets(plug: Plugged, piece: Piece) -> bool:
    """Whether a plug runs into a body that is not its own socket."""
    own = piece.name.split()[-1] == plug.ref or (piece.thing and piece.thing == plug.thing)
    if own:
        return False
    if not overlap(plug.low_mm, plug.high_mm, piece.low_mm, piece.high_mm):
        return False
    return bool(plug.area.intersection(piece.area).area > 1e-3)


def overlap(low: float, high: float, other_low: float, other_high: float) -> bool:
    """Whether two spans share more than an edge."""
    return min(high, other_high) - max(low, other_low) > 1e-6
