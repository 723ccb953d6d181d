"""No rail and no source is asked for more than it gives, with everything on at once."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import made_of
from loquet.core.power.budget import Made
from loquet.core.power.lasting import peak_at_source
from loquet.core.provenance import Finding, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the peak of every rail with its limit, and that of every source with what it
    gives.
    """
    made = made_of(subject.brief, subject.library)
    found: list[Finding] = []
    for row in made:
        if row.feeder is None:
            continue
        if row.taken and not row.supply:
            # its converter's own limit is looked at where it is chosen; its load counts before it
            continue
        drawn = peak_at_source(row)
        if row.supply and not row.feeder.limit_said():
            found.append(unsaid(row, drawn))
            continue
        limit = row.supply.most_ma if row.supply else row.rail.limit_ma
        if drawn > limit:
            found.append(too_much(subject, row, drawn, limit))
    return outcome(found, len(made))


def unsaid(row: Made, drawn: float) -> Finding:
    """Nobody has said how much a source gives: what it has to give is named."""
    feeder = row.feeder
    assert feeder is not None
    return RULE.finding(
        f"Nobody has said how much the source behind {feeder.label} gives; with everything on it"
        f" has to give {drawn:.0f} mA.",
        f"Say it at {feeder.label}.",
        (thing(feeder.name),),
        severity="look",
    )


def too_much(subject: Subject, row: Made, drawn: float, limit: float) -> Finding:
    """What is asked, what is given, and what would fit."""
    feeder = row.feeder
    assert feeder is not None
    lights = [t for t in subject.brief.things if t.DIMMED]
    way = "Take a stronger source, or keep things from being on together."
    if lights:
        white = sum(t.current_ma() for t in lights)
        room = limit - (drawn - white * drawn / max(row.load.peak, 1e-9))
        if room > 0:
            share = int(100 * min(room / (white * drawn / max(row.load.peak, 1e-9)), 1.0))
            way = (
                f"Let the firmware keep the lights at {share} % of full white or less, or take a"
                " stronger source."
            )
    return RULE.finding(
        f"With everything on, {feeder.label} has to give {drawn:.0f} mA, and it gives"
        f" {limit:.0f} mA.",
        way,
        (thing(feeder.name),),
    )


RULE = Rule(
    "power-budget",
    "power",
    "stop",
    "A source that is asked for too much resets the device, or a port turns off.",
    Source(kind="computed", text="sum of the highest currents; limits of cell, port and converter"),
    run,
)
