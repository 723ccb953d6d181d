"""No connector is opened more often than it is made for."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.drawers.ends import end_lines
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Hold how often each will be opened against its rating."""
    circuit = subject.circuit
    assert circuit is not None
    lines = [
        (line, line.half.opened)
        for line in end_lines(circuit, subject.choices, subject.library)
        if line.half and line.half.opened
    ]
    if not lines:
        return NotApplicable("nobody has said how often a connector will be opened")
    found = [
        RULE.finding(
            f"{line.ref} ({line.purpose}) will be opened {opened} times, and is made for"
            f" {line.end.cycles} ({line.end.source}).",
            "Take a connector that lasts longer, or solder it and leave the other end to be"
            " opened.",
            (f"part:{line.ref}",),
        )
        for line, opened in lines
        if opened > line.end.cycles
    ]
    return outcome(found, len(lines))


RULE = Rule(
    "mating-cycles",
    "parts",
    "look",
    "A ribbon connector that is opened for every test fails after a few.",
    Source(kind="from memory", text="usual ratings by family; the maker's drawing comes first"),
    run,
    ("circuit",),
)
