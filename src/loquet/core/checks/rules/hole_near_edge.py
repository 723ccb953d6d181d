"""Holes keep a bridge of board to its edge."""

import shapely

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source
from loquet.core.quantities.lengths import MM

LEAST_MM = 0.5


def run(subject: Subject) -> Outcome:
    """Measure from the edge of every hole to the edge of the board and of its openings."""
    view = subject.view
    assert view is not None
    line = view.outline.boundary
    found = []
    for hole in view.holes:
        gap = shapely.Point(hole.x, hole.y).distance(line) - hole.d / 2
        if 0 < gap < LEAST_MM * MM:
            found.append(
                RULE.finding(
                    f"Between the hole of {hole.owner} and the edge {gap / MM:.2f} mm of the board"
                    f" are left; {LEAST_MM:g} mm hold.",
                    "Move it inwards.",
                    (),
                    hole.x,
                    hole.y,
                )
            )
    return outcome(found, len(view.holes))


RULE = Rule(
    "hole-near-edge",
    "board",
    "look",
    "A thin bridge breaks out when the board is cut or screwed down.",
    Source(kind="common practice", text="half a millimetre of FR-4; no source"),
    run,
    ("view",),
)
