"""Outlines as polygons in millimetres."""

from functools import lru_cache

from shapely.geometry import Polygon

from loquet.core.brief.outline_shapes import Outline, PolygonOutline
from loquet.core.geometry.arcs import flattened

CHORDS = 16  # a quarter turn


@lru_cache(maxsize=64)
def outline_polygon_mm(outline: Outline) -> Polygon:
    """The outline in mm with its corners as they are drawn; arcs are cut into 16 chords a
    quarter.
    """
    if isinstance(outline, PolygonOutline):
        return Polygon(flattened(outline.sides(), CHORDS))
    w, h, r = outline.width_mm, outline.height_mm, outline.corner_mm
    if r == 0:
        return Polygon([(0, 0), (w, 0), (w, h), (0, h)])
    core = Polygon([(r, r), (w - r, r), (w - r, h - r), (r, h - r)])
    return core.buffer(r, quad_segs=CHORDS)
