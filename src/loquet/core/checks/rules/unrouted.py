"""Every connection is made."""

from loquet.core.board.linking import open_links
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import middle_of
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """List what no copper joins, whoever drew it."""
    view = subject.view
    assert view is not None
    if view.routing is None:
        return outcome(
            [RULE.finding("The board is not routed.", "Route it at the Board station.")], 0
        )
    found = [
        RULE.finding(
            f"{link.net} is not joined between {link.start.owner} and {link.end.owner}.",
            "Give it room: move a part that stands in its way, then route again; or draw it.",
            (f"net:{link.net}",),
            *middle_of(link.start.shape),
        )
        for link in open_links(view)
    ]
    return outcome(found, len(view.circuit.nets))


RULE = Rule(
    "unrouted",
    "board",
    "stop",
    "An open connection is a board that does not work.",
    Source(
        kind="computed",
        text="what touches what, from exact shapes; the proof finds it again from the files",
    ),
    run,
    ("view",),
)
