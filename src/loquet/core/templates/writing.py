"""Templates as files: PDF with a ruler, SVG and DXF for a laser or a mill, STL for a printer's own
program.
"""

import io
import struct

import shapely
from reportlab.lib.pagesizes import A3, A4, landscape
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from shapely.geometry import Polygon

from loquet.core.board.copper import BoardView
from loquet.core.design import Choices
from loquet.core.fabrication.assembly_drawing import BODY, INK, MARGIN_MM, ruler
from loquet.core.library import Library
from loquet.core.templates.sheets import Sheet, Template, sheet_for

HEAD_MM, FOOT_MM = 42.0, 38.0
CROSS_MM = 3.0


def write_template(
    template: Template,
    kind: str,
    view: BoardView,
    library: Library,
    choices: Choices,
    mirrored: bool = False,
) -> bytes:
    """A template of a board in one of its formats; raises ValueError for a format that it does not
    have.
    """
    if kind not in template.formats:
        raise ValueError(f"{template.name} is not written as {kind}")
    sheet = sheet_for(template, view, library, choices)
    sheet = sheet.mirrored() if mirrored else sheet
    name = f"{view.brief.name}, {view.board.name}"
    match kind:
        case "pdf":
            return as_pdf(sheet, name)
        case "svg":
            return as_svg(sheet)
        case "dxf":
            return as_dxf(sheet)
        case _:
            return as_stl(sheet.plate, sheet.thick_mm)


def rings_of(area: Polygon) -> list[list[tuple[float, float]]]:
    """Outer and inner lines of an area, without their repeated last points."""
    return [
        [(float(x), float(y)) for x, y in ring.coords[:-1]]
        for ring in (area.exterior, *area.interiors)
    ]


def as_pdf(sheet: Sheet, name: str) -> bytes:
    """One page at true size with a ruler and a line to check; the page is as large as it has to
    be.
    """
    left, bottom, right, top = sheet.plate.bounds
    wide, high = right - left, top - bottom
    need = (wide + 2 * MARGIN_MM, high + HEAD_MM + FOOT_MM)
    sizes = [A4, landscape(A4), A3, landscape(A3)]
    page = next(
        (s for s in sizes if s[0] >= need[0] * mm and s[1] >= need[1] * mm),
        (max(need[0], 150) * mm, need[1] * mm),
    )
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=page, invariant=1)
    canvas.setTitle(f"{name}: {sheet.title}")
    canvas.setCreator("Loquet")
    canvas.setViewerPreference("PrintScaling", "None")
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 13)
    canvas.drawString(
        MARGIN_MM * mm, page[1] - 20 * mm, f"{name}: {sheet.title}, seen from {sheet.seen}"
    )
    canvas.setFont("Helvetica", 9)
    canvas.drawString(
        MARGIN_MM * mm,
        page[1] - 26 * mm,
        f"True size, {wide:.2f} x {high:.2f} mm. Print it unscaled and hold a rule to the ruler"
        " before you cut.",
    )
    if sheet.check:
        canvas.drawString(
            MARGIN_MM * mm,
            page[1] - 31 * mm,
            f"The dashed line must measure {sheet.check_mm:.2f} mm on the print.",
        )
    canvas.saveState()
    canvas.translate((MARGIN_MM - left) * mm, FOOT_MM * mm - bottom * mm)
    for area, ink, thick in ((sheet.plate, INK, 0.6), *((m, BODY, 0.25) for m in sheet.marks)):
        path = canvas.beginPath()
        for ring in rings_of(area):
            path.moveTo(ring[0][0] * mm, ring[0][1] * mm)
            for x, y in ring[1:]:
                path.lineTo(x * mm, y * mm)
            path.close()
        canvas.setStrokeColor(ink)
        canvas.setLineWidth(thick)
        canvas.drawPath(path, stroke=1, fill=0)
    canvas.setLineWidth(0.25)
    for x, y, _ in sheet.holes:
        canvas.line((x - CROSS_MM) * mm, y * mm, (x + CROSS_MM) * mm, y * mm)
        canvas.line(x * mm, (y - CROSS_MM) * mm, x * mm, (y + CROSS_MM) * mm)
    if sheet.check:
        (x1, y1), (x2, y2) = sheet.check
        canvas.setDash(3, 2)
        canvas.line(x1 * mm, y1 * mm, x2 * mm, y2 * mm)
    canvas.restoreState()
    ruler(canvas, 22)
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def as_svg(sheet: Sheet) -> bytes:
    """User units of a millimetre; what is cut is black, what is only marked is blue."""
    left, bottom, right, top = sheet.plate.bounds
    wide, high = right - left, top - bottom

    def data(area: Polygon) -> str:
        lines = []
        for ring in rings_of(area):
            points = " L".join(f"{x - left:.4f} {top - y:.4f}" for x, y in ring)
            lines.append(f"M{points}Z")
        return "".join(lines)

    rows = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.4f}mm" height="{high:.4f}mm"'
            f' viewBox="0 0 {wide:.4f} {high:.4f}">'
        ),
        f"<title>{sheet.title}, seen from {sheet.seen}</title>",
        f'<path d="{data(sheet.plate)}" fill="none" stroke="#000" stroke-width="0.1"/>',
    ]
    rows += [
        f'<path d="{data(mark)}" fill="none" stroke="#00f" stroke-width="0.1"/>'
        for mark in sheet.marks
    ]
    return "\n".join([*rows, "</svg>", ""]).encode()


def as_dxf(sheet: Sheet) -> bytes:
    """DXF R2000 in mm: what is cut on the layer CUT, what is only marked on MARKS."""
    from ezdxf import filemanagement, units  # loaded when first asked for

    file = filemanagement.new("R2000", units=units.MM)
    space = file.modelspace()
    for layer, areas in (("CUT", (sheet.plate,)), ("MARKS", sheet.marks)):
        file.layers.add(layer)
        for area in areas:
            for ring in rings_of(area):
                space.add_lwpolyline(ring, close=True, dxfattribs={"layer": layer})
    text = io.StringIO()
    file.write(text)
    return text.getvalue().encode()


def as_stl(plate: Polygon, thick_mm: float) -> bytes:
    """A plate of that thickness as triangles, outside anticlockwise, in binary STL; lengths in
    mm.
    """
    facets: list[tuple[tuple[float, float, float], ...]] = []
    for triangle in shapely.get_parts(shapely.constrained_delaunay_triangles(plate)):
        a, b, c = ((float(x), float(y)) for x, y in triangle.exterior.coords[:3])
        if (b[0] - a[0]) * (c[1] - a[1]) < (c[0] - a[0]) * (b[1] - a[1]):
            b, c = c, b
        facets.append(((*a, thick_mm), (*b, thick_mm), (*c, thick_mm)))
        facets.append(((*a, 0.0), (*c, 0.0), (*b, 0.0)))
    for ring in rings_of(shapely.geometry.polygon.orient(plate)):
        for a, b in zip(ring, [*ring[1:], ring[0]], strict=True):
            facets.append(((*a, 0.0), (*b, 0.0), (*b, thick_mm)))
            facets.append(((*a, 0.0), (*b, thick_mm), (*a, thick_mm)))
    body = [struct.pack("<80sI", b"Loquet, lengths in mm", len(facets))]
    for facet in facets:
        flat = [value for corner in facet for value in corner]
        body.append(struct.pack("<12fH", 0.0, 0.0, 0.0, *flat, 0))
    return b"".join(body)
