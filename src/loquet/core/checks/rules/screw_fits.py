"""Every screw has a length that holds and does not come out."""

from collections.abc import Iterator

from loquet.core.board.copper import BoardView
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.stacked import stack_seen
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source
from loquet.core.stack.screw_sizes import screw_of
from loquet.core.stack.screws import screw_fits

PLAY_MM = 0.1
"""So much is the least between a thread and its hole: the fine series of ISO 273 for small screws,
from memory.
"""


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
        sunk = fit.sunk_mm
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
    found += own_screws(view, choices)
    return outcome(found, len(fits))


def own_screws(view: BoardView, choices: StackChoices) -> Iterator[Finding]:
    """A screw of one's own goes through its holes, and its head stays on what they keep free."""
    own = choices.own_screw
    for each in view.brief.on(view.board.name) if choices.heads == "own" else ():
        drilled = each.drilled()
        if screw_of(each, choices) is None or drilled is None:
            continue
        if own.thread_mm + PLAY_MM > drilled.d_mm:
            yield RULE.finding(
                f"The screw of {own.thread_mm:g} mm does not go through {each.name}, which is"
                f" {drilled.d_mm:g} mm.",
                "Drill it larger at the Brief, or take a thinner screw.",
                (thing(each.name),),
            )
        if own.head_mm > drilled.head_mm:
            yield RULE.finding(
                f"The head of the screw at {each.name} is {own.head_mm:g} mm wide, and"
                f" {drilled.head_mm:g} mm are kept free of copper and parts for it.",
                "Say the next larger screw at the hole, which keeps more free, or take a smaller"
                " head.",
                (thing(each.name),),
            )


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
