"""The measuring cards as pages of A5: the pins in order, what to probe, what to expect, and room
for what was found.
"""

import io

from reportlab.lib.colors import Color
from reportlab.lib.pagesizes import A5
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from loquet.core.drawers.confirming import MeasuringCard

INK, RULE = Color(0.14, 0.13, 0.11), Color(0.75, 0.71, 0.63)
LEFT, TOP, WIDTH = 12 * mm, A5[1] - 16 * mm, A5[0] - 24 * mm
PIN_MM, A_ROW = 7.0, 16
LINE = 10.5 * mm


def write_measuring_cards(cards: tuple[MeasuringCard, ...]) -> bytes:
    """One page a card; the same cards give the same bytes."""
    out = io.BytesIO()
    page = Canvas(out, pagesize=A5, invariant=1)
    page.setTitle("Measuring cards")
    for card in cards:
        draw_card(page, card)
        page.showPage()
    if not cards:
        page.setFont("Helvetica", 11)
        page.drawString(LEFT, TOP, "No part of this device has to be measured.")
        page.showPage()
    page.save()
    return out.getvalue()


def draw_card(page: Canvas, card: MeasuringCard) -> None:
    """Title, pins, probes, and a line to sign."""
    page.setFillColor(INK)
    page.setFont("Helvetica-Bold", 12)
    page.drawString(LEFT, TOP, fitted(card.title, 58))
    page.setFont("Helvetica", 8.5)
    page.drawString(LEFT, TOP - 5 * mm, fitted(f"{card.part}; at {', '.join(card.things)}", 82))
    page.drawString(LEFT, TOP - 9.5 * mm, fitted(f"Why: {card.why}.", 86))
    y = draw_pins(page, card, TOP - 20 * mm)
    page.setFont("Helvetica", 8)
    page.drawString(LEFT, y, "Unplugged, with no power on it: meter on ohms, leads on both pins.")
    y -= 6 * mm
    for probe in card.probes:
        draw_probe(page, probe.first, probe.second, probe.expect, y)
        y -= LINE
    page.setFont("Helvetica", 8.5)
    page.drawString(
        LEFT, 16 * mm, "Measured by ............................   on ...................."
    )
    page.drawString(
        LEFT, 10 * mm, "Anything else than expected: do not solder it; compare the drawing."
    )


def draw_pins(page: Canvas, card: MeasuringCard, y: float) -> float:
    """The pins in a row with number and name; the first one square.

    Not to scale, and it says so.
    """
    page.setStrokeColor(INK)
    for index, (number, name) in enumerate(card.pins[:A_ROW]):
        x = LEFT + index * PIN_MM * mm
        if index == 0:
            page.rect(x, y, 4 * mm, 4 * mm)
        else:
            page.circle(x + 2 * mm, y + 2 * mm, 2 * mm)
        page.setFont("Helvetica", 7)
        page.drawCentredString(x + 2 * mm, y + 1.1 * mm, number)
        page.saveState()
        page.translate(x + 3 * mm, y - 2 * mm)
        page.rotate(-60)
        page.drawString(0, 0, fitted(name, 16))
        page.restoreState()
    page.setFont("Helvetica", 7)
    page.drawRightString(LEFT + WIDTH, y + 5.5 * mm, "pins in order, not to scale")
    return float(y - 24 * mm)


def draw_probe(page: Canvas, first: str, second: str, expect: str, y: float) -> None:
    """One measurement with room for what was found."""
    page.setStrokeColor(RULE)
    page.line(LEFT, y - 6.2 * mm, LEFT + WIDTH, y - 6.2 * mm)
    page.setFont("Helvetica-Bold", 8.5)
    page.drawString(LEFT, y, fitted(f"{first} and {second}", 66))
    page.setFont("Helvetica", 8)
    page.drawString(LEFT, y - 4 * mm, fitted(f"expect {plain(expect)}", 74))
    page.drawRightString(LEFT + WIDTH, y - 4 * mm, "found ..........")


def fitted(text: str, most: int) -> str:
    """A text that fits its line."""
    return text if len(text) <= most else f"{text[: most - 1]}."


def plain(text: str) -> str:
    """Letters that the standard fonts of PDF have."""
    return text.replace("kΩ", "kilohm").replace("Ω", "ohm")
