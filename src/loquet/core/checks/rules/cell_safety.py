"""A short caution where cells are used."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Always a note: the brief has cells."""
    return outcome(
        [
            RULE.finding(
                "Two AAA cells can heat a short circuit enough to burn: do not mix old and new cells, and take them out before soldering.",
                "The cell maker's limits and local codes come first.", ("brief:power",),
            )
        ], 1,
    )  # fmt: skip


RULE = Rule(
    "cell-safety", "brief", "note", "Cells can hurt.", Source(kind="common practice", text="usual caution for primary cells, no source"), run,
)  # fmt: skip
