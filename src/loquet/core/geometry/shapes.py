"""Copper shapes as an exact core plus a radius, so that distances are exact and not those of a polygon.

All lengths are integer nanometres; x to the right, y up, seen from the near side.
"""

from dataclasses import dataclass

import shapely
from shapely.geometry import LineString, Point, Polygon, box
from shapely.geometry.base import BaseGeometry


@dataclass(frozen=True, slots=True)
class Round:
    """A disc of diameter `d` about (`x`, `y`)."""

    x: int
    y: int
    d: int


@dataclass(frozen=True, slots=True)
class Bar:
    """A straight stroke with round ends: a track, or an obround pad."""

    x1: int
    y1: int
    x2: int
    y2: int
    w: int


@dataclass(frozen=True, slots=True)
class Box:
    """A rectangle with sides along the axes, `w` by `h`, about (`x`, `y`)."""

    x: int
    y: int
    w: int
    h: int


Shape = Round | Bar | Box


def core_of(shape: Shape) -> BaseGeometry:
    """The exact core: a point, a segment or a rectangle."""
    match shape:
        case Round():
            return Point(shape.x, shape.y)
        case Bar():
            if (shape.x1, shape.y1) == (shape.x2, shape.y2):
                return Point(shape.x1, shape.y1)
            return LineString(((shape.x1, shape.y1), (shape.x2, shape.y2)))
        case Box():
            return box(
                shape.x - shape.w / 2,
                shape.y - shape.h / 2,
                shape.x + shape.w / 2,
                shape.y + shape.h / 2,
            )


def middle_of(shape: Shape) -> tuple[int, int]:
    """The middle of a shape in nm."""
    if isinstance(shape, Bar):
        return (shape.x1 + shape.x2) // 2, (shape.y1 + shape.y2) // 2
    return shape.x, shape.y


def radius_of(shape: Shape) -> float:
    """How far the shape reaches beyond its core, in nm."""
    match shape:
        case Round():
            return shape.d / 2
        case Bar():
            return shape.w / 2
        case Box():
            return 0.0


def gap_between(a: Shape, b: Shape) -> float:
    """The exact distance between two shapes in nm; 0 or less where they touch or overlap."""
    return float(shapely.distance(core_of(a), core_of(b))) - radius_of(a) - radius_of(b)


def polygon_of(shape: Shape, grow_nm: float = 0.0, quarter_segments: int = 12) -> Polygon:
    """The shape as a polygon, grown on all sides; curves are inscribed."""
    reach = radius_of(shape) + grow_nm
    grown = (
        core_of(shape).buffer(reach, quad_segs=quarter_segments) if reach > 0 else core_of(shape)
    )
    if not isinstance(grown, Polygon):
        raise TypeError("a shape without area has no polygon")
    return grown
