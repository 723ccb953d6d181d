"""No pin gets more voltage than is known to be safe for it."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.needing import needs_of
from loquet.core.provenance import Failed, NotApplicable, Outcome, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Look at the pins of signals that bring more than the rail; what no data says stays unknown."""
    plan, chip = subject.plan, subject.chip
    assert plan is not None
    assert chip is not None
    high = [need for need in needs_of(subject.brief) if need.level_v is not None]
    if not high:
        return NotApplicable("no signal is above the rail")
    unknown, wrong = [], []
    for need in high:
        row = plan.of(need.signal)
        takes = chip.pin(row.pin).five_volt if row else None
        if takes is False:
            wrong.append(
                RULE.finding(
                    f"The {need.title} brings {need.level_v:g} V to a pin that does not take it.",
                    "Put a divider before it.",
                )
            )
        elif takes is None:
            sentence = f"The {need.title} brings up to {need.level_v:g} V, and whether its pin takes that is not known."
            unknown.append(
                RULE.finding(
                    sentence,
                    "Put a divider before it, or read the pin's limit in the data sheet.",
                    (need.signal,),
                    severity="look",
                )
            )
    if wrong:
        return Failed((*wrong, *unknown))
    return Undetermined(tuple(unknown)) if unknown else outcome([], len(high))


RULE = Rule(
    "pin-voltage",
    "pins",
    "stop",
    "5 V into a pin that takes 3.3 V ends the chip.",
    Source(kind="open data", text="the data set says nothing of 5 V; a user's own table may"),
    run,
    ("plan", "chip"),
)
