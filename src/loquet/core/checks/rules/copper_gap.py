"""Copper of different nets keeps the house's gap."""

from loquet.core.checks.measuring import both_sides, too_close
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source
from loquet.core.quantities.lengths import show_mm


def run(subject: Subject) -> Outcome:
    """Measure every pair on both sides."""
    view = subject.view
    assert view is not None
    found, counted = [], 0
    for side, things in both_sides(view):
        counted += len(things)
        for pair in too_close(things, view.rules.gap_nm):
            names = " and ".join(
                f"{name} ({net or 'no net'})"
                for name, net in ((pair.first, pair.first_net), (pair.second, pair.second_net))
            )
            found.append(
                RULE.finding(
                    f"On the {side} side {names} are {show_mm(max(pair.gap_nm, 0))} apart;"
                    f" {subject.house.name} asks {show_mm(view.rules.gap_nm)}.",
                    "Move one of them, or route again.",
                    tuple(f"net:{n}" for n in (pair.first_net, pair.second_net) if n),
                    pair.x,
                    pair.y,
                )
            )
    return outcome(found, counted)


RULE = Rule(
    "copper-gap",
    "board",
    "stop",
    "Copper nearer than the house can etch may be joined.",
    Source(kind="house rules", text="least gap of the chosen house"),
    run,
    ("view",),
)
