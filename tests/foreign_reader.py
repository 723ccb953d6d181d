"""Gerber files through an independent general library (gerbonara), whose warnings are errors, as
areas of shapely.
"""

import warnings
from pathlib import Path

import shapely
from gerbonara import GerberFile
from gerbonara.graphic_objects import Flash, Line, Region
from shapely.geometry import LineString, Point, Polygon, box


def opened(path: Path) -> GerberFile:
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        return GerberFile.open(path)


def as_shapely(layer: GerberFile) -> shapely.Geometry:
    """The dark area in mm, clear polarity applied in file order; circles as 64-gons a quarter."""
    area: shapely.Geometry = Polygon()
    darks: list[shapely.Geometry] = []
    for item in layer.objects:
        match item:
            case Flash():
                aperture = item.aperture
                if hasattr(aperture, "diameter"):
                    shape: shapely.Geometry = Point(item.x, item.y).buffer(
                        aperture.diameter / 2, quad_segs=64
                    )
                else:
                    shape = box(
                        item.x - aperture.w / 2,
                        item.y - aperture.h / 2,
                        item.x + aperture.w / 2,
                        item.y + aperture.h / 2,
                    )
            case Line():
                shape = LineString([(item.x1, item.y1), (item.x2, item.y2)]).buffer(
                    item.aperture.diameter / 2, quad_segs=64
                )
            case Region():
                shape = Polygon(item.outline)
            case _:
                raise AssertionError(f"unexpected object {item}")
        if item.polarity_dark:
            darks.append(shape)
        else:
            area = shapely.difference(shapely.union_all([area, *darks]), shape)
            darks = []
    return shapely.union_all([area, *darks])
