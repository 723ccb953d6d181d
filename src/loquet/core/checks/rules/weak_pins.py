"""No light or sounder hangs on a pin that gives next to nothing."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.needing import needs_of
from loquet.core.pins.options import LIT_LOADS, WEAK_PLATFORM, WEAK_PORTS
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at what the plan puts on them."""
    plan, chip = subject.plan, subject.chip
    assert plan is not None
    assert chip is not None
    if not chip.name.startswith(WEAK_PLATFORM):
        return NotApplicable("no pin of this family is known to be weak")
    loads = {need.signal: need.load for need in needs_of(subject.brief)}
    rows = [row for row in plan.assignments if row.port in WEAK_PORTS]
    found = [
        RULE.finding(
            f"{row.title} is on pin {row.pin} ({row.port}), which gives 3 mA as a sink and may feed"
            " nothing.",
            "Lock it to another pin.",
            (f"pin:{row.pin}",),
        )
        for row in rows
        if loads.get(row.signal) in LIT_LOADS
    ]
    return outcome(found, len(rows))


RULE = Rule(
    "weak-pins",
    "pins",
    "look",
    "A light on such a pin stays dark, and the clock beside it stumbles.",
    Source(
        kind="from memory",
        text="data sheets of the family: PC13 to PC15 are fed through the power switch",
    ),
    run,
    ("plan", "chip"),
)
