"""Outlines read from drawings: good ones with their sizes known from the drawing's own numbers,
hostile ones each refused with a reason and soon.
"""

import contextlib
import time
from math import pi
from time import process_time

import pytest

from loquet.core.brief import PolygonOutline, outline_polygon_mm
from loquet.core.brief.outline_shapes import RoundedRectangle
from loquet.core.outlining import FoundHole, FoundOpening, OutlineRefused, find_outline
from loquet.core.outlining.finding import against_calipers


def dxf(*entities: str, unit: int | None = 4) -> bytes:
    """A DXF file of group codes and values, written by hand (DXF reference, R12 with $INSUNITS)."""
    header = f"0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1015\n9\n$INSUNITS\n70\n{unit}\n0\nENDSEC\n"
    body = "".join(entities)
    before = header if unit is not None else ""
    return f"{before}0\nSECTION\n2\nENTITIES\n{body}0\nENDSEC\n0\nEOF\n".encode()


def line(ax: float, ay: float, bx: float, by: float) -> str:
    """A LINE."""
    return f"0\nLINE\n8\n0\n10\n{ax}\n20\n{ay}\n11\n{bx}\n21\n{by}\n"


def arc(x: float, y: float, r: float, begin: float, end: float) -> str:
    """An ARC, degrees anticlockwise."""
    return f"0\nARC\n8\n0\n10\n{x}\n20\n{y}\n40\n{r}\n50\n{begin}\n51\n{end}\n"


def circle(x: float, y: float, r: float) -> str:
    """A CIRCLE."""
    return f"0\nCIRCLE\n8\n0\n10\n{x}\n20\n{y}\n40\n{r}\n"


def box(x: float, y: float, w: float, h: float) -> str:
    """Four lines."""
    return (
        line(x, y, x + w, y)
        + line(x + w, y, x + w, y + h)
        + line(x + w, y + h, x, y + h)
        + line(x, y + h, x, y)
    )


def svg(body: str, size: str = 'width="60mm" height="40mm" viewBox="0 0 60 40"') -> bytes:
    """An SVG file."""
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size}>{body}</svg>'.encode()


BOX = '<rect x="0" y="0" width="60" height="40"/>'


def test_a_box_of_lines_in_any_order_and_direction() -> None:
    """The lower left corner becomes the origin; the sides need not follow one another."""
    sides = [line(15, 5, 75, 5), line(15, 45, 15, 5), line(75, 45, 75, 5), line(75, 45, 15, 45)]
    found = find_outline(dxf(*sides))
    assert found.outline == RoundedRectangle(width_mm=60, height_mm=40, corner_mm=0)
    assert not found.notes


def test_lines_and_arcs_are_a_rounded_rectangle() -> None:
    """Corners of 5 mm by four arcs; a hole of 2.2 mm; a slot of 8 by 2 mm lying down."""
    corners = arc(55, 5, 5, 270, 0) + arc(55, 35, 5, 0, 90) + arc(5, 35, 5, 90, 180)
    corners += arc(5, 5, 5, 180, 270)
    sides = line(5, 0, 55, 0) + line(60, 5, 60, 35) + line(5, 40, 55, 40) + line(0, 5, 0, 35)
    slot = line(27, 19, 33, 19) + line(27, 21, 33, 21)
    slot += arc(27, 20, 1, 90, 270) + arc(33, 20, 1, 270, 90)
    found = find_outline(dxf(corners, sides, circle(10, 30, 1.1), slot))
    assert found.outline == RoundedRectangle(width_mm=60, height_mm=40, corner_mm=5)
    assert found.holes == (FoundHole(x_mm=10, y_mm=30, d_mm=2.2),)
    (opening,) = found.openings
    assert opening == FoundOpening(
        x_mm=30, y_mm=20, width_mm=8, height_mm=2, corner_mm=1, turn_deg=0
    )


def test_a_polyline_keeps_its_arcs() -> None:
    """A D: 40 mm high, straight on the left, half a circle of 20 mm on the right (bulge 1); its
    area is 30 x 40 + pi 20^2 / 2.
    """
    points = [(0, 0, 0), (30, 0, 1), (30, 40, 0), (0, 40, 0)]
    rows = "".join(f"10\n{x}\n20\n{y}\n42\n{b}\n" for x, y, b in points)
    found = find_outline(
        dxf(f"0\nLWPOLYLINE\n100\nAcDbEntity\n8\n0\n100\nAcDbPolyline\n90\n4\n70\n1\n{rows}")
    )
    assert isinstance(found.outline, PolygonOutline)
    assert found.outline.points_mm == ((30, 0), (30, 40), (0, 40), (0, 0))
    assert found.outline.bulges == (1, 0, 0, 0)
    assert outline_polygon_mm(found.outline).area == pytest.approx(1200 + pi * 200, rel=2e-3)
    again = dxf(arc(30, 20, 20, 270, 90), line(30, 40, 0, 40), line(0, 40, 0, 0), line(0, 0, 30, 0))
    assert outline_polygon_mm(find_outline(again).outline).equals_exact(
        outline_polygon_mm(found.outline), 1e-3
    )


def test_inches_by_the_file_and_by_hand() -> None:
    """$INSUNITS 1 is inches; where it is 0 or missing, the unit is asked with both sizes."""
    assert find_outline(dxf(box(0, 0, 2, 1), unit=1)).outline == RoundedRectangle(
        width_mm=50.8, height_mm=25.4, corner_mm=0
    )
    for unit in (0, None):
        with pytest.raises(
            OutlineRefused, match=r"2\.00 by 1\.00, which is 50\.8 by 25\.4 mm"
        ) as said:
            find_outline(dxf(box(0, 0, 2, 1), unit=unit))
        assert said.value.asks_unit
    assert find_outline(dxf(box(0, 0, 2, 1), unit=0), unit="inch").outline.width_mm == 50.8


def test_small_gaps_are_healed_and_told_wide_ones_refused_with_their_place() -> None:
    """0.04 mm apart is healed at 0.05; 0.3 mm only when asked for."""
    sides = [line(0, 0, 60, 0), line(60, 0.04, 60, 40), line(60, 40, 0, 40), line(0, 40, 0, 0)]
    found = find_outline(dxf(*sides))
    assert found.notes == ("A gap of 0.040 mm at 60.00, 0.00 mm was closed.",)
    wide = [line(0, 0, 60, 0), line(60, 0.3, 60, 40), *sides[2:]]
    with pytest.raises(OutlineRefused, match=r"60\.00, 0\.\d\d mm.*0\.30 mm apart") as said:
        find_outline(dxf(*wide))
    assert "allow a wider gap" in said.value.way_out
    assert "0.300 mm" in find_outline(dxf(*wide), heal_mm=0.5).notes[0]


def test_blocks_are_put_in_place() -> None:
    """A block of a hole, inserted twice."""
    begun = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nPOST\n70\n0\n10\n0\n20\n0\n"
    block = f"{begun}{circle(0, 0, 1.6)}0\nENDBLK\n0\nENDSEC\n"
    inserted = "".join(f"0\nINSERT\n8\n0\n2\nPOST\n10\n{x}\n20\n5\n" for x in (5, 55))
    data = dxf(box(0, 0, 60, 40), inserted).replace(
        b"0\nSECTION\n2\nENTITIES", block.encode() + b"0\nSECTION\n2\nENTITIES"
    )
    assert find_outline(data).holes == (
        FoundHole(x_mm=5, y_mm=5, d_mm=3.2),
        FoundHole(x_mm=55, y_mm=5, d_mm=3.2),
    )


def test_svg_counts_down_and_its_transforms_hold() -> None:
    """The hole 10 mm below the top is 30 mm above the bottom; half-size groups; a view box twice as
    fine as the millimetre.
    """
    found = find_outline(svg(BOX + '<circle cx="5" cy="10" r="1.6"/>'))
    assert found.holes == (FoundHole(x_mm=5, y_mm=30, d_mm=3.2),)
    moved = '<g transform="translate(10 0) scale(2)"><circle cx="5" cy="10" r="0.8"/></g>'
    assert find_outline(svg(BOX + moved)).holes == (FoundHole(x_mm=20, y_mm=20, d_mm=3.2),)
    fine = find_outline(
        svg('<rect width="120" height="80"/>', 'width="60mm" height="40mm" viewBox="0 0 120 80"')
    )
    assert fine.outline == RoundedRectangle(width_mm=60, height_mm=40, corner_mm=0)
    round_one = find_outline(svg('<rect width="60" height="40" rx="4"/>'))
    assert round_one.outline == RoundedRectangle(width_mm=60, height_mm=40, corner_mm=4)


def test_svg_paths_with_arcs_and_curves() -> None:
    """A notch as an arc inwards; a side as a Bezier curve whose area is known: 2/3 of height times
    width of its parabola.
    """
    path = '<path d="M0 0H60V40H40A10 10 0 0 0 20 40H0Z"/>'
    found = find_outline(svg(path))
    assert outline_polygon_mm(found.outline).area == pytest.approx(2400 - pi * 50, rel=1e-3)
    curved = find_outline(svg('<path d="M0 0H60V30Q30 50 0 30Z"/>'))
    assert outline_polygon_mm(curved.outline).area == pytest.approx(
        60 * 30 + 60 * 10 * 2 / 3, rel=2e-3
    )


def test_svg_uses_what_it_defines_once() -> None:
    """SVG 2, 5.6: x and y move what is used before its own transform does; a symbol's view box is
    fitted in the middle (10 x 10 in 20 x 44: twice as large, 12 mm further down); what lies in
    another file is passed over.
    """
    defined = (
        '<defs><g id="h"><circle r="1.6"/></g></defs><symbol id="s" viewBox="0 0 10 10"><circle'
        ' cx="5" cy="6" r="1"/></symbol>'
    )
    uses = (
        '<use href="#h" x="5" y="10"/><use href="#h" x="1" y="-2" transform="translate(40 20)'
        ' scale(2)"/>'
    )
    fitted = '<use href="#s" x="10" y="-2" width="20" height="44"/><use href="other.svg#h"/>'
    found = find_outline(svg(BOX + defined + uses + fitted))
    assert {(h.x_mm, h.y_mm, h.d_mm) for h in found.holes} == {
        (5, 30, 3.2),
        (42, 24, 6.4),
        (20, 18, 4),
    }
    assert any("1 use" in note for note in found.notes)
    linked = svg(BOX + defined + uses).replace(
        b"<svg ", b'<svg xmlns:k="http://www.w3.org/1999/xlink" '
    )
    assert len(find_outline(linked.replace(b" href", b" k:href")).holes) == 2


def test_svg_in_pixels_asks_for_its_unit() -> None:
    """A pixel says nothing about a board."""
    with pytest.raises(OutlineRefused) as said:
        find_outline(svg(BOX, 'viewBox="0 0 60 40"'))
    assert said.value.asks_unit
    assert find_outline(svg(BOX, 'viewBox="0 0 60 40"'), unit="mm").outline.width_mm == 60


def test_openings_take_the_shape_they_have() -> None:
    """A turned rectangle; a D, and a rectangle turned by half a degree too much, keep the lines
    they have; a cut-out with sharp corners is told what the cutter leaves.
    """
    turned = (
        '<rect x="-5" y="-3" width="10" height="6" rx="1" transform="translate(30 20)'
        ' rotate(-30)"/>'
    )
    (opening,) = find_outline(svg(BOX + turned)).openings
    assert (opening.width_mm, opening.height_mm, opening.turn_deg) == (10, 6, 30)
    assert opening.corner_mm == pytest.approx(1, abs=0.01)
    odd = find_outline(svg(BOX + '<path d="M20 10H30A5 5 0 0 1 30 20H20Z"/>'))
    assert not odd.openings
    (shaped,) = odd.free
    assert (shaped.x_mm, shaped.y_mm) == (27.5, 25)
    assert set(shaped.line.points_mm) == {(0, 0), (10, 0), (10, 10), (0, 10)}
    assert sorted(shaped.line.bulges) == [0, 0, 0, 1]
    slanted = (
        '<rect x="-5" y="-3" width="10" height="6" transform="translate(30 20) rotate(-30.5)"/>'
    )
    (turned_half,) = find_outline(svg(BOX + slanted)).free
    assert len(turned_half.line.points_mm) == 4
    sharp = find_outline(svg(BOX + '<rect x="20" y="10" width="8" height="5"/>'))
    assert sharp.openings[0].corner_mm == 0
    assert "0.5 mm" in sharp.notes[0]


def test_drawn_from_behind() -> None:
    """Mirrored left to right: the hole changes sides."""
    data = svg(BOX + '<circle cx="5" cy="10" r="1.6"/>')
    assert find_outline(data, flipped=True).holes == (FoundHole(x_mm=55, y_mm=30, d_mm=3.2),)


def test_calipers_against_the_drawing() -> None:
    """Within a tenth they agree; beyond it the factor is named."""
    found = find_outline(dxf(box(0, 0, 60, 40)))
    wide, high = against_calipers(found, 60.08, 41.0)
    assert "agree" in wide
    assert "1.00 mm too little" in high
    assert "1.0250" in high


PILE = "".join('<g transform="scale(1.01)">' for _ in range(3000)) + BOX + "</g>" * 3000
BOMB = (
    b'<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b'
    b' "&a;&a;&a;&a;&a;&a;&a;&a;">]><svg>&b;</svg>'
)
NESTED = (
    "0\nSECTION\n2\nBLOCKS\n"
    + "".join(
        f"0\nBLOCK\n8\n0\n2\nB{i}\n70\n0\n10\n0\n20\n0\n"
        + f"0\nINSERT\n8\n0\n2\nB{i + 1}\n10\n1\n20\n0\n" * 4
        + "0\nENDBLK\n"
        for i in range(12)
    )
    + "0\nBLOCK\n8\n0\n2\nB12\n70\n0\n10\n0\n20\n0\n"
    + circle(0, 0, 1)
    + "0\nENDBLK\n0\nENDSEC\n"
)
USED = "".join(f'<g id="a{i}">{f"""<use href="#a{i - 1}"/>""" * 9}</g>' for i in range(1, 9))
HOSTILE = {
    "nothing": (b"", "not a whole DXF"),
    "zeros": (b"\0" * 5000, "not text"),
    "words": (b"Dear board house, please make this.", "not a whole DXF"),
    "too large": (b"0\nLINE\n" * 300_000, "MB large"),
    "binary DXF": (b"AutoCAD Binary DXF\r\n\x1a\0" + b"\0" * 400, "binary DXF"),
    "cut off": (dxf(box(0, 0, 60, 40))[:150], "DXF"),
    "no entity": (dxf(), "no line"),
    "other XML": (b"<html><body/></html>", "not SVG"),
    "broken XML": (b"<svg><g></svg>", "not a whole SVG"),
    "entities": (BOMB, "entities"),
    "deep": (svg(PILE), "nested deeper"),
    "uses itself": (svg(f'{BOX}<g id="a"><use href="#a"/></g>'), "nested deeper"),
    "uses that multiply": (
        svg(f'<defs><g id="a0">{BOX}</g>{USED}</defs><use href="#a8"/>'),
        "more than 10000 lines",
    ),
    "use of no size": (
        svg(f'{BOX}<symbol id="s" viewBox="0 0 9 9">{BOX}</symbol><use href="#s"/>'),
        "A use of the drawing makes no sense",
    ),
    "symbol of no size": (
        svg(f'{BOX}<symbol id="s" viewBox="0 0 0 9"/><use href="#s"/>'),
        "makes no sense",
    ),
    "not a number": (dxf(line(0, 0, 60, 0).replace("60", "nan"), box(0, 0, 60, 40)), "no number"),
    "no number in SVG": (svg('<rect x="0" y="0" width="wide" height="40"/>'), "makes no sense"),
    "far away": (dxf(box(1e9, 0, 60, 40)), "thousand metres"),
    "tiny": (dxf(box(0, 0, 4, 40)), "4.00 by 40.00 mm"),
    "huge": (dxf(box(0, 0, 400, 40)), "400.00 by 40.00 mm"),
    "open": (dxf(line(0, 0, 60, 0), line(60, 0, 60, 40), line(60, 40, 0, 40)), "is open"),
    "crossing": (
        dxf(line(0, 0, 60, 40), line(60, 40, 60, 0), line(60, 0, 0, 40), line(0, 40, 0, 0)),
        "crosses itself at 30.00, 20.00 mm",
    ),
    "three lines": (dxf(box(0, 0, 60, 40), line(0, 0, 30, 20)), "3 lines meet at 0.00, 0.00"),
    "hole over the edge": (
        dxf(box(0, 0, 60, 40), circle(60, 20, 2)),
        "crosses or touches the outline",
    ),
    "too many holes": (
        dxf(
            box(0, 0, 100, 100),
            *(circle(5 + 8 * (i % 11), 5 + 8 * (i // 11), 1) for i in range(120)),
        ),
        "120 holes",
    ),
    "too many lines": (
        dxf(*(line(i, 0, i + 0.5, 0) for i in range(10_001))),
        "more than 10000 lines",
    ),
    "blocks without end": (
        dxf("0\nINSERT\n8\n0\n2\nB0\n10\n0\n20\n0\n").replace(
            b"0\nSECTION\n2\nENTITIES", NESTED.encode() + b"0\nSECTION\n2\nENTITIES"
        ),
        "without end",
    ),
    "endless path": (svg(f'<path d="M0 0{"L1 1L2 0" * 60_000}"/>'), "longer than any outline"),
    "a million turns": (svg(f'<path d="M0 0{"L9 9L3 8" * 45_000}"/>'), "more than 10000 lines"),
    "strips": (dxf(*(line(i, 0, i + 0.5, 100) for i in range(300))), "hang loose"),
    "star": (dxf(*(line(0, 0, i * 0.01, 50) for i in range(3000))), "3000 lines meet"),
    "rubbish path": (svg('<path d="M0 0 Q q 4 ! 7 A Z"/>'), ""),
    "half of a character": (b"\xff\xfe<svg>", ""),
    "rough curve": (
        svg(
            '<path d="M0 0 '
            + " ".join(f"L{i * 0.1:.1f} {20 + (i % 2)}" for i in range(600))
            + ' L60 0Z"/>'
        ),
        "corners; 400 are the most",
    ),
}


@pytest.mark.parametrize("name", sorted(HOSTILE))
def test_hostile_drawings_are_refused_with_a_reason_and_soon(name: str) -> None:
    """No crash, nothing over 5 s."""
    data, reason = HOSTILE[name]
    began = time.process_time()
    with pytest.raises(OutlineRefused) as said:
        find_outline(data)
    assert time.process_time() - began < 5
    assert reason in said.value.why
    assert said.value.way_out


@pytest.mark.parametrize(
    "whole",
    [dxf(box(0, 0, 60, 40), circle(9, 9, 2)), svg(BOX + '<path d="M9 9A2 2 0 0 1 9 13Z"/>')],
)
def test_whatever_is_torn_out_of_a_drawing_it_is_read_or_refused(whole: bytes) -> None:
    """Cut short anywhere, and with any byte changed."""
    for at in range(0, len(whole), 7):
        for data in (
            whole[:at],
            whole[:at] + b"9" + whole[at + 1 :],
            whole[:at] + b"\n" + whole[at:],
        ):
            try:
                assert find_outline(data).outline
            except OutlineRefused as said:
                assert said.way_out


@pytest.mark.parametrize(
    "value", [" " * 40_000 + "x", "1" + " " * 40_000 + "mm x", "rotate(1) " * 9_000]
)
def test_no_drawing_of_40_kb_takes_long(value: str) -> None:
    """Reading stays linear: well under a second of processor time, refused or not."""
    began = process_time()
    sized = f'width="{value}" height="40mm" viewBox="0 0 60 40"'
    for data in (svg(BOX, sized), svg(f'<g transform="{value}">{BOX}</g>')):
        with contextlib.suppress(OutlineRefused):
            find_outline(data)
    assert process_time() - began < 1.0
