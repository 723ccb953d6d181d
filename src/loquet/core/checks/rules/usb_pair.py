"""The two lines of USB are alike: as long, and on as many vias."""

from collections import defaultdict
from math import hypot

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.routing.pairs import MINUS, PLUS

MOST_MM = 10.0


def run(subject: Subject) -> Outcome:
    """Compare the lengths of tracks of every pair of USB nets."""
    view = subject.view
    assert view is not None
    length: dict[str, float] = defaultdict(float)
    for t in view.routing.tracks if view.routing else ():
        length[t.net] += hypot(t.x2_nm - t.x1_nm, t.y2_nm - t.y1_nm) / 1e6
    pairs = [
        (plus, plus.removesuffix(PLUS) + MINUS)
        for plus in sorted(length)
        if "USB" in plus and plus.endswith(PLUS) and plus.removesuffix(PLUS) + MINUS in length
    ]
    if not pairs:
        return NotApplicable("no USB pair is routed")
    found = [
        RULE.finding(
            f"{plus} has {length[plus]:.1f} mm of track and {minus} {length[minus]:.1f} mm:"
            f" {abs(length[plus] - length[minus]):.1f} mm apart, where {MOST_MM:g} mm are the"
            " most.",
            "Route both beside each other.",
            (f"net:{plus}", f"net:{minus}"),
        )
        for plus, minus in pairs
        if abs(length[plus] - length[minus]) > MOST_MM
    ]
    return outcome(found, len(pairs))


RULE = Rule(
    "usb-pair",
    "board",
    "look",
    "Edges that come at different times disturb the receiver, and radiate.",
    Source(
        kind="standard",
        text=(
            "USB 2.0 section 7.1.3: skew of a full-speed pair; 10 mm are some 60 ps, well below the"
            " edge of 4 ns; from memory"
        ),
    ),
    run,
    ("view",),
)
