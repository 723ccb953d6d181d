"""Pins solved again for the placed board; presets; the reach of hands."""

from math import dist

import pytest

from loquet.catalogue.presets import presets
from loquet.core.brief.reach import HAND_MM, out_of_reach, reach_arcs
from loquet.core.design import Design, slice_of
from loquet.core.edits import EDITS, apply
from loquet.core.freshness import stale_slices
from loquet.core.geometry import middle_of
from loquet.core.library import Library
from loquet.core.pins.needing import needs_of
from loquet.core.pipeline import StageRefused, board_view, bring_up_to_date, pin_problem
from loquet.core.planning.aiming import aims_key, aims_of
from loquet.core.planning.feasibility import brief_faults
from loquet.core.planning.pinning import placed_targets, verdict_of
from loquet.core.release import release
from loquet.demo.scenario import demo_brief


def test_pins_are_solved_again_for_the_placed_board(finished: Design, library: Library) -> None:
    """Targets are true pads of the placed board; what the brief moves afterwards is aimed at its
    new place again.
    """
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
    """Every starting point has a plan, and all but the empty outline become a board as they
    stand.
    """
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


def test_the_gain_is_known_before_it_is_taken(finished: Design, library: Library) -> None:
    """Ways measured on the board: from the chip's pad of each signal straight to the nearest other
    pad of its net. Taking it gives the plan that was promised; where the plan is that one already,
    there is nothing to gain.
    """
    (aim,) = aims_of(finished, library)
    targets = placed_targets(finished, library)
    view = board_view(finished, library)
    chip = next(c.ref for c in view.circuit.components if c.is_chip)
    pads = {p.pad: middle_of(p.shape) for p in view.pads if p.ref == chip}
    plan = slice_of(finished.pins)

    def ways_mm(rows: dict[str, str]) -> float:
        return sum(dist(pads[pin], targets[signal]) for signal, pin in rows.items()) / 1e6

    now = {row.signal: row.pin for row in plan.assignments}
    assert aim.before_mm == pytest.approx(ways_mm(now), abs=0.02)
    assert aim.after_mm <= aim.before_mm
    wanted = {"kind": "take-placed-targets", "targets": targets}
    taken = bring_up_to_date(apply(finished, EDITS.validate_python(wanted)), library, "pins")
    then = {row.signal: row.pin for row in slice_of(taken.pins).assignments}
    titles = {n.signal: n.title for n in needs_of(finished.brief)}
    changed = {titles[signal] for signal in now if now[signal] != then[signal]}
    if aim.moved:
        assert aim.after_mm == pytest.approx(ways_mm(then), abs=0.02)
        assert set(aim.moved) == changed
    else:
        assert ways_mm(then) == pytest.approx(aim.before_mm, abs=0.02)
    bare = finished.model_copy(update={"placement": {}})
    with pytest.raises(StageRefused, match="not placed for this circuit"):
        aims_of(bare, library)
    assert aims_key(bare, library) != aims_key(finished, library)
