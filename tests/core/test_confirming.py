"""K11: pins that nobody has made sure of are something to look at; the measuring card tells how,
and what was found is kept.
"""

import io
from dataclasses import replace
from typing import Any

import pytest
from pypdf import PdfReader

from loquet.core.design import Confirmed, Design
from loquet.core.drawers.confirming import cards_of
from loquet.core.drawers.measuring_pages import write_measuring_cards
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.library import Library
from loquet.core.parts.measuring import probes_of
from loquet.core.provenance import Finding
from loquet.core.reviewing import review
from loquet.demo.scenario import demo_brief
from tests.making import device, thing

STICK = "stick-resistive-13"


@pytest.fixture
def handset() -> Design:
    return Design(brief=demo_brief("star-handset"))


def found(design: Design, library: Library) -> list[Finding]:
    return [f for f in review(design, library) if f.rule == "part-evidence"]


def confirmed(design: Design, **fields: Any) -> Design:
    return apply(design, EDITS.validate_python({"kind": "confirm-part", "part": STICK, **fields}))


def test_a_stick_and_a_screen_are_looked_at_until_they_are_made_sure_of(
    handset: Design, library: Library
) -> None:
    by_part = {f.sentence.split()[8]: f for f in found(handset, library)}
    stick, screen = by_part[STICK], by_part["screen-128x64-serial"]
    assert (stick.severity, stick.station) == ("look", "parts")
    assert "stick-resistive-13 (left stick, right stick)" in stick.sentence
    assert "screen-128x64-serial (screen)" in screen.sentence
    sure = confirmed(handset, how="measured", words=" Wren, 2026-11-20 ")
    assert sure.choices.confirmed == {STICK: Confirmed(how="measured", words="Wren, 2026-11-20")}
    assert [f.sentence for f in found(sure, library)] == [screen.sentence]
    assert cards_of(sure, library)[0].confirmed is not None
    assert len(found(confirmed(sure, how="measured", words=" "), library)) == 2


def test_a_device_of_buttons_has_no_card(library: Library) -> None:
    design = Design(brief=demo_brief("dome-pod"))
    assert cards_of(design, library) == ()
    assert found(design, library) == []
    (page,) = PdfReader(io.BytesIO(write_measuring_cards(()))).pages
    assert "No part of this device has to be measured." in page.extract_text()


def test_a_part_of_which_nobody_knows_the_pins_has_a_card(library: Library) -> None:
    button = library.parts["button-6x6-surface"].model_copy(update={"evidence": "none"})
    other = replace(library, parts={**library.parts, button.id: button})
    chip, leads = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads")
    design = Design(brief=device(chip, leads, thing("button", "go", 30, 30)))
    (card,) = cards_of(design, other)
    assert (card.part, card.why) == ("button-6x6-surface", "nobody knows its pins")
    # legs 1 and 2, and 3 and 4, are joined inside; 1 and 4 are the contact (drawing of the part)
    assert [(p.first, p.second, p.expect) for p in card.probes] == [
        ("pin 1", "pin 2", "below 1 Ω, pressed or not"),
        ("pin 3", "pin 4", "below 1 Ω, pressed or not"),
        ("pin 1", "pin 4", "below 200 Ω while pressed, else open"),
    ]


def test_what_a_meter_tells_of_a_stick(library: Library) -> None:
    """Pins 1 to 3 are one track with y in the middle, 4 to 6 the other with x; 7 and 8 the press
    (drawing of the part).
    """
    rows = {(p.first, p.second): p.expect for p in probes_of(library.parts[STICK])}
    assert rows["pin 7 (press)", "pin 8 (common)"].startswith("below 200 Ω while pressed")
    for low, high in (("1", "3"), ("4", "6")):
        assert rows[f"pin {low} (supply)", f"pin {high} (ground)"].startswith(
            "5 to 20 kΩ, and steady"
        )
    for wiper, name, end in (("2", "y", "1"), ("5", "x", "4")):
        assert "half" in rows[f"pin {wiper} ({name})", f"pin {end} (supply)"]
    assert len(rows) == 5
    magnetic = probes_of(library.parts["trigger-magnetic"])
    assert [(p.first, p.second) for p in magnetic] == [("pin 1 (supply)", "pin 3 (ground)")]
    assert "never a short" in magnetic[0].expect


def test_the_cards_are_pages_of_a5(handset: Design, library: Library) -> None:
    """ISO 216: A5 is 148 x 210 mm."""
    cards = cards_of(handset, library)
    data = write_measuring_cards(cards)
    assert write_measuring_cards(cards) == data
    pages = PdfReader(io.BytesIO(data)).pages
    assert len(pages) == 2
    for page in pages:
        assert float(page.mediabox.width) / 72 * 25.4 == pytest.approx(148, abs=0.5)
        assert float(page.mediabox.height) / 72 * 25.4 == pytest.approx(210, abs=0.5)
    text = pages[0].extract_text()
    assert "pin 1 (supply) and pin 3 (ground)" in text
    assert "expect 5 to 20 kilohm" in text
    assert "left stick, right stick" in text
    assert "pin 2 (supply) and pin 1 (ground)" in pages[1].extract_text()


def test_far_too_many_are_refused(handset: Design) -> None:
    rows = {f"part {i}": Confirmed(how="drawing", words="page 1") for i in range(100)}
    choices = handset.choices.model_copy(update={"confirmed": rows})
    full = handset.model_copy(update={"choices": choices})
    with pytest.raises(EditRefused, match="More than 100"):
        confirmed(full, how="drawing", words="D-1, page 2")
