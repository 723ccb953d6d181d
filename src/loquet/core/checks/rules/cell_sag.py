"""A cell holds the device up under its peak while a fifth of it is left."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import lowest_of, made_of
from loquet.core.power.figures import sag
from loquet.core.power.lasting import stops_v
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the sagging volts of every store with the volts at which the device stops."""
    rows = [
        m
        for m in made_of(subject.brief, subject.library)
        if m.supply and not m.supply.stays and (m.rail.direct or m.taken) and m.load.peak > 0
    ]
    if not rows:
        return NotApplicable("no source runs empty")
    lowest = lowest_of(subject.brief, subject.library)
    found = []
    for row in rows:
        working, stops = sag(row), stops_v(row, lowest)
        assert row.feeder is not None
        if working.value < stops:
            found.append(
                RULE.finding(
                    f"With everything on, {row.rail.words} with a fifth left sags to"
                    f" {working.value:.2f} V, and the device stops at {stops:.2f} V.",
                    "Keep peaks apart in the firmware, take a source with less resistance, or a"
                    " larger capacitor for short peaks.",
                    (thing(row.feeder.name),),
                    working=working,
                )
            )
    return outcome(found, len(rows))


RULE = Rule(
    "cell-sag",
    "power",
    "look",
    "A cell that sags under a peak resets the device long before it is empty.",
    Source(kind="from memory", text="cell model: open voltage behind an inner resistance"),
    run,
)
