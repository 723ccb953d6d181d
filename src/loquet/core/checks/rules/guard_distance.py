"""Guard arrays lie at their plugs."""

from loquet.core.checks.beside import apart
from loquet.core.checks.rule import Rule, Subject
from loquet.core.provenance import Outcome, Source

PARTS, HOSTS, MOST_MM = (
    ("guard array",),
    ("USB-C socket", "USB socket", "headphone socket", "card socket"),
    15.0,
)


def run(subject: Subject) -> Outcome:
    """Measure from pad to pad, along the straight line."""
    return apart(RULE, subject, PARTS, HOSTS, MOST_MM)


RULE = Rule(
    "guard-distance",
    "board",
    "look",
    "A discharge goes on past a guard that lies far from the plug.",
    Source(
        kind="common practice",
        text="guard arrays stand at the plug, before anything else; no source for the figure",
    ),
    run,
    ("view",),
)
