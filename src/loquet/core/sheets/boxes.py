"""A part with many pins: a box, or the symbol of a transistor, with a strand at every pin."""

from collections.abc import Sequence

from loquet.core.sheets.drawn import SMALL, Anchor, Pen, text_width
from loquet.core.sheets.faces import Face, Row
from loquet.core.sheets.strands import Pool, Strand

PIN, ROOM = 1.8, 0.8
MOST_ROWS = 30
OPEN_WIDTH = 34


class Side:
    """The pins of one side, with their strands and the heights at which they leave."""

    def __init__(self, rows: Sequence[Row], pool: Pool, ahead: int) -> None:
        self.rows = rows
        self.strands = [Strand(pool, ahead).from_pin(row.net, len(row.pads)) for row in rows]
        self.heights: list[float] = []
        floor = 0.0
        for index, strand in enumerate(self.strands):
            up, down = max(ROOM, -strand.pen.top), max(ROOM, strand.pen.bottom)
            at = floor + (max(up, PIN - ROOM) if index else max(1.2, up - 0.4))
            self.heights.append(at)
            floor = at + down
        self.tall = max((h for h in self.heights), default=0.0) + 1.2
        self.reach = floor


def sides_of(face: Face, pool: Pool) -> tuple[list[Row], list[Row]]:
    """Which pins stand on the left, which on the right: a plug has all on the right; else rails and
    the first half on the left.
    """
    if face.plug:
        return [], list(face.rows)
    nets = pool.nets
    supply = [r for r in face.rows if r.net in nets.supply]
    ground = [r for r in face.rows if r.net in nets.ground]
    lines = [r for r in face.rows if not nets.rail(r.net)]
    half = max(0, (len(lines) + 1 - len(supply) - len(ground)) // 2)
    if len(face.rows) <= 4:
        half = len(lines) // 2
    return [*supply, *lines[:half], *ground], lines[half:]


def draw_boxes(face: Face, pool: Pool) -> list[Pen]:
    """A part as one box, or as several where its pins are more than a sheet holds."""
    left, right = sides_of(face, pool)
    count = max(1, -(-max(len(left), len(right)) // MOST_ROWS))
    pens = []
    for index in range(count):
        part = slice(index * MOST_ROWS, (index + 1) * MOST_ROWS)
        words = f", {index + 1} of {count}" if count > 1 else ""
        last = index == count - 1
        pens.append(draw_box(face, pool, (left[part], right[part]), words, last))
    return pens


def draw_box(
    face: Face, pool: Pool, rows: tuple[list[Row], list[Row]], words: str, last: bool
) -> Pen:
    """One box with its pins: names inside, numbers on the wires, what is not used below."""
    pen = Pen()
    left, right = (Side(r, pool, ahead) for r, ahead in zip(rows, (-1, 1), strict=True))
    inner = [max((text_width(r.name, SMALL) for r in side), default=0) for side in rows]
    title = f"{face.ref}{words}"
    value = face.component.value if len(face.component.value) < 28 else ""
    wide = max(sum(inner) + 2.0, 2.6 if face.plug else 5.0)
    tall = max(left.tall, right.tall, 2.4)
    corners = [(0.0, 0.0), (wide, 0.0), (wide, tall), (0.0, tall), (0.0, 0.0)]
    pen.line(*corners, ref=face.ref, bold=True)
    pen.words((0, -1.5 if value else -0.4), title, ref=face.ref, bold=True)
    if value:
        pen.words((0, -0.4), value, ref=face.ref)
    for side, x, ahead in ((left, 0.0, -1), (right, wide, 1)):
        for row, strand, y in zip(side.rows, side.strands, side.heights, strict=True):
            draw_pin(pen, face, row, (x, y), ahead)
            start = x + ahead * stub_of(row)
            pen.put(strand.pen, start + strand.pen.left, y + strand.pen.top)
    if last and face.open:
        draw_open(pen, face, max(tall, left.reach, right.reach))
    return pen


def stub_of(row: Row) -> float:
    """The length of wire that carries a pin's numbers."""
    return max(1.0, text_width(",".join(row.pads), SMALL) + 0.5)


def draw_pin(pen: Pen, face: Face, row: Row, at: tuple[float, float], ahead: int) -> None:
    """A pin's name inside the box and its numbers on the wire."""
    x, y = at
    stub, numbers = stub_of(row), ",".join(row.pads)
    pen.line((x, y), (x + ahead * stub, y), net=row.net)
    inside: Anchor = "start" if ahead < 0 else "end"
    pen.words((x - ahead * 0.35, y + 0.28), row.name, inside, size=SMALL, net=row.net)
    number_at = (x + ahead * stub / 2, y - 0.22)
    pen.words(number_at, numbers, "middle", size=SMALL, net=row.net, quiet=True)
    pen.pads += [(face.ref, pad) for pad in row.pads]


def draw_open(pen: Pen, face: Face, y: float) -> None:
    """Pins on which there is nothing, each named, so that none is forgotten."""
    words = [f"{pad} {name}".strip() for pad, name in face.open]
    lines, line = [], "not used:"
    for word in words:
        if len(line) + len(word) > OPEN_WIDTH:
            lines.append(line)
            line = ""
        line = f"{line} {word},".strip()
    lines.append(line.rstrip(","))
    for index, text in enumerate(lines):
        pen.words((0, y + 1.1 + index * 1.05), text, size=SMALL, ref=face.ref, quiet=True)


LEG_ROWS = {
    "npn": (("base",), ("collector", "emitter")),
    "field effect": (("gate",), ("drain", "source")),
}


def draw_transistor(face: Face, pool: Pool) -> Pen:
    """A transistor: what steers it on the left, what it switches on the right; after IEC 60617
    05-05-01 and 05-05-13.
    """
    pen = Pen()
    by_name = {row.name: row for row in face.rows}
    steer_name, ends = LEG_ROWS[face.symbol][0][0], LEG_ROWS[face.symbol][1]
    p_channel = "PNP" in face.component.value or "P-channel" in face.component.value
    ends = ends[::-1] if p_channel else ends
    upper, lower = (by_name[name] for name in ends)
    steer = by_name[steer_name]
    left, right = Side([steer], pool, -1), Side([upper, lower], pool, 1)
    top, bottom = right.heights[0], max(right.heights[1], right.heights[0] + 4.6)
    right.heights[1] = bottom
    middle = (top + bottom) / 2
    draw_body(pen, face, (middle, top, bottom), p_channel)
    nets = (steer.net, upper.net, lower.net)
    pen.line((2.2, top), (3.2, top), net=nets[1])
    pen.line((2.2, bottom), (3.2, bottom), net=nets[2])
    pen.line((-1.0, middle), (0.9, middle), net=nets[0])
    pen.words((2.6, middle - 0.1), face.ref, ref=face.ref, bold=True)
    if len(face.component.value) < 14:
        pen.words((2.6, middle + 1.0), face.component.value, ref=face.ref)
    for row, strand, (x, y) in zip(
        (steer, upper, lower),
        (*left.strands, *right.strands),
        ((-1.0, middle), (3.2, top), (3.2, bottom)),
        strict=True,
    ):
        at = (x - 0.1 if x > 0 else 0.3, y - 0.25)
        pen.words(at, ",".join(row.pads), "end", size=SMALL, quiet=True)
        pen.pads += [(face.ref, pad) for pad in row.pads]
        pen.put(strand.pen, x + strand.pen.left, y + strand.pen.top)
    return pen


def draw_body(pen: Pen, face: Face, heights: tuple[float, float, float], p_channel: bool) -> None:
    """The bar with its two legs, and the arrow: at the emitter, or at the channel."""
    middle, top, bottom = heights
    ref = face.ref
    pen.line((1.2, middle - 1.2), (1.2, middle + 1.2), ref=ref, bold=True)
    if face.symbol == "npn":
        pen.line((0.9, middle), (1.2, middle), ref=ref)
        pen.line((1.2, middle - 0.5), (2.2, middle - 1.5), (2.2, top), ref=ref)
        pen.line((1.2, middle + 0.5), (2.2, middle + 1.5), (2.2, bottom), ref=ref)
        y = middle - 1.5 if p_channel else middle + 1.5
        away = -1 if p_channel else 1
        tip = (2.2, y)
        pen.line((1.75, y), tip, (2.2, y - away * 0.45), ref=ref)
        return
    pen.line((0.9, middle - 1.0), (0.9, middle + 1.0), ref=ref)
    pen.line((1.2, middle - 1.0), (2.2, middle - 1.0), (2.2, top), ref=ref)
    pen.line((1.2, middle + 1.0), (2.2, middle + 1.0), (2.2, bottom), ref=ref)
    pen.line((1.2, middle), (2.2, middle), (2.2, middle + (-1.0 if p_channel else 1.0)), ref=ref)
    x = 2.0 if p_channel else 1.4
    back = 1.6 if p_channel else 1.8
    pen.line((back, middle - 0.3), (x, middle), (back, middle + 0.3), ref=ref)
