"""Large ceramic capacitors keep off the edge and the screws, where the board bends."""

import shapely
from shapely.geometry.base import BaseGeometry

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import polygon_of
from loquet.core.lookup.panelling import large_ceramics
from loquet.core.provenance import Outcome, Source
from loquet.core.quantities.lengths import MM

LEAST_MM = 1.0


def run(subject: Subject) -> Outcome:
    """Measure from the body of every capacitor longer than 1.8 mm to the edge and to the screws."""
    view, circuit = subject.view, subject.circuit
    assert view is not None
    assert circuit is not None
    edges: list[BaseGeometry] = [view.outline.boundary]
    edges += [
        shapely.Point(h.x, h.y).buffer(h.d / 2)
        for h in view.holes
        if not h.plated and h.keep_nm > h.d
    ]
    found = []
    large = large_ceramics(view, subject.library)
    for component in (c for c in view.circuit.components if c.ref in large):
        seat, body = view.seats[component.ref], view.patterns[component.ref].body
        away = min(edge.distance(polygon_of(seat.shape(body))) for edge in edges)
        if away < LEAST_MM * MM:
            found.append(
                RULE.finding(
                    f"{component.ref} ({component.purpose}) stands {away / MM:.2f} mm from the edge"
                    f" or a screw; {LEAST_MM:g} mm are the least.",
                    "Move it inwards, or turn it along the edge.",
                    (f"part:{component.ref}",),
                    seat.x,
                    seat.y,
                )
            )
    return outcome(found, len(large))


RULE = Rule(
    "caps-at-edge",
    "board",
    "look",
    "A ceramic capacitor cracks where the board bends, and then it is a short.",
    Source(
        kind="common practice",
        text=(
            "makers of ceramic capacitors ask for distance from edges that are broken off; no"
            " source for the figure"
        ),
    ),
    run,
    ("circuit", "view"),
)
