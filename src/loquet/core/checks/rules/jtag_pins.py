"""Pins that come out of reset as a debug port are known to the firmware."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source

AFTER_RESET = {"PA15": "JTDI, pulled up", "PB3": "JTDO, driven", "PB4": "NJTRST, pulled up"}
FAMILY = "stm32f1"


def run(subject: Subject) -> Outcome:
    """Look at what the plan puts on them."""
    plan, chip = subject.plan, subject.chip
    assert plan is not None
    assert chip is not None
    if not chip.name.startswith(FAMILY):
        return NotApplicable("this family gives its debug pins back by their mode")
    rows = [row for row in plan.assignments if row.port in AFTER_RESET]
    return outcome(
        [
            RULE.finding(
                f"{row.title} is on pin {row.pin} ({row.port}), which comes out of reset as"
                f" {AFTER_RESET[row.port]}.",
                "Switch the five-wire debug port off first thing in the firmware, or lock it to"
                " another pin.",
                (f"pin:{row.pin}",),
            )
            for row in rows
        ],
        len(rows),
    )


RULE = Rule(
    "jtag-pins",
    "pins",
    "note",
    "A pin that the firmware never gets looks like a broken track.",
    Source(kind="from memory", text="reference manual of the family: AFIO_MAPR, SWJ_CFG"),
    run,
    ("plan", "chip"),
)
