"""What shape a closed line inside an outline has: round, long, a rectangle, or none that is
made.
"""

from math import atan2, degrees, pi, sqrt
from typing import Annotated

import shapely
from pydantic import Field
from shapely.affinity import rotate, translate
from shapely.geometry import Polygon

from loquet.core.brief import PolygonOutline
from loquet.core.plain.frozen import Frozen

LEAST_OPENING_MM = 0.8
ALIKE_MM = 0.02  # how far an opening may lie from the round, long or square shape it is taken for


class FoundHole(Frozen):
    """A round hole: its middle and diameter in mm."""

    x_mm: float
    y_mm: float
    d_mm: Annotated[float, Field(gt=0)]


class FoundOpening(Frozen):
    """A slot or a rectangle with round corners: its middle, size, corners in mm, turn in whole
    degrees.
    """

    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    corner_mm: float
    turn_deg: int


class FoundFree(Frozen):
    """An opening of any other shape: its middle in mm, and its line from its own lower left
    corner.
    """

    x_mm: float
    y_mm: float
    line: PolygonOutline


def opening_of(area: Polygon, true_area: float) -> FoundHole | FoundOpening | str | None:
    """A hole, or an opening with the shape it has; nothing where that is another one, words where
    it cannot be cut.
    """
    box = area.minimum_rotated_rectangle
    (ax, ay), (bx, by), (cx, cy) = shapely.get_coordinates(box)[:3].tolist()
    w, h = sqrt((bx - ax) ** 2 + (by - ay) ** 2), sqrt((cx - bx) ** 2 + (cy - by) ** 2)
    middle = box.centroid
    spot = f"at {middle.x:.2f}, {middle.y:.2f} mm"
    x, y = round(middle.x, 4), round(middle.y, 4)
    if min(w, h) < LEAST_OPENING_MM:
        return f"The opening {spot} is {min(w, h):.2f} mm wide, too narrow to be cut, and left out."
    diameter = 2 * sqrt(true_area / pi)
    round_one = rounded(diameter, diameter, diameter / 2)
    round_one = translate(round_one, middle.x, middle.y)
    if differing(area, round_one) <= ALIKE_MM:
        centre = area.centroid
        return FoundHole(x_mm=round(centre.x, 4), y_mm=round(centre.y, 4), d_mm=round(diameter, 2))
    turn = degrees_of(bx - ax, by - ay)
    if h > w:
        w, h, turn = h, w, turn + 90
    corner = corner_of(true_area, w, h)
    alike = translate(rotate(rounded(w, h, corner), turn, origin=(0, 0)), middle.x, middle.y)
    if differing(area, alike) > ALIKE_MM or abs(turn - round(turn)) > 0.05:
        return None
    return FoundOpening(
        x_mm=x,
        y_mm=y,
        width_mm=round(w, 3),
        height_mm=round(h, 3),
        corner_mm=round(corner, 3) if corner > ALIKE_MM else 0,
        turn_deg=round(turn) % 180,
    )


def degrees_of(dx: float, dy: float) -> float:
    """The direction of a side in degrees, from 0 to below 180."""
    found = degrees(atan2(dy, dx)) % 180
    return 0.0 if found > 179.99 else found


def corner_of(area: float, w: float, h: float) -> float:
    """The radius that a rectangle's corners must have to enclose this area: (4 - pi) r^2 is what
    they take away.
    """
    return min(sqrt(max(w * h - area, 0) / (4 - pi)), w / 2, h / 2)


def rounded(w: float, h: float, corner: float) -> Polygon:
    """A rectangle with round corners about the origin."""
    core = shapely.box(-w / 2 + corner, -h / 2 + corner, w / 2 - corner, h / 2 - corner)
    if corner < 1e-9:
        return core
    line = core if core.area else shapely.LineString([(corner - w / 2, 0), (w / 2 - corner, 0)])
    return Polygon(shapely.get_coordinates(line.buffer(corner, quad_segs=24)))


def differing(one: Polygon, other: Polygon) -> float:
    """How far two shapes lie apart at the most, in mm."""
    return float(shapely.hausdorff_distance(one.exterior, other.exterior, densify=0.2))
