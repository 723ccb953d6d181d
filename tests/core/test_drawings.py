"""The assembly drawing read back with pypdf, and the legend's names and marks at places worked out
by hand.
"""

import io
from dataclasses import replace
from itertools import pairwise
from math import dist

import pytest
import shapely
from pypdf import PdfReader
from shapely.geometry import box

from loquet.core.board import BoardView
from loquet.core.board.copper import FAR, NEAR, Copper
from loquet.core.board.model import PlacedPart, Placement
from loquet.core.brief.kinds.words import Words
from loquet.core.brief.places import Place
from loquet.core.circuit import Circuit, Component
from loquet.core.design import Design
from loquet.core.fabrication.assembly_drawing import write_drawing
from loquet.core.fabrication.layers import mask_layer, stencil_openings
from loquet.core.geometry import Bar, Box, Round
from loquet.core.legend.drawing import legend_of, put_name
from loquet.core.legend.marks import Unmarked, mark_first_pin, mark_on, mark_polarity
from loquet.core.legend.sheet import Sheet, put
from loquet.core.library import Library
from loquet.core.parts import LandPattern
from loquet.core.parts.land import Pad
from loquet.core.pipeline import board_view

MM = 1_000_000
POINT = 72 / 25.4  # of a millimetre: PDF 32000-1, 8.3.2.3
Spot = tuple[float, float]


@pytest.fixture(scope="module")
def view(finished: Design, library: Library) -> BoardView:
    return board_view(finished, library)


class Page:
    """Words and lines of a page, in points from its lower left corner."""

    def __init__(self, data: bytes, number: int) -> None:
        self.words: list[tuple[str, float, float]] = []
        self.paths: list[list[Spot]] = []
        page = PdfReader(io.BytesIO(data)).pages[number]

        def word(text: str, cm: list[float], tm: list[float], *_: object) -> None:
            if text.strip():
                x, y = tm[4], tm[5]
                self.words.append((text.strip(), cm[0] * x + cm[4], cm[3] * y + cm[5]))

        def operand(name: bytes, values: list[object], cm: list[float], _: object) -> None:
            if name in (b"m", b"l"):
                x, y = (float(v) for v in values)  # type: ignore[arg-type]
                spot = (cm[0] * x + cm[4], cm[3] * y + cm[5])
                if name == b"m":
                    self.paths.append([])
                self.paths[-1].append(spot)

        page.extract_text(visitor_text=word, visitor_operand_before=operand)

    def where(self, text: str) -> Spot:
        """Of the words that are this text, the first one's place."""
        return next((x, y) for word, x, y in self.words if word == text)

    def outline(self) -> tuple[float, float, float, float]:
        """The bounds of the longest line that is drawn."""
        closed = [path for path in self.paths if len(path) > 4]
        longest = max(closed, key=lambda path: len({round(x, 3) for x, _ in path}))
        xs, ys = [x for x, _ in longest], [y for _, y in longest]
        return min(xs), min(ys), max(xs), max(ys)


@pytest.mark.parametrize(
    ("number", "side", "words"),
    [(0, NEAR, "near side, seen from the front"), (1, FAR, "far side, seen from behind")],
)
def test_the_drawing_is_at_true_size_and_names_stand_on_their_parts(
    number: int, side: str, words: str, view: BoardView
) -> None:
    """The outline is 64 x 42 mm on the page; a name of 4.2 points stands in the middle of its part,
    1.4 points below it, on the far page counted from the right.
    """
    page = Page(write_drawing(view), number)
    assert any(words in word for word, _, _ in page.words)
    left, bottom, right, top = page.outline()
    assert (right - left) / POINT == pytest.approx(64, abs=0.02)
    assert (top - bottom) / POINT == pytest.approx(42, abs=0.02)
    parts = [c for c in view.circuit.components if view.seats[c.ref].far is (side == FAR)]
    assert parts
    for part in parts:
        yard = view.seats[part.ref].rect(view.patterns[part.ref].courtyard)
        x, y = (yard[0] + yard[2]) / 2e6, (yard[1] + yard[3]) / 2e6
        wide = 4.2 * 0.6 * len(part.ref)  # a letter is some 0.6 of its height wide
        at = page.where(part.ref)
        middle = right - x * POINT if side == FAR else left + x * POINT
        assert at[0] + wide / 2 == pytest.approx(middle, abs=1.6)
        assert at[1] == pytest.approx(bottom + y * POINT - 1.4, abs=0.2)
    others = {c.ref for c in view.circuit.components} - {c.ref for c in parts}
    assert not others & {word for word, _, _ in page.words}

    def drawn(pad: Copper) -> bool:
        """Whether a line has its end at the lower left corner of a pad."""
        assert isinstance(pad.shape, Box)
        x, y = (pad.shape.x - pad.shape.w / 2) / MM, (pad.shape.y - pad.shape.h / 2) / MM
        at = (right - x * POINT if side == FAR else left + x * POINT, bottom + y * POINT)
        return any(dist(at, point) < 0.1 for path in page.paths for point in path)

    boxes = [p for p in view.pads if isinstance(p.shape, Box) and not p.shape.turn]
    assert all(drawn(pad) for pad in boxes if side in pad.sides)
    behind = [pad for pad in boxes if side not in pad.sides]
    assert sum(map(drawn, behind)) < len(behind) / 5


def test_the_ruler_is_true(view: BoardView) -> None:
    """Numbers every 10 mm from 0 to 100, ticks every millimetre, the tenth ones longest."""
    page = Page(write_drawing(view), 0)
    places = [page.where(str(n))[0] for n in range(0, 101, 10)]
    centred = [p + 3.336 * len(str(n)) / 2 for p, n in zip(places, range(0, 101, 10), strict=True)]
    assert [b - a for a, b in pairwise(centred)] == pytest.approx([10 * POINT] * 10, abs=0.05)
    ticks = [p for p in page.paths if len(p) == 2 and p[0][0] == p[1][0]]
    longest = [abs(p[1][1] - p[0][1]) / POINT for p in sorted(ticks, key=lambda p: p[0][0])]
    assert len(ticks) == 101
    assert longest[0] == longest[10] == pytest.approx(4, abs=0.01)
    assert longest[5] == pytest.approx(3, abs=0.01)
    assert longest[1] == pytest.approx(1.8, abs=0.01)
    along = [p for p in page.paths if len(p) == 2 and p[0][1] == p[1][1]]
    first = min(ticks, key=lambda p: p[0][0])
    (line,) = [p for p in along if dist(p[0], first[0]) < 0.02]
    assert (line[1][0] - line[0][0]) / POINT == pytest.approx(100, abs=0.02)


# The legend


HEIGHT = 1_000_000  # of a capital at the first house
AWAY = HEIGHT / 2 + 150_000


def bench(
    view: BoardView, pattern: LandPattern, part: Component, turn: int = 0, far: bool = False
) -> BoardView:
    """One part in the middle of the dusk remote's board."""
    spot = PlacedPart(
        role=part.role, ref=part.ref, x_nm=30 * MM, y_nm=20 * MM, turn_deg=turn, far=far
    )
    return replace(
        view,
        circuit=Circuit(components=(part,), nets=(), workings=()),
        patterns={part.ref: pattern},
        heights_mm={part.ref: 1.0},
        placement=Placement(parts=(spot,)),
        routing=None,
        pour=None,
    )


def part(ref: str = "R1", **more: object) -> Component:
    return Component(role="r", ref=ref, part="x", block="", purpose="", pads={}, **more)


def pattern(wide: float, high: float, **more: object) -> LandPattern:
    yard = Box(0, 0, round(wide * MM), round(high * MM))
    pads = more.pop("pads", ())
    return LandPattern("x", pads, yard, yard, **more)  # type: ignore[arg-type]


def open_sheet(*closed: tuple[float, float, float, float], far: bool = False) -> Sheet:
    """A sheet on which everything may be printed but in these boxes (mm)."""
    allowed = box(0, 0, 64 * MM, 42 * MM)
    for one in closed:
        allowed = allowed.difference(box(*(v * MM for v in one)))
    return Sheet(far, 150_000, allowed)


def middle(sheet: Sheet) -> Spot:
    """The middle of the last word, in nm."""
    left, bottom, right, top = sheet.words[-1].bounds
    return (left + right) / 2, (bottom + top) / 2


ABOVE, BELOW = (20, 21.1, 40, 24), (20, 16, 40, 18.9)
LEFT, RIGHT = (20, 19.2, 27.9, 20.8), (32.1, 19.2, 40, 20.8)


def test_a_name_goes_beside_or_at_a_corner_at_last_and_into_a_tall_part_at_first(
    view: BoardView,
) -> None:
    """Beside: half of what the text is long, counted as 0.45 of its height a letter.

    A part taller than 5 mm takes its reference inside at last, where it is not covered.
    """
    narrow = (ABOVE, BELOW, (27.2, 20.72, 28, 21.1), (32, 20.72, 32.8, 21.1))
    seen, sheet = bench(view, pattern(4, 2), part()), open_sheet(*narrow)
    assert put_name(seen, seen.circuit.components[0], sheet, "R1")
    assert middle(sheet) == pytest.approx((28 * MM - 2 * HEIGHT * 0.45, 20 * MM), abs=20_000)
    full = (*narrow, LEFT, RIGHT)
    sheet = open_sheet(*full)
    assert not put_name(seen, seen.circuit.components[0], sheet, "R1")
    assert sheet.words == []
    for high, printed, inside in ((5.1, "", False), (4.9, "", False), (5.1, "DOME", False)):
        tall = bench(view, pattern(4, high), part(printed=printed))
        sheet = open_sheet()
        assert put_name(tall, tall.circuit.components[0], sheet, "R1")
        assert (abs(middle(sheet)[1] - 20 * MM) < 20_000) is inside
    walled = bench(view, pattern(4, 8), part())
    around = open_sheet(
        (0, 24.05, 60, 42), (0, 0, 60, 15.95), (0, 0, 27.95, 42), (32.05, 0, 60, 42)
    )
    assert put_name(walled, walled.circuit.components[0], around, "R1")
    assert middle(around) == pytest.approx((30 * MM, 20 * MM), abs=20_000)


def test_lines_are_clipped_and_crumbs_left_out() -> None:
    """Across a closed box of 2 mm a line of 10 mm leaves two pieces; what is left shorter than 0.2
    mm is none.
    """
    sheet = open_sheet((4, 0, 6, 42))
    put(sheet, shapely.LineString([(0, 10 * MM), (10 * MM, 10 * MM)]))
    assert sorted((b.x1 / MM, b.x2 / MM) for b in sheet.strokes) == [(0, 4), (6, 10)]
    assert {b.w for b in sheet.strokes} == {150_000}
    for long, count in ((190_000, 0), (210_000, 1)):
        sheet = open_sheet((4, 0, 6, 42))
        put(sheet, shapely.LineString([(4 * MM - long, 10 * MM), (5 * MM, 10 * MM)]))
        assert len(sheet.strokes) == count


@pytest.mark.parametrize(("x", "first"), [(-1.5, -1), (1.5, 1)])
def test_two_strokes_stand_beside_the_first_pin(x: float, first: int, view: BoardView) -> None:
    """Half a millimetre long, 0.15 and 0.35 mm outside of a courtyard 4 mm wide, on the side of the
    pin.
    """
    drawn = pattern(4, 2, first_pin=(round(x * MM), 300_000))
    seen, sheet = bench(view, drawn, part()), open_sheet()
    assert mark_first_pin(seen, seen.circuit.components[0], sheet) is None
    ends = {(b.x1 - 30 * MM, *sorted((b.y1 - 20 * MM, b.y2 - 20 * MM))) for b in sheet.strokes}
    assert ends == {(first * (2 * MM + out), 50_000, 550_000) for out in (150_000, 350_000)}
    bare = bench(view, drawn, part(bare=True))
    sheet = open_sheet()
    assert mark_first_pin(bare, bare.circuit.components[0], sheet) is None
    assert sheet.strokes == []


def test_plus_and_minus_stand_beside_their_pads(view: BoardView) -> None:
    """Above pad 1 and pad 2 of a part of 6 x 3 mm; inside a holder of 50 mm, 6 mm from its ends and
    2 mm high; a third place beside.
    """
    pads = (Pad("1", Box(-2 * MM, 0, MM, MM)), Pad("2", Box(2 * MM, 0, MM, MM)))
    seen = bench(view, replace(pattern(6, 3, pads=pads), poles=("1", "2")), part(polar=True))
    sheet = open_sheet()
    mark_polarity(seen, seen.circuit.components[0], sheet)
    places = [
        ((w.bounds[0] + w.bounds[2]) / 2, (w.bounds[1] + w.bounds[3]) / 2) for w in sheet.words
    ]
    up = 20 * MM + 1.5 * MM + AWAY
    assert places == [pytest.approx(spot, abs=20_000) for spot in ((28 * MM, up), (32 * MM, up))]
    closed = open_sheet((20, 21.6, 40, 24), (20, 15, 40, 18.4))
    mark_polarity(seen, seen.circuit.components[0], closed)
    places = [
        ((w.bounds[0] + w.bounds[2]) / 2, (w.bounds[1] + w.bounds[3]) / 2) for w in closed.words
    ]
    side = 3 * MM + AWAY
    assert places == [pytest.approx((30 * MM + s * side, 20 * MM), abs=20_000) for s in (-1, 1)]
    ends = (Pad("1", Box(-24 * MM, 0, MM, MM)), Pad("2", Box(24 * MM, 0, MM, MM)))
    holder = bench(view, replace(pattern(50, 14, pads=ends), poles=("1", "2")), part(polar=True))
    sheet = open_sheet()
    mark_polarity(holder, holder.circuit.components[0], sheet)
    places = [
        ((w.bounds[0] + w.bounds[2]) / 2, (w.bounds[1] + w.bounds[3]) / 2) for w in sheet.words
    ]
    assert places == [pytest.approx((30 * MM + s * 19 * MM, 20 * MM), abs=20_000) for s in (-1, 1)]
    nowhere = Sheet(False, 150_000, box(0, 0, MM, MM))
    missing = mark_polarity(seen, seen.circuit.components[0], nowhere)
    assert missing == [Unmarked("R1", "plus", True), Unmarked("R1", "minus", True)]


@pytest.mark.parametrize(
    ("closed", "wanted"),
    [
        ((), (28 * MM, 18.5 * MM - AWAY)),
        (((20, 15, 40, 18.4),), (27 * MM - 2 * AWAY, 20 * MM)),
        (((20, 15, 40, 18.4), (20, 19, 26.9, 21)), (28 * MM, 21.5 * MM + AWAY)),
    ],
)
def test_on_stands_where_the_slider_stands_then(
    closed: tuple[tuple[float, float, float, float], ...], wanted: Spot, view: BoardView
) -> None:
    """A switch of 6 x 3 mm that is on with its slider at pad 1, 2 mm to the left: below that pad,
    else beside that end by twice the room, else above; named where there is none.
    """
    pads = (Pad("1", Box(-2 * MM, 0, MM, MM)), Pad("2", Box(2 * MM, 0, MM, MM)))
    seen = bench(view, pattern(6, 3, pads=pads), part(on_pad="1"))
    sheet = open_sheet(*closed)
    mark_on(seen, seen.circuit.components[0], sheet)
    assert middle(sheet) == pytest.approx(wanted, abs=20_000)
    other = bench(view, pattern(6, 3, pads=pads), part(on_pad="2"))
    sheet = open_sheet((20, 15, 40, 18.4))
    mark_on(other, other.circuit.components[0], sheet)
    assert middle(sheet) == pytest.approx((33 * MM + 2 * AWAY, 20 * MM), abs=20_000)
    nowhere = Sheet(False, 150_000, box(0, 0, MM, MM))
    assert mark_on(seen, seen.circuit.components[0], nowhere) == Unmarked("R1", "ON", False)


# Paste


def test_a_large_pad_gets_four_windows() -> None:
    """Of a pad of 4 x 5 mm: 38 % of each side, 1.52 x 1.9 mm, in the middle of each quarter; of one
    of 2 mm with heat holes a cross of 0.8 mm stays free, so that 0.6 mm are left; a stroke is its
    own opening.
    """
    found = stencil_openings(Box(0, 0, 4 * MM, 5 * MM))
    assert {(b.x / MM, b.y / MM) for b in found if isinstance(b, Box)} == {
        (x, y) for x in (-1, 1) for y in (-1.25, 1.25)
    }
    assert {(b.w / MM, b.h / MM) for b in found if isinstance(b, Box)} == {(1.52, 1.9)}
    holed = stencil_openings(Box(0, 0, 2 * MM, 2 * MM), holed=True)
    assert {(b.w / MM, b.h / MM) for b in holed if isinstance(b, Box)} == {(0.6, 0.6)}
    assert stencil_openings(Box(0, 0, 2 * MM, 9 * MM)) == (Box(0, 0, 2 * MM, 9 * MM),)
    bar = Bar(0, 0, 5 * MM, 0, 4 * MM)
    assert stencil_openings(bar) == (bar,)


def test_the_mask_is_open_about_every_screw_hole(view: BoardView) -> None:
    """0.1 mm around each unplated hole, at its own place, on both sides."""
    wanted = {(h.x, h.y, h.d + 200_000) for h in view.holes if not h.plated}
    assert wanted
    assert any(x != y for x, y, _ in wanted)
    for side in (NEAR, FAR):
        drawn = mask_layer(view, side, "f").objects
        rounds = {(d.shape.x, d.shape.y, d.shape.d) for d in drawn if isinstance(d.shape, Round)}
        assert wanted <= rounds


def test_words_of_a_person_are_printed_or_reported(view: BoardView) -> None:
    """Where there is room they stand about their place, where there is none, or no place, they are
    named.
    """

    def with_words(x: float | None = None, y: float = 0.0) -> BoardView:
        place = None if x is None else Place(x_mm=x, y_mm=y)
        words = Words(name="note", place=place, text="NORTH", high_mm=1.5)
        return replace(view, brief=view.brief.with_things(words))

    printed = legend_of(with_words(x=12.0, y=4.0))
    bare = legend_of(view)
    new = [b for b in printed.strokes[NEAR] if b not in bare.strokes[NEAR]]
    about = [b for b in new if abs(b.x1 - 12 * MM) < 4.5 * MM and abs(b.y1 - 4 * MM) < 0.9 * MM]
    assert "NORTH" not in printed.left_out
    assert len(about) >= 5 * 2
    assert "NORTH" in legend_of(with_words()).left_out
    assert "NORTH" in legend_of(with_words(x=63.0, y=41.0)).left_out


def test_the_first_pin_is_marked_at_its_place(view: BoardView) -> None:
    """A dot of 0.25 mm radius at the mark of every pattern that has one, on both pages."""
    marked = {
        side: [
            view.seats[c.ref].point(*view.patterns[c.ref].first_pin)
            for c in view.circuit.components
            if view.patterns[c.ref].first_pin and view.seats[c.ref].far is (side == FAR)
        ]
        for side in (NEAR, FAR)
    }
    assert marked[NEAR]
    for number, side in enumerate((NEAR, FAR)):
        page = Page(write_drawing(view), number)
        left, bottom, right, _ = page.outline()
        starts = [path[0] for path in page.paths]
        for x, y in marked[side]:
            across = right - x / MM * POINT if side == FAR else left + x / MM * POINT
            spot = (across, bottom + y / MM * POINT)
            away = min(abs(a - spot[0]) + abs(b - spot[1]) for a, b in starts)
            assert away == pytest.approx(0.25 * POINT, abs=0.02)
