"""The printed legend: outlines, names where there is room, first pins, polarity; never on a mask opening."""

import itertools
from dataclasses import dataclass, field
from functools import cache

import shapely
from HersheyFonts import HersheyFonts
from shapely.geometry import LineString, MultiLineString, Point
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, BoardView
from loquet.core.brief.seats import seat_of_thing
from loquet.core.circuit import Component
from loquet.core.geometry import Bar, middle_of, polygon_of
from loquet.core.placement.rooms import courtyard_rect
from loquet.core.quantities.lengths import nm_from_mm

CAPITAL_UNITS = 21.0
UPRIGHT_DEG = 90
SPACE_NM = 150_000


@dataclass
class Sheet:
    """The legend of one side while it is drawn: where nothing may be printed, and the strokes so far."""

    far: bool
    width_nm: int
    allowed: BaseGeometry
    strokes: list[Bar] = field(default_factory=list)
    words: list[BaseGeometry] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Legend:
    """Strokes by side, in nm seen from the near side, and the names for which there was no room."""

    strokes: dict[str, tuple[Bar, ...]]
    left_out: tuple[str, ...]


@cache
def font() -> HersheyFonts:
    """The stroke font (public domain)."""
    loaded = HersheyFonts()
    loaded.load_default_font("futural")
    return loaded


def text_lines(text: str, height_nm: int) -> list[list[tuple[float, float]]]:
    """Strokes of a text of that capital height, its middle at the origin; x right, y up, in nm."""
    scale = height_nm / CAPITAL_UNITS
    lines = [[(x * scale, y * scale) for x, y in line] for line in font().strokes_for_text(text)]
    xs = [x for line in lines for x, _ in line] or [0.0]
    ys = [y for line in lines for _, y in line] or [0.0]
    middle_x, middle_y = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2
    return [[(x - middle_x, middle_y - y) for x, y in line] for line in lines]


def legend_of(view: BoardView) -> Legend:
    """The legend of both sides; the same board gives the same strokes."""
    sheets = {name: sheet_of(view, name) for name in (NEAR, FAR)}
    print_words(view, sheets)
    for component in view.circuit.components:
        draw_body(view, component, sheets[FAR if view.seats[component.ref].far else NEAR])
    named = sorted(view.circuit.components, key=lambda c: not (c.printed or c.polar or c.on_pad))
    for component in named:
        name_part(view, component, sheets[FAR if view.seats[component.ref].far else NEAR])
    for component in named:
        if component.printed:
            sheet = sheets[FAR if view.seats[component.ref].far else NEAR]
            put_name(view, component, sheet, component.ref)
    title_boards(view, sheets)
    strokes = {name: tuple(dict.fromkeys(sheet.strokes)) for name, sheet in sheets.items()}
    return Legend(strokes, tuple(text for sheet in sheets.values() for text in sheet.left_out))


def sheet_of(view: BoardView, name: str) -> Sheet:
    """An empty sheet: the board inset, less all mask openings and holes."""
    rules = view.rules
    beyond = rules.legend_stroke_nm / 2 + 80_000
    open_pads = [c for c in view.pads if name in c.sides and not c.covered]
    closed = [polygon_of(c.shape, (c.bare_nm or rules.mask_grow_nm) + beyond, 6) for c in open_pads]
    closed += [
        Point(h.x, h.y).buffer(h.d / 2 + rules.legend_stroke_nm, quad_segs=6)
        for h in view.holes
        if not h.plated or h.d > 500_000
    ]
    allowed = view.outline.buffer(-250_000).difference(shapely.union_all(closed))
    shapely.prepare(allowed)
    return Sheet(name == FAR, rules.legend_stroke_nm, allowed)


def put(sheet: Sheet, line: LineString) -> None:
    """Print a line as far as it is allowed; crumbs shorter than 0.2 mm are left out."""
    clipped = line.intersection(sheet.allowed)
    pieces = list(clipped.geoms) if isinstance(clipped, MultiLineString) else [clipped]
    for piece in pieces:
        if isinstance(piece, LineString) and piece.length > 200_000:
            points = [(round(x), round(y)) for x, y in piece.coords]
            for (x1, y1), (x2, y2) in itertools.pairwise(points):
                if (x1, y1) != (x2, y2):
                    sheet.strokes.append(Bar(x1, y1, x2, y2, sheet.width_nm))


def print_words(view: BoardView, sheets: dict[str, Sheet]) -> None:
    """Words that a person put on the board, where they were put; what has no place, or does not fit there whole, is reported."""
    for thing in view.brief.on(view.board.name):
        printed = thing.printed()
        if printed is None:
            continue
        seat = seat_of_thing(view.brief, thing)
        sheet, height = sheets[FAR if seat.far else NEAR], nm_from_mm(printed.high_mm)
        upright = seat.turn_deg % 180 == UPRIGHT_DEG
        if thing.place is None or not put_text(
            sheet, printed.text, seat.x, seat.y, height, upright
        ):
            sheet.left_out.append(printed.text)


def draw_body(view: BoardView, component: Component, sheet: Sheet) -> None:
    """Body outline and a dot beside pin 1."""
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    if component.bare:
        return
    for stroke in pattern.strokes:
        put(sheet, LineString((seat.point(stroke.x1, stroke.y1), seat.point(stroke.x2, stroke.y2))))
    if pattern.first_pin:
        put_first_pin(view, component, sheet)


def put_first_pin(view: BoardView, component: Component, sheet: Sheet) -> None:
    """A short double stroke just outside the courtyard, beside pin 1."""
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    assert pattern.first_pin is not None
    x, y = pattern.first_pin
    yard = pattern.courtyard
    out_x = (yard.x - yard.w // 2 - 150_000) if x < yard.x else (yard.x + yard.w // 2 + 150_000)
    a, b = seat.point(out_x, y - 250_000), seat.point(out_x, y + 250_000)
    put(sheet, LineString((a, b)))
    shift = -200_000 if x < yard.x else 200_000
    put(
        sheet,
        LineString(
            (seat.point(out_x + shift, y - 250_000), seat.point(out_x + shift, y + 250_000))
        ),
    )


def name_part(view: BoardView, component: Component, sheet: Sheet) -> None:
    """The name beside the part, with what else must be read on it; a name that finds no room is reported."""
    if component.polar:
        mark_polarity(view, component, sheet)
    if component.on_pad:
        mark_on(view, component, sheet)
    text = component.printed.upper() or component.ref
    if not put_name(view, component, sheet, text):
        sheet.left_out.append(text)


def put_name(view: BoardView, component: Component, sheet: Sheet, text: str) -> bool:
    """A text beside the part, at the first of several places where it fits whole."""
    height = view.rules.legend_height_nm
    rect = courtyard_rect(view.patterns[component.ref], view.seats[component.ref])
    middle_x, middle_y = (rect[0] + rect[2]) / 2, (rect[1] + rect[3]) / 2
    away = height / 2 + SPACE_NM
    places: list[tuple[float, float, bool]] = []
    if rect[3] - rect[1] > 5_000_000 and not component.printed:
        places.append((middle_x, middle_y, False))
    places += [
        (middle_x, rect[3] + away, False),
        (middle_x, rect[1] - away, False),
        (rect[0] - away, middle_y, True),
        (rect[2] + away, middle_y, True),
    ]
    half = len(text) * height * 0.45
    places += [
        (rect[0] - half, middle_y, False),
        (rect[2] + half, middle_y, False),
        (rect[0], rect[3] + away, False),
        (rect[2], rect[1] - away, False),
    ]
    return any(put_text(sheet, text, x, y, height, upright) for x, y, upright in places)


def put_text(sheet: Sheet, text: str, x: float, y: float, height_nm: int, upright: bool) -> bool:
    """Print a text about a place if all of it is allowed and free; far texts are mirrored so that they read from behind."""
    lines = [placed(line, x, y, sheet.far, upright) for line in text_lines(text, height_nm)]
    reach = sheet.width_nm / 2 + SPACE_NM / 2
    left, bottom, right, top = shapely.total_bounds(lines)
    hull = shapely.box(left - reach, bottom - reach, right + reach, top + reach)
    if not sheet.allowed.contains(hull) or any(hull.intersects(word) for word in sheet.words):
        return False
    sheet.words.append(hull)
    for line in lines:
        put(sheet, line)
    return True


def placed(
    line: list[tuple[float, float]], x: float, y: float, far: bool, upright: bool
) -> LineString:
    """A stroke about a place; `upright` turns it so that it reads from the right."""
    points = []
    for px, py in line:
        if upright:
            px, py = -py, px
        points.append((round(x + (-px if far else px)), round(y + py)))
    return LineString(points if len(points) > 1 else [points[0], (points[0][0] + 1, points[0][1])])


def mark_polarity(view: BoardView, component: Component, sheet: Sheet) -> None:
    """Plus beside pad 1 and minus beside pad 2: inside a long holder, else just outside of the part; what finds no room is reported."""
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    inside = pattern.body.w // 2 - 6_000_000
    small = view.rules.legend_height_nm
    for number, text in (("1", "+"), ("2", "-")):
        spots = [middle_of(pad.shape) for pad in pattern.pads if pad.number == number]
        x, y = min(spots)
        if (x, y) == (0, 0):
            continue  # the bare middle under a coin cell: its rim says plus, and nothing is printed under it
        if inside > 6_000_000:
            places, height = [(inside if x > 0 else -inside, 0)], 2_000_000
        else:
            yard, height = pattern.courtyard, small
            away = height // 2 + SPACE_NM
            up, down = yard.y + yard.h // 2 + away, yard.y - yard.h // 2 - away
            side = (yard.x + yard.w // 2 + away) if x > 0 else (yard.x - yard.w // 2 - away)
            places = [(x, up), (x, down), (side, y)]
        if not any(put_text(sheet, text, *seat.point(*at), height, False) for at in places):
            sheet.left_out.append(f"{text} of {component.ref}")


def mark_on(view: BoardView, component: Component, sheet: Sheet) -> None:
    """ON beside the end of a switch at which its slider stands when it is on."""
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    x, y = next(middle_of(p.shape) for p in pattern.pads if p.number == component.on_pad)
    yard, height = pattern.courtyard, view.rules.legend_height_nm
    away = height // 2 + SPACE_NM
    beside = yard.x + (yard.w // 2 + 2 * away) * (1 if x > yard.x else -1)
    places = [(x, yard.y - yard.h // 2 - away), (beside, y), (x, yard.y + yard.h // 2 + away)]
    if not any(put_text(sheet, "ON", *seat.point(*at), height, False) for at in places):
        sheet.left_out.append(f"ON of {component.ref}")


def title_boards(view: BoardView, sheets: dict[str, Sheet]) -> None:
    """The name of the board once on each side, where there is room."""
    left, bottom, right, top = view.outline.bounds
    step = 1_000_000
    for sheet in sheets.values():
        places = (
            (x, y)
            for y in range(int(bottom) + step, int(top), step)
            for x in range(int(left) + 4 * step, int(right), 2 * step)
        )
        text = f"{view.brief.name} {'far' if sheet.far else 'near'} side"
        if not any(
            put_text(sheet, text, x, y, view.rules.legend_height_nm, False) for x, y in places
        ):
            sheet.left_out.append(text)
