"""Every connection is made."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """List what the router left open."""
    view = subject.view
    assert view is not None
    if view.routing is None:
        return outcome(
            [RULE.finding("The board is not routed.", "Route it at the Board station.")], 0
        )
    found = [
        RULE.finding(
            f"{net} is not joined between {start} and {end}.",
            "Give it room: move a part that stands in its way, then route again.",
            (f"net:{net}",),
        )
        for net, start, end in view.routing.open_links
    ]
    return outcome(found, len(view.circuit.nets))


RULE = Rule(
    "unrouted",
    "board",
    "stop",
    "An open connection is a board that does not work.",
    Source(kind="computed", text="the router's own list; the proof finds it again from the files"),
    run,
    ("view",),
)
