"""A resistive control reads half in its middle, whatever divides it down."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.switched_on import about, named, switched_on, when
from loquet.core.energising.tracks import middles
from loquet.core.provenance import NotApplicable, Outcome, Source

OFF_SHARE = 0.03
"""So far from its half a middle may be: as much as tracks differ; common practice, no source."""


def run(subject: Subject) -> Outcome:
    """Look at every stick and slider in its middle."""
    energised = switched_on(subject)
    rows = list(middles(energised))
    if not rows:
        return NotApplicable("no brain measures a resistive track")
    found = [
        RULE.finding(
            f"{when(energised, row.state)}: in its middle {named(energised, row.ref)} reads "
            f"{100 * row.share:.0f} % at pin {row.pin.pad} of {row.pin.ref}: what divides it down "
            "loads its track.",
            "Feed it from the rail of the chip, or let the firmware know its middle; it is finer "
            "on one side than on the other.",
            about(energised, row.ref),
            state=energised.states[row.state].id,
        )
        for row in rows
        if abs(row.share - 0.5) > OFF_SHARE
    ]
    return outcome(found, len(rows))


RULE = Rule(
    "loaded-track",
    "circuit",
    "look",
    "A control whose middle is off its half is fine on one side and coarse on the other.",
    Source(kind="computed", text="volts of the device with its controls in the middle and at ends"),
    run,
    ("circuit",),
)
