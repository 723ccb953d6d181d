"""Drawings in DXF, read with ezdxf: lines, arcs, circles, polylines, ellipses, splines and inserted
blocks of the model space.
"""

import io
from collections import Counter
from collections.abc import Iterable, Iterator
from itertools import pairwise
from math import radians
from typing import Any

from ezdxf import path as paths
from ezdxf.document import Drawing as DxfFile
from ezdxf.filemanagement import read
from ezdxf.lldxf.const import DXFError

from loquet.core.outlining.strokes import Drawing, DrawingRefused, Pen

MM_OF = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0, 8: 25.4e-6, 9: 0.0254, 13: 0.001}
"""Millimetres of the units that $INSUNITS names (DXF reference); 0 says nothing."""
MOST_INSERTED = 5_000
DEEPEST = 8
CURVE = 0.005
"""How far a chord may lie from a spline or an ellipse, in the drawing's unit."""


def read_dxf(data: bytes) -> Drawing:
    """The strokes of a DXF file; raises DrawingRefused."""
    if data.startswith(b"AutoCAD Binary DXF"):
        raise DrawingRefused("This is a binary DXF file.", "Save it as text (ASCII) DXF.")
    try:
        found = read(io.StringIO(data.decode("utf-8", "replace").replace("\r\n", "\n")))
    except (DXFError, ValueError, KeyError, IndexError, TypeError, AttributeError) as error:
        said = str(error).splitlines()[0][:100] if str(error) else type(error).__name__
        raise DrawingRefused(
            f"This is not a whole DXF file ({said}).", "Save it again as ASCII DXF, R2000 or later."
        ) from None
    except (RecursionError, MemoryError):
        raise DrawingRefused("This DXF file is nested too deeply.", "Draw it flat.") from None
    return drawing_of(found, b"$INSUNITS" in data)


def drawing_of(found: DxfFile, says_unit: bool) -> Drawing:
    """What stands in the model space; a file that does not name its unit would be taken for
    metres.
    """
    pen, passed_over = Pen(), Counter[str]()
    for entity in flat(found.modelspace(), [0], 0):
        try:
            if not draw(pen, entity):
                passed_over[entity.dxftype()] += 1
        except (DXFError, ValueError, ZeroDivisionError, OverflowError, TypeError) as error:
            raise DrawingRefused(
                f"A {entity.dxftype()} of the drawing makes no sense ({str(error)[:60]}).",
                "Delete it, or draw it again.",
            ) from None
    unit = found.header.get("$INSUNITS", 0) if says_unit else 0
    kinds = tuple(f"{count} {kind}" for kind, count in sorted(passed_over.items()))
    return Drawing(tuple(pen.strokes), MM_OF.get(unit), kinds)


def flat(entities: Iterable[Any], count: list[int], depth: int) -> Iterator[Any]:
    """Entities with inserted blocks put in place; raises DrawingRefused where they do not end."""
    for entity in entities:
        count[0] += 1
        if entity.dxftype() != "INSERT":
            yield entity
            continue
        if depth == DEEPEST or count[0] > MOST_INSERTED:
            raise DrawingRefused(
                "The drawing inserts blocks in blocks without end.", "Explode them and save again."
            )
        yield from flat(entity.virtual_entities(), count, depth + 1)


def draw(pen: Pen, entity: Any) -> bool:
    """An entity as strokes; whether it is one that is read."""
    dxf = entity.dxf
    match entity.dxftype():
        case "LINE":
            pen.side((dxf.start.x, dxf.start.y), (dxf.end.x, dxf.end.y))
        case "CIRCLE":
            pen.circle((entity.ocs().to_wcs(dxf.center).x, dxf.center.y), dxf.radius)
        case "ARC" if dxf.extrusion.z > 0:
            ends = radians(dxf.start_angle), radians(dxf.end_angle)
            pen.arc((dxf.center.x, dxf.center.y), dxf.radius, *ends)
        case "LWPOLYLINE" if dxf.extrusion.z > 0:
            points = [(x, y, bulge) for x, y, bulge in entity.get_points("xyb")]
            around(pen, points, entity.closed)
        case "POLYLINE" if entity.is_2d_polyline and dxf.extrusion.z > 0:
            points = [
                (v.dxf.location.x, v.dxf.location.y, v.dxf.get("bulge", 0)) for v in entity.vertices
            ]
            around(pen, points, entity.is_closed)
        case "ELLIPSE" | "SPLINE" | "ARC" | "LWPOLYLINE" | "POLYLINE":
            for first, last in pairwise(paths.make_path(entity).flattening(CURVE)):
                pen.side((first.x, first.y), (last.x, last.y))
        case _:
            return False
    return True


def around(pen: Pen, points: list[tuple[float, float, float]], closed: bool) -> None:
    """A polyline with its bulges."""
    rows = [*points, points[0]] if closed and points else points
    for (x, y, bulge), (to_x, to_y, _) in pairwise(rows):
        pen.side((x, y), (to_x, to_y), bulge)
