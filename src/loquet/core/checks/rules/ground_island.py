"""Ground is one piece."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Count the islands that the pour found."""
    view = subject.view
    assert view is not None
    if view.pour is None:
        return outcome([RULE.finding("Ground is not poured.", "Pour it at the Board station.")], 0)
    if view.pour.islands != 1:
        return outcome(
            [
                RULE.finding(
                    f"Ground falls into {view.pour.islands} separate pieces.",
                    "Route again, or move parts that cut the ground.",
                    ("net:GROUND",),
                )
            ],
            1,
        )
    return outcome([], len(view.pour.pieces))


RULE = Rule(
    "ground-island",
    "board",
    "stop",
    "Ground that is not joined is no return path.",
    Source(kind="computed", text="what touches what, from exact shapes"),
    run,
    ("view",),
)
