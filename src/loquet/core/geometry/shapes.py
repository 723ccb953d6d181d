"""Copper shapes as an exact core plus a radius, so that distances are exact and not those of a
polygon.

All lengths are integer nanometres; x to the right, y up, seen from the near side.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from math import cos, radians, sin

import numpy as np
import shapely
from numpy.typing import NDArray
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
    """A rectangle `w` by `h` about (`x`, `y`), turned anticlockwise by `turn` whole degrees, from 0
    to 89.
    """

    x: int
    y: int
    w: int
    h: int
    turn: int = 0

    @property
    def corners(self) -> tuple[tuple[float, float], ...]:
        """Its corners, anticlockwise."""
        halves = (self.w / 2, self.h / 2)
        c, s = cos(radians(self.turn)), sin(radians(self.turn))
        signs = ((-1, -1), (1, -1), (1, 1), (-1, 1))
        spots = ((i * halves[0], j * halves[1]) for i, j in signs)
        return tuple((self.x + c * u - s * v, self.y + s * u + c * v) for u, v in spots)

    @property
    def reach(self) -> tuple[float, float]:
        """How far it reaches from its middle along x and y."""
        c, s = cos(radians(self.turn)), sin(radians(self.turn))
        return (self.w * c + self.h * s) / 2, (self.w * s + self.h * c) / 2


Shape = Round | Bar | Box
Rect = tuple[int, int, int, int]  # left, bottom, right, top in nm


@lru_cache(maxsize=100_000)
def core_of(shape: Shape) -> BaseGeometry:
    """The exact core: a point, a segment or a rectangle.

    Kept by value: what did not move is not built again.
    """
    match shape:
        case Round():
            return Point(shape.x, shape.y)
        case Bar():
            if (shape.x1, shape.y1) == (shape.x2, shape.y2):
                return Point(shape.x1, shape.y1)
            return LineString(((shape.x1, shape.y1), (shape.x2, shape.y2)))
        case Box() if shape.turn:
            return Polygon(shape.corners)
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


@lru_cache(maxsize=50_000)
def polygon_of(shape: Shape, grow_nm: float = 0.0, quarter_segments: int = 12) -> Polygon:
    """The shape as a polygon, grown on all sides; curves are inscribed."""
    reach = radius_of(shape) + grow_nm
    grown = (
        core_of(shape).buffer(reach, quad_segs=quarter_segments) if reach > 0 else core_of(shape)
    )
    if not isinstance(grown, Polygon):
        raise TypeError("a shape without area has no polygon")
    return grown


def polygons_of(
    shapes: Sequence[Shape], grow_nm: Sequence[float] | float = 0.0, quarter_segments: int = 12
) -> NDArray[np.object_]:
    """The polygons of many shapes at once, each grown by its own or by one amount, as `polygon_of`
    makes them.
    """
    cores = np.array([core_of(s) for s in shapes], dtype=object)
    reach = np.array([radius_of(s) for s in shapes]) + np.asarray(grow_nm, dtype=np.float64)
    wide = reach > 0
    cores[wide] = shapely.buffer(cores[wide], reach[wide], quad_segs=quarter_segments)
    return cores


def grown(shape: Shape, grow_nm: int) -> Shape:
    """A pad shape larger on all sides."""
    match shape:
        case Round():
            return replace(shape, d=shape.d + 2 * grow_nm)
        case Box():
            return replace(shape, w=shape.w + 2 * grow_nm, h=shape.h + 2 * grow_nm)
        case Bar():
            return replace(shape, w=shape.w + 2 * grow_nm)
