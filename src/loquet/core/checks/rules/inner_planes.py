"""Inner planes keep away from holes of other nets and from the edge, and hang together."""

import shapely

from loquet.core.board.areas import areas_of
from loquet.core.board.copper import BoardView
from loquet.core.board.model import Plane
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import show_mm


def run(subject: Subject) -> Outcome:
    """Measure every plane against all holes of other nets and the outline, and count its pieces."""
    view = subject.view
    assert view is not None
    planes = view.pour.planes if view.pour else ()
    if not planes:
        return NotApplicable("no board with inner planes is poured")
    found: list[Finding] = []
    for plane in planes:
        found += near_holes(subject, view, plane)
        found += near_edge(subject, view, plane)
        if len(plane.pieces) != 1:
            words = f"falls into {len(plane.pieces)} pieces" if plane.pieces else "is not there"
            found.append(
                RULE.finding(
                    f"The plane of {plane.net} {words}.",
                    "Move holes apart, so that it flows between them, or let tracks join its"
                    " pieces.",
                    (f"net:{plane.net}",),
                    severity="look",
                )
            )
    return outcome(found, len(planes))


def near_holes(subject: Subject, view: BoardView, plane: Plane) -> list[Finding]:
    """Holes of other nets, or without one, nearer to a plane than the house's gap."""
    others = [h for h in view.holes if not h.plated or h.net != plane.net]
    if not others:
        return []
    tree = shapely.STRtree(shapely.points([(h.x, h.y) for h in others]))
    reach = view.rules.gap_nm + max(h.d for h in others) / 2
    found = []
    for area in areas_of(plane.pieces):
        for index in sorted(tree.query(area, predicate="dwithin", distance=reach).tolist()):
            hole = others[index]
            gap = area.distance(shapely.Point(hole.x, hole.y)) - hole.d / 2
            if gap < view.rules.gap_nm - 1:
                found.append(
                    RULE.finding(
                        f"The hole of {hole.owner} ({hole.net or 'no net'}) is"
                        f" {show_mm(max(gap, 0))} from the plane of {plane.net};"
                        f" {subject.house.name} asks {show_mm(view.rules.gap_nm)}.",
                        "Pour again.",
                        (f"net:{plane.net}",),
                        hole.x,
                        hole.y,
                    )
                )
    return found


def near_edge(subject: Subject, view: BoardView, plane: Plane) -> list[Finding]:
    """Planes that come too near to where the board is cut."""
    line, asked = view.outline.boundary, view.rules.edge_nm
    gaps = [area.distance(line) for area in areas_of(plane.pieces)]
    if not gaps or min(gaps) >= asked - 1_000:
        return []
    return [
        RULE.finding(
            f"The plane of {plane.net} is {show_mm(min(gaps))} from the board's edge;"
            f" {subject.house.name} asks {show_mm(asked)}.",
            "Pour again.",
            (f"net:{plane.net}",),
        )
    ]


RULE = Rule(
    "inner-planes",
    "board",
    "stop",
    "Nobody sees a short circuit inside a board.",
    Source(kind="house rules", text="least gap and distance to the edge of the chosen house"),
    run,
    ("view",),
)
