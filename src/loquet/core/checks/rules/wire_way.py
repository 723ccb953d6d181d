"""Wires from what lies loose in the shell find a way to their plug."""

from math import ceil

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.stacked import stack_seen
from loquet.core.provenance import Outcome, Source
from loquet.core.stack.wires import wire_runs


def run(subject: Subject) -> Outcome:
    """Look for the way of every bundle."""
    assert subject.view is not None
    runs = wire_runs(subject.view, subject.library, stack_seen(subject))
    found = []
    for one in runs:
        if not one.problem:
            continue
        wide = ceil(one.bundle_mm * 10) / 10
        found.append(
            RULE.finding(
                one.problem,
                f"Add a cut-out of {one.channel_mm:.1f} mm near {one.ref}, put {one.ref} on the"
                f" other side, or leave {wide:.1f} mm about the board.",
                (thing(one.thing), f"part:{one.ref}"),
            )
        )
    return outcome(found, len(runs))


RULE = Rule(
    "wire-way",
    "stack",
    "look",
    "Wires that have nowhere to go are pinched when the shell is closed.",
    Source(
        kind="common practice",
        text=(
            "the bundle by ASTM B258 and its jacket has to fit between bodies and walls; no source"
        ),
    ),
    run,
    ("circuit", "view"),
)
