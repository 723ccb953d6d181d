"""Nothing sharp or hard lies at a soft cell."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.stacked import stack_seen
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM
from loquet.core.stack.stacking import CELL_GAP_MM


def run(subject: Subject) -> Outcome:
    """Look at every gap of a soft cell, swollen as it will be with age: 1 mm to what pierces, half
    of it to hard edges.
    """
    stack = stack_seen(subject)
    soft = {p.words for p in stack.pieces if p.soft}
    if not soft:
        return NotApplicable("no soft cell lies in the shell")
    gaps = [g for g in stack.gaps if soft & {g.one, g.other}]
    found = []
    for gap in gaps:
        if gap.mm >= gap.least_mm - 1e-9:
            continue
        cell = gap.one if gap.one in soft else gap.other
        other = gap.other if cell == gap.one else gap.one
        wall = other.startswith("the front wall") or other.startswith("the back wall")
        way_out = "Give the shell more room: the cell grows with age."
        if not wall:
            way_out = "Move one of them, or put an insulator between them."
            if other.startswith("the head of"):
                way_out = "Take countersunk heads, or move the cell or the screw."
        what = "pierces" if gap.least_mm == CELL_GAP_MM else "presses"
        there = f"Between {other} and {cell} there are {gap.mm:.2f} mm"
        if gap.mm < 0:
            there = f"{other[0].upper()}{other[1:]} reaches {-gap.mm:.2f} mm into {cell}"
        found.append(
            RULE.finding(
                f"{there}; {gap.least_mm:.1f} mm between them are asked for, since a lithium cell"
                f" that something {what} can burn.",
                way_out,
                gap.about,
                gap.x_mm * MM,
                gap.y_mm * MM,
            )
        )
    return outcome(found, len(gaps))


RULE = Rule(
    "cell-clear",
    "stack",
    "stop",
    "A screw head or a sharp lead in a soft cell shorts it, and it burns. The cell maker's limits"
    " come first.",
    Source(
        kind="common practice",
        text="1 mm to sharp bodies, 0.5 mm to hard edges, a tenth of swelling; no source",
    ),
    run,
    ("view",),
)
