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
