"""A page about one part of the shelf: its pads at true size to lay the part on, the same enlarged
with numbers and names, and what to measure before it is trusted.
"""

import io
from collections.abc import Callable

from reportlab.lib.colors import Color
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from loquet.core.drawers.measuring_pages import INK, LINE, draw_probe, fitted, plain
from loquet.core.parts import Part, pattern_of
from loquet.core.parts.measuring import probes_of
from loquet.core.shelf.drawing import DrawnPin, PartDrawing, drawing_of

COPPER, BODY = Color(0.70, 0.36, 0.14), Color(0.34, 0.30, 0.36)
LEFT, TOP, WIDTH = 16 * mm, A4[1] - 18 * mm, A4[0] - 32 * mm
CHECK_MM, LARGEST_MM, MOST_LARGER = 50.0, 100.0, 8.0
SMALLEST_PT, MOST_PROBES = 2.6, 7


def write_part_page(part: Part) -> bytes:
    """One page of A4, to be printed at 100 %; the same part gives the same bytes."""
    out = io.BytesIO()
    page = Canvas(out, pagesize=A4, invariant=1)
    page.setTitle(part.id)
    drawing = drawing_of(part, pattern_of(part.body))
    page.setFillColor(INK)
    page.setFont("Helvetica-Bold", 13)
    page.drawString(LEFT, TOP, fitted(plain(part.description or part.id), 78))
    page.setFont("Helvetica", 9)
    about = f"{part.id}; {part.kind}; {part.height_mm:g} mm high; {part.evidence_text}"
    page.drawString(LEFT, TOP - 5.5 * mm, fitted(plain(about), 108))
    left, bottom, right, top = drawing.room_mm
    wide, high = right - left, top - bottom
    page.drawString(LEFT, TOP - 14 * mm, "True size, seen from above: lay the part on it.")
    draw(page, drawing, LEFT - left * mm, TOP - 17 * mm - top * mm, 1.0, named=False)
    low = TOP - 22 * mm - high * mm
    draw_check(page, low)
    larger = min(MOST_LARGER, LARGEST_MM / max(high, 1.0), WIDTH / mm / max(wide, 1.0))
    if larger > 1.2:
        page.drawString(LEFT, low - 12 * mm, f"{larger:.1f} times as large, with pads and names.")
        base = low - 15 * mm - top * larger * mm
        draw(page, drawing, LEFT - left * larger * mm, base, larger, named=True)
    draw_measuring(page, part)
    page.showPage()
    page.save()
    return out.getvalue()


def draw(page: Canvas, drawing: PartDrawing, x: float, y: float, scale: float, named: bool) -> None:
    """Body, pads and holes about a middle, so many times as large as they are."""
    to = scale * mm
    left, bottom, right, top = drawing.body_mm
    page.setStrokeColor(BODY)
    page.setLineWidth(0.3)
    page.rect(x + left * to, y + bottom * to, (right - left) * to, (top - bottom) * to)
    page.setStrokeColor(COPPER)
    for pad in drawing.pads:
        draw_pad(page, pad, lambda px, py: (x + px * to, y + py * to), to)
    page.setStrokeColor(INK)
    for hx, hy, d in drawing.holes_mm:
        page.circle(x + hx * to, y + hy * to, d / 2 * to)
    if not named:
        return
    page.setFillColor(INK)
    for pad in drawing.pads:
        size = min(7.0, max(SMALLEST_PT, 0.5 * min(pad.w_mm, pad.h_mm) * to))
        page.setFont("Helvetica", size)
        px, py = x + pad.x_mm * to, y + pad.y_mm * to
        page.drawCentredString(px, py + 0.2, pad.number)
        page.drawCentredString(px, py - size, fitted(pad.terminal, 12))


def draw_pad(
    page: Canvas, pad: DrawnPin, at: Callable[[float, float], tuple[float, float]], to: float
) -> None:
    """A pad by its outline, with its hole."""
    x, y = at(pad.x_mm, pad.y_mm)
    if pad.round:
        page.circle(x, y, pad.w_mm / 2 * to)
    else:
        page.rect(x - pad.w_mm / 2 * to, y - pad.h_mm / 2 * to, pad.w_mm * to, pad.h_mm * to)
    if pad.drill_mm:
        page.circle(x, y, pad.drill_mm / 2 * to)


def draw_check(page: Canvas, y: float) -> None:
    """A line that must measure what it says, or the page was not printed at true size."""
    page.setStrokeColor(INK)
    page.setLineWidth(0.4)
    page.line(LEFT, y, LEFT + CHECK_MM * mm, y)
    for x in (LEFT, LEFT + CHECK_MM * mm):
        page.line(x, y - 1.5 * mm, x, y + 1.5 * mm)
    page.setFont("Helvetica", 8)
    words = f"must measure {CHECK_MM:.0f} mm on the print, else print it at 100 %"
    page.drawString(LEFT + (CHECK_MM + 3) * mm, y - 1 * mm, words)


def draw_measuring(page: Canvas, part: Part) -> None:
    """What to measure, and a line to sign."""
    probes = probes_of(part)[:MOST_PROBES]
    y = 24 * mm + len(probes) * LINE
    page.setFillColor(INK)
    page.setFont("Helvetica-Bold", 9)
    words = "Measure before it is soldered, unplugged, meter on ohms:" if probes else ""
    page.drawString(LEFT, y, words)
    for index, probe in enumerate(probes):
        draw_probe(page, probe.first, probe.second, probe.expect, y - 6 * mm - index * LINE)
    page.setFont("Helvetica", 8.5)
    sign = "Laid on and measured by ............................   on ...................."
    page.drawString(LEFT, 12 * mm, sign)
