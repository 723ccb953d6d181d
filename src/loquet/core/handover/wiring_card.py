"""The wiring card for the breadboard stage: pin to wire colour to control, drawn; not to scale, and
it says so.
"""

import io
from dataclasses import dataclass

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from loquet.core.brief import Brief, keys_of
from loquet.core.brief.shares import marked
from loquet.core.pins import PinPlan
from loquet.core.pins.wiring import wiring_of

INK, RULE = Color(0.14, 0.13, 0.11), Color(0.75, 0.71, 0.63)
COLOURS = (
    ("brown", "#7A4A21"),
    ("orange", "#D9742B"),
    ("yellow", "#D8B425"),
    ("green", "#3F7D3A"),
    ("blue", "#2F5C9C"),
    ("violet", "#6B4E9B"),
    ("grey", "#8A8A8A"),
    ("white", "#F4F1E8"),
)
PITCH_MM, LEFT_MM, TOP_MM, A_PAGE = 7.2, 18.0, 258.0, 30


@dataclass(frozen=True)
class Wire:
    """One wire of the card: pin, port, colour, where it goes."""

    pin: str
    port: str
    colour: str
    shade: str
    goes_to: str


def wires_of(brief: Brief, plan: PinPlan, mark: str = "") -> tuple[Wire, ...]:
    """All wires in the order of the plan; red and black are kept for supply and ground."""
    members = members_of(brief, mark)
    wires = []
    for index, row in enumerate(plan.assignments):
        colour, shade = COLOURS[index % len(COLOURS)]
        keys = f": {', '.join(members[row.signal])}" if row.signal in members else ""
        wires.append(Wire(row.pin, row.port, colour, shade, row.title + keys))
    return tuple(wires)


def members_of(brief: Brief, mark: str = "") -> dict[str, list[str]]:
    """The keys on every line of a matrix, by the signal of the line."""
    wiring = wiring_of(brief)
    titles = {key.id: key.title.removeprefix("button ") for key in keys_of(brief)}
    chained = wiring.scheme == "charlieplexed"
    across, down = ("line", "line") if chained else ("row", "column")
    found: dict[str, list[str]] = {}
    for key, row, column in wiring.cells:
        for line in (f"{across} {row + 1}", f"{down} {column + 1}"):
            found.setdefault(marked(mark, line), []).append(titles[key])
    return found


def write_wiring_card(brief: Brief, plan: PinPlan, mark: str = "") -> bytes:
    """As many pages as it takes."""
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4, invariant=1)
    canvas.setTitle(f"{brief.name}: wiring card")
    canvas.setCreator("Loquet")
    wires = wires_of(brief, plan, mark)
    for start in range(0, len(wires), A_PAGE):
        page(canvas, brief, plan, wires[start : start + A_PAGE], start == 0)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def page(canvas: Canvas, brief: Brief, plan: PinPlan, wires: tuple[Wire, ...], first: bool) -> None:
    """A heading and so many wires, drawn from the chip on the left to the control on the right."""
    canvas.setFillColor(INK)
    canvas.setFont("Helvetica-Bold", 13)
    canvas.drawString(
        LEFT_MM * mm, 280 * mm, f"{brief.name}: wiring card{'' if first else ', continued'}"
    )
    canvas.setFont("Helvetica", 9)
    canvas.drawString(
        LEFT_MM * mm,
        274 * mm,
        f"Chip {plan.chip} in {plan.package}. A diagram, not to scale. Ground is black, the rail is"
        " red.",
    )
    canvas.drawString(
        LEFT_MM * mm,
        269 * mm,
        "Cells out while you wire. Check each wire with a meter before power; local codes and the"
        " cell maker's limits come first.",
    )
    height = PITCH_MM * len(wires)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(1)
    canvas.rect(LEFT_MM * mm, (TOP_MM - height) * mm, 34 * mm, height * mm)
    for index, wire in enumerate(wires):
        draw_wire(canvas, wire, TOP_MM - PITCH_MM * (index + 0.5))


def draw_wire(canvas: Canvas, wire: Wire, y_mm: float) -> None:
    """One wire: pin and port in the chip, a stroke of its colour with the colour's name, and where
    it goes.
    """
    base = y_mm - 1.1
    canvas.setFillColor(INK)
    canvas.setFont("Courier", 9)
    canvas.drawString((LEFT_MM + 2) * mm, base * mm, wire.port)
    canvas.drawRightString((LEFT_MM + 32) * mm, base * mm, f"pin {wire.pin}")
    canvas.setStrokeColor(RULE if wire.colour == "white" else HexColor(wire.shade))
    canvas.setLineWidth(2.2)
    canvas.line((LEFT_MM + 34) * mm, y_mm * mm, (LEFT_MM + 74) * mm, y_mm * mm)
    if wire.colour == "white":
        canvas.setStrokeColor(HexColor(wire.shade))
        canvas.setLineWidth(1.2)
        canvas.line((LEFT_MM + 34) * mm, y_mm * mm, (LEFT_MM + 74) * mm, y_mm * mm)
    canvas.setFont("Helvetica", 7)
    canvas.drawString((LEFT_MM + 48) * mm, (y_mm + 1.0) * mm, wire.colour)
    canvas.circle((LEFT_MM + 76) * mm, y_mm * mm, 1.2 * mm, stroke=1, fill=0)
    canvas.setFont("Helvetica", 9)
    text = wire.goes_to if len(wire.goes_to) <= 62 else wire.goes_to[:59] + "..."
    canvas.drawString((LEFT_MM + 80) * mm, base * mm, text)
