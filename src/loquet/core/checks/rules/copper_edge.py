"""Copper keeps away from the board's edge and from screw heads and pegs."""

import shapely

from loquet.core.board.openings import kept_free
from loquet.core.checks.measuring import both_sides, nearest_to
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source
from loquet.core.quantities.lengths import show_mm


def run(subject: Subject) -> Outcome:
    """Measure all copper against the outline and all unplated holes."""
    view = subject.view
    assert view is not None
    found, counted = [], 0
    line = view.outline.boundary
    kept = [k for k in kept_free(view.brief, view.board) if k.copper]
    bare = [(h, shapely.Point(h.x, h.y)) for h in view.holes if not h.plated]
    for side, things in both_sides(view):
        counted += len(things)
        for thing, gap in nearest_to(things, line, view.rules.edge_nm - 1_000):
            place = thing.core.centroid
            found.append(
                RULE.finding(
                    f"{thing.name} ({thing.net or 'no net'}) is {show_mm(max(gap, 0))} from the"
                    f" board's edge; {subject.house.name} asks {show_mm(view.rules.edge_nm)}.",
                    "Move it inwards.",
                    (f"net:{thing.net}",),
                    place.x,
                    place.y,
                )
            )
        for area in kept:
            for thing, gap in nearest_to(things, area.area, 1.0):
                if gap < -1 or thing.core.intersects(area.area):
                    found.append(
                        RULE.finding(
                            f"{thing.name} ({thing.net or 'no net'}) lies in '{area.thing}', which"
                            " is kept free of copper.",
                            "Move one of them.",
                            (f"net:{thing.net}",),
                            area.area.centroid.x,
                            area.area.centroid.y,
                        )
                    )
        for hole, point in bare:
            for thing, _ in nearest_to(things, point, hole.keep_nm - 1_000):
                words = (
                    "under the screw head"
                    if hole.keep_nm > hole.d
                    else "too near the unplated hole"
                )
                found.append(
                    RULE.finding(
                        f"{thing.name} ({thing.net or 'no net'}) lies {words} of {hole.owner} on"
                        f" the {side} side.",
                        "Move the part or the hole.",
                        (f"net:{thing.net}",),
                        hole.x,
                        hole.y,
                    )
                )
    return outcome(found, counted)


RULE = Rule(
    "copper-edge",
    "board",
    "stop",
    "The cutter and the screws must not reach copper.",
    Source(kind="house rules", text="copper to edge of the chosen house; screw heads by ISO 7045"),
    run,
    ("view",),
)
