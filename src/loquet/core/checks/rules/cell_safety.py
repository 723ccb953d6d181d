"""A short caution where cells are used."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """A note wherever there are cells."""
    found = [
        RULE.finding(
            t.CAUTION, "The cell maker's limits and local codes come first.", (thing(t.name),)
        )
        for t in subject.brief.things
        if t.CAUTION
    ]
    return outcome(found, 1) if found else NotApplicable("the device has no source that can hurt")


RULE = Rule(
    "cell-safety",
    "brief",
    "note",
    "Cells can hurt.",
    Source(kind="common practice", text="usual caution for primary cells, no source"),
    run,
)
