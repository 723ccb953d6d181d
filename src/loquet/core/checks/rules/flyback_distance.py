"""The diode of a coil lies at the coil."""

from loquet.core.checks.beside import apart
from loquet.core.checks.rule import Rule, Subject
from loquet.core.provenance import Outcome, Source

PARTS, HOSTS, MOST_MM = ("diode",), ("buzzer", "wire plug", "NPN transistor"), 10.0


def run(subject: Subject) -> Outcome:
    """Measure from pad to pad, along the straight line."""
    return apart(RULE, subject, PARTS, HOSTS, MOST_MM)


RULE = Rule(
    "flyback-distance",
    "board",
    "look",
    "The spike of a coil runs along the track before its diode takes it.",
    Source(kind="common practice", text="the diode stands at the coil; no source for the figure"),
    run,
    ("view",),
)
