"""What stands in the way of an open link, and that what is offered frees it."""

from shapely.geometry import LineString

from loquet.core.board.linking import open_links
from loquet.core.checks.walls import moved_aside, walls_of, ways_to_free
from loquet.core.design import Design, slice_of
from loquet.core.edits import EDITS, apply
from loquet.core.geometry import polygon_of
from loquet.core.library import Library
from loquet.core.pipeline import board_view, run_stage
from loquet.core.reviewing import review
from tests.editing import edit

MM = 1_000_000


def cut_apart(design: Design, net: str) -> Design:
    """The design without any track of a net."""
    for track in slice_of(design.routing).tracks:
        if track.net == net:
            design = edit(
                design, kind="cut-track", board="main", track=track.model_dump(mode="json")
            )
    return design


def opened(
    design: Design, library: Library, net: str
) -> list[tuple[str, tuple[dict[str, object], ...]]]:
    """Sentences about a net that is open, with the edits that are offered."""
    return [
        (f.sentence, tuple(r.edit for r in f.repairs))
        for f in review(design, library)
        if f.rule == "unrouted" and f"net:{net}" in f.about
    ]


def test_a_track_drawn_across_is_named_and_given_back(finished: Design, library: Library) -> None:
    """BUTTON_DOME is cut; a track of BUTTON_RED that a person draws across its straight way is the
    first thing offered, and taking it and routing again joins all.
    """
    cut = cut_apart(finished, "BUTTON_DOME")
    (link,) = (k for k in open_links(board_view(cut, library)) if k.net == "BUTTON_DOME")
    (ax, ay), (bx, by) = ((s.shape.x, s.shape.y) for s in (link.start, link.end))
    mx, my = (ax + bx) // 2, (ay + by) // 2
    across = {
        "net": "BUTTON_RED",
        "far": True,
        "x1_nm": mx - (by - ay) // 8,
        "y1_nm": my + (bx - ax) // 8,
        "x2_nm": mx + (by - ay) // 8,
        "y2_nm": my - (bx - ax) // 8,
        "width_nm": 1_000_000,
    }
    walled = edit(cut, kind="draw-tracks", board="main", tracks=[across])
    ((sentence, offered),) = opened(walled, library, "BUTTON_DOME")
    assert "tracks of BUTTON_RED that were drawn or kept by hand" in sentence
    given_back = {"kind": "release-nets", "board": "main", "nets": ["BUTTON_RED"]}
    assert given_back in offered
    freed = apply(walled, EDITS.validate_python(given_back))
    assert not opened(run_stage(freed, "routing", library), library, "BUTTON_DOME")


def test_a_part_is_moved_just_clear_of_the_way(finished: Design, library: Library) -> None:
    """A way straight through C2: what is offered is the least half millimetre across it that leaves
    its pads a track and a gap beside the way, on the board, off all others; a part of the brief is
    not moved.
    """
    view = board_view(finished, library)
    free = next(p for p in view.placement.parts if p.role == "decoupling 1")
    way = LineString([(free.x_nm - 9 * MM, free.y_nm), (free.x_nm + 9 * MM, free.y_nm)])
    repair = moved_aside(view, free.ref, way)
    assert repair
    moved = apply(finished, EDITS.validate_python(repair.edit))
    after = board_view(moved, library)
    least = view.rules.track_nm / 2 + view.rules.gap_nm
    apart = min(polygon_of(p.shape).distance(way) for p in after.pads if p.ref == free.ref)
    assert least <= apart < least + 500_000
    assert not [f for f in review(moved, library) if f.rule == "courtyards"]
    key = next(p for p in view.placement.parts if p.role == "button:dome")
    assert moved_aside(view, key.ref, way) is None


def test_an_open_way_has_no_walls(finished: Design, library: Library) -> None:
    """A link between two pads that see each other names nothing; the router's own tracks are named
    without an offer.
    """
    view = board_view(cut_apart(finished, "BUTTON_DOME"), library)
    (link,) = (k for k in open_links(view) if k.net == "BUTTON_DOME")
    walls = walls_of(view, link, finished.choices)
    assert all(w.takes_nm > 0 for w in walls)
    assert [w.takes_nm for w in walls] == sorted((w.takes_nm for w in walls), reverse=True)
    assert all(w.repair is None for w in walls if w.words.startswith("tracks of"))
    assert len(ways_to_free(walls, view, link)) <= 3
