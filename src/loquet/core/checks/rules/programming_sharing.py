"""Nothing that blocks programming hangs on the programming pins."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.options import is_debug
from loquet.core.pins.sharing import kind_of_load, sharing_rule
from loquet.core.provenance import Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look at every lock and assignment on a debug pin that is not the probe's."""
    plan, chip = subject.plan, subject.chip
    assert plan is not None
    assert chip is not None
    found = []
    for row in plan.assignments:
        if row.kind.startswith("debug") or not is_debug(chip.pin(row.pin)):
            continue
        rule = sharing_rule("programming", kind_of_load(row.signal, row.kind))
        if rule is None or rule.verdict == "safe":
            continue
        found.append(
            RULE.finding(
                f"The {row.title} shares pin {row.pin} with programming: {rule.why}.",
                "Release its lock and solve again; another pin is free to take it.",
                (f"pin:{row.pin}",),
                severity="stop" if rule.verdict == "stop" else "look",
                repairs=(Repair(label=f"Release the lock of {row.title}", edit={"kind": "release-pin", "signal": row.signal}),),
            )
        )
    return outcome(found, len(plan.assignments))


RULE = Rule(
    "programming-sharing", "pins", "stop", "A held key on a programming pin blocks the probe; programming pulses make a sounder beep.",
    Source(kind="common practice", text="sharing of programming pins, no source"), run, ("plan", "chip"),
)  # fmt: skip
