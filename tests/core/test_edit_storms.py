"""Storms of random edits: each is made or refused in words, the design can always be reviewed, and every plan hands over its files."""

import random
from typing import Any, get_args

import pytest
from pydantic import ValidationError

from loquet.catalogue.presets import presets
from loquet.core.brief import SchemeName, keys_of
from loquet.core.design import Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.feasibility import brief_faults
from loquet.core.handover.package import handover_files
from loquet.core.library import Library
from loquet.core.pins import Solved, solve
from loquet.core.pins.needs import needs_of
from loquet.core.pins.planning import plan_of
from loquet.core.pipeline import pin_problem
from loquet.core.reviewing import review

KINDS = ("button", "pad", "stick", "trigger", "encoder", "slider", "touch")
CHIPS = ("stm32f072rbt6", "stm32l051c8t6", "stm32g031k8t6", "stm32f103c8t6", "stm32l476rgt6")
EXTRAS = ("screen", "buzzer", "light", "speaker", "headphones", "light_chain", "light_matrix")


def some_edit(chance: random.Random, design: Design) -> dict[str, Any]:
    """An edit of any family, sensible or not."""
    brief = design.brief
    name, keys = chance.choice([c.name for c in brief.controls]), [k.id for k in keys_of(brief)]
    place = {"x_mm": round(chance.uniform(0, 150), 1), "y_mm": round(chance.uniform(0, 80), 1)}
    scheme = {
        "name": chance.choice(get_args(SchemeName)),
        "shape": chance.choice(["best", "few rows", "left and right"]),
        "direct": keys[:2],
    }
    choices: list[dict[str, Any]] = [
        {
            "kind": "add-control",
            "control": {"kind": chance.choice(KINDS), "name": f"n {chance.randrange(99)}", **place},
        },
        {"kind": "remove-control", "name": name},
        {"kind": "rename-control", "name": name, "new_name": f"r {chance.randrange(99)}"},
        {"kind": "mirror-controls", "names": [name]},
        {"kind": "set-scheme", "scheme": scheme},
        {
            "kind": "set-chords",
            "chords": {"rule": chance.choice(["two thumbs", "whole pad", "typing"])},
        },
        {
            "kind": "set-role",
            "role": chance.choice(
                ["stand-alone", "usb-controller", "usb-keyboard", "host-key-reader"]
            ),
        },
        {"kind": "set-chip", "part": chance.choice(CHIPS)},
        {"kind": "set-extra", "extra": chance.choice(EXTRAS), "present": chance.random() < 0.6},
        {"kind": "set-analogue", "by": chance.choice(["chip", "converter", "multiplexer"])},
        {
            "kind": "add-link",
            "link": {
                "kind": chance.choice(["usb-device", "memory-card", "expansion", "board-link"]),
                "name": f"l {chance.randrange(5)}",
            },
        },
        {
            "kind": "set-power",
            "power": {
                "kind": chance.choice(["two-aaa-cells", "lithium-cell", "from-host"]),
                "x_mm": 30,
                "y_mm": 20,
            },
        },
        {
            "kind": "lock-pin",
            "signal": chance.choice([n.signal for n in needs_of(brief)]),
            "pin": str(chance.randrange(1, 64)),
        },
        {
            "kind": "set-sensors",
            "sensors": [{"name": "s", "address": chance.randrange(8, 119), "interrupt": True}],
        },
    ]
    return chance.choice(choices)


@pytest.mark.parametrize("seed", range(24))
def test_no_storm_breaks_a_design(seed: int, library: Library) -> None:
    chance = random.Random(seed)
    design = Design(brief=chance.choice(presets()).brief)
    made = 0
    for _ in range(16):
        try:
            design = apply(design, EDITS.validate_python(some_edit(chance, design)))
            made += 1
        except EditRefused as refused:
            assert refused.why
            assert refused.way_out
        except ValidationError as error:
            assert error.error_count() > 0
    assert made > 3
    assert all(f.sentence.endswith(".") for f in review(design, library))
    assert all(str(fault) for fault in brief_faults(design.brief, library))
    problem = pin_problem(design, library)
    answer = solve(problem)
    if isinstance(answer, Solved):
        assert "pins.h" in handover_files(design.brief, plan_of(problem, answer))
