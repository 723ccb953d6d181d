"""What somebody has for the other end of a connector mates with it, way for way."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.drawers.ends import end_lines
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare every half that was named with its connector."""
    circuit = subject.circuit
    assert circuit is not None
    lines = [line for line in end_lines(circuit, subject.choices, subject.library) if line.half]
    if not lines:
        return NotApplicable("no half was named for the other end of a connector")
    found = [
        RULE.finding(
            f"What you have for {line.ref} ({line.purpose}) does not mate:"
            f" {'; '.join(line.faults)}.",
            f"Take: {line.other_half}.",
            (f"part:{line.ref}",),
        )
        for line in lines
        if line.faults
    ]
    return outcome(found, len(lines))


RULE = Rule(
    "mating",
    "parts",
    "stop",
    "Connectors of one pitch and two families look alike and do not mate; a lead with the other"
    " polarity burns the board.",
    Source(
        kind="part drawing", text="family, pitch, ways, gender, side of contact and order of ways"
    ),
    run,
    ("circuit",),
)
