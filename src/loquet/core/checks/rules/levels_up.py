"""What drives a line brings it high enough for everything that reads it."""

from loquet.core.checks.line_ends import lines_of
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the least volts for high of each driver with what each input asks."""
    rows = [
        (line, drive, pin)
        for line in lines_of(subject)
        for drive in line.drives
        for pin in line.pins
        if pin.asks_v and drive.component.ref != pin.component.ref
    ]
    if not rows:
        return NotApplicable("nothing drives an input of a part that is known")
    found = [
        RULE.finding(
            f"{drive.component.ref} {'pulls' if drive.pulled else 'drives'} {line.net} to "
            f"{drive.high_v:.1f} V, and {pin.component.ref} ({pin.component.purpose}) takes "
            f"{pin.asks_v:.1f} V and more for high.",
            "Put a buffer with low thresholds between them, or feed both from one rail.",
            (f"net:{line.net}",),
        )
        for line, drive, pin in rows
        if pin.asks_v > drive.high_v
    ]
    return outcome(found, len(rows))


RULE = Rule(
    "levels-up",
    "circuit",
    "stop",
    "An input that is never quite high works on one bench in two.",
    Source(
        kind="standard",
        text=(
            "JEDEC JESD8: CMOS inputs take 0.7 of their supply for high; "
            "chips drive their rail less 0.4 V"
        ),
    ),
    run,
    ("circuit",),
)
