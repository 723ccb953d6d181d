"""Every connection is made."""

from loquet.core.board import BoardView
from loquet.core.board.linking import Link, open_links
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.walls import MOST_NAMED, walls_of, ways_to_free
from loquet.core.geometry import middle_of
from loquet.core.provenance import Finding, Outcome, Source


def run(subject: Subject) -> Outcome:
    """List what no copper joins, whoever drew it."""
    view = subject.view
    assert view is not None
    if view.routing is None:
        return outcome(
            [RULE.finding("The board is not routed.", "Route it at the Board station.")], 0
        )
    found = [opened(subject, view, link) for link in open_links(view)]
    return outcome(found, len(view.circuit.nets))


def opened(subject: Subject, view: BoardView, link: Link) -> Finding:
    """An open link, what stands in its straight way, and what would free it."""
    walls = walls_of(view, link, subject.choices)
    names = " and ".join(wall.words for wall in walls[:MOST_NAMED])
    stands = f" In its straight way: {names}." if names else ""
    repairs = ways_to_free(walls, view, link)
    way_out = "Draw it by hand, or route again."
    if repairs:
        way_out = "Take one of these, then route again; or draw it by hand."
    elif walls:
        way_out = "Give it room: move a part that stands in its way, then route again; or draw it."
    return RULE.finding(
        f"{link.net} is not joined between {link.start.owner} and {link.end.owner}.{stands}",
        way_out,
        (f"net:{link.net}",),
        *middle_of(link.start.shape),
        repairs=repairs,
    )


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
