"""The page to lay a part on: read back with pypdf, true to a hundredth of a millimetre."""

import io
import re

import pytest
from pypdf import PdfReader

from loquet.catalogue.bundled import part, parts
from loquet.core.drawers.part_page import write_part_page
from loquet.core.parts import Part

POINTS_A_MM = 72 / 25.4  # ISO 32000-1, 8.3.2.3: a unit of user space is 1/72 inch
NUMBER = r"(-?[\d.]+)"


def drawn(found: Part) -> tuple[str, str]:
    """Strokes and words of the page."""
    (page,) = PdfReader(io.BytesIO(write_part_page(found))).pages
    contents = page.get_contents()
    assert contents is not None
    return contents.get_data().decode("latin-1"), page.extract_text()


def rectangles(strokes: str) -> list[tuple[float, ...]]:
    """Left, bottom, width and height in mm, in the order in which they are drawn."""
    rows = re.findall(rf"{NUMBER} {NUMBER} {NUMBER} {NUMBER} re", strokes)
    return [tuple(float(n) / POINTS_A_MM for n in row) for row in rows]


def test_a_drawn_pattern_lies_on_it_at_true_size() -> None:
    """The small button of the demo by its drawing: body 6.0 x 6.0, pads of 1.6 x 1.4 at 9.0 x
    4.5.
    """
    strokes, words = drawn(part("button-6x6-surface"))
    body, *pads = rectangles(strokes)[:5]
    assert body[2:] == pytest.approx((6.0, 6.0), abs=0.01)
    assert all(pad[2:] == pytest.approx((1.6, 1.4), abs=0.01) for pad in pads)
    (x1, y1), (x2, _), (_, y3) = (pad[:2] for pad in pads[:3])
    assert (x2 - x1, y1 - y3) == pytest.approx((9.0, 4.5), abs=0.01)
    larger = rectangles(strokes)[5]
    assert larger[2] / body[2] == pytest.approx(8.0, abs=0.01)
    (check,) = re.findall(rf"n {NUMBER} {NUMBER} m {NUMBER} {NUMBER} l S", strokes)[:1]
    assert (float(check[2]) - float(check[0])) / POINTS_A_MM == pytest.approx(50.0, abs=0.01)
    assert "must measure 50 mm" in words
    assert "below 200" in words, "a button is tried with a meter"


@pytest.mark.parametrize("found", list(parts().values())[::23], ids=lambda found: str(found.id))
def test_every_part_has_its_page(found: Part) -> None:
    strokes, words = drawn(found)
    assert found.id in words.replace("\n", "")
    left, bottom, wide, high = zip(*rectangles(strokes), strict=True)
    assert min(*left, *bottom) >= 0
    assert max(x + w for x, w in zip(left, wide, strict=True)) <= 210
    assert max(y + h for y, h in zip(bottom, high, strict=True)) <= 297
    assert write_part_page(found) == write_part_page(found)


def words_at(found: Part) -> list[tuple[str, float, float]]:
    """Words with their place, left and up, in mm."""
    (page,) = PdfReader(io.BytesIO(write_part_page(found))).pages
    rows: list[tuple[str, float, float]] = []

    def seen(text: str, cm: list[float], tm: list[float], *_: object) -> None:
        if text.strip():
            rows.append((text.strip(), tm[4] / POINTS_A_MM, tm[5] / POINTS_A_MM))

    page.extract_text(visitor_text=seen)
    return rows


def place(rows: list[tuple[str, float, float]], begins: str) -> tuple[float, float]:
    return next((x, y) for text, x, y in rows if text.startswith(begins))


def test_everything_stands_below_what_it_speaks_of() -> None:
    """By hand for the small button, whose room is 11.1 x 6.5 mm: head 18 mm below the top of A4,
    the drawing 17 mm below it, the check 5 mm below the drawing, the larger one 15 mm below that.
    """
    found = part("button-6x6-surface")
    (strokes, _), rows = drawn(found), words_at(found)
    x, head = place(rows, "Clicky push button")
    assert (x, head) == pytest.approx((16.0, 279.0), abs=0.01)
    assert place(rows, found.id)[1] == pytest.approx(head - 5.5, abs=0.01)
    assert place(rows, "True size")[1] == pytest.approx(head - 14, abs=0.01)
    body, *pads = rectangles(strokes)[:5]
    top_of_room = max(y + h for _, y, _, h in [body, *pads]) + 0.25
    assert top_of_room == pytest.approx(head - 17, abs=0.3)
    check = re.search(rf"n {NUMBER} {NUMBER} m {NUMBER} {NUMBER} l S", strokes)
    assert check is not None
    line = float(check[2]) / POINTS_A_MM
    low = min(y for _, y, _, _ in [body, *pads]) - 0.25
    assert low - line == pytest.approx(5.0, abs=0.3)
    assert place(rows, "must measure")[1] == pytest.approx(line - 1, abs=0.01)
    caption = place(rows, "8.0 times as large")[1]
    assert caption == pytest.approx(line - 12, abs=0.01)
    larger, *large = rectangles(strokes)[5:10]
    assert max(y + h for _, y, _, h in [larger, *large]) < caption - 2
    for number, (left, bottom, wide, high) in zip("1234", large, strict=True):
        x, y = next((x, y) for text, x, y in rows if text == number)
        assert left < x < left + wide
        assert bottom + high / 2 <= y < bottom + high, "in its pad, over the name"
    probes = [y for text, _, y in rows if text.startswith("expect")]
    assert len(probes) == 3, "both joined pairs, and the contact"
    measured = place(rows, "Measure before")[1]
    assert measured == pytest.approx(24 + 3 * 10.5, abs=0.01)
    assert all(16 < y < measured for y in probes)
    assert place(rows, "Laid on")[1] == pytest.approx(12.0, abs=0.01)


def test_holes_and_pegs_are_circles_at_their_places() -> None:
    """The key switch by its drawing: a stem hole of 3.4 in the middle, pegs of 1.9 at 5.5 mm, and
    the drills of its two pins, 1.2 at (0, 5.9) and (5.0, 3.8); a circle of PDF begins at its right.
    """
    strokes, _ = drawn(part("button-low-key-linear"))
    body = rectangles(strokes)[0]
    middle = (body[0] + body[2] / 2, body[1] + body[3] / 2)
    begins = [
        (float(x) / POINTS_A_MM - middle[0], float(y) / POINTS_A_MM - middle[1])
        for x, y in re.findall(rf"^{NUMBER} {NUMBER} m$", strokes, re.MULTILINE)
    ]
    for x, y, d in ((0, 0, 3.4), (-5.5, 0, 1.9), (5.5, 0, 1.9), (0, 5.9, 1.2), (5, 3.8, 1.2)):
        assert any(begin == pytest.approx((x + d / 2, y), abs=0.02) for begin in begins), (x, y, d)
