"""Changes of the circuit by hand: kept beside the recipes, applied again, and said where they do
not fit any more.
"""

from typing import Any

import pytest

from loquet.core.checks.rule import Subject
from loquet.core.checks.rules import hand_changes, open_pins
from loquet.core.circuit import Circuit
from loquet.core.circuit.by_hand import (
    AddPart,
    ConnectPin,
    CutPin,
    HandChange,
    MergeNets,
    RenameNet,
)
from loquet.core.design import Choices, Design, slice_of
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.pipeline import bring_up_to_date, run_stage
from loquet.core.provenance import Failed, NotApplicable, Passed
from loquet.demo.scenario import demo_brief


@pytest.fixture(scope="module")
def made(library: Library) -> Design:
    """The filter dial with its circuit."""
    return bring_up_to_date(Design(brief=demo_brief("filter-dial")), library, "circuit")


def edited(design: Design, library: Library, *changes: HandChange) -> tuple[Design, Circuit]:
    """A design after changes, and its circuit made again."""
    for change in changes:
        design = apply(
            design, EDITS.validate_python({"kind": "change-circuit", "change": change.model_dump()})
        )
    design = run_stage(design, "circuit", library)
    return design, slice_of(design.circuit)


def subject(design: Design, library: Library) -> Subject:
    house = library.house(Choices().house)
    return Subject(design.brief, design.choices, house, library, circuit=slice_of(design.circuit))


def pads(circuit: Circuit, role: str) -> dict[str, str]:
    return next(c.pads for c in circuit.components if c.role == role)


LOAD = AddPart(
    role="bleed",
    part="resistor-1608",
    value="1 MΩ",
    pads={"1": "SUPPLY", "2": "GROUND"},
    board="main",
)


def first_signal(circuit: Circuit) -> tuple[str, list[tuple[str, str]]]:
    net = next(n for n in circuit.nets if n.kind == "signal" and len(n.pads) == 2)
    return net.name, list(net.pads)


def test_a_part_is_added_with_its_nets(made: Design, library: Library) -> None:
    design, circuit = edited(made, library, LOAD)
    part = next(c for c in circuit.components if c.role == "bleed")
    assert (part.value, part.pads, part.board) == ("1 MΩ", {"1": "SUPPLY", "2": "GROUND"}, "main")
    assert part.ref.startswith("R")
    assert (part.ref, "1") in next(n for n in circuit.nets if n.name == "SUPPLY").pads
    assert len(circuit.components) == len(slice_of(made.circuit).components) + 1
    assert isinstance(hand_changes.run(subject(design, library)), Passed)
    assert isinstance(hand_changes.run(subject(made, library)), NotApplicable)


def test_a_pin_is_moved_cut_and_the_last_word_counts(made: Design, library: Library) -> None:
    before = slice_of(made.circuit)
    _, ends = first_signal(before)
    role, pad = next((c.role, p) for c in before.components for r, p in ends if c.ref == r)
    _, moved = edited(made, library, ConnectPin(role=role, pad=pad, net="SPARE_WIRE"))
    assert pads(moved, role)[pad] == "SPARE_WIRE"
    design, cut = edited(
        made, library, ConnectPin(role=role, pad=pad, net="SPARE_WIRE"), CutPin(role=role, pad=pad)
    )
    assert pad not in pads(cut, role)
    assert [c.what for c in design.choices.by_hand] == ["cut"]
    others = {c.role: c.pads for c in before.components if c.role != role}
    assert {c.role: c.pads for c in cut.components if c.role != role} == others


def test_nets_are_renamed_and_joined(made: Design, library: Library) -> None:
    net, ends = first_signal(slice_of(made.circuit))
    _, renamed = edited(made, library, RenameNet(net=net, to="MY_LINE"))
    names = {n.name: n for n in renamed.nets}
    assert net not in names
    assert sorted(names["MY_LINE"].pads) == sorted(ends)
    _, joined = edited(made, library, MergeNets(net=net, into="SUPPLY"))
    supply = next(n for n in joined.nets if n.name == "SUPPLY")
    assert set(ends) <= set(supply.pads)
    assert supply.kind == "supply"
    _, rail = edited(made, library, RenameNet(net="SUPPLY", to="THREE_VOLTS"))
    assert next(n for n in rail.nets if n.name == "THREE_VOLTS").kind == "supply"


def test_changes_make_the_circuit_stale_and_survive_recipes(made: Design, library: Library) -> None:
    design = apply(
        made, EDITS.validate_python({"kind": "change-circuit", "change": LOAD.model_dump()})
    )
    assert "circuit" in stale_slices(design)
    assert "circuit" not in stale_slices(made)
    again = bring_up_to_date(design, library, "circuit")
    assert "bleed" in {c.role for c in slice_of(again.circuit).components}
    assert "circuit" not in stale_slices(again)
    back = apply(again, EDITS.validate_python({"kind": "drop-circuit-change", "index": 0}))
    assert back.choices.by_hand == ()
    assert slice_of(run_stage(back, "circuit", library).circuit) == slice_of(made.circuit)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (
            ConnectPin(role="gone", pad="1", net="SUPPLY"),
            "Pin 1 of gone on SUPPLY: there is no gone any more",
        ),
        (CutPin(role="bleed", pad="7"), "Pin 7 of bleed cut: thick film resistor has no pad 7"),
        (
            RenameNet(net="NOT_THERE", to="X"),
            "NOT_THERE is called X: there is no net NOT_THERE any more",
        ),
        (
            RenameNet(net="SUPPLY", to="GROUND"),
            "SUPPLY is called GROUND: there is a net GROUND already",
        ),
        (
            MergeNets(net="SUPPLY", into="NOWHERE"),
            "SUPPLY joined to NOWHERE: there is no net NOWHERE",
        ),
        (
            MergeNets(net="GROUND", into="SUPPLY"),
            "GROUND joined to SUPPLY: ground keeps its name; join the other net to it",
        ),
        (LOAD, "Bleed added: a part of that name is there already"),
        (
            LOAD.model_copy(update={"role": "other", "board": "attic"}),
            "Other added: there is no board attic any more",
        ),
        (
            LOAD.model_copy(update={"role": "other", "part": "own:nothing"}),
            "Other added: part own:nothing cannot be read ('nothing')",
        ),
        (
            LOAD.model_copy(update={"role": "other", "part": "nothing"}),
            "Other added: there is no part nothing in the catalogue",
        ),
    ],
)
def test_what_does_not_fit_any_more_is_a_stop(
    made: Design, library: Library, change: HandChange, words: str
) -> None:
    choices = made.choices.model_copy(update={"by_hand": (LOAD, change)})
    design = run_stage(made.model_copy(update={"choices": choices}), "circuit", library)
    outcome = hand_changes.run(subject(design, library))
    assert isinstance(outcome, Failed)
    assert [f.sentence for f in outcome.findings] == [
        f"A change by hand does not fit any more. {words}."
    ]
    assert len(slice_of(design.circuit).components) == len(slice_of(made.circuit).components) + 1


@pytest.mark.parametrize(
    ("change", "problem"),
    [
        ({"what": "cut", "role": "gone", "pad": "1"}, "There is no part 'gone'."),
        ({"what": "rename", "net": "GONE", "to": "X"}, "There is no net GONE."),
        ({**LOAD.model_dump(), "board": "attic"}, "There is no board 'attic'."),
        ({**LOAD.model_dump(), "role": "test ground"}, "There is a part 'test ground' already."),
    ],
)
def test_a_change_of_what_is_not_there_is_refused(
    made: Design, change: dict[str, Any], problem: str
) -> None:
    with pytest.raises(EditRefused) as refused:
        apply(made, EDITS.validate_python({"kind": "change-circuit", "change": change}))
    assert str(refused.value).startswith(problem)
    nothing = made.model_copy(update={"circuit": {}})
    with pytest.raises(EditRefused, match="no circuit yet"):
        apply(nothing, EDITS.validate_python({"kind": "change-circuit", "change": change}))


def test_a_change_that_is_not_there_cannot_be_taken_back(made: Design) -> None:
    for index in (-1, 0):
        with pytest.raises(EditRefused, match="gone already"):
            apply(made, EDITS.validate_python({"kind": "drop-circuit-change", "index": index}))


def test_a_renamed_thing_keeps_its_changes(made: Design, library: Library) -> None:
    thing = next(
        t
        for t in made.brief.things
        if any(c.role == t.role() for c in slice_of(made.circuit).components)
    )
    role = thing.role()
    pad = next(iter(pads(slice_of(made.circuit), role)))
    design, _ = edited(made, library, ConnectPin(role=role, pad=pad, net="WIRE"))
    renamed = apply(
        design,
        EDITS.validate_python({"kind": "rename-thing", "name": thing.name, "new_name": "other"}),
    )
    circuit = slice_of(bring_up_to_date(renamed, library, "circuit").circuit)
    assert circuit.misfits == ()
    assert "WIRE" in {
        net for c in circuit.components for net in c.pads.values() if c.thing == "other"
    }


def test_an_open_input_is_a_stop_and_an_open_output_is_not(made: Design, library: Library) -> None:
    """A supply pin of the chip, and pads of parts; the side legs of a button and the frame of a
    switch may stay.
    """
    chip = next(c for c in slice_of(made.circuit).components if c.is_chip)
    supply = next(p for p, n in chip.pads.items() if n == "SUPPLY")
    assert isinstance(open_pins.run(subject(made, library)), Passed)
    for role, pad in ((chip.role, supply), ("bleed", "2")):
        design, _ = edited(made, library, LOAD, CutPin(role=role, pad=pad))
        outcome = open_pins.run(subject(design, library))
        assert isinstance(outcome, Failed)
        assert [f"pin {pad}" in f.sentence for f in outcome.findings] == [True]


def test_a_renamed_board_keeps_its_added_parts(made: Design, library: Library) -> None:
    design, _ = edited(made, library, LOAD)
    edit = {"kind": "rename-board", "name": "main", "new_name": "lower"}
    renamed = bring_up_to_date(apply(design, EDITS.validate_python(edit)), library, "circuit")
    circuit = slice_of(renamed.circuit)
    assert circuit.misfits == ()
    assert {c.board for c in circuit.components if c.role == "bleed"} == {"lower"}
