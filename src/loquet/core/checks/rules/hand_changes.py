"""What was changed in the circuit by hand still fits what the recipes make."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """The changes that found nothing to change."""
    circuit = subject.circuit
    assert circuit is not None
    changes = subject.choices.by_hand
    if not changes:
        return NotApplicable("nothing was changed by hand")
    found = [
        RULE.finding(
            f"A change by hand does not fit any more. {words[:1].upper()}{words[1:]}.",
            "Take it back at the Circuit, or make it again.",
            (),
        )
        for words in circuit.misfits
    ]
    return outcome(found, len(changes))


RULE = Rule(
    "hand-changes",
    "circuit",
    "stop",
    "A wire that was drawn by hand and is gone is the one that nobody looks for.",
    Source(kind="computed", text="changes applied to the circuit as the recipes make it now"),
    run,
    ("circuit",),
)
