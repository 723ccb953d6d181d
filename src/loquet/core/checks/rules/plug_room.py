"""Every plug goes into its socket with the others in theirs."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.stacked import stack_seen
from loquet.core.parts.in_use import FINGERS_MM
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.stack.plugging import plugs_in_the_way, plugs_of


def run(subject: Subject) -> Outcome:
    """Hold the volume of every plug against those of all others and against the bodies of the
    device.
    """
    view = subject.view
    assert view is not None
    stack = stack_seen(subject)
    plugs = tuple(plugs_of(view, subject.library, stack.walls.board_mm))
    if not plugs:
        return NotApplicable("nothing is plugged into this board")
    found = []
    for met in plugs_in_the_way(stack, plugs):
        words = met.plug.words[0].upper() + met.plug.words[1:]
        if met.mm > 0:
            sentence = (
                f"{words} and {met.other} are {met.mm:.1f} mm apart; fingers want"
                f" {FINGERS_MM:.0f} mm."
            )
        else:
            sentence = f"{words} does not go in: {met.other} is in its way."
        found.append(
            RULE.finding(
                sentence,
                "Move one of them along the edge, or turn the socket with its mouth out.",
                met.about,
                severity="look" if met.mm > 0 else "stop",
            )
        )
    return outcome(found, len(plugs))


RULE = Rule(
    "plug-room",
    "stack",
    "stop",
    "A socket fits on the board, and its plug does not fit beside the next one.",
    Source(
        kind="common practice",
        text="sizes of grips: USB Type-C specification from memory, others no source",
    ),
    run,
    ("view",),
)
