"""Protections by name, with their price; one that is left out is not on the board, and is said."""

import pytest

from loquet.core.checks.rule import Subject
from loquet.core.circuit.by_hand import LeaveOut, with_changes
from loquet.core.circuit.model import Component
from loquet.core.circuit.protecting import protections
from loquet.core.design import Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.library import Library
from loquet.core.pipeline import run_stage
from tests.core.benches import bench_for, seen_with
from tests.core.test_power_mistakes import found
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
ROUND = (thing("lithium-cell", "cell", holder=True), thing("usb-device", "usb"))
CELLS = (thing("cells", "cell", 60, 30, far=True),)
WHY = "the pack is wired in at the bench"


def made(library: Library, *things: Plain) -> Design:
    design = Design(brief=device(CHIP, *things))
    return run_stage(run_stage(design, "pins", library), "circuit", library)


def components(design: Design) -> dict[str, Component]:
    (kept,) = design.circuit.values()
    return {c.role: c for c in kept.value.components}


def leave_out(design: Design, role: str, reason: str = WHY) -> Design:
    change = {"what": "leave out", "role": role, "reason": reason}
    return apply(design, EDITS.validate_python({"kind": "change-circuit", "change": change}))


def judged(design: Design) -> Subject:
    (kept,) = design.circuit.values()
    return seen_with(design.brief, circuit=kept.value, choices=design.choices)


def test_all_are_named_with_what_they_cost(library: Library) -> None:
    """Prices by hand from the shelf: two P-channel transistors of 9 cents and three resistors of
    0.8; a fuse of 12; a guard array of 11.
    """
    design = made(library, *ROUND)
    (kept,) = design.circuit.values()
    rows = protections(design.brief, kept.value, library.parts, ())
    assert [(r.role, r.thing, r.standing, r.price_cents, len(r.refs)) for r in rows] == [
        ("cell turned guard", "cell", "on the board", 20.4, 5),
        ("link:usb fuse", "usb", "on the board", 12.0, 1),
        ("link:usb guard array", "usb", "on the board", 11.0, 1),
        ("cell own protection", "cell", "in the kit", 0.0, 0),
    ]
    assert [r.title for r in rows] == [
        "turned guard of cell",
        "fuse of usb",
        "guard array of usb",
        "protection in cell itself",
    ]
    assert "put in backwards" in rows[0].against
    assert "discharges" in rows[2].against


def test_one_that_is_left_out_leaves_its_way_open_and_is_said(library: Library) -> None:
    """Without the guard of two cells their plus is the rail itself: turned, they harm the chip."""
    design = made(library, *CELLS)
    guard = components(design)["reverse guard"]
    top, rail = guard.pads["3"], guard.pads["2"]
    without = run_stage(leave_out(design, "reverse guard"), "circuit", library)
    rows = components(without)
    assert "reverse guard" not in rows
    nets = {net for c in rows.values() for net in c.pads.values()}
    assert {top, rail} & nets == {rail}
    assert {c.pads.get("1") for c in rows.values() if c.role.startswith("cell:")} >= {rail}
    (said,) = found("left-out", judged(without))
    assert (said.severity, said.about) == ("look", ("thing:cell",))
    assert said.sentence.endswith(f"a source that is put in the wrong way round: {WHY}")
    assert [f.severity for f in found("put-in-wrong", judged(without))] == ["stop"]
    (kept,) = without.circuit.values()
    (row,) = protections(without.brief, kept.value, library.parts, without.choices.by_hand)
    assert (row.standing, row.reason, row.change, row.thing) == ("left out", WHY, 0, "cell")
    back = EDITS.validate_python({"kind": "drop-circuit-change", "index": 0})
    assert "reverse guard" in components(run_stage(apply(without, back), "circuit", library))
    assert found("left-out", judged(design)) == []
    decided = leave_out(design, "reverse guard")
    (kept,) = decided.circuit.values()
    rows_then = protections(decided.brief, kept.value, library.parts, decided.choices.by_hand)
    assert [r.standing for r in rows_then] == ["left out"]


def test_what_stands_around_it_goes_with_it_and_a_shunt_joins_nothing(library: Library) -> None:
    design = made(library, *ROUND)
    bare = components(run_stage(leave_out(design, "cell turned guard"), "circuit", library))
    assert [role for role in bare if "turned guard" in role] == []
    before = {n for c in components(design).values() for n in c.pads.values()}
    loose = components(run_stage(leave_out(design, "link:usb guard array"), "circuit", library))
    assert "link:usb guard array" not in loose
    assert {n for c in loose.values() for n in c.pads.values()} == before
    fuse = components(design)["link:usb fuse"].pads
    melted = components(run_stage(leave_out(design, "link:usb fuse"), "circuit", library))
    assert {n for c in melted.values() for n in c.pads.values()} == before - {fuse["1"]}


def test_nothing_else_can_be_left_out_and_no_reason_is_no_decision(library: Library) -> None:
    design = made(library, *CELLS)
    with pytest.raises(EditRefused, match="is no protection"):
        leave_out(design, "chip bulk")
    with pytest.raises(ValueError, match="at least 8"):
        leave_out(design, "reverse guard", "so")


def test_a_decision_about_what_is_not_there_any_more_is_said(library: Library) -> None:
    change = LeaveOut(role="reverse guard", reason=WHY)
    bench = bench_for(device(CHIP, thing("leads", "leads")))
    fragments, misfits = with_changes([], (change,), bench.parts, {"main"})
    assert fragments == []
    assert misfits == (f"reverse guard left out: {WHY}: there is no reverse guard any more",)


def test_a_decision_follows_its_thing_to_another_name(library: Library) -> None:
    design = made(library, thing("barrel-jack", "jack", adapter_v=5.0))
    decided = leave_out(design, "jack reverse guard")
    edit = {"kind": "rename-thing", "name": "jack", "new_name": "inlet"}
    (change,) = apply(decided, EDITS.validate_python(edit)).choices.by_hand
    assert isinstance(change, LeaveOut)
    assert change.role == "jack:inlet reverse guard"
