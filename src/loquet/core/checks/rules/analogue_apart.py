"""Analogue lines keep off what switches."""

from loquet.core.board.copper import FAR, NEAR
from loquet.core.checks.measuring import Measured, measured, too_close
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM

LEAST_MM = 0.5


def run(subject: Subject) -> Outcome:
    """Measure between the tracks of axes and those at the coil of a converter, side by side."""
    view = subject.view
    assert view is not None
    coils = {
        net
        for c in view.circuit.components
        if c.part in subject.library.parts and subject.library.parts[c.part].kind == "inductor"
        for net in c.pads.values()
    }
    rails = {net.name for net in view.circuit.nets if net.kind != "signal"}
    axes = axis_nets(subject)
    if not coils - rails or not axes:
        return NotApplicable("no axis is read beside a converter")
    found, looked = [], 0
    for side in (NEAR, FAR):
        things: list[Measured] = [
            measured(c) for c in view.wiring if side in c.sides and c.net in (coils - rails) | axes
        ]
        looked += len(things)
        found += [
            RULE.finding(
                f"A track of {pair.first_net} runs {max(pair.gap_nm, 0) / MM:.2f} mm from"
                f" {pair.second_net}, which switches; {LEAST_MM:g} mm are the least.",
                "Lead it another way round the converter.",
                (f"net:{pair.first_net}", f"net:{pair.second_net}"),
                pair.x,
                pair.y,
            )
            for pair in too_close(things, LEAST_MM * MM)
            if (pair.first_net in axes) != (pair.second_net in axes)
        ]
    return outcome(found, looked)


def axis_nets(subject: Subject) -> set[str]:
    """Nets on which a chip reads an axis."""
    plans = (read.plan for read in subject.brains if read.plan is not None)
    return {a.net for plan in plans for a in plan.assignments if a.kind == "analogue"}


RULE = Rule(
    "analogue-apart",
    "board",
    "look",
    "What switches couples into an analogue line, and the stick trembles.",
    Source(
        kind="common practice",
        text="analogue lines away from switching nodes; no source for the figure",
    ),
    run,
    ("view",),
)
