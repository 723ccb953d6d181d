"""Nothing risky hangs on pins that the chip reads at start."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at every assignment on a boot pin."""
    plan, chip = subject.plan, subject.chip
    assert plan is not None
    assert chip is not None
    found = []
    for row in plan.assignments:
        if chip.pin(row.pin).is_boot and not row.kind.startswith("debug"):
            found.append(
                RULE.finding(
                    f"The {row.title} is on pin {row.pin} ({chip.pin(row.pin).name}), which the chip reads when it starts.",
                    "Move it to another pin, or do not hold it while switching on.",
                    (f"pin:{row.pin}",),
                )
            )
    return outcome(found, len(plan.assignments))


RULE = Rule(
    "boot-sharing", "pins", "look", "A held key at a boot pin starts the loader in place of the program.",
    Source(kind="common practice", text="sharing of boot pins, no source"), run, ("plan", "chip"),
)  # fmt: skip
