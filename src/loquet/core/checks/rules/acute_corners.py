"""Tracks of one net meet at right angles or wider."""

from collections import defaultdict
from itertools import combinations
from math import acos, degrees, hypot

from loquet.core.board import Copper, Track
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import Round, gap_between
from loquet.core.provenance import Outcome, Source

LEAST_DEG = 60.0
Point = tuple[int, int]


def run(subject: Subject) -> Outcome:
    """Measure the angle between tracks that end in one point and nothing covers."""
    view = subject.view
    assert view is not None
    tracks = view.routing.tracks if view.routing else ()
    covered = {(v.x_nm, v.y_nm) for v in (view.routing.vias if view.routing else ())}
    ends: dict[tuple[str, bool, int, int], list[Track]] = defaultdict(list)
    for track in tracks:
        for x, y in ((track.x1_nm, track.y1_nm), (track.x2_nm, track.y2_nm)):
            if (x, y) not in covered:
                ends[track.net, track.far, x, y].append(track)
    found = [
        RULE.finding(
            f"Tracks of {net} meet at {angle:.0f}°.",
            "Cut the corner.",
            (f"net:{net}",),
            x,
            y,
        )
        for (net, _, x, y), meeting in ends.items()
        for one, other in combinations(meeting, 2)
        if (angle := between(one, other, (x, y))) < LEAST_DEG and not in_a_pad(view.pads, net, x, y)
    ]
    return outcome(found, len(ends))


def between(one: Track, other: Track, at: Point) -> float:
    """The angle in degrees between two tracks that leave a point; 180 for a straight line."""
    (ax, ay), (bx, by) = (away(t, at) for t in (one, other))
    long = hypot(ax, ay) * hypot(bx, by)
    return degrees(acos(max(-1.0, min(1.0, (ax * bx + ay * by) / long)))) if long else 180.0


def away(track: Track, at: Point) -> Point:
    """The way from a point to the other end of a track."""
    x, y = at
    if (track.x1_nm, track.y1_nm) == at:
        return track.x2_nm - x, track.y2_nm - y
    return track.x1_nm - x, track.y1_nm - y


def in_a_pad(pads: tuple[Copper, ...], net: str, x: int, y: int) -> bool:
    """Whether a point lies on a pad of its net, which fills the corner."""
    spot = Round(x, y, 0)
    return any(p.net == net and gap_between(p.shape, spot) <= 0 for p in pads)


RULE = Rule(
    "acute-corners",
    "board",
    "note",
    "Etching liquid stays in a sharp corner and eats the track.",
    Source(
        kind="common practice",
        text="no angles below 90 degrees between tracks; IPC-2221 section 6.2 in spirit",
    ),
    run,
    ("view",),
)
