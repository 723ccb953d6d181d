"""There is an order in which the device goes together, and everything in it has a place and a
height.
"""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.stacked import stack_seen
from loquet.core.provenance import Outcome, Source
from loquet.core.stack.order import order_of
from loquet.core.stack.plugging import plugs_of


def run(subject: Subject) -> Outcome:
    """Look for an order; what lies loose without a place cannot be judged, and that is said."""
    view = subject.view
    assert view is not None
    stack = stack_seen(subject)
    plugs = tuple(plugs_of(view, subject.library, stack.walls.board_mm))
    order = order_of(stack, plugs, subject.choices.stack)
    found = [
        RULE.finding(
            why, "Let one of them end at the edge, or split the shell at the board.", order.about
        )
        for why in order.impossible
    ]
    found += [
        RULE.finding(
            f"Nobody has said where {name} lies, so nothing can be said of what is about it.",
            "Give it a place at the Brief.",
            (thing(name),),
            severity="look",
        )
        for name in stack.unplaced
    ]
    found += [
        RULE.finding(
            f"The height of {name} is the usual one, not a measured one.",
            "Measure it with a caliper and type it in at the stack.",
            (thing(name),),
            severity="note",
        )
        for name in stack.guessed
        if name not in stack.unplaced
    ]
    return outcome(found, len(order.steps))


RULE = Rule(
    "goes-together",
    "stack",
    "stop",
    "A board that cannot be put into its shell is found with the shell in the hand.",
    Source(kind="computed", text="by what stands out over which edge, and what lies behind what"),
    run,
    ("view",),
)
