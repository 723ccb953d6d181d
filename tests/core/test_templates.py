"""Templates read back by others: DXF by ezdxf, SVG by svgelements, PDF by pypdf; STL as a closed body of the volume worked out by hand."""

import io
import struct
from collections import Counter
from math import pi

import pytest
from ezdxf.filemanagement import read as read_dxf
from pypdf import PdfReader
from shapely.geometry import Polygon, box
from svgelements import SVG, Path

from loquet.core.design import Choices, Design
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.templates import TEMPLATES, sheet_for, write_template
from loquet.core.templates.writing import as_stl
from tests.making import device, thing

BY_NAME = {t.name: t for t in TEMPLATES}


@pytest.fixture(scope="module")
def design(library: Library) -> Design:
    """A board of 120 x 60 mm with a button at 40, 30, a speaker behind at 90, 30 and holes for M3 in two corners."""
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("button", "go", 40, 30),
        thing("speaker", "speaker", 90, 30, far=True),
        thing("hole", "a", 5, 5, screw="M3"),
        thing("hole", "b", 115, 55, screw="M3"),
    )
    return bring_up_to_date(Design(brief=brief), library, "placement")


def written(design: Design, library: Library, name: str, kind: str, mirrored: bool = False) -> bytes:  # fmt: skip
    view = board_view(design, library)
    return write_template(BY_NAME[name], kind, view, library, Choices(), mirrored)


def test_the_front_panel_has_its_opening_at_its_place(design: Design, library: Library) -> None:
    """The shell is 0.5 mm and 2 mm larger than the board all round: 125 x 65; the opening of the button is 6.9 mm (filament) about 40, 30."""
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
    """K47, K48: between the two holes 110 and 50 mm apart there are 120.83 mm; the ruler has its numbers; the page prints unscaled."""
    reader = PdfReader(io.BytesIO(written(design, library, "drill-guide", "pdf")))
    text = reader.pages[0].extract_text()
    assert "must measure 120.83 mm" in text
    assert "drill guide, seen from the front" in text
    assert all(str(n) in text for n in range(0, 101, 10))
    preferences = reader.trailer["/Root"]["/ViewerPreferences"]
    assert preferences["/PrintScaling"] == "/None"


def test_a_mirrored_template_says_so_and_is(design: Design, library: Library) -> None:
    """K41: about the middle of the plate, 60: the button comes to 80."""
    text = PdfReader(io.BytesIO(written(design, library, "front-panel", "pdf", True))).pages[0].extract_text()  # fmt: skip
    assert "seen from behind" in text
    sheet = sheet_for(BY_NAME["front-panel"], board_view(design, library), library, Choices()).mirrored()  # fmt: skip
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
    assert len(sheet_for(BY_NAME["back-panel"], view, library, through).plate.interiors) == 2


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
        whole += a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0])  # fmt: skip
    return whole / 6


def test_a_body_is_closed_and_has_its_volume(design: Design, library: Library) -> None:
    """A plate of 30 x 20 x 3 mm with an opening of 10 x 10: 1500 mm3. Every edge of a closed body belongs to two facets, once each way."""
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
