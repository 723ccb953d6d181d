"""One net routed again: it is whole, and nothing else has moved by a nanometre."""

import pytest

from loquet.core.design import Design, slice_of
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.pipeline import StageRefused
from loquet.core.redoing.rerouting import key_of, nets_rerouted
from loquet.core.reviewing import review
from tests.editing import edit


def pieces(design: Design, net: str = "", but: str = "") -> set[tuple[object, ...]]:
    """Tracks and vias of a net, or of all but one."""
    routing = slice_of(design.routing)
    found = [(t.net, key_of(t)) for t in routing.tracks]
    found += [(v.net, key_of(v)) for v in routing.vias]
    return {key for name, key in found if (name == net if net else name != but)}


def test_one_net_is_routed_and_all_others_stay(finished: Design, library: Library) -> None:
    """BUTTON_DOME cut to nothing, then routed alone: open before, whole after, and only it has
    changed.
    """
    design = finished
    for track in slice_of(finished.routing).tracks:
        if track.net == "BUTTON_DOME":
            design = edit(
                design, kind="cut-track", board="main", track=track.model_dump(mode="json")
            )
    assert not pieces(design, "BUTTON_DOME")
    made = nets_rerouted(design, library, "main", frozenset({"BUTTON_DOME"}), lambda _: True)
    after = design.with_made("routing", "main", made)
    assert stale_slices(after) == ("pour",)
    assert pieces(after, "BUTTON_DOME")
    assert pieces(after, but="BUTTON_DOME") == pieces(finished, but="BUTTON_DOME")
    assert not [f for f in review(after, library) if f.rule in ("unrouted", "copper-gap")]
    assert not any(t.by_hand for t in made.value.tracks if t.net == "BUTTON_DOME")


def test_what_a_person_drew_of_other_nets_stays_theirs(finished: Design, library: Library) -> None:
    """A kept net is still the person's afterwards, the router's nets are still the router's."""
    kept = edit(finished, kind="keep-nets", board="main", nets=["BUTTON_RED"])
    made = nets_rerouted(kept, library, "main", frozenset({"BUTTON_DOME"}), lambda _: True)
    assert {t.net for t in made.value.tracks if t.by_hand} == {"BUTTON_RED"}
    assert {v for v in made.value.vias if v.by_hand} == {
        v for v in slice_of(kept.routing).vias if v.by_hand
    }


def test_no_board_and_no_net_are_refused(finished: Design, library: Library) -> None:
    """With the way out."""
    bare = finished.model_copy(update={"routing": {}})
    with pytest.raises(StageRefused, match="not routed yet"):
        nets_rerouted(bare, library, "main", frozenset({"BUTTON_DOME"}), lambda _: True)
    with pytest.raises(StageRefused, match="no net 'MOON'"):
        nets_rerouted(finished, library, "main", frozenset({"MOON"}), lambda _: True)
