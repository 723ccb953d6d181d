"""Rules of the Brief and Pins stations: when they speak, what they offer, and that missing data is
never a pass.
"""

from typing import Any

import pytest

from loquet.core.brief import Brief, brief_from_plain
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Rule, subjects_for
from loquet.core.design import Choices, Design
from loquet.core.edits import EDITS, apply
from loquet.core.library import Library
from loquet.core.pipeline import run_stage
from loquet.core.provenance import Failed, NotApplicable, Outcome, Passed, Undetermined
from loquet.core.reviewing import subject_of
from tests.making import device, plain_of, thing, varied

CORNERS = ("south west", "south east", "north west", "north east")


def rule(name: str) -> Rule:
    return next(r for r in RULES if r.id == name)


def outcome_of(name: str, brief: Brief, library: Library, **choices: Any) -> Outcome:
    design = Design(brief=brief, choices=Choices(**choices))
    if "plan" in rule(name).needs:
        design = run_stage(design, "pins", library)
    (seen,) = subjects_for(rule(name), subject_of(design, library))
    return rule(name).run(seen)


@pytest.mark.parametrize(
    ("name", "changes", "kind"),
    [
        ("ghosting", {}, NotApplicable),
        ("ghosting", {"key_scheme": {"name": "diode matrix"}}, Passed),
        ("ghosting", {"key_scheme": {"name": "bare matrix"}}, Failed),
        ("ghosting", {"key_scheme": {"name": "resistor ladder"}}, Failed),
        ("ghosting", {"key_scheme": {"name": "charlieplexed"}}, Failed),
        ("frame-rate", {}, Passed),
        ("frame-rate", {"things": {"screen": None}}, NotApplicable),
        ("legible-text", {"things": {"screen": None}}, NotApplicable),
        ("bus-load", {}, NotApplicable),
        ("bus-load", {"plus": (thing("bus-sensor", "tilt"),)}, Passed),
        ("drive-strength", {}, NotApplicable),
        ("drive-strength", {"plus": (thing("light-matrix", "lights"),)}, Undetermined),
        ("usb-role", {}, Passed),
        ("usb-role", {"things": {"usb": None}}, Failed),
        ("usb-role", {"things": {"usb": None}, "role": "stand-alone"}, NotApplicable),
        ("thumb-reach", {}, Failed),
        ("thumb-reach", {"role": "usb-keyboard"}, NotApplicable),
        ("cell-safety", {}, Failed),
        (
            "cell-safety",
            {"things": {"cell": None}, "plus": (thing("host-feed", "feed", 75, 28),)},
            NotApplicable,
        ),
        ("supply-range", {}, Passed),
        ("circuit-recipes", {"plus": (thing("stick", "third", supply="5 V"),)}, Failed),
    ],
)
def test_each_rule_answers_as_it_should(
    name: str, changes: dict[str, Any], kind: type, library: Library
) -> None:
    assert isinstance(outcome_of(name, varied("ridge-handset", **changes), library), kind)


def test_a_look_at_a_boot_pin_and_a_stop_at_a_programming_pin(library: Library) -> None:
    brief = varied("dusk-remote", things={"chip": {"part": "stm32l431cct6"}})
    boot = next(p.number for p in library.find_chip("stm32l431cct6").pins if p.is_boot)
    found = outcome_of("pin-sharing", brief, library, pin_locks={"button:dome": boot})
    assert isinstance(found, Failed)
    assert [(f.severity, len(f.repairs)) for f in found.findings] == [("look", 1)]
    assert "loader" in found.findings[0].sentence
    assert isinstance(outcome_of("pin-sharing", brief, library), Passed)


@pytest.mark.parametrize(
    "changes",
    [
        {"things": {f"post {c}": None for c in CORNERS}},
        {"things": {"light": None}},
        {"things": {"cell": {"sense": False}}},
        {"plus": (thing("speaker", "speaker"),)},
    ],
    ids=["holes", "light", "sense", "headphones"],
)
def test_each_missing_companion_is_added_by_its_own_repair(
    changes: dict[str, Any], library: Library
) -> None:
    design = Design(brief=varied("ridge-handset", **changes))

    def offered(now: Design) -> list[dict[str, Any]]:
        found = rule("companions").run(subject_of(now, library))
        rows = found.findings if isinstance(found, Failed) else ()
        return [r.edit for f in rows for r in f.repairs]

    edits = offered(design)
    assert len(edits) == 1
    assert edits[0] not in offered(apply(design, EDITS.validate_python(edits[0])))


def test_a_board_without_holes_is_named_where_there_are_several(library: Library) -> None:
    plain = device(thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads"))
    wing = {"name": "wing", "outline": plain.boards[0].model_dump(mode="json")["outline"]}
    two = brief_from_plain({**plain_of(plain), "boards": [*plain_of(plain)["boards"], wing]})
    both = {"The board main has", "The board wing has"}
    for brief, words in ((plain, {"The board has"}), (two, both)):
        told = rule("companions").run(subject_of(Design(brief=brief), library))
        assert isinstance(told, Failed)
        holes = [f.sentence for f in told.findings if "fixing holes" in f.sentence]
        assert {sentence.split(" fewer ")[0] for sentence in holes} == words
