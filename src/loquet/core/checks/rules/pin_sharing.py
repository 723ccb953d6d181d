"""Nothing hangs on a boot or programming pin that disturbs its other work."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.parts import ChipPin
from loquet.core.pins import Assignment, Need
from loquet.core.pins.needing import needs_of
from loquet.core.pins.options import is_debug
from loquet.core.pins.sharing import kind_of_load, sharing_rule
from loquet.core.provenance import Finding, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look at every assignment on a pin that has other work."""
    plan, chip = subject.plan, subject.chip
    assert plan is not None
    assert chip is not None
    needs = {need.signal: need for need in needs_of(subject.brief)}
    found = [
        finding
        for row in plan.assignments
        if not row.kind.startswith("debug") and row.signal in needs
        for finding in shared(row, needs[row.signal], chip.pin(row.pin))
    ]
    return outcome(found, len(plan.assignments))


def shared(row: Assignment, need: Need, pin: ChipPin) -> list[Finding]:
    """What the sharing rules say of one assignment."""
    works = [work for work, has in (("programming", is_debug(pin)), ("boot", pin.is_boot)) if has]
    rules = [rule for work in works if (rule := sharing_rule(work, kind_of_load(need)))]
    release = (
        (
            Repair(
                label=f"Release the lock of {row.title}",
                edit={"kind": "release-pin", "signal": row.signal},
            ),
        )
        if row.locked
        else ()
    )
    return [
        RULE.finding(
            f"The {row.title} is on pin {row.pin} ({pin.name}), which has other work ({rule.pin}):"
            f" {rule.why}.",
            (
                "Move it to another pin, or release its lock and solve again."
                if row.locked
                else "Lock it to another pin, or take a chip with a pin more."
            ),
            (f"pin:{row.pin}",),
            severity="stop" if rule.verdict == "stop" else "look",
            repairs=release,
        )
        for rule in rules
        if rule.verdict != "safe"
    ]


RULE = Rule(
    "pin-sharing",
    "pins",
    "stop",
    "A held key at a boot pin starts the loader; one on a programming pin blocks the probe.",
    Source(kind="common practice", text="the sharing table of core/pins/sharing.py, no source"),
    run,
    ("plan", "chip"),
)
