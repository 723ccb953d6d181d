"""Wiring by hand: what is drawn or kept lies fast, what is cut is gone, and the router makes the
rest.
"""

from typing import Any

import pytest
from pydantic import ValidationError

from loquet.core.board import Track, Wires
from loquet.core.design import Design, slice_of
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.pipeline import bring_up_to_date, run_stage
from loquet.core.reviewing import review


def edit(design: Design, **fields: Any) -> Design:
    return apply(design, EDITS.validate_python({"board": "main", **fields}))


def tracks_of(design: Design, net: str) -> set[tuple[int, ...]]:
    return {
        (t.far, t.x1_nm, t.y1_nm, t.x2_nm, t.y2_nm)
        for t in slice_of(design.routing).tracks
        if t.net == net
    }


def longest(design: Design) -> Track:
    tracks = (t for t in slice_of(design.routing).tracks if t.net not in ("GROUND", "SUPPLY"))
    return max(tracks, key=lambda t: abs(t.x2_nm - t.x1_nm) + abs(t.y2_nm - t.y1_nm))


def test_what_is_kept_lies_as_it_lay_when_all_is_routed_anew(
    finished: Design, library: Library
) -> None:
    net = longest(finished).net
    kept = edit(finished, kind="keep-nets", nets=[net])
    assert all(t.by_hand for t in slice_of(kept.routing).tracks if t.net == net)
    assert stale_slices(kept) == ("pour",)
    anew = bring_up_to_date(run_stage(kept, "routing", library), library)
    assert tracks_of(anew, net) == tracks_of(finished, net)
    assert slice_of(anew.routing).open_links == ()
    assert slice_of(anew.pour).islands == 1
    assert [f.sentence for f in review(anew, library) if f.severity == "stop"] == []
    freed = edit(anew, kind="release-nets", nets=[net])
    assert stale_slices(freed) == ("routing", "pour")
    assert freed.choices.wires == {}
    assert not any(t.by_hand for t in slice_of(run_stage(freed, "routing", library).routing).tracks)


def test_all_is_kept_and_routing_again_changes_nothing(finished: Design, library: Library) -> None:
    kept = edit(finished, kind="keep-nets")
    anew = run_stage(kept, "routing", library)
    before, after = slice_of(finished.routing), slice_of(anew.routing)
    assert len(after.tracks) == len(before.tracks)
    assert {(v.x_nm, v.y_nm) for v in after.vias} == {(v.x_nm, v.y_nm) for v in before.vias}


def test_a_cut_track_is_gone_and_the_router_closes_the_gap(
    finished: Design, library: Library
) -> None:
    cut = longest(finished)
    plain = cut.model_dump(mode="json")
    design = edit(finished, kind="cut-track", track=plain)
    gone = (cut.far, cut.x1_nm, cut.y1_nm, cut.x2_nm, cut.y2_nm)
    assert gone not in tracks_of(design, cut.net)
    rest = tracks_of(finished, cut.net) - {gone}
    assert tracks_of(design, cut.net) == rest
    assert stale_slices(design) == ("pour",)
    assert [f.about for f in review(design, library) if f.rule == "unrouted"] == [
        (f"net:{cut.net}",)
    ]
    anew = bring_up_to_date(run_stage(design, "routing", library), library)
    assert rest <= tracks_of(anew, cut.net)
    assert slice_of(anew.routing).open_links == ()
    assert [f.sentence for f in review(anew, library) if f.severity == "stop"] == []
    with pytest.raises(EditRefused, match="There is no such track"):
        edit(design, kind="cut-track", track=plain)


def test_a_drawn_track_closes_what_was_cut_and_is_measured_like_any_other(
    finished: Design, library: Library
) -> None:
    cut = longest(finished)
    design = edit(finished, kind="cut-track", track=cut.model_dump(mode="json"))
    drawn = edit(design, kind="draw-tracks", tracks=[cut.model_dump(mode="json")])
    assert tracks_of(drawn, cut.net) == tracks_of(finished, cut.net)
    anew = bring_up_to_date(drawn, library)
    assert tracks_of(anew, cut.net) == tracks_of(finished, cut.net)
    assert not [f for f in review(anew, library) if f.severity == "stop"]
    # the same track 0.05 mm beside a pad of another net is a fault that the rules find
    across = {**cut.model_dump(mode="json"), "net": "SUPPLY"}
    wrong = bring_up_to_date(edit(finished, kind="draw-tracks", tracks=[across]), library)
    assert any(f.rule == "copper-gap" for f in review(wrong, library))


@pytest.mark.parametrize(
    ("fields", "words"),
    [
        ({"kind": "draw-tracks", "tracks": [{"net": "NOWHERE"}]}, "no net 'NOWHERE' on main"),
        ({"kind": "draw-tracks", "tracks": [{"x2_nm": 1, "y2_nm": 1}]}, "ends where it begins"),
        ({"kind": "release-nets"}, "Nothing was drawn there"),
        ({"kind": "keep-nets", "board": "attic"}, "no board 'attic'"),
        ({"kind": "draw-tracks", "board": "attic"}, "no board 'attic'"),
    ],
)
def test_what_makes_no_sense_is_refused(
    fields: dict[str, Any], words: str, finished: Design
) -> None:
    plain = {"net": "SUPPLY", "far": False, "x1_nm": 1, "y1_nm": 1, "x2_nm": 5, "y2_nm": 1}
    if "tracks" in fields:
        rows = [{**plain, "width_nm": 200_000, **row} for row in fields["tracks"]]
        fields = {**fields, "tracks": rows}
    with pytest.raises(EditRefused, match=words):
        edit(finished, **fields)


def test_wires_follow_the_name_of_their_board(finished: Design) -> None:
    kept = edit(finished, kind="keep-nets", nets=["SUPPLY"])
    renamed = apply(
        kept, EDITS.validate_python({"kind": "rename-board", "name": "main", "new_name": "lid"})
    )
    assert set(renamed.choices.wires) == {"lid"}
    assert renamed.choices.wires["lid"] != Wires()


def test_a_part_dragged_off_the_board_is_said_and_the_rest_is_routed(
    finished: Design, library: Library
) -> None:
    seat = {"kind": "seat-part", "role": "decoupling 1", "x_mm": 90, "y_mm": 20}
    routed = run_stage(apply(finished, EDITS.validate_python(seat)), "routing", library)
    rules = {f.rule for f in review(routed, library) if f.severity == "stop"}
    assert {"courtyards", "unrouted"} <= rules
    assert tracks_of(routed, "BUTTON_DOME")


def test_wires_lie_within_a_metre() -> None:
    """On the nanometre, either way."""
    metre = 1_000_000_000
    ends = {"x1_nm": metre, "y1_nm": -metre, "x2_nm": 0, "y2_nm": 0}
    assert Track(net="A", far=False, width_nm=200_000, **ends).x1_nm == metre
    for too_far in ({"x1_nm": metre + 1}, {"y1_nm": -metre - 1}):
        with pytest.raises(ValidationError):
            Track(net="A", far=False, width_nm=200_000, **ends | too_far)
