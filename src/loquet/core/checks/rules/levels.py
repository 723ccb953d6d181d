"""No pin is driven above its own supply by a part, a brain or a resistor that lives on a higher
one.
"""

from loquet.core.checks.line_ends import Drive, Line, Pin, lines_of
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Failed, Finding, NotApplicable, Outcome, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Hold everything that drives a line against everything that it meets."""
    rows = [
        (line, drive, pin)
        for line in lines_of(subject)
        for drive in line.drives
        for pin in line.pins
        if drive.component.ref != pin.component.ref
    ]
    if not rows:
        return NotApplicable("nothing drives a line on which another part has limits of its own")
    found = [said(*row) for row in rows if row[1].most_v > row[2].takes_v]
    if any(finding.severity == "stop" for finding in found):
        return Failed(tuple(found))
    return Undetermined(tuple(found)) if found else outcome([], len(rows))


def said(line: Line, drive: Drive, pin: Pin) -> Finding:
    """What drives too high what; a pin of which nobody knows whether it takes that is a stop where
    it is driven hard.
    """
    by, at = drive.component, pin.component
    how = "pulls" if drive.pulled else "drives"
    takes = f"takes {pin.takes_v:.1f} V" if pin.known else "is not known to take that"
    return RULE.finding(
        f"{by.ref} ({by.purpose}) {how} {line.net} up to {drive.most_v:.1f} V, "
        f"and pin {pin.pad} of {at.ref} {takes}.",
        "Put a divider or a buffer between them, or feed both from one rail.",
        (f"net:{line.net}", f"part:{by.ref}", f"part:{at.ref}"),
        severity="look" if drive.pulled and not pin.known else "stop",
    )


RULE = Rule(
    "levels",
    "circuit",
    "stop",
    "A pin that is driven above its supply feeds that supply through its clamp, or dies.",
    Source(
        kind="common practice",
        text=(
            "data sheets allow 0.3 V above the supply, from memory; the open data set says "
            "nothing of pins that take 5 V, a user's own table may"
        ),
    ),
    run,
    ("circuit",),
)
