"""No track ends in the open."""

from collections.abc import Iterator

import shapely

from loquet.core.board import BoardView, Copper, Track
from loquet.core.board.areas import areas_of
from loquet.core.board.copper import FAR, NEAR
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import polygons_of
from loquet.core.provenance import NotApplicable, Outcome, Source

TOUCH_NM = 1_000


def run(subject: Subject) -> Outcome:
    """Look at both ends of every track: each touches a pad, a via, another track or the pour of its
    net.
    """
    view = subject.view
    assert view is not None
    tracks = view.routing.tracks if view.routing else ()
    if not tracks:
        return NotApplicable("nothing is routed")
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
    ends = [spot for t in tracks for spot in ((t.x1_nm, t.y1_nm), (t.x2_nm, t.y2_nm))]
    tree = shapely.STRtree(polygons_of([c.shape for c in copper]))
    pairs = tree.query(shapely.points(ends), predicate="dwithin", distance=TOUCH_NM).T.tolist()
    held = {
        end
        for end, index in pairs
        if index != first + end // 2 and touches(tracks[end // 2], copper[index])
    }
    for end, (x, y) in enumerate(ends):
        track = tracks[end // 2]
        if end not in held and not in_pour(view, track, x, y):
            yield track, x, y


def touches(track: Track, copper: Copper) -> bool:
    """Whether copper that lies at the end of a track is of its net and on its side."""
    return copper.net == track.net and (FAR if track.far else NEAR) in copper.sides


def in_pour(view: BoardView, track: Track, x: int, y: int) -> bool:
    """Whether a track ends in the pour of its own net."""
    disc = shapely.Point(x, y).buffer(track.width_nm / 2)
    return any(
        p.net == track.net and p.far == track.far and area.intersects(disc)
        for p, area in zip(view.poured, areas_of(view.poured), strict=True)
    )


RULE = Rule(
    "dangling-ends",
    "board",
    "look",
    "An end in the open is an aerial, and mostly a link that somebody forgot.",
    Source(kind="computed", text="what touches what, from exact shapes"),
    run,
    ("view",),
)
