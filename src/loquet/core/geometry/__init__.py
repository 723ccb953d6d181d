"""Points, pad and track shapes, placements and outlines, on top of shapely.

May import shapely, and nothing of the core.
"""

from loquet.core.geometry.placing import Seat, turned
from loquet.core.geometry.shapes import (
    Bar,
    Box,
    Rect,
    Round,
    Shape,
    core_of,
    gap_between,
    grown,
    middle_of,
    polygon_of,
    polygons_of,
    radius_of,
)

__all__ = [
    "Bar",
    "Box",
    "Rect",
    "Round",
    "Seat",
    "Shape",
    "core_of",
    "gap_between",
    "grown",
    "middle_of",
    "polygon_of",
    "polygons_of",
    "radius_of",
    "turned",
]
