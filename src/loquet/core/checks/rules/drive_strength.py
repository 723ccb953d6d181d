"""Pins that must drive hard are known to be able to."""

from loquet.core.checks.rule import Rule, Subject
from loquet.core.pins.needing import needs_of
from loquet.core.provenance import NotApplicable, Outcome, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """The open data set has no drive strengths, so every hard-driven line is something to look
    at.
    """
    hard = [need for need in needs_of(subject.brief) if need.kind == "high drive"]
    if not hard:
        return NotApplicable("nothing is driven hard")
    sentence = (
        f"{len(hard)} lines must drive hard ({hard[0].title} and on), and what the pins can drive"
        " is not known."
    )
    return Undetermined(
        (
            RULE.finding(
                sentence,
                "Read it in the data sheet, or put a transistor at each line.",
                (hard[0].signal,),
            ),
        )
    )


RULE = Rule(
    "drive-strength",
    "pins",
    "look",
    "A pin that drives too hard sags or dies.",
    Source(kind="open data", text="the data set has no drive strengths"),
    run,
    ("share",),
)
