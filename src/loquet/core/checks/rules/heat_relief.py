"""Ground pads that are soldered by hand hang on spokes, and on two at least."""

import shapely

from loquet.core.board.pouring import relieved, spokes_of
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Bar, gap_between
from loquet.core.provenance import NotApplicable, Outcome, Source

LEAST_SPOKES = 2


def run(subject: Subject) -> Outcome:
    """Count the ends of the spokes of every through-hole ground pad that lie in the pour, on both sides together, and the ground tracks that reach it."""
    view = subject.view
    assert view is not None
    if view.pour is None:
        return NotApplicable("nothing is poured")
    poured = {
        far: shapely.union_all(
            [shapely.Polygon(p.outer, p.holes) for p in view.pour.pieces if p.far is far]
        )
        for far in (False, True)
    }
    for area in poured.values():
        shapely.prepare(area)
    pads = [p for p in view.pads if p.net == GROUND and p.drill_nm and relieved(p)]
    tracks = [w.shape for w in view.wiring if w.net == GROUND and isinstance(w.shape, Bar)]
    found = []
    for pad in pads:
        ends = [(x, y) for bar in spokes_of(pad) for x, y in ((bar.x1, bar.y1), (bar.x2, bar.y2))]
        count = sum(
            bool(area.intersects(shapely.Point(end).buffer(20_000)))
            for area in poured.values()
            for end in ends
        )
        count += sum(gap_between(pad.shape, track) <= 0 for track in tracks)
        if ends and count < LEAST_SPOKES:
            found.append(
                RULE.finding(
                    f"{pad.owner} hangs on the ground by {count} of {2 * len(ends)} spokes.",
                    "Make room around it.",
                    (f"part:{pad.ref}",),
                    pad.drill_x,
                    pad.drill_y,
                )
            )
    return outcome(found, len(pads))


RULE = Rule(
    "heat-relief",
    "board",
    "look",
    "A pad on one thin spoke breaks off, and its current has one way only.",
    Source(kind="common practice", text="two spokes of four at least; no source"),
    run,
    ("view",),
)
