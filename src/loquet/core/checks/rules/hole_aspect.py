"""Plated holes are not too deep for their width."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source

MOST = 8.0


def run(subject: Subject) -> Outcome:
    """Compare the thickness of the board with its narrowest plated hole."""
    view = subject.view
    assert view is not None
    plated = sorted((h for h in view.holes if h.plated), key=lambda h: h.d)
    thick = subject.brief.making.thickness_um * 1000
    found = [
        RULE.finding(
            f"The hole of {hole.owner} is {thick / hole.d:.1f} times as deep as wide; {MOST:g}"
            " times are plated safely.",
            "Take a thinner board or larger holes.",
            (),
            hole.x,
            hole.y,
        )
        for hole in plated[:1]
        if thick > MOST * hole.d
    ]
    return outcome(found, len(plated))


RULE = Rule(
    "hole-aspect",
    "board",
    "look",
    "The wall of a deep narrow hole gets little copper and tears when it is heated.",
    Source(
        kind="common practice",
        text="houses plate up to 8 or 10 times; IPC-2221 section 9.2 speaks of the aspect ratio",
    ),
    run,
    ("view",),
)
