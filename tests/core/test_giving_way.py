"""A track drawn across the ways of others: they are led about it, everything else stays to the
nanometre.
"""

import pytest

from loquet.core.board import BoardView, Routing, Track, Via
from loquet.core.board.copper import track_copper
from loquet.core.design import Design, slice_of
from loquet.core.edits.wire_edits import DrawTracks
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.pipeline import StageRefused, board_view, bring_up_to_date
from loquet.core.redoing.giving_way import made_to_give_way, nets_with_less, with_room
from loquet.core.reviewing import review
from tests.core.plain_boards import MM, board, pad, track
from tests.editing import edit

HALF_NM = 1_500_000
WIDTH_NM = 200_000


def longest(design: Design, net: str) -> Track:
    tracks = (t for t in slice_of(design.routing).tracks if t.net == net)
    return max(tracks, key=lambda t: abs(t.x2_nm - t.x1_nm) + abs(t.y2_nm - t.y1_nm))


def across(track: Track, net: str, far: bool | None = None) -> DrawTracks:
    """A piece of 3 mm of another net square over the middle of a track."""
    x, y = (track.x1_nm + track.x2_nm) // 2, (track.y1_nm + track.y2_nm) // 2
    level = abs(track.x2_nm - track.x1_nm) > abs(track.y2_nm - track.y1_nm)
    dx, dy = (0, HALF_NM) if level else (HALF_NM, 0)
    piece = Track(
        net=net,
        far=track.far if far is None else far,
        width_nm=WIDTH_NM,
        x1_nm=x - dx,
        y1_nm=y - dy,
        x2_nm=x + dx,
        y2_nm=y + dy,
    )
    return DrawTracks(board="main", tracks=(piece,))


def test_one_is_led_about_and_all_others_stay(finished: Design, library: Library) -> None:
    crossed = longest(finished, "BUTTON_BRIGHTER")
    drawing = across(crossed, "CELLS")
    made, gave = made_to_give_way(finished, library, drawing, lambda _: True)
    assert gave == ("BUTTON_BRIGHTER",)
    before, after = slice_of(finished.routing), slice_of(made.routing)
    assert crossed not in after.tracks
    drawn = drawing.tracks[0].model_copy(update={"by_hand": True})
    assert [t for t in after.tracks if t.by_hand] == [drawn]
    assert not any(via.by_hand for via in after.vias)
    assert made.choices.wires["main"].tracks == (drawn,)
    assert after.open_links == ()

    def others(tracks: tuple[Track, ...]) -> set[Track]:
        return {t for t in tracks if t.net != "BUTTON_BRIGHTER"} - {drawn}

    assert others(after.tracks) == others(before.tracks)
    assert stale_slices(made) == ("pour",)
    whole = bring_up_to_date(made, library)
    stops = [f for f in review(whole, library) if f.severity == "stop"]
    assert [f.sentence for f in stops if f.rule != "dangling-ends"] == []


@pytest.mark.parametrize(
    ("pads", "stays", "vias"),
    [
        ([(10, 15), (30, 15)], [], []),  # both ends lead nowhere any longer
        ([(10, 15), (30, 15), (12, 20)], [0, 3], []),  # two pads stay joined on the near side
        ([(10, 15), (30, 15), (15, 15)], [0], [0]),  # a pad lies on the first via
    ],
)
def test_what_leads_nowhere_goes_back_to_the_next_pad_or_branch(
    plain: BoardView, pads: list[tuple[float, float]], stays: list[int], vias: list[int]
) -> None:
    """A way on the near side, behind, and on the near side again; its piece behind is crossed.

    Another such way of the net, 10 mm above, is not, and stays.
    """
    tracks = (
        track("A", 10, 15, 15, 15),
        track("A", 15, 15, 25, 15, far=True),
        track("A", 25, 15, 30, 15),
        track("A", 15, 15, 12, 20),
    )[: 4 if (12, 20) in pads else 3]
    through = tuple(Via(net="A", x_nm=x * MM, y_nm=15 * MM) for x in (15, 25))
    above = (
        track("A", 10, 25, 15, 25),
        track("A", 15, 25, 25, 25, far=True),
        track("A", 25, 25, 30, 25),
    )
    over = tuple(Via(net="A", x_nm=x * MM, y_nm=25 * MM) for x in (15, 25))
    spots = [*pads, (10, 25), (30, 25)]
    view = board(plain, *(pad("A", x, y, ref=f"R{n}") for n, (x, y) in enumerate(spots)))
    laid = Routing(tracks=(*tracks, *above), vias=(*through, *over))
    freed = with_room(laid, view, (track_copper(track("B", 20, 10, 20, 20, far=True)),))
    assert freed.tracks == (*(tracks[n] for n in stays), *above)
    assert freed.vias == (*(through[n] for n in vias), *over)


def test_of_ground_only_what_is_in_the_way_goes(finished: Design, library: Library) -> None:
    """Its ends lie in the pour and are no loose ones: other short ways of ground stay, and ground
    is whole again.
    """
    short = [
        t.model_copy(update={"net": "GROUND", "by_hand": False})
        for y in (3_000_000, 6_000_000)
        for t in across(
            Track(
                net="A",
                far=False,
                x1_nm=1_000_000,
                y1_nm=y,
                x2_nm=1_000_000,
                y2_nm=y,
                width_nm=1_000,
            ),
            "GROUND",
        ).tracks
    ]
    routing = slice_of(finished.routing)
    view = board_view(finished, library)
    laid = routing.model_copy(update={"tracks": (*routing.tracks, *short)})
    over = track_copper(across(short[0], "CELLS").tracks[0])
    freed = with_room(laid, view, (over,))
    assert short[0] not in freed.tracks
    assert short[1] in freed.tracks
    assert nets_with_less(laid, freed) == ("GROUND",)


def test_what_is_not_in_the_way_is_only_drawn(finished: Design, library: Library) -> None:
    """The same piece on the other side of the track, where nothing lies, gives what drawing
    gives.
    """
    drawing = across(longest(finished, "BUTTON_BRIGHTER"), "CELLS", far=False)
    made, gave = made_to_give_way(finished, library, drawing, lambda _: True)
    plain = drawing.apply(finished)
    assert (gave, made) == ((), plain)


def test_what_a_person_drew_does_not_give_way(finished: Design, library: Library) -> None:
    """A kept way stays under the new track, and the finding says so."""
    kept = edit(finished, kind="keep-nets", board="main", nets=["BUTTON_BRIGHTER"])
    drawing = across(longest(kept, "BUTTON_BRIGHTER"), "CELLS")
    made, gave = made_to_give_way(kept, library, drawing, lambda _: True)
    assert gave == ()
    assert longest(made, "BUTTON_BRIGHTER") == longest(kept, "BUTTON_BRIGHTER")
    assert [f for f in review(made, library) if f.rule == "copper-gap"]


def test_a_fence_that_leaves_no_way_is_refused(finished: Design, library: Library) -> None:
    """Tracks of another net all along both sides of a board part its halves: the nets between them
    are named.
    """
    left, _, right, high = board_view(finished, library).outline.bounds
    x, top = round((left + right) / 2), round(high) - 400_000
    fence = tuple(
        Track(net="CELLS", far=far, width_nm=WIDTH_NM, x1_nm=x, y1_nm=400_000, x2_nm=x, y2_nm=top)
        for far in (False, True)
    )
    with pytest.raises(StageRefused, match="would find no other way on main"):
        made_to_give_way(finished, library, DrawTracks(board="main", tracks=fence), lambda _: True)


def test_before_a_board_is_routed_it_is_refused(finished: Design, library: Library) -> None:
    bare = finished.model_copy(update={"routing": {}})
    drawing = across(longest(finished, "BUTTON_BRIGHTER"), "CELLS")
    with pytest.raises(StageRefused, match="not routed yet"):
        made_to_give_way(bare, library, drawing, lambda _: True)
