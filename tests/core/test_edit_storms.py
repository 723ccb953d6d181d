"""Storms of random edits: each is made or refused in words, the design can always be reviewed, and
every plan hands over its files.
"""

import random
from typing import Any, get_args

import pytest
from pydantic import ValidationError

from loquet.catalogue.presets import presets
from loquet.core.brief import SchemeName, keys_of
from loquet.core.design import Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.handover.package import handover_files
from loquet.core.library import Library
from loquet.core.pins import Solved, solve
from loquet.core.pins.needing import needs_of
from loquet.core.pins.planning import plan_of
from loquet.core.pipeline import pin_problem
from loquet.core.planning.feasibility import brief_faults
from loquet.core.reviewing import review

KINDS = ("button", "pad", "stick", "trigger", "encoder", "slider", "touch")
OUTLINE = {"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 40}
CHIPS = ("stm32f072rbt6", "stm32l051c8t6", "stm32g031k8t6", "stm32f103c8t6", "stm32l476rgt6")
EXTRAS = (
    *("screen", "buzzer", "light", "speaker", "headphones", "light-chain", "light-matrix"),
    *("usb-device", "memory-card", "expansion", "serial", "bus-sensor", "lithium-cell", "crystal"),
)


def some_edit(chance: random.Random, design: Design) -> dict[str, Any]:
    """An edit of any family, sensible or not."""
    brief = design.brief
    name, keys = chance.choice([t.name for t in brief.things]), [k.id for k in keys_of(brief)]
    place = {"x_mm": round(chance.uniform(0, 150), 1), "y_mm": round(chance.uniform(0, 80), 1)}
    scheme = {
        "name": chance.choice(get_args(SchemeName)),
        "shape": chance.choice(["best", "few rows", "left and right"]),
        "direct": keys[:2],
    }
    choices: list[dict[str, Any]] = [
        {
            "kind": "add-thing",
            "thing": {
                "kind": chance.choice(KINDS),
                "name": f"n {chance.randrange(99)}",
                "place": place,
            },
        },
        {
            "kind": "add-thing",
            "thing": {"kind": chance.choice(EXTRAS), "name": f"e {chance.randrange(9)}"},
        },
        {"kind": "remove-things", "names": [name]},
        {"kind": "rename-thing", "name": name, "new_name": f"r {chance.randrange(99)}"},
        {"kind": "mirror-things", "names": [name]},
        {
            "kind": "paste-things",
            "things": [chance.choice(brief.things).model_dump(mode="json")],
            "dx_mm": 9,
        },
        {
            "kind": "move-thing",
            "name": name,
            **place,
            "turn_deg": chance.randrange(360),
            "far": chance.random() < 0.2,
        },
        {"kind": "release-thing", "name": name},
        {"kind": "add-board", "board": {"name": f"b {chance.randrange(3)}", "outline": OUTLINE}},
        {"kind": "remove-board", "name": f"b {chance.randrange(3)}"},
        {"kind": "move-thing", "name": name, "x_mm": 20, "y_mm": 20, "board": "b 1"},
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
        {"kind": "change-thing", "name": "chip", "changes": {"part": chance.choice(CHIPS)}},
        {"kind": "set-analogue", "by": chance.choice(["chip", "converter", "multiplexer"])},
        {
            "kind": "lock-pin",
            "signal": chance.choice([n.signal for n in needs_of(brief)] or ["none"]),
            "pin": str(chance.randrange(1, 64)),
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
    if design.brief.brain is None:
        return
    problem = pin_problem(design, library)
    answer = solve(problem)
    if isinstance(answer, Solved):
        assert "pins.h" in handover_files(design.brief, plan_of(problem, answer))
