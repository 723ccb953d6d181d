"""What was bought in place of something else is said, so that it is the first to be swapped when a
device misbehaves.
"""

from loquet.core.checks.rule import Rule, Subject
from loquet.core.provenance import Failed, NotApplicable, Outcome, Passed, Source


def run(subject: Subject) -> Outcome:
    """Every line whose part was substituted."""
    bought = subject.choices.bought
    if not bought:
        return NotApplicable("nothing is said of what was really bought")
    found = tuple(
        RULE.finding(
            f"{row.maker_part} was bought in place of {line}.",
            "Build one device with it before the others; where that resets or fails, swap this part"
            " first.",
            (),
        )
        for line, row in sorted(bought.items())
        if row.substitute
    )
    return Failed(found) if found else Passed(len(bought))


RULE = Rule(
    "substituted",
    "parts",
    "look",
    "A card or a cell of another brand can reset the device, and nobody remembers that it is"
    " another one.",
    Source(kind="common practice", text="no source"),
    run,
)
