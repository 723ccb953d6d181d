"""Capacitors of a crystal lie at its pins."""

from loquet.core.checks.beside import apart
from loquet.core.checks.rule import Rule, Subject
from loquet.core.provenance import Outcome, Source

PARTS, HOSTS, MOST_MM = ("crystal", "clock crystal", "capacitor"), ("crystal", "clock crystal"), 8.0


def run(subject: Subject) -> Outcome:
    """Measure from pad to pad, along the straight line."""
    return apart(RULE, subject, PARTS, HOSTS, MOST_MM)


RULE = Rule(
    "crystal-distance",
    "board",
    "look",
    "Long tracks of a crystal pick up noise and change its load.",
    Source(
        kind="common practice",
        text="application notes on oscillators ask for short tracks; no source for the figure",
    ),
    run,
    ("view",),
)
