"""Circuits of controls: keys by pin and by matrix, axes, screens on a serial header; and what is
refused by name.
"""

from typing import Any

import pytest

from loquet.catalogue.bundled import parts
from loquet.core.brief import Brief, KeyScheme, keys_of
from loquet.core.circuit import Circuit, Component, RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Design, slice_of
from loquet.core.library import Library
from loquet.core.pins.ghosting import read_as_pressed
from loquet.core.pins.wiring import wiring_of
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import release
from loquet.core.reviewing import review
from tests.core.benches import bench_for
from tests.making import on_cells, thing, varied

LAMPS = ("light", "buzzer")


def by_role(brief: Brief) -> dict[str, Component]:
    return {c.role: c for c in assemble(bench_for(brief)).components}


def test_the_circuit_of_a_bare_matrix_has_the_ghosts_that_the_analysis_names() -> None:
    """The nets themselves, walked as wires, give the same reading as the analysis of the wiring."""
    brief = on_cells(key_scheme={"name": "bare matrix"})
    wiring, made = wiring_of(brief), by_role(brief)
    pressed = [key.id for key in keys_of(brief)][:3]
    joined: dict[str, set[str]] = {}
    for key in keys_of(brief):
        if key.id in pressed:
            pair = [n for n in made[key.role].pads.values() if n.startswith(("ROW", "COLUMN"))]
            joined.setdefault(pair[0], set()).add(pair[1])
            joined.setdefault(pair[1], set()).add(pair[0])

    def reach(start: str) -> set[str]:
        seen, waiting = {start}, [start]
        while waiting:
            waiting += [
                n for n in joined.get(waiting.pop(), ()) if n not in seen and not seen.add(n)
            ]  # type: ignore[func-returns-value]
        return seen

    low = {
        key
        for key, row, column in wiring.cells
        if f"COLUMN_{column + 1}" in reach(f"ROW_{row + 1}")
    }
    assert low == read_as_pressed(wiring, pressed)


@pytest.mark.parametrize(
    ("control", "wanted"),
    [
        (
            thing("encoder", "knob", 75, 33),
            {
                "a": "ENCODER_KNOB_A",
                "b": "ENCODER_KNOB_B",
                "press": "ENCODER_KNOB_PRESS",
                "common": "GROUND",
                "press common": "GROUND",
            },
        ),
        (
            thing("slider", "gain", 75, 33),
            {"supply": "SUPPLY", "level": "SLIDER_GAIN_LEVEL", "ground": "GROUND"},
        ),
        (
            thing("trigger", "focus", 75, 33),
            {"supply": "SUPPLY", "pull": "TRIGGER_FOCUS_PULL", "ground": "GROUND"},
        ),
        (
            thing("pad", "nub", 75, 33, form="five-way part", part="five-way-10"),
            {
                "up": "PAD_NUB_UP",
                "down": "PAD_NUB_DOWN",
                "left": "PAD_NUB_LEFT",
                "right": "PAD_NUB_RIGHT",
                "press": "PAD_NUB_PRESS",
                "common": "GROUND",
            },
        ),
    ],
    ids=["encoder", "slider", "trigger", "five-way"],
)
def test_other_controls_have_every_pad_on_its_net(
    control: dict[str, Any], wanted: dict[str, str]
) -> None:
    made = by_role(varied(on_cells(plus=(control,)), things=dict.fromkeys(LAMPS)))[
        f"{control['kind']}:{control['name']}"
    ]
    names = parts()[made.part].pin_names
    assert {names[pad]: net for pad, net in made.pads.items()} == wanted


def test_a_serial_screen_follows_its_drawing_and_has_no_pull_ups() -> None:
    made = by_role(on_cells())
    header, decoupling = made["screen"], made["screen decoupling"]
    assert [header.pads[str(i + 1)] for i in range(4)] == [
        "GROUND",
        "SUPPLY",
        "SCREEN_CLOCK",
        "SCREEN_DATA",
    ]
    assert decoupling.pads == {"1": "SUPPLY", "2": "GROUND"}
    assert not [role for role in made if "pull-up" in role]
    parallel = {"part": "screen-320x240-parallel", "bus": "parallel colour"}
    narrow = on_cells(things={"screen": {**parallel, "colour_bits": 6}})
    assert len(by_role(narrow)["screen"].pads) == 13
    with pytest.raises(RecipeNotPossible, match="fewer colour bits"):
        by_role(on_cells(things={"screen": {**parallel, "colour_bits": 18}}))


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        (
            {"things": {"left stick": {"supply": "5 V"}}},
            "5 V rail",
        ),
        (
            {
                "plus": (thing("pad", "p", 75, 33, form="five-way part", part="five-way-10"),),
                "key_scheme": {"name": "diode matrix"},
            },
            "share one leg",
        ),
    ],
)
def test_what_has_no_recipe_is_refused_and_said_before_the_circuit_is_made(
    library: Library, changes: dict[str, Any], said: str
) -> None:
    brief = on_cells(**changes)
    with pytest.raises(RecipeNotPossible) as caught:
        assemble(bench_for(brief))
    assert said in str(caught.value)
    stops = [f for f in review(Design(brief=brief), library) if f.rule == "circuit-recipes"]
    assert [f.severity for f in stops] == ["stop"]
    assert said in stops[0].sentence


@pytest.mark.parametrize(
    ("brief", "parts_on_it"),
    [
        (lambda: on_cells(), 41),
        (lambda: varied("focus-pad", key_scheme={"name": "diode matrix"}), 46),
        (lambda: varied("dusk-remote", key_scheme={"name": "mixed"}), 40),
    ],
    ids=["sticks and a serial screen", "diode matrix", "mixed"],
)
def test_boards_with_new_controls_and_schemes_end_ready(
    brief: Any, parts_on_it: int, library: Library
) -> None:
    design = bring_up_to_date(Design(brief=brief()), library)
    result = release(design, library)
    assert [f.sentence for f in result.findings if f.severity == "stop"] == []
    assert result.ready
    circuit: Circuit = slice_of(design.circuit)
    assert len(circuit.components) == parts_on_it


def test_a_scheme_is_kept_when_a_key_is_added() -> None:
    assert KeyScheme(name="diode matrix", shape="few rows").shape == "few rows"
    brief = on_cells(key_scheme={"name": "diode matrix", "shape": "few rows"})
    assert wiring_of(brief).rows < wiring_of(on_cells(key_scheme={"name": "diode matrix"})).rows
