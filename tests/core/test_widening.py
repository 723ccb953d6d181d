"""Tracks as wide as their current asks: a board of 30 x 20 mm with answers by hand (gap of the
house 0.15 mm, copper to the edge 0.3 mm).
"""

from dataclasses import replace

from loquet.core.board import Routing, Track
from loquet.core.board.islands import CutOff
from loquet.core.library import Library
from loquet.core.routing.negotiation import finished
from loquet.core.routing.widening import widened
from tests.core.laying import way
from tests.core.test_tightening import Bench, pad

ASKED = {"A": 1_000_000}


def widths(
    library: Library, tracks: list[Track], *pads: tuple[str, str, float, float]
) -> list[int]:
    """Widths in µm of what lies there after a net has asked for 1 mm."""
    given = replace(Bench(library).given(*(pad(*p) for p in pads)), widths_nm=ASKED)
    return [
        t.width_nm // 1000 for t in widened(given, Routing(tracks=tuple(tracks), vias=())).tracks
    ]


def test_a_free_track_is_as_wide_as_asked_and_others_stay(library: Library) -> None:
    tracks = way((5, 10), (25, 10), width=0.3) + way((5, 3), (25, 3), net="B")
    assert widths(library, tracks) == [1000, 200]


def test_between_pads_of_others_a_piece_stays_a_neck(library: Library) -> None:
    """Pads of 1 mm at 9 and 11 mm leave 1 mm: less twice 0.1501 are 0.6998 mm, so 0.65 in steps of
    0.05; the pieces before and behind have room.
    """
    tracks = way((5, 10), (12, 10), (18, 10), (25, 10), width=0.3)
    assert widths(library, tracks, ("P", "B", 15, 9), ("Q", "B", 15, 11)) == [1000, 650, 1000]


def test_the_edge_and_a_track_by_hand_are_kept(library: Library) -> None:
    """0.75 mm from the edge: half a width and 0.3001 mm fit, so 0.85 mm."""
    edge = way((5, 0.75), (25, 0.75), width=0.3)
    drawn = way((5, 10), (25, 10), width=0.3, drawn=True)
    assert widths(library, edge + drawn) == [850, 300]


def test_two_tracks_that_both_ask_leave_the_gap_between_them(library: Library) -> None:
    """1 mm apart: the first takes 1 mm; 1 - 0.5 - 0.1501 mm are left for half of the second, so
    0.65 mm.
    """
    given = replace(Bench(library).given(), widths_nm={"A": 1_000_000, "B": 1_000_000})
    tracks = way((5, 10), (25, 10), width=0.3) + way((5, 11), (25, 11), net="B", width=0.3)
    first, second = widened(given, Routing(tracks=tuple(tracks), vias=())).tracks
    assert (first.width_nm, second.width_nm) == (1_000_000, 650_000)
    assert 1_000_000 - (first.width_nm + second.width_nm) / 2 >= 150_000


def test_ground_comes_before_width(library: Library) -> None:
    """Where wide tracks would leave ground apart, they stay narrow."""
    given = replace(Bench(library).given(), widths_nm=ASKED)
    routing = Routing(tracks=tuple(way((5, 10), (25, 10), width=0.3)), vias=())
    apart = CutOff(frozenset({"R1 pad 1"}), ())

    def cut_off(tried: Routing) -> CutOff:
        return CutOff(frozenset(), ()) if tried == routing else apart

    assert finished(given, routing).tracks[0].width_nm == 1_000_000
    assert finished(replace(given, cut_off=cut_off), routing) == routing
