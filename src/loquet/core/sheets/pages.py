"""The sheets as pages of A4, and the figures that set their values behind them."""

import io
from collections.abc import Sequence

from reportlab.lib.colors import Color
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from loquet.core.circuit.model import Circuit
from loquet.core.library import Library
from loquet.core.provenance import Working
from loquet.core.sheets.drawn import Area, Mark
from loquet.core.sheets.making import PAGE, areas_of
from loquet.core.sheets.packing import pack
from loquet.core.sheets.titles import title_of

PAPER = landscape(A4)
INK, QUIET = Color(0.14, 0.13, 0.11), Color(0.36, 0.34, 0.3)
EDGE_MM, HEAD_MM, TITLE_MM, GAP_MM = 10.0, 9.0, 7.0, 4.0
WIDTH_MM, HEIGHT_MM = 277.0, 190.0 - HEAD_MM
THIN, THICK = 0.5, 1.1
LINES_A_PAGE = 34
ANCHORS = {"start": "drawString", "middle": "drawCentredString", "end": "drawRightString"}
Placed = tuple[Area, float, float]


def write_sheets(circuit: Circuit, library: Library, device: str) -> bytes:
    """All areas of a circuit on as few pages as they need, and its figures; the same circuit gives
    the same bytes. Raises PartError.
    """
    pages = paged(areas_of(circuit, library, PAGE))
    tables = [
        circuit.workings[at : at + LINES_A_PAGE]
        for at in range(0, len(circuit.workings), LINES_A_PAGE)
    ]
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=PAPER, invariant=1)
    canvas.setTitle(f"Circuit of {device}")
    count = len(pages) + len(tables)
    for number, page in enumerate(pages, 1):
        draw_head(canvas, f"Circuit of {device}", f"sheet {number} of {count}")
        for placed in page:
            draw_area(canvas, *placed)
        canvas.showPage()
    for number, rows in enumerate(tables, len(pages) + 1):
        draw_head(canvas, f"Figures of {device}", f"sheet {number} of {count}")
        draw_figures(canvas, rows)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def paged(areas: Sequence[Area]) -> list[list[Placed]]:
    """Areas on pages, in their order as far as that saves paper."""
    pages, rest = [], list(areas)
    while rest:
        sizes = [(a.width_mm + GAP_MM, a.height_mm + TITLE_MM + GAP_MM) for a in rest]
        places = pack(sizes, WIDTH_MM + GAP_MM, HEIGHT_MM + GAP_MM)
        if places[0] is None:
            places[0] = (0.0, 0.0)
            places[1:] = [None] * (len(rest) - 1)
        pages.append([(area, *at) for area, at in zip(rest, places, strict=True) if at is not None])
        rest = [area for area, at in zip(rest, places, strict=True) if at is None]
    return pages


def draw_head(canvas: Canvas, title: str, number: str) -> None:
    """The line at the top of a page."""
    y = PAPER[1] - (EDGE_MM + 4) * mm
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 10)
    canvas.drawString(EDGE_MM * mm, y, title[:90])
    canvas.setFont("Helvetica", 8)
    canvas.drawRightString(PAPER[0] - EDGE_MM * mm, y, f"{number}; drawn by Loquet, not to scale")
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(THIN)
    canvas.line(EDGE_MM * mm, y - 2 * mm, PAPER[0] - EDGE_MM * mm, y - 2 * mm)


def draw_area(canvas: Canvas, area: Area, x_mm: float, y_mm: float) -> None:
    """One block under its title."""
    left = (EDGE_MM + x_mm) * mm
    top = PAPER[1] - (EDGE_MM + HEAD_MM + y_mm) * mm
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 9)
    where = f" on {area.board}" if area.board else ""
    canvas.drawString(left, top - 3.5 * mm, f"{title_of(area.block)}{where}")
    for mark in area.marks:
        draw_mark(canvas, mark, left, top - TITLE_MM * mm)


def draw_mark(canvas: Canvas, mark: Mark, left: float, top: float) -> None:
    """A stroke or words, from an area's own corner."""
    points = [(left + x * mm, top - y * mm) for x, y in mark.points]
    color = QUIET if mark.quiet else INK
    if mark.text:
        canvas.setFillColor(color)
        face = "Helvetica-Bold" if mark.bold else "Helvetica"
        canvas.setFont(face, mark.size_mm * mm)
        getattr(canvas, ANCHORS[mark.anchor])(*points[0], written(mark.text))
        return
    path = canvas.beginPath()
    path.moveTo(*points[0])
    for point in points[1:]:
        path.lineTo(*point)
    canvas.setStrokeColor(color)
    canvas.setFillColor(color)
    canvas.setLineWidth(THICK if mark.bold else THIN)
    canvas.drawPath(path, stroke=1, fill=int(mark.filled))


def draw_figures(canvas: Canvas, rows: Sequence[Working]) -> None:
    """What was worked out: its value, how, and where that stands."""
    y = PAPER[1] - (EDGE_MM + HEAD_MM + 4) * mm
    canvas.setFillColor(INK)
    for row in rows:
        canvas.setFont("Helvetica-Bold", 8)
        canvas.drawString(EDGE_MM * mm, y, written(row.title)[:62])
        canvas.drawRightString((EDGE_MM + 118) * mm, y, written(row.shown)[:24])
        canvas.setFont("Helvetica", 7)
        canvas.drawString((EDGE_MM + 122) * mm, y, written(row.formula)[:60])
        canvas.drawString((EDGE_MM + 200) * mm, y, written(row.source.text)[:64])
        y -= 5 * mm


def written(text: str) -> str:
    """Letters that the standard faces of PDF have."""
    return text.replace("Ω", " ohm").replace("µ", "u").replace("  ohm", " ohm")
