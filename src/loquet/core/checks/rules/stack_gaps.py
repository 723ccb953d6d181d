"""Nothing in the shell runs into anything else, and everything keeps a little room."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.stacked import stack_seen
from loquet.core.provenance import Finding, Outcome, Source
from loquet.core.quantities.lengths import MM
from loquet.core.stack.model import Gap


def run(subject: Subject) -> Outcome:
    """Look at every gap that has nothing to do with a soft cell; a part under a wall whose room was
    measured is what `room-above` says.
    """
    stack = stack_seen(subject)
    soft = {p.words for p in stack.pieces if p.soft}
    gaps = [g for g in stack.gaps if not soft & {g.one, g.other}]
    return outcome([said(gap) for gap in gaps if gap.mm < gap.least_mm - 1e-9], len(gaps))


def said(gap: Gap) -> Finding:
    """A gap that is too small, or less than nothing."""
    way_out = "Move one of them, take a lower one, or give the shell more room."
    if gap.mm < 0 or (gap.mm == 0 and gap.way == "side by side"):
        deep = f" by {-gap.mm:.2f} mm" if gap.mm < 0 else ""
        sentence = f"{upper(gap.one)} runs into {gap.other}{deep}."
        severity = "stop"
    else:
        sentence = (
            f"Between {gap.one} and {gap.other} there are {gap.mm:.2f} mm; {gap.least_mm:.1f} mm"
            " are usual."
        )
        severity = "look"
    return RULE.finding(
        sentence,
        way_out,
        gap.about,
        gap.x_mm * MM,
        gap.y_mm * MM,
        severity="stop" if severity == "stop" else "look",
    )


def upper(words: str) -> str:
    """The words at the start of a sentence."""
    return words[0].upper() + words[1:]


RULE = Rule(
    "stack-gaps",
    "stack",
    "stop",
    "What touches inside is found when the shell does not close.",
    Source(
        kind="common practice",
        text="0.2 mm between bodies, no source; heights by the drawings of parts",
    ),
    run,
    ("view",),
)
