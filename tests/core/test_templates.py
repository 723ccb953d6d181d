"""Templates read back by others: DXF by ezdxf, SVG by svgelements, PDF by pypdf; STL as a closed
body of the volume worked out by hand.
"""

import io
import struct
from collections import Counter
from dataclasses import replace
from math import pi
from types import SimpleNamespace

import pytest
from ezdxf.filemanagement import read as read_dxf
from pypdf import PdfReader
from shapely.geometry import Polygon, box
from svgelements import SVG, Path

from loquet.core.design import Choices, Design
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.stack.openings import Opening
from loquet.core.stack.stacking import stack_of
from loquet.core.templates import TEMPLATES, sheet_for, write_template
from loquet.core.templates.sheets import Sheet, channels, check_line, shape_of
from loquet.core.templates.writing import as_pdf, as_stl, as_svg
from tests.making import device, thing

BY_NAME = {t.name: t for t in TEMPLATES}


@pytest.fixture(scope="module")
def design(library: Library) -> Design:
    """A board of 120 x 60 mm with a button at 40, 30, a speaker behind at 90, 30 and holes for M3
    in two corners.
    """
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("button", "go", 40, 30),
        thing("speaker", "speaker", 90, 30, far=True),
        thing("hole", "a", 5, 5, screw="M3"),
        thing("hole", "b", 115, 55, screw="M3"),
    )
    return bring_up_to_date(Design(brief=brief), library, "placement")


def written(
    design: Design, library: Library, name: str, kind: str, mirrored: bool = False
) -> bytes:
    view = board_view(design, library)
    return write_template(BY_NAME[name], kind, view, library, Choices(), mirrored)


def test_the_front_panel_has_its_opening_at_its_place(design: Design, library: Library) -> None:
    """The shell is 0.5 mm and 2 mm larger than the board all round: 125 x 65; the opening of the
    button is 6.9 mm (filament) about 40, 30.
    """
    sheet = sheet_for(BY_NAME["front-panel"], board_view(design, library), library, Choices())
    assert sheet.plate.bounds == (-2.5, -2.5, 122.5, 62.5)
    (ring,) = sheet.plate.interiors
    hole = Polygon(ring)
    assert (hole.centroid.x, hole.centroid.y) == pytest.approx((40, 30), abs=0.01)
    assert hole.area == pytest.approx(pi * 3.45**2, rel=0.01)
    assert sheet.thick_mm == 2.0


def test_dxf_and_svg_hold_the_same_lines(design: Design, library: Library) -> None:
    file = read_dxf(io.StringIO(written(design, library, "drill-guide", "dxf").decode()))
    loops = [e for e in file.modelspace() if e.dxf.layer == "CUT"]
    areas = sorted(Polygon([p[:2] for p in loop.get_points()]).area for loop in loops)
    drill = pi * 1.7**2
    assert file.header["$INSUNITS"] == 4
    assert len(areas) == 3
    assert areas[:2] == pytest.approx([drill, drill], rel=0.01)
    svg = SVG.parse(io.BytesIO(written(design, library, "drill-guide", "svg")), ppi=25.4)
    (path,) = [e for e in svg.elements() if isinstance(e, Path)]
    assert path.bbox() == pytest.approx((0, 0, 120, 60), abs=0.01)
    assert len(list(path.as_subpaths())) == 3


def test_the_page_is_at_true_size_with_a_line_to_check(design: Design, library: Library) -> None:
    """K47, K48: between the two holes 110 and 50 mm apart there are 120.83 mm; the ruler has its
    numbers; the page prints unscaled.
    """
    reader = PdfReader(io.BytesIO(written(design, library, "drill-guide", "pdf")))
    text = reader.pages[0].extract_text()
    assert "must measure 120.83 mm" in text
    assert "drill guide, seen from the front" in text
    assert all(str(n) in text for n in range(0, 101, 10))
    preferences = reader.trailer["/Root"]["/ViewerPreferences"]
    assert preferences["/PrintScaling"] == "/None"


def test_a_mirrored_template_says_so_and_is(design: Design, library: Library) -> None:
    """K41: about the middle of the plate, 60: the button comes to 80."""
    text = (
        PdfReader(io.BytesIO(written(design, library, "front-panel", "pdf", True)))
        .pages[0]
        .extract_text()
    )
    assert "seen from behind" in text
    sheet = sheet_for(
        BY_NAME["front-panel"], board_view(design, library), library, Choices()
    ).mirrored()
    (ring,) = sheet.plate.interiors
    assert Polygon(ring).centroid.x == pytest.approx(80, abs=0.01)
    assert sheet.mirrored().seen == "the front"


def test_pockets_have_their_play(design: Design, library: Library) -> None:
    """A speaker of 20 mm with 0.25 mm of play and 0.2 mm for filament on each side: 20.9 mm."""
    sheet = sheet_for(BY_NAME["pockets"], board_view(design, library), library, Choices())
    (mark,) = sheet.marks
    assert mark.bounds == pytest.approx((79.55, 19.55, 100.45, 40.45))


def test_the_back_panel_is_drilled_where_screws_come_through(
    design: Design, library: Library
) -> None:
    view = board_view(design, library)
    stack = Choices().stack.model_copy(update={"fixing": "through"})
    through = Choices(stack=stack)
    assert len(sheet_for(BY_NAME["back-panel"], view, library, Choices()).plate.interiors) == 0
    drilled = sheet_for(BY_NAME["back-panel"], view, library, through).plate.interiors
    for ring, spot in zip(
        sorted(drilled, key=lambda r: r.bounds), ((5, 5), (115, 55)), strict=True
    ):
        hole = Polygon(ring)
        assert hole.centroid.coords[0] == pytest.approx(spot, abs=0.01)
        assert hole.area == pytest.approx(
            pi * 1.7**2, rel=5e-3
        )  # M3, medium row of ISO 273: 3.4 mm


def triangles(data: bytes) -> list[tuple[tuple[float, float, float], ...]]:
    (count,) = struct.unpack_from("<I", data, 80)
    assert len(data) == 84 + 50 * count
    found = []
    for index in range(count):
        values = struct.unpack_from("<12f", data, 84 + 50 * index)
        found.append((values[3:6], values[6:9], values[9:12]))
    return found  # type: ignore[return-value]


def volume(facets: list[tuple[tuple[float, float, float], ...]]) -> float:
    """By the divergence theorem: positive where all facets look outwards."""
    whole = 0.0
    for a, b, c in facets:
        whole += (
            a[0] * (b[1] * c[2] - b[2] * c[1])
            - a[1] * (b[0] * c[2] - b[2] * c[0])
            + a[2] * (b[0] * c[1] - b[1] * c[0])
        )
    return whole / 6


def test_a_body_is_closed_and_has_its_volume(design: Design, library: Library) -> None:
    """A plate of 30 x 20 x 3 mm with an opening of 10 x 10: 1500 mm3.

    Every edge of a closed body belongs to two facets, once each way.
    """
    plate = box(0, 0, 30, 20).difference(box(10, 5, 20, 15))
    facets = triangles(as_stl(plate, 3.0))
    assert volume(facets) == pytest.approx(1500, rel=1e-5)
    edges = Counter((a, b) for f in facets for a, b in zip(f, (*f[1:], f[0]), strict=True))
    assert set(edges.values()) == {1}
    assert all((b, a) in edges for a, b in edges)
    real = triangles(written(design, library, "spacer", "stl"))
    assert volume(real) > 0


def test_a_format_that_it_does_not_have_is_refused(design: Design, library: Library) -> None:
    with pytest.raises(ValueError, match="not written as stl"):
        written(design, library, "pockets", "stl")


def strokes(data: bytes) -> tuple[tuple[float, float], list[tuple[str, list[tuple[float, float]]]]]:
    """The page in mm, and every path with its dash, its corners in mm from the lower left corner of
    the page; read by pypdf, moved by the matrices of the page.
    """
    page = PdfReader(io.BytesIO(data)).pages[0]
    contents = page.get_contents()
    assert contents is not None
    dx = dy = 0.0
    kept: list[tuple[float, float, str]] = []
    dash, path, found = "", [], []
    for operands, operator in contents.operations:
        numbers = [float(v) for v in operands if isinstance(v, (int, float))]
        match operator:
            case b"q":
                kept.append((dx, dy, dash))
            case b"Q":
                dx, dy, dash = kept.pop()
            case b"cm":
                assert numbers[:4] == [1, 0, 0, 1]
                dx, dy = dx + numbers[4], dy + numbers[5]
            case b"d":
                dash = "dashed" if operands[0] else ""
            case b"m" | b"l":
                path.append(((dx + numbers[0]) / 72 * 25.4, (dy + numbers[1]) / 72 * 25.4))
            case b"S" | b"s" | b"f" | b"n":
                if path:
                    found.append((dash, path))
                path = []
    width, height = page.mediabox.width, page.mediabox.height
    return (float(width) / 72 * 25.4, float(height) / 72 * 25.4), found


def test_the_lines_of_the_page_are_at_true_size_where_they_belong(
    design: Design, library: Library
) -> None:
    """The board of 120 x 60 mm lies 20 mm from the left and 38 mm above the lower edge of an
    upright A4; crosses of 6 mm at its holes 5, 5 and 115, 55; the dashed line between them.
    """
    page, paths = strokes(written(design, library, "drill-guide", "pdf"))
    assert page == pytest.approx((210, 297), abs=0.2)
    (outline,) = [p for _, p in paths if len(p) > 20]
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    assert (min(xs), min(ys), max(xs), max(ys)) == pytest.approx((20, 38, 140, 98), abs=0.01)
    lines = {
        tuple(round(v, 1) for spot in p for v in spot)
        for dash, p in paths
        if len(p) == 2 and not dash
    }
    for x, y in ((25, 43), (135, 93)):
        assert {(x - 3, y, x + 3, y), (x, y - 3, x, y + 3)} <= lines
    (check,) = [p for dash, p in paths if dash]
    assert [v for spot in check for v in spot] == pytest.approx((25, 43, 135, 93), abs=0.01)
    ruler = sorted({x for x1, y1, x2, _ in lines if y1 < 38 for x in (x1, x2)})
    assert (ruler[0], ruler[-1]) == (20, 120), "a ruler of 100 mm from the margin on"


@pytest.mark.parametrize(
    ("wide", "high", "page"),
    [
        (169, 100, (210, 297)),
        (171, 100, (297, 210)),
        (250, 150, (297, 420)),
        (256, 339, (297, 420)),
        (379, 200, (420, 297)),
        (390, 218, (430, 298)),
        (10, 500, (150, 580)),
    ],
)
def test_the_page_is_as_large_as_it_has_to_be(
    wide: float, high: float, page: tuple[float, float]
) -> None:
    """A4 (ISO 216: 210 x 297) upright or lying, A3 (297 x 420), then its own: 20 mm at both sides,
    42 above and 38 below, at least 150 wide for its words.
    """
    sheet = Sheet("plate", "the front", box(0, 0, wide, high), (), (), None, 2.0)
    assert strokes(as_pdf(sheet, "name"))[0] == pytest.approx(page, abs=0.2)


def test_what_is_marked_is_drawn_apart_from_what_is_cut(design: Design, library: Library) -> None:
    """The speaker's pocket of 20.9 mm about 90, 30 on a board of 120 x 60; y counts down in SVG, up
    in DXF.
    """
    file = read_dxf(io.StringIO(written(design, library, "pockets", "dxf").decode()))
    areas = {e.dxf.layer: Polygon([p[:2] for p in e.get_points()]) for e in file.modelspace()}
    assert areas["CUT"].bounds == pytest.approx((0, 0, 120, 60))
    assert areas["MARKS"].bounds == pytest.approx((79.55, 19.55, 100.45, 40.45))
    svg = SVG.parse(io.BytesIO(written(design, library, "pockets", "svg")), ppi=25.4)
    cut, mark = [e for e in svg.elements() if isinstance(e, Path)]
    assert cut.bbox() == pytest.approx((0, 0, 120, 60), abs=0.001)
    assert mark.bbox() == pytest.approx((79.55, 19.55, 100.45, 40.45), abs=0.001)
    assert (str(cut.stroke), str(mark.stroke)) == ("#000000", "#0000ff")
    lying = Sheet("t", "the front", box(10, 5, 30, 15), (box(10, 5, 12, 6),), (), None, 2.0)
    svg = SVG.parse(io.BytesIO(as_svg(lying)), ppi=25.4)
    cut, mark = [e for e in svg.elements() if isinstance(e, Path)]
    assert (cut.bbox(), mark.bbox()) == (
        pytest.approx((0, 0, 20, 10)),
        pytest.approx((0, 9, 2, 10)),
    )


def test_bodies_are_as_thick_as_what_they_stand_for(design: Design, library: Library) -> None:
    """A drill guide of 3 mm; a spacer as high as the room behind the board, its rim 2 mm wide: 2 x
    (120 + 60) x 2 - 16 square mm; walls of 2 mm.
    """
    view = board_view(design, library)
    sheets = {name: sheet_for(BY_NAME[name], view, library, Choices()) for name in BY_NAME}
    room = stack_of(view, library, Choices().stack, 1.6).walls.far_room_mm
    assert {name: s.thick_mm for name, s in sheets.items()} == {
        "front-panel": 2.0,
        "back-panel": 2.0,
        "drill-guide": 3.0,
        "pockets": 3.0,
        "spacer": room,
    }
    assert {n: s.title for n, s in sheets.items()} == {n: n.replace("-", " ") for n in sheets}
    assert {s.seen for s in sheets.values()} == {"the front"}
    outline = Polygon(sheets["pockets"].plate.exterior)
    rim = outline.area - outline.buffer(-2, join_style="mitre").area
    assert sheets["spacer"].plate.area == pytest.approx(rim, abs=0.01)
    assert {s.check_mm for n, s in sheets.items() if n != "drill-guide"} == {120.0, 125.0}


def test_the_line_to_check_is_the_longest_there_is() -> None:
    """Between three holes the longest side of 3, 4, 5; mirrored it is as long, about the middle of
    the plate; without two holes the lower edge.
    """
    holes = ((10.0, 10.0, 3.0), (13.0, 10.0, 3.0), (13.0, 14.0, 3.0))
    plate = box(0, 2, 40, 20)
    line = check_line(holes, plate)
    assert line == ((10, 10), (13, 14))
    sheet = Sheet("t", "the front", plate, (box(1, 2, 3, 4),), holes, line, 2.0)
    other = sheet.mirrored()
    assert sheet.check_mm == other.check_mm == 5
    assert other.check == ((30, 10), (27, 14))
    assert other.holes == ((30, 10, 3), (27, 10, 3), (27, 14, 3))
    assert other.marks[0].bounds == (37, 2, 39, 4)
    assert check_line(holes[:1], plate) == ((0, 2), (40, 2))
    for far in (((0, 100), (30, 100), (15, 106)), ((100, 0), (100, 30), (106, 15))):
        assert check_line(tuple((x, y, 3.0) for x, y in far), plate) == far[:2]
    assert replace(sheet, check=None).check_mm == 0


def test_an_opening_with_straight_sides_is_turned_with_its_part() -> None:
    """10 x 4 mm about 20, 10, turned by a quarter: 4 wide and 10 high."""
    flat = Opening("t", "t", "front wall", False, 20, 10, 0, 90, (9, 3), (10, 4), None)
    assert shape_of(flat).bounds == pytest.approx((18, 5, 22, 15))
    assert shape_of(replace(flat, turn_deg=0)).bounds == pytest.approx((15, 8, 25, 12))
    disc = shape_of(replace(flat, round=True))
    assert disc.bounds == pytest.approx((15, 5, 25, 15))


def test_channels_follow_the_wires() -> None:
    """A bundle from 10, 10 to 30, 10 that goes through the board there: a channel of 2 mm about its
    way, none about a single place.
    """
    run = SimpleNamespace(legs=((False, ((10, 10), (30, 10))), (True, ((30, 10),))), channel_mm=2.0)
    (channel,) = channels(SimpleNamespace(wires=(run,)))  # type: ignore[arg-type]
    assert channel.bounds == pytest.approx((9, 9, 31, 11))
    assert channel.area == pytest.approx(20 * 2 + pi, rel=0.01)


def test_the_words_of_a_page_stand_above_the_drawing(design: Design, library: Library) -> None:
    """Title, size, what to measure: one under the other, on the page, above the 98 mm where the
    drawing ends, from the left margin of 20 mm on.
    """
    page = PdfReader(io.BytesIO(written(design, library, "drill-guide", "pdf"))).pages[0]
    found: list[tuple[str, float, float]] = []
    page.extract_text(
        visitor_text=lambda text, ctm, tm, font, size: found.append(
            (text.strip(), tm[4] / 72 * 25.4, tm[5] / 72 * 25.4)
        )
    )
    heads = [
        next((x, y) for text, x, y in found if mark in text)
        for mark in ("drill guide, seen", "True size", "must measure")
    ]
    heights = [y for _, y in heads]
    assert all(x == pytest.approx(20, abs=0.01) for x, _ in heads)
    assert 297 - 10 > heights[0] > heights[1] + 4 > heights[2] + 8 > 98 + 4
