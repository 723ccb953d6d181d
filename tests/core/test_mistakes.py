"""K01 to K10 of docs/mistakes.md: for each a design that has the mistake, and the finding or way
out that it gets.
"""

from typing import Any

import pytest

from loquet.core.brief import BriefError
from loquet.core.design import Choices, Design
from loquet.core.edits import EDITS, apply
from loquet.core.handover.header import write_header
from loquet.core.handover.key_table import key_table
from loquet.core.handover.report import fields_of
from loquet.core.library import Library
from loquet.core.pins import PinPlan
from loquet.core.pins.needing import needs_of
from loquet.core.pipeline import run_stage
from loquet.core.planning.pinning import report_pins, verdict_of, ways_for
from loquet.core.provenance import Finding
from loquet.core.reviewing import review
from loquet.demo.scenario import demo_brief, dusk_remote
from tests.making import made, thing, varied


@pytest.fixture(scope="module")
def handset() -> Design:
    return Design(brief=demo_brief("ridge-handset"))


def with_brief(design: Design, **changes: Any) -> Design:
    return design.model_copy(update={"brief": varied(design.brief, **changes)})


def on_chip(design: Design, name: str) -> Design:
    return with_brief(design, things={"chip": {"part": name}})


def found(design: Design, library: Library, rule: str) -> list[Finding]:
    return [f for f in review(design, library) if f.rule == rule]


def repaired(design: Design, finding: Finding, index: int = 0) -> Design:
    return apply(design, EDITS.validate_python(finding.repairs[index].edit))


def test_k01_pins_run_out(handset: Design, library: Library) -> None:
    conflict = verdict_of(handset, library)
    assert conflict is not None
    assert "14 of them are keys" in conflict.why
    titles = " / ".join(w.title for w in ways_for(handset, library))
    assert "matrix" in titles
    assert "expanders" in titles
    assert "Next chip of the same family" in titles


def test_k02_no_analogue_channels_left(handset: Design, library: Library) -> None:
    axes = tuple(
        (
            thing("stick", f"axis {i}", 20 + 12 * i, 30, press=False)
            if i < 3
            else thing("trigger", f"axis {i}", 20 + 12 * i, 30)
        )
        for i in range(8)
    )
    brief = varied(
        handset.brief,
        only=("chip", "feeds", "port", "usb"),
        plus=axes,
        things={"chip": {"part": "stm32f072c8t6"}},
    )
    design = Design(brief=brief)
    conflict = verdict_of(design, library)
    assert conflict is not None
    assert "analogue channel" in conflict.why
    titles = " / ".join(w.title for w in ways_for(design, library))
    assert "outside converter" in titles
    assert "outside multiplexer" in titles


def test_k03_one_button_more_reaches_pins_scan_report_and_header_together(
    library: Library, handset: Design
) -> None:
    before = with_brief(on_chip(handset, "stm32f072rbt6"), key_scheme={"name": "one pin each"})
    after = apply(
        before,
        EDITS.validate_python({"kind": "add-thing", "thing": thing("button", "one more", 75, 20)}),
    )
    assert len(needs_of(after.brief)) == len(needs_of(before.brief)) + 1
    plans = [report_pins(d, library).plan for d in (before, after)]
    assert all(isinstance(p, PinPlan) for p in plans)
    buttons = [
        next(f for f in fields_of(d.brief, p) if f.name == "buttons").count
        for d, p in zip((before, after), plans, strict=True)
    ]  # type: ignore[arg-type]
    assert buttons[1] == buttons[0] + 1
    header = write_header(after.brief, plans[1]).decode()  # type: ignore[arg-type]
    assert f"#define KEY_COUNT {len(key_table(after.brief, plans[1]))}" in header
    assert "X(ONE_MORE, 14)" in header


def test_k04_screen_and_sound_that_want_one_block_are_solved_together(
    library: Library, handset: Design
) -> None:
    """On this chip sound and serial buses share their blocks; with both and a card there is one too
    many, and the answer names them.
    """
    design = with_brief(
        on_chip(handset, "stm32l051r8t6"),
        role="stand-alone",
        things={"usb": None},
        plus=(thing("speaker", "speaker", feed_by="sound bus"),),
    )
    report = report_pins(design, library)
    assert report.plan is not None
    screen, sound = report.plan.of("screen:clock"), report.plan.of("speaker:clock")
    assert screen is not None
    assert sound is not None
    assert screen.peripheral[3:] != sound.peripheral[3:]
    conflict = verdict_of(with_brief(design, plus=(thing("memory-card", "card"),)), library)
    assert conflict is not None
    assert any("screen" in t for t in conflict.titles)
    assert any("sound" in t for t in conflict.titles)


def test_k05_a_key_on_a_programming_pin_is_a_stop_with_a_repair(library: Library) -> None:
    design = Design(
        brief=dusk_remote(), choices=Choices(pin_locks={"button:dome": "34", "buzzer": "37"})
    )
    solved = run_stage(
        Design(brief=dusk_remote(), choices=Choices(pin_locks={"button:dome": "34"})),
        "pins",
        library,
    )
    findings = found(solved, library, "pin-sharing")
    assert [f.severity for f in findings] == ["stop"]
    assert "held key" in findings[0].sentence
    cured = run_stage(repaired(solved, findings[0]), "pins", library)
    assert found(cured, library, "pin-sharing") == []
    assert verdict_of(design, library) is not None


def test_k06_a_ghost_is_a_stop_and_each_repair_cures_it(library: Library, handset: Design) -> None:
    design = with_brief(handset, key_scheme={"name": "bare matrix"}, chords={"rule": "whole pad"})
    findings = found(design, library, "ghosting")
    assert len(findings) == 1
    assert "reads as pressed too" in findings[0].sentence
    assert len(findings[0].repairs) == 3
    for index in range(3):
        assert found(repaired(design, findings[0], index), library, "ghosting") == []


def test_k08_a_slow_screen_is_known_before_it_is_bought(library: Library, handset: Design) -> None:
    wanted = {"part": "screen-320x240-serial", "serial_mhz": 8.0, "wanted_rate_hz": 30}
    slow = with_brief(handset, things={"screen": wanted})
    findings = found(slow, library, "frame-rate")
    assert len(findings) == 1
    assert "6.5 times a second" in findings[0].sentence
    assert findings[0].working is not None
    assert found(repaired(slow, findings[0]), library, "frame-rate") == []


def test_k10_branches_and_addresses_of_the_bus(library: Library) -> None:
    design = Design(brief=dusk_remote())
    ports = tuple(thing("spare-bus", f"port {i}") for i in range(10))
    assert found(design, library, "bus-load") == []
    # UM10204 7.1: 3.3 V asks 967 ohm and more, 300 ns and 348 pF allow 1017, 398 pF 890
    assert found(with_brief(design, plus=ports[:6]), library, "bus-load") == []
    loaded = found(with_brief(design, plus=ports[:7]), library, "bus-load")
    assert len(loaded) == 1
    assert loaded[0].working is not None
    heavy = found(with_brief(design, plus=ports), library, "bus-load")
    assert "400 pF is the most" in heavy[0].sentence
    with pytest.raises(BriefError, match="0x3c is taken by .*screen"):
        with_brief(design, plus=(thing("bus-sensor", "tilt", address=60),))
    assert made("motion", "tilt").address == 0x68
