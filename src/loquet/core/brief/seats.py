"""Where the brief itself puts pieces: by role, so that later stages and the drawing agree."""

from loquet.core.brief.model import Brief
from loquet.core.brief.outlines import outline_polygon_mm
from loquet.core.brief.thing import Body, Thing
from loquet.core.geometry import Seat
from loquet.core.quantities.lengths import nm_from_mm


def fixed_seats(brief: Brief, board: str = "") -> dict[str, Seat]:
    """Seats by role of every piece that the brief places on a board (the main one where none is
    named).
    """
    name = brief.board(board).name
    return {
        thing.role(body.piece): seat_of_body(brief, thing, body)
        for thing in brief.on(name)
        if thing.place is not None
        for body in thing.bodies()
    }


def seat_of_thing(brief: Brief, thing: Thing) -> Seat:
    """The seat of a thing; the middle of its board where it has no place yet."""
    if thing.place is not None:
        place = thing.place
        return Seat(nm_from_mm(place.x_mm), nm_from_mm(place.y_mm), place.turn_deg, place.far)
    middle = outline_polygon_mm(brief.board(thing.board).outline).centroid
    return Seat(nm_from_mm(middle.x), nm_from_mm(middle.y))


def seat_of_body(brief: Brief, thing: Thing, body: Body) -> Seat:
    """The seat of a piece of a thing."""
    seat = seat_of_thing(brief, thing)
    x, y = seat.point(body.dx, body.dy)
    return Seat(x, y, (seat.turn_deg + body.turn) % 360, seat.far)
