"""A short caution where cells are used."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """A note wherever there are cells."""
    caution = CAUTIONS.get(subject.brief.power.kind)
    if caution is None:
        return NotApplicable("the device has no cells of its own")
    return outcome(
        [
            RULE.finding(
                caution, "The cell maker's limits and local codes come first.", ("brief:power",)
            )
        ],
        1,
    )


CAUTIONS = {
    "two-aaa-cells": "Two AAA cells can heat a short circuit enough to burn: do not mix old and new cells, and take them out before soldering.",
    "lithium-cell": "A lithium cell can burn when it is shorted, pierced, bent, overcharged or heated: use one with its own protection, and keep it away "
    "from screws and heat.",
    "coin-cell": "A coin cell that is swallowed burns from inside within hours: close its lid with a screw where children may come near.",
    "nine-volt": "The two snaps of a nine-volt block touch one another easily: keep loose blocks capped, and take it out before soldering.",
}


RULE = Rule(
    "cell-safety",
    "brief",
    "note",
    "Cells can hurt.",
    Source(kind="common practice", text="usual caution for primary cells, no source"),
    run,
)
