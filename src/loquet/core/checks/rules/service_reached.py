"""What is reached for can be reached when it is needed."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.stacked import stack_seen
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM
from loquet.core.stack.reaching import reached_things


def run(subject: Subject) -> Outcome:
    """Look at every thing with a service in the state in which it is wanted."""
    view = subject.view
    assert view is not None
    stack = stack_seen(subject)
    rows = list(reached_things(view, subject.library, stack, subject.choices.stack))
    if not rows:
        return NotApplicable("nothing on this board is reached for")
    found = [
        RULE.finding(
            f"{row.words[0].upper() + row.words[1:]} is not possible with the shell"
            f" {'closed' if row.closed else 'open'}: {row.ref} of {row.thing} is not reached,"
            f" {row.how}.",
            "Move it to the edge or under an opening, or take a kind that comes through the wall.",
            (thing(row.thing), f"part:{row.ref}"),
            row.x_mm * MM,
            row.y_mm * MM,
        )
        for row in rows
        if not row.reached
    ]
    return outcome(found, len(rows))


RULE = Rule(
    "service-reached",
    "stack",
    "look",
    "A switch behind a wall means opening the device whenever it is used.",
    Source(kind="common practice", text="within 1.5 mm of the edge or through the wall; no source"),
    run,
    ("view",),
)
