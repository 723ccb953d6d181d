"""Ports along the edges and fiducials in the corners, at places worked out by hand."""

from math import hypot

import pytest
from shapely.geometry import box
from shapely.geometry.base import BaseGeometry

from loquet.core.brief import Brief
from loquet.core.geometry import Box, Rect, Seat
from loquet.core.library import Library
from loquet.core.parts import LandPattern
from loquet.core.parts.in_use import Plug
from loquet.core.placement.corner_seats import corner_seats
from loquet.core.placement.edge_seats import along_side, edge_seats, plug_area
from tests.making import Plain, device, thing

MM = 1_000_000


@pytest.mark.parametrize(
    ("side", "turn", "middle", "step"),
    [
        (((0, 0), (30, 0)), 0, (15, 3), (0.5, 0)),
        (((30, 0), (30, 20)), 90, (27, 10), (0, 0.5)),
        (((30, 20), (0, 20)), 180, (15, 17), (-0.5, 0)),
        (((0, 0), (24, 18)), 37, (12 - 3 * 0.601815, 9 + 3 * 0.798636), (0.4, 0.3)),
    ],
)
def test_seats_along_a_side_begin_in_its_middle(
    side: tuple[tuple[float, float], tuple[float, float]],
    turn: int,
    middle: tuple[float, float],
    step: tuple[float, float],
) -> None:
    """A part 10 mm wide and 6 mm deep with its mouth on the side and the board on the left: 3 mm
    inwards, every half millimetre, as far as it fits.

    The fourth side is the triangle 3-4-5, whose 36.87 degrees are rounded to 37.
    """
    seats = list(along_side(side, 10, 6))
    long = hypot(side[1][0] - side[0][0], side[1][1] - side[0][1])
    assert len(seats) == 1 + 2 * int((long - 10) / 2 / 0.5)
    assert {s.turn_deg for s in seats} == {turn}
    for seat, way in zip(seats[:3], (0, 1, -1), strict=True):
        assert seat.x / MM == pytest.approx(middle[0] + way * step[0], abs=0.002)
        assert seat.y / MM == pytest.approx(middle[1] + way * step[1], abs=0.002)
    away = [abs(complex(s.x - seats[0].x, s.y - seats[0].y)) / MM for s in seats]
    assert max(away) == pytest.approx((long - 10) / 2, abs=0.01)


def plain_board(*things: Plain) -> Brief:
    outline = {"kind": "rounded-rectangle", "width_mm": 40, "height_mm": 30, "corner_mm": 2}
    return device(*things, boards=[{"name": "main", "outline": outline}])


def test_a_port_takes_the_first_seat_that_is_clear_inside_and_outside(library: Library) -> None:
    """Without a place the middle of the upper side; beside what stands there; beside what stands
    before its plug; nowhere on a full board. A second port keeps clear of the first, what has a
    place or belongs elsewhere is left.
    """

    def seats(*taken: BaseGeometry, behind: tuple[Rect, ...] = ()) -> list[Seat]:
        brief = plain_board(
            thing("usb-device", "usb"),
            thing("usb-device", "placed", 20, 3.5),
            thing("button", "key"),
            thing("usb-charge", "charger"),
        )
        areas = list(taken)
        found = edge_seats(brief, "main", library.pattern, library.plug, areas, behind)
        assert len(areas) == len(taken) + 2 * len(found)
        assert not any("placed" in role or "key" in role for role in found)
        return list(found.values())

    first, second = seats()
    assert (first.x, first.turn_deg) == (20 * MM, 180)
    assert second.turn_deg != 180 or abs(second.x - first.x) > 12 * MM
    part = next(iter(plain_board(thing("usb-device", "usb")).things[0].bodies())).part
    yard = library.pattern(part).courtyard
    for low, high in ((20, 30), (31, 50)):  # inside, and where the grip of a plug comes
        wall = box(18 * MM, low * MM, 22 * MM, high * MM)
        moved = seats(wall)[0]
        half = yard.w / 2 if low == 20 else 7.175 * MM
        assert moved.turn_deg == 180
        assert 2 * MM + half <= abs(moved.x - 20 * MM) <= 2 * MM + half + 500_000
    assert seats(box(-90 * MM, -90 * MM, 130 * MM, 120 * MM)) == []
    leads_out: Rect = (0, 20 * MM, 40 * MM, 30 * MM)
    assert seats(behind=(leads_out,))[0].turn_deg != 180


def test_fiducials_go_to_opposite_corners_first(library: Library) -> None:
    """On 40 x 30 mm with the outermost 3 mm left to the rails: the lattice of half millimetres
    begins at 0.25, so 3.25 is the first that lies within.
    """
    brief = plain_board(*(thing("fiducial", f"mark {n}") for n in (1, 2, 3)))
    found = corner_seats(brief, "main", library.pattern, [])
    spots = [(seat.x / MM, seat.y / MM) for seat in found.values()]
    assert spots[:2] == [(3.25, 3.25), (36.75, 26.75)]
    assert spots[2] == (3.25, 26.75)
    taken = [box(3 * MM, 3 * MM, 4 * MM, 4 * MM)]
    moved = corner_seats(brief, "main", library.pattern, taken)
    first = next(iter(moved.values()))
    assert (first.x, first.y) != (3_250_000, 3_250_000)
    assert hypot(first.x / MM - 3.5, first.y / MM - 3.5) < 5


@pytest.mark.parametrize(("other", "free"), [(14.3, False), (14.4, True)])
def test_a_port_leaves_room_for_the_plug_beside_it(other: float, free: bool) -> None:
    """A grip of 12.35 mm and half of the 2 mm that fingers want on each side: strips of 14.35 mm,
    from the mouth outwards.
    """
    socket = LandPattern("u", (), Box(0, 0, 9 * MM, 7 * MM), Box(0, 0, 9 * MM, 7 * MM))
    plug = Plug(words="USB-C plug", wide_mm=12.35, high_mm=6.5, long_mm=35.0, meets_mm=0.8)
    one = plug_area(socket, Seat(30 * MM, round(3.5 * MM)), plug)
    assert one.bounds == (22_825_000, -35_000_000, 37_175_000, -800_000)
    two = plug_area(socket, Seat(round((30 + other) * MM), round(3.5 * MM)), plug)
    assert one.intersects(two) is not free
    assert plug_area(socket, Seat(0, 0), None).is_empty
