"""A pin order that was measured names the pins that the part has."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.lookup.project_library import misfit
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare every order with the pins of its part."""
    orders = subject.choices.pin_orders
    if not orders:
        return NotApplicable("no pin order was measured that differs")
    found = [
        RULE.finding(
            f"The pin order measured at {part} is not used: {why}.",
            "Measure it again with its card, or go back to the catalogue's.",
            (),
        )
        for part, order in sorted(orders.items())
        if (why := misfit(part, order, subject.library))
    ]
    return outcome(found, len(orders))


RULE = Rule(
    "measured-order",
    "parts",
    "stop",
    "An order that was typed wrongly is as bad as one that was assumed.",
    Source(kind="computed", text="the same pins, each once"),
    run,
)
