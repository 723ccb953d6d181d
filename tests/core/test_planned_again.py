"""Pins solved again for the placed board; presets; the reach of hands."""

import pytest

from loquet.catalogue.presets import presets
from loquet.core.brief.reach import HAND_MM, out_of_reach, reach_arcs
from loquet.core.design import Design
from loquet.core.edits import EDITS, apply
from loquet.core.feasibility import brief_faults
from loquet.core.geometry import middle_of
from loquet.core.library import Library
from loquet.core.pinning import placed_targets, verdict_of
from loquet.core.pins.needing import needs_of
from loquet.core.pipeline import board_view, bring_up_to_date, pin_problem, stale_slices
from loquet.core.release import release
from loquet.demo.scenario import demo_brief


def test_pins_are_solved_again_for_the_placed_board(finished: Design, library: Library) -> None:
    """Targets are true pads of the placed board; what the brief moves afterwards is aimed at its new place again."""
    targets = placed_targets(finished, library)
    assert set(targets) == {n.signal for n in needs_of(finished.brief)}
    pads = {middle_of(p.shape): p.net for p in board_view(finished, library).pads}
    assert all(pads[targets[n.signal]] == n.net for n in needs_of(finished.brief))
    wanted = {"kind": "take-placed-targets", "targets": {**targets, "nobody": (0, 0)}}
    aimed = apply(finished, EDITS.validate_python(wanted))
    assert aimed.choices.pin_targets == targets
    before, after = pin_problem(finished, library), pin_problem(aimed, library)
    assert next(n for n in before.needs if n.signal == "buzzer").target is None
    assert next(n for n in after.needs if n.signal == "buzzer").target == targets["buzzer"]
    assert "pins" in stale_slices(aimed)
    move = {"kind": "move-thing", "name": "dome", "x_mm": 24, "y_mm": 7}
    moved = apply(aimed, EDITS.validate_python(move))
    assert set(targets) - set(moved.choices.pin_targets) == {"button:dome"}
    assert placed_targets(Design(brief=finished.brief), library) == {}


@pytest.mark.parametrize("preset", presets(), ids=lambda p: p.id)
def test_no_start_leads_to_a_dead_end(preset: object, library: Library) -> None:
    """Every starting point has a plan, and all but the empty outline become a board as they stand."""
    brief = preset.brief  # type: ignore[attr-defined]
    assert brief_faults(brief, library) == []
    assert verdict_of(Design(brief=brief), library) is None
    if preset.id in ("remote", "pod"):  # type: ignore[attr-defined]
        assert release(bring_up_to_date(Design(brief=brief), library), library).ready


def test_reach_grows_with_the_hand() -> None:
    brief = demo_brief("ridge-handset")
    arcs = reach_arcs(brief)
    far = {arc.hand: arc.far_mm for arc in arcs}
    assert far["small"] < far["medium"] < far["large"]
    # 0.32 of a hand of 189 mm (from memory): 60 mm
    assert far["medium"] == pytest.approx(60.48)
    assert len(arcs) == 2 * len(HAND_MM)
    assert set(out_of_reach(brief, "large")) <= set(out_of_reach(brief, "small"))
