"""The assembly drawing: both sides at true size, each with a ruler, as a PDF that prints
unscaled.
"""

import io

from reportlab.lib.colors import Color
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from shapely.geometry import Polygon

from loquet.core.board.copper import FAR, NEAR, BoardView
from loquet.core.geometry import polygon_of
from loquet.core.placement.rooms import courtyard_rect

INK, PAD, BODY = Color(0.14, 0.13, 0.11), Color(0.86, 0.78, 0.66), Color(0.35, 0.32, 0.29)
MARGIN_MM = 20


def write_drawing(view: BoardView) -> bytes:
    """Two pages; the far side is drawn as it is seen from behind."""
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(f"{view.brief.name}: assembly drawing")
    canvas.setCreator("Loquet")
    canvas.setViewerPreference("PrintScaling", "None")
    for side in (NEAR, FAR):
        page(canvas, view, side)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def page(canvas: Canvas, view: BoardView, side: str) -> None:
    """One side with its parts, a heading and a ruler."""
    left, bottom, right, top = (value / 1e6 for value in view.outline.bounds)
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 13)
    canvas.drawString(
        MARGIN_MM * mm,
        277 * mm,
        f"{view.brief.name}: {side} side, seen from {'the front' if side == NEAR else 'behind'}",
    )
    canvas.setFont("Helvetica", 9)
    canvas.drawString(
        MARGIN_MM * mm,
        271 * mm,
        f"True size, board {right - left:.2f} x {top - bottom:.2f} mm. Check the ruler before you"
        " trust a print.",
    )
    canvas.saveState()
    base = max(255 - top, 40)
    if side == FAR:
        canvas.translate((MARGIN_MM + right) * mm, base * mm)
        canvas.scale(-1, 1)
    else:
        canvas.translate(MARGIN_MM * mm, base * mm)
    draw_polygon(canvas, view.outline, INK, None, 0.8)
    canvas.setFillColor(PAD)
    for pad in view.pads:
        if side in pad.sides:
            draw_polygon(canvas, polygon_of(pad.shape), BODY, PAD, 0.2)
    draw_parts(canvas, view, side)
    canvas.restoreState()
    ruler(canvas, base - 12)


def draw_polygon(
    canvas: Canvas, polygon: Polygon, stroke: Color, fill: Color | None, width: float
) -> None:
    """A polygon in board coordinates, with its openings."""
    path = canvas.beginPath()
    for ring in (polygon.exterior, *polygon.interiors):
        points = [(x / 1e6 * mm, y / 1e6 * mm) for x, y in ring.coords]
        path.moveTo(*points[0])
        for point in points[1:]:
            path.lineTo(*point)
        path.close()
    canvas.setLineWidth(width)
    canvas.setStrokeColor(stroke)
    if fill:
        canvas.setFillColor(fill)
    canvas.drawPath(path, stroke=1, fill=1 if fill else 0)


def draw_parts(canvas: Canvas, view: BoardView, side: str) -> None:
    """Body outlines with references that read from the side shown, and a mark at pad 1."""
    for component in view.circuit.components:
        seat, pattern = view.seats[component.ref], view.patterns[component.ref]
        if seat.far != (side == FAR):
            continue
        body = seat.shape(pattern.body)
        draw_polygon(canvas, polygon_of(body), INK, None, 0.4)
        rect = courtyard_rect(pattern, seat)
        x, y = (rect[0] + rect[2]) / 2e6 * mm, (rect[1] + rect[3]) / 2e6 * mm
        canvas.saveState()
        canvas.translate(x, y)
        if side == FAR:
            canvas.scale(-1, 1)
        canvas.setFillColor(INK)
        canvas.setFont("Helvetica-Bold", 4.2)
        canvas.drawCentredString(0, -1.4, component.ref)
        canvas.restoreState()
        if pattern.first_pin:
            fx, fy = seat.point(*pattern.first_pin)
            canvas.setFillColor(INK)
            canvas.circle(fx / 1e6 * mm, fy / 1e6 * mm, 0.25 * mm, stroke=0, fill=1)


def ruler(canvas: Canvas, y_mm: float) -> None:
    """A ruler of 100 mm with centimetre numbers."""
    canvas.setStrokeColor(INK)
    canvas.setFillColor(INK)
    canvas.setLineWidth(0.4)
    canvas.setFont("Helvetica", 6)
    canvas.line(MARGIN_MM * mm, y_mm * mm, (MARGIN_MM + 100) * mm, y_mm * mm)
    for tick in range(101):
        height = 4 if tick % 10 == 0 else (3 if tick % 5 == 0 else 1.8)
        canvas.line(
            (MARGIN_MM + tick) * mm, y_mm * mm, (MARGIN_MM + tick) * mm, (y_mm - height) * mm
        )
        if tick % 10 == 0:
            canvas.drawCentredString((MARGIN_MM + tick) * mm, (y_mm - 7) * mm, f"{tick}")
    canvas.drawString((MARGIN_MM + 104) * mm, (y_mm - 7) * mm, "mm")
