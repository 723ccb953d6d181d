"""Track widths, holes, rings, hole distances and board size are within what the house makes."""

from math import hypot

import numpy as np
import shapely

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import Bar, Box, Round, Shape
from loquet.core.geometry.neighbours import near_pairs
from loquet.core.provenance import Finding, Outcome, Source
from loquet.core.quantities.lengths import show_mm


def run(subject: Subject) -> Outcome:
    """Compare each with the house's limit."""
    view = subject.view
    assert view is not None
    found: list[Finding] = []
    for track in view.routing.tracks if view.routing else ():
        if track.width_nm < view.rules.track_nm:
            found.append(
                RULE.finding(
                    f"A track of {track.net} is {show_mm(track.width_nm)} wide;"
                    f" {subject.house.name} asks {show_mm(view.rules.track_nm)}.",
                    "Route again.",
                    (f"net:{track.net}",),
                    track.x1_nm,
                    track.y1_nm,
                )
            )
    for copper in (*view.pads, *view.wiring):
        ring = ring_nm(copper.shape, copper.drill_nm)
        if copper.drill_nm and ring < view.rules.ring_nm:
            found.append(
                RULE.finding(
                    f"The ring of {copper.owner} is {show_mm(ring)}; {subject.house.name} asks"
                    f" {show_mm(view.rules.ring_nm)}.",
                    "Choose a part with larger pads, or another house.",
                    (f"net:{copper.net}",),
                    copper.drill_x,
                    copper.drill_y,
                )
            )
    found += hole_findings(subject)
    left, bottom, right, top = view.outline.bounds
    size = sorted(((right - left) / 1e6, (top - bottom) / 1e6))
    least, most = sorted(subject.house.smallest_mm), sorted(subject.house.largest_mm)
    if size[0] < least[0] or size[1] < least[1] or size[0] > most[0] or size[1] > most[1]:
        found.append(
            RULE.finding(
                f"The board is {size[1]:.2f} x {size[0]:.2f} mm, outside what {subject.house.name}"
                " makes.",
                "Choose another house or outline.",
            )
        )
    return outcome(found, len(view.holes))


def hole_findings(subject: Subject) -> list[Finding]:
    """Holes too small or too near to each other."""
    view = subject.view
    assert view is not None
    found: list[Finding] = []
    if not view.holes:
        return found
    for hole in view.holes:
        if hole.d < view.rules.hole_nm:
            found.append(
                RULE.finding(
                    f"The hole of {hole.owner} is {show_mm(hole.d)}; {subject.house.name} drills"
                    f" {show_mm(view.rules.hole_nm)} and up.",
                    "Choose another part or house.",
                    (),
                    hole.x,
                    hole.y,
                )
            )
    spots = shapely.points([(hole.x, hole.y) for hole in view.holes])
    reach = np.array([(hole.d + view.rules.hole_gap_nm) / 2 for hole in view.holes])
    for one, two in zip(*near_pairs(spots, reach), strict=True):
        other, hole = view.holes[one], view.holes[two]
        gap = hypot(hole.x - other.x, hole.y - other.y) - hole.d / 2 - other.d / 2
        if gap < view.rules.hole_gap_nm - 1:
            found.append(
                RULE.finding(
                    f"The holes of {hole.owner} and {other.owner} are {show_mm(max(gap, 0))} apart;"
                    f" {subject.house.name} asks {show_mm(view.rules.hole_gap_nm)}.",
                    "Move one of them.",
                    (),
                    hole.x,
                    hole.y,
                )
            )
    return found


def ring_nm(shape: Shape, drill_nm: int) -> int:
    """Least copper around a hole in the middle of a pad."""
    match shape:
        case Round():
            return (shape.d - drill_nm) // 2
        case Box():
            return (min(shape.w, shape.h) - drill_nm) // 2
        case Bar():
            return (shape.w - drill_nm) // 2


RULE = Rule(
    "house-limits",
    "board",
    "stop",
    "The rules are those of the house that makes the board.",
    Source(kind="house rules", text="limits of the chosen house"),
    run,
    ("view",),
)
