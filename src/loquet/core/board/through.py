"""Where the soldered pins of a part come out on the other side of the board."""

import shapely

from loquet.core.geometry import Rect, Seat, polygon_of
from loquet.core.parts import LandPattern

ROOM_NM = (
    300_000  # a trimmed pin with its solder is wider than its hole; common practice, no source
)


def pins_under(
    pattern: LandPattern, seat: Seat, over: LandPattern, over_seat: Seat
) -> list[tuple[int, int]]:
    """Places (nm) where pins of a part come out under the body of one on the other side; nothing for parts of one side."""
    if seat.far == over_seat.far:
        return []
    body = polygon_of(over_seat.shape(over.body))
    pins = [
        (seat.point(p.drill_x_nm, p.drill_y_nm), p.drill_nm) for p in pattern.pads if p.drill_nm
    ]
    return [spot for spot, d in pins if body.distance(shapely.Point(spot)) < d / 2 + ROOM_NM]


def pins_rect(pattern: LandPattern, seat: Seat) -> Rect | None:
    """The upright rectangle about all pins of a seated part with the room that they need, in nm; nothing for a part without pins."""
    pins = [
        (seat.point(p.drill_x_nm, p.drill_y_nm), p.drill_nm) for p in pattern.pads if p.drill_nm
    ]
    if not pins:
        return None
    reach = max(d for _, d in pins) // 2 + ROOM_NM
    xs, ys = [x for (x, _), _ in pins], [y for (_, y), _ in pins]
    return min(xs) - reach, min(ys) - reach, max(xs) + reach, max(ys) + reach
