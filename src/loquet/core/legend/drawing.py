"""The printed legend: bodies, marks, words of plugs, then names where there is room; never on a
mask opening or under another part.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from shapely.geometry import LineString

from loquet.core.board.copper import FAR, NEAR, BoardView
from loquet.core.brief.seats import seat_of_thing
from loquet.core.circuit import Component
from loquet.core.geometry import Bar
from loquet.core.legend.marks import Unmarked, mark_first_pin, mark_on, mark_polarity
from loquet.core.legend.sheet import SPACE_NM, Sheet, put, put_text, sheet_of
from loquet.core.placement.rooms import courtyard_rect
from loquet.core.plain.remembering import Remembered
from loquet.core.quantities.lengths import nm_from_mm

UPRIGHT_DEG = 90
LARGE_BODY_NM = 5_000_000
STEPS_NM = (0, 700_000, -700_000, 1_500_000, -1_500_000)
LEGENDS: "Remembered[Legend]" = Remembered(16)


@dataclass(frozen=True)
class Legend:
    """Strokes by side, in nm seen from the near side, the names for which there was no room, and
    the marks that stand nowhere.
    """

    strokes: dict[str, tuple[Bar, ...]]
    left_out: tuple[str, ...]
    unmarked: tuple[Unmarked, ...] = ()


def legend_of(view: BoardView) -> Legend:
    """The legend of both sides; the same board gives the same strokes, and is not drawn twice."""
    made_of = (view.brief, view.circuit, view.placement, view.routing, view.pour, view.rules)
    return LEGENDS.of(made_of, lambda: drawn(view), view.board.name)


def drawn(view: BoardView) -> Legend:
    """The legend, drawn: what must be read comes first."""
    sheets = {name: sheet_of(view, name) for name in (NEAR, FAR)}

    def of(component: Component) -> Sheet:
        return sheets[FAR if view.seats[component.ref].far else NEAR]

    print_words(view, sheets)
    parts = view.circuit.components
    for component in parts:
        draw_body(view, component, of(component))
    unmarked: list[Unmarked | None] = []
    for component in parts:
        if component.polar:
            unmarked += mark_polarity(view, component, of(component))
    unmarked += [mark_first_pin(view, component, of(component)) for component in parts]
    unmarked += [mark_on(view, component, of(component)) for component in parts if component.on_pad]
    for component in sorted(parts, key=lambda c: not c.printed):
        text = component.printed.upper() or component.ref
        if put_name(view, component, of(component), text):
            continue
        if component.printed and component.block != "buttons":
            unmarked.append(
                Unmarked(component.ref, component.printed.upper(), twins(view, component))
            )
        else:
            of(component).left_out.append(text)
    for component in parts:
        if component.printed:
            put_name(view, component, of(component), component.ref)
    title_boards(view, sheets)
    strokes = {name: tuple(dict.fromkeys(sheet.strokes)) for name, sheet in sheets.items()}
    left_out = tuple(text for sheet in sheets.values() for text in sheet.left_out)
    return Legend(strokes, left_out, tuple(mark for mark in unmarked if mark))


def twins(view: BoardView, component: Component) -> bool:
    """Whether the same part stands twice on a board, so that only words tell the two apart."""
    return sum(c.part == component.part for c in view.circuit.components) > 1


def print_words(view: BoardView, sheets: dict[str, Sheet]) -> None:
    """Words that a person put on the board, where they were put; what has no place, or does not fit
    there whole, is reported.
    """
    for thing in view.brief.on(view.board.name):
        printed = thing.printed()
        if printed is None:
            continue
        seat = seat_of_thing(view.brief, thing)
        sheet, height = sheets[FAR if seat.far else NEAR], nm_from_mm(printed.high_mm)
        upright = seat.turn_deg % 180 == UPRIGHT_DEG
        if thing.place is None or not put_text(
            sheet, printed.text, (seat.x, seat.y), height, upright
        ):
            sheet.left_out.append(printed.text)


def draw_body(view: BoardView, component: Component, sheet: Sheet) -> None:
    """Its outline."""
    pattern, seat = view.patterns[component.ref], view.seats[component.ref]
    if component.bare:
        return
    for stroke in pattern.strokes:
        put(sheet, LineString((seat.point(stroke.x1, stroke.y1), seat.point(stroke.x2, stroke.y2))))


def put_name(view: BoardView, component: Component, sheet: Sheet, text: str) -> bool:
    """A text beside the part, at the first of many places where it stands whole on free board."""
    height = view.rules.legend_height_nm
    for x, y, upright in name_places(view, component, text):
        if put_text(sheet, text, (x, y), height, upright):
            return True
    rect = courtyard_rect(view.patterns[component.ref], view.seats[component.ref])
    if rect[3] - rect[1] > LARGE_BODY_NM and not component.printed:
        middle = (rect[0] + rect[2]) / 2, (rect[1] + rect[3]) / 2
        return put_text(sheet, text, middle, height, own=component.ref)
    return False


def name_places(
    view: BoardView, component: Component, text: str
) -> Iterator[tuple[float, float, bool]]:
    """Places about a part, each with whether the text stands upright: beside the middles of its
    sides, then along them and farther out.
    """
    height = view.rules.legend_height_nm
    left, bottom, right, top = courtyard_rect(
        view.patterns[component.ref], view.seats[component.ref]
    )
    middle_x, middle_y = (left + right) / 2, (bottom + top) / 2
    away, half = height / 2 + SPACE_NM, len(text) * height * 0.45
    for farther in (0, 400_000):
        for step in STEPS_NM:
            yield middle_x + step, top + away + farther, False
            yield middle_x + step, bottom - away - farther, False
            yield left - away - farther, middle_y + step, True
            yield right + away + farther, middle_y + step, True
        yield left - half - farther, middle_y, False
        yield right + half + farther, middle_y, False
        yield left, top + away + farther, False
        yield right, bottom - away - farther, False


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
        if not any(put_text(sheet, text, at, view.rules.legend_height_nm) for at in places):
            sheet.left_out.append(text)
