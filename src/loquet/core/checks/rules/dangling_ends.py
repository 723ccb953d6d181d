"""No track ends in the open."""

from collections.abc import Iterator

import shapely

from loquet.core.board import BoardView, Track
from loquet.core.board.copper import FAR, NEAR
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import polygons_of
from loquet.core.provenance import Outcome, Source

TOUCH_NM = 1_000


def run(subject: Subject) -> Outcome:
    """Look at both ends of every track: each touches a pad, a via, another track or the pour of its net."""
    view = subject.view
    assert view is not None
    tracks = view.routing.tracks if view.routing else ()
    found = [
        RULE.finding(
            f"A track of {track.net} ends in the open on the {FAR if track.far else NEAR} side.",
            "Take it out, or lead it on.",
            (f"net:{track.net}",),
            x,
            y,
        )
        for track, x, y in open_ends(view, tracks)
    ]
    return outcome(found, 2 * len(tracks))


def open_ends(view: BoardView, tracks: tuple[Track, ...]) -> Iterator[tuple[Track, int, int]]:
    """Ends of tracks that touch no other copper of their net on their side, in nm."""
    copper = (*view.pads, *view.wiring)
    first = len(view.pads)
    tree = shapely.STRtree(polygons_of([c.shape for c in copper]))
    poured = view.pour.pieces if view.pour else ()
    net = view.pour.net if view.pour else ""
    areas = {
        far: shapely.STRtree([shapely.Polygon(p.outer, p.holes) for p in poured if p.far is far])
        for far in (False, True)
    }
    for index, track in enumerate(tracks):
        side = FAR if track.far else NEAR
        for x, y in ((track.x1_nm, track.y1_nm), (track.x2_nm, track.y2_nm)):
            end = shapely.Point(x, y)
            held = any(
                i != first + index and copper[i].net == track.net and side in copper[i].sides
                for i in tree.query(end, predicate="dwithin", distance=TOUCH_NM).tolist()
            )
            disc = end.buffer(track.width_nm / 2)
            if not held and track.net == net:
                held = len(areas[track.far].query(disc, predicate="intersects")) > 0
            if not held:
                yield track, x, y


RULE = Rule(
    "dangling-ends",
    "board",
    "look",
    "An end in the open is an aerial, and mostly a link that somebody forgot.",
    Source(kind="computed", text="what touches what, from exact shapes"),
    run,
    ("view",),
)
