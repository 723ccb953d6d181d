"""Arcs by their bulge: the tangent of a quarter of the angle that a side turns through, positive
anticlockwise; 0 is straight, 1 half a circle.
"""

from collections.abc import Iterable, Iterator
from math import atan, atan2, ceil, cos, degrees, hypot, pi, sin

Point = tuple[float, float]


def centre_of(first: Point, last: Point, bulge: float) -> Point:
    """The middle of the circle of an arc; `bulge` is not 0."""
    dx, dy = last[0] - first[0], last[1] - first[1]
    away = (1 - bulge * bulge) / (4 * bulge)
    return (first[0] + last[0]) / 2 - dy * away, (first[1] + last[1]) / 2 + dx * away


def radius_of_arc(first: Point, last: Point, bulge: float) -> float:
    """The radius of an arc, in the unit of its ends."""
    return hypot(last[0] - first[0], last[1] - first[1]) * (1 + bulge * bulge) / (4 * abs(bulge))


def length_of_side(first: Point, last: Point, bulge: float) -> float:
    """How long a side is along itself."""
    if bulge == 0:
        return hypot(last[0] - first[0], last[1] - first[1])
    return radius_of_arc(first, last, bulge) * 4 * atan(abs(bulge))


def angle_of(first: Point, last: Point, centre: Point, clockwise: bool) -> float:
    """The angle in radians that an arc turns through from `first` to `last`, more than 0, one turn
    at the most.
    """
    begin = atan2(first[1] - centre[1], first[0] - centre[0])
    end = atan2(last[1] - centre[1], last[0] - centre[0])
    turned = (begin - end if clockwise else end - begin) % (2 * pi)
    return turned or 2 * pi


def flattened(sides: Iterable[tuple[Point, Point, float]], a_quarter: int) -> Iterator[Point]:
    """The corners of a line of sides and bulges, its arcs cut into chords, `a_quarter` of them a
    quarter turn.
    """
    for first, last, bulge in sides:
        if bulge == 0:
            yield first
        else:
            centre = centre_of(first, last, bulge)
            yield from along_arc(first, last, centre, bulge < 0, a_quarter, False)


def along_arc(
    first: Point, last: Point, centre: Point, clockwise: bool, a_quarter: int, outside: bool
) -> Iterator[Point]:
    """Where an arc begins and the corners of a line that replaces it, its last point left out:
    chords, or lines that touch the circle from outside; `a_quarter` of them a quarter turn.
    """
    turn = angle_of(first, last, centre, clockwise)
    count = max(1, ceil(degrees(turn) / 90 * a_quarter - 1e-9))
    radius = hypot(first[0] - centre[0], first[1] - centre[1])
    begin = atan2(first[1] - centre[1], first[0] - centre[0])
    step = (-turn if clockwise else turn) / count
    yield first
    for index in range(count if outside else count - 1):
        angle = begin + (index + (0.5 if outside else 1)) * step
        reach = radius / cos(step / 2) if outside else radius
        yield centre[0] + reach * cos(angle), centre[1] + reach * sin(angle)
