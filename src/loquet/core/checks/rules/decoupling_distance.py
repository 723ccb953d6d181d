"""Capacitors of the chip lie at their pins."""

from loquet.core.checks.beside import apart
from loquet.core.checks.rule import Rule, Subject
from loquet.core.provenance import Outcome, Source

PARTS, HOSTS, MOST_MM = ("capacitor",), ("chip",), 6.0


def run(subject: Subject) -> Outcome:
    """Measure from pad to pad, along the straight line."""
    return apart(RULE, subject, PARTS, HOSTS, MOST_MM)


RULE = Rule(
    "decoupling-distance",
    "board",
    "look",
    "A capacitor far from its pin has its track before it, and does not hold the supply still.",
    Source(kind="common practice", text="data sheets draw it at the pin; no source for the figure"),
    run,
    ("view",),
)
