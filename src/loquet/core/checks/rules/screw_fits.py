"""Every screw has a length that holds and does not come out."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.stacked import stack_seen
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.stack.screw_sizes import SCREWS
from loquet.core.stack.screws import screw_fits


def run(subject: Subject) -> Outcome:
    """Look for a preferred length between what must hold and what the post has room for; a
    countersunk head must lie in the board.
    """
    view = subject.view
    assert view is not None
    stack, choices = stack_seen(subject), subject.choices.stack
    fits = list(screw_fits(view, stack.walls, choices))
    if not fits:
        return NotApplicable("no fixing hole takes a screw")
    found = []
    for fit in fits:
        if fit.length_mm is None:
            found.append(
                RULE.finding(
                    f"No screw {fit.thread} fits at {fit.thing}: it must be {fit.least_mm:.1f} mm"
                    f" long to hold, and {fit.most_mm:.1f} mm is all that there is before it comes"
                    " through the wall.",
                    "Give that side more room, take a thinner screw, or hold the board the other"
                    " way.",
                    (thing(fit.thing),),
                    working=fit.working,
                )
            )
        sunk = SCREWS[fit.thread].sunk_mm[1]
        if (
            choices.heads == "countersunk"
            and choices.fixing == "posts"
            and sunk > stack.walls.board_mm
        ):
            found.append(
                RULE.finding(
                    f"The countersunk head of {fit.thread} at {fit.thing} is {sunk:.2f} mm high,"
                    f" more than the board of {stack.walls.board_mm:.1f} mm.",
                    "Take pan heads, a thinner screw or a thicker board.",
                    (thing(fit.thing),),
                )
            )
    return outcome(found, len(fits))


RULE = Rule(
    "screw-fits",
    "stack",
    "stop",
    "A screw that is too short strips its post, one that is too long comes out of the device.",
    Source(
        kind="standard",
        text="ISO 7045, ISO 7046, from memory; two diameters in plastic are common practice",
    ),
    run,
    ("view",),
)
