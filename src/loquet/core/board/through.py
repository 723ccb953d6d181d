"""Where the soldered pins and the pegs of a part come out on the other side of the board."""

import shapely

from loquet.core.geometry import Rect, Seat, polygon_of
from loquet.core.parts import LandPattern

ROOM_NM = (
    300_000  # a trimmed pin with its solder is wider than its hole; common practice, no source
)


def pins_under(
    pattern: LandPattern, seat: Seat, over: LandPattern, over_seat: Seat
) -> list[tuple[int, int]]:
    """Places (nm) where pins or pegs of a part come out under the body of one on the other side;
    nothing for parts of one side.
    """
    if seat.far == over_seat.far:
        return []
    body = polygon_of(over_seat.shape(over.body))
    return [
        spot
        for spot, d in come_through(pattern, seat)
        if body.distance(shapely.Point(spot)) < d / 2 + ROOM_NM
    ]


def come_through(pattern: LandPattern, seat: Seat) -> list[tuple[tuple[int, int], int]]:
    """Place and hole (nm) of every pin and peg of a seated part."""
    pins = [
        (seat.point(p.drill_x_nm, p.drill_y_nm), p.drill_nm) for p in pattern.pads if p.drill_nm
    ]
    return pins + [(seat.point(hole.x, hole.y), hole.d) for hole in pattern.holes]


def pins_rect(pattern: LandPattern, seat: Seat) -> Rect | None:
    """The upright rectangle about all pins and pegs of a seated part with the room that they need,
    in nm; nothing for a part without any.
    """
    pins = come_through(pattern, seat)
    if not pins:
        return None
    reach = max(d for _, d in pins) // 2 + ROOM_NM
    xs, ys = [x for (x, _), _ in pins], [y for (_, y), _ in pins]
    return min(xs) - reach, min(ys) - reach, max(xs) + reach, max(ys) + reach
