"""Protections that somebody decided to do without are named, with the reason."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit.by_hand import LeaveOut
from loquet.core.circuit.protecting import left_out
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at the changes by hand."""
    changes = subject.choices.by_hand
    decided = [c for c in changes if isinstance(c, LeaveOut)]
    if not decided:
        return NotApplicable("no protection was left out")
    found = [
        RULE.finding(
            f"The {row.title} is left out, which would keep off {row.against}: {row.reason}",
            "Put it back at Power, unless the reason still holds.",
            (thing(row.thing),) if row.thing else (),
        )
        for row in left_out(subject.brief, changes)
    ]
    return outcome(found, len(decided))


RULE = Rule(
    "left-out",
    "power",
    "look",
    "Who builds or mends a device has to know what does not protect it.",
    Source(kind="computed", text="decisions of this project"),
    run,
    ("circuit",),
)
