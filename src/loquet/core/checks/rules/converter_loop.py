"""Coil and capacitors of a converter lie at its pins."""

from loquet.core.checks.beside import apart
from loquet.core.checks.rule import Rule, Subject
from loquet.core.provenance import Outcome, Source

PARTS, HOSTS, MOST_MM = (
    ("inductor", "capacitor"),
    ("buck converter", "boost converter", "buck-boost converter"),
    6.0,
)


def run(subject: Subject) -> Outcome:
    """Measure from pad to pad, along the straight line."""
    return apart(RULE, subject, PARTS, HOSTS, MOST_MM)


RULE = Rule(
    "converter-loop",
    "board",
    "look",
    "The current of a switching converter jumps in the loop of its coil and capacitors: a large"
    " loop radiates.",
    Source(kind="common practice", text="layout guides of converters; no source for the figure"),
    run,
    ("view",),
)
