"""K11: an order of pins that was measured takes the place of the catalogue's in every circuit of
the project, after it was asked for.
"""

import pytest

from loquet.core.checks.rule import Subject
from loquet.core.checks.rules import measured_order
from loquet.core.design import Choices, Design, slice_of
from loquet.core.drawers.confirming import cards_of
from loquet.core.edits import EDITS, apply
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.pipeline import bring_up_to_date
from loquet.core.provenance import Failed, NotApplicable, Passed
from tests.making import device, thing

STICK = "stick-resistive-13"
CHIP, LEADS = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads")
SCREEN = thing("screen", "screen", part="screen-128x32-two-wire")
CATALOGUE = {
    "1": "supply",
    "2": "y",
    "3": "ground",
    "4": "supply",
    "5": "x",
    "6": "ground",
    "7": "press",
    "8": "common",
}
# supply and ground of one half the other way round, and the axes swapped
MEASURED = {
    "1": "ground",
    "2": "x",
    "3": "supply",
    "4": "supply",
    "5": "y",
    "6": "ground",
    "7": "press",
    "8": "common",
}


@pytest.fixture(scope="module")
def made(library: Library) -> Design:
    brief = device(CHIP, LEADS, thing("stick", "stick", 30, 30), SCREEN)
    return bring_up_to_date(Design(brief=brief), library, "circuit")


def ordered(design: Design, part: str, order: dict[str, str] | None) -> Design:
    return apply(
        design, EDITS.validate_python({"kind": "set-pin-order", "part": part, "order": order})
    )


def pads(design: Design, part: str) -> dict[str, str]:
    return next(c.pads for c in slice_of(design.circuit).components if c.part == part)


def test_a_measured_stick_is_wired_as_it_was_measured(made: Design, library: Library) -> None:
    assert (pads(made, STICK)["1"], pads(made, STICK)["2"], pads(made, STICK)["3"]) == (
        "SUPPLY",
        "STICK_Y",
        "GROUND",
    )
    design = ordered(made, STICK, MEASURED)
    assert "circuit" in stale_slices(design)
    after = pads(bring_up_to_date(design, library, "circuit"), STICK)
    assert [after[n] for n in "123456"] == [
        "GROUND",
        "STICK_X",
        "SUPPLY",
        "SUPPLY",
        "STICK_Y",
        "GROUND",
    ]
    back = ordered(design, STICK, None)
    assert back.choices.pin_orders == {}
    assert pads(bring_up_to_date(back, library, "circuit"), STICK) == pads(made, STICK)
    assert library.parts[STICK].pin_names == CATALOGUE  # other projects keep the catalogue's


def test_a_measured_screen_is_wired_as_it_was_measured(made: Design, library: Library) -> None:
    """Supply and ground of a look-alike reversed."""
    header = "header-4-way"
    assert [pads(made, header)[n] for n in "1234"] == [
        "GROUND",
        "SUPPLY",
        "SCREEN_CLOCK",
        "SCREEN_DATA",
    ]
    order = {"1": "supply", "2": "ground", "3": "clock", "4": "data"}
    after = bring_up_to_date(ordered(made, "screen-128x32-two-wire", order), library, "circuit")
    assert [pads(after, header)[n] for n in "1234"] == [
        "SUPPLY",
        "GROUND",
        "SCREEN_CLOCK",
        "SCREEN_DATA",
    ]


def test_the_card_shows_both_orders(made: Design, library: Library) -> None:
    design = ordered(made, STICK, MEASURED)
    card = next(c for c in cards_of(design, library) if c.part == STICK)
    assert dict(card.pins) == MEASURED
    assert dict(card.usual) == CATALOGUE
    usual = next(c for c in cards_of(made, library) if c.part == STICK)
    assert usual.pins == usual.usual


@pytest.mark.parametrize(
    ("part", "order", "why"),
    [
        (STICK, MEASURED | {"1": "supply"}, "it does not name the pins that the part has"),
        (STICK, {"1": "supply"}, "it does not name every pad"),
        ("no-such-part", {"1": "supply"}, "the catalogue has no such part"),
    ],
)
def test_an_order_that_is_none_is_a_stop_and_is_not_used(
    made: Design, library: Library, part: str, order: dict[str, str], why: str
) -> None:
    design = ordered(made, part, order)
    seen = Subject(design.brief, design.choices, library.house("millrace"), library)
    outcome = measured_order.run(seen)
    assert isinstance(outcome, Failed)
    assert outcome.findings[0].sentence == f"The pin order measured at {part} is not used: {why}."
    assert project_library(design, library).parts[STICK].pin_names == CATALOGUE


def test_nothing_measured_is_the_library_itself(made: Design, library: Library) -> None:
    assert project_library(made, library) is library
    seen = Subject(made.brief, Choices(), library.house("millrace"), library)
    assert isinstance(measured_order.run(seen), NotApplicable)
    right = ordered(made, STICK, MEASURED)
    seen = Subject(right.brief, right.choices, library.house("millrace"), library)
    assert isinstance(measured_order.run(seen), Passed)
    assert project_library(right, library) is project_library(right, library)
