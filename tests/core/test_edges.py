"""Ports settle at the edge with their mating side out."""

import pytest

from loquet.core.brief.edges import at_edge
from loquet.core.brief.kinds.button import Button
from loquet.core.brief.kinds.usb_device import UsbDevice
from loquet.core.brief.model import Board
from loquet.core.brief.outline_shapes import PolygonOutline, RoundedRectangle
from loquet.core.brief.places import Place
from loquet.core.geometry import Seat
from loquet.core.quantities.lengths import MM

BOARD = Board(outline=RoundedRectangle(width_mm=60, height_mm=40, corner_mm=3))


@pytest.mark.parametrize(
    ("put", "settled"),
    [
        # a shell 8.94 wide and 7.3 deep: its middle is 3.65 mm from the side that it looks out of
        ((30, 2), (30, 3.65, 0)),
        ((58, 20), (56.35, 20, 90)),
        ((30, 39), (30, 36.35, 180)),
        ((1, 20), (3.65, 20, 270)),
        ((30, 9.6), (30, 3.65, 0)),
        ((30, 9.8), (30, 9.8, 15)),  # more than 6 mm away it stays
        ((7, 2), (7.47, 3.65, 0)),  # the straight part of the side begins at 3 mm
    ],
)
def test_a_port_settles_at_the_nearest_side(
    put: tuple[float, float], settled: tuple[float, float, int]
) -> None:
    spot = at_edge(BOARD, UsbDevice(name="u"), Place(x_mm=put[0], y_mm=put[1], turn_deg=15))
    assert (spot.x_mm, spot.y_mm, spot.turn_deg) == settled


@pytest.mark.parametrize("far", [False, True])
@pytest.mark.parametrize(
    ("put", "out"), [((58, 20), (60, 20)), ((30, 39), (30, 40)), ((1, 20), (0, 20))]
)
def test_the_mating_side_looks_out_on_both_sides(
    put: tuple[float, float], out: tuple[float, float], far: bool
) -> None:
    """The middle of the body's lower side, seated as the board seats everything, lies on the
    outline.
    """
    spot = at_edge(BOARD, UsbDevice(name="u"), Place(x_mm=put[0], y_mm=put[1], far=far))
    seat = Seat(round(spot.x_mm * MM), round(spot.y_mm * MM), spot.turn_deg, spot.far)
    assert seat.point(0, round(-3.65 * MM)) == (out[0] * MM, out[1] * MM)


def test_a_slanted_side_and_an_outline_given_clockwise() -> None:
    """The hypotenuse of a right triangle looks out at 45 degrees, however its corners are
    listed.
    """
    for points in (((0, 0), (60, 0), (0, 60)), ((0, 60), (60, 0), (0, 0))):
        board = Board(outline=PolygonOutline(points_mm=points))
        spot = at_edge(board, UsbDevice(name="u"), Place(x_mm=29, y_mm=29))
        assert spot.turn_deg == 135
        assert spot.x_mm + spot.y_mm == pytest.approx(60 - 3.65 * 2**0.5, abs=0.01)


def test_what_does_not_belong_at_the_edge_stays() -> None:
    place = Place(x_mm=30, y_mm=2, turn_deg=15)
    assert at_edge(BOARD, Button(name="b"), place) == place
