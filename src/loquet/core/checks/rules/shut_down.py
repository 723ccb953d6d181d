"""A computer with open files is asked before its power is cut, and hears that its cell runs low."""

from loquet.core.brief import Brief, Thing
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power import rail_of
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at what feeds every brain that keeps files."""
    brief = subject.brief
    hosts = [b for b in brief.brains if b.HAS_FILES and b.feed() is None]
    if not hosts:
        return NotApplicable("nothing that keeps files is fed by the board")
    found = [finding for host in hosts for finding in lacking(brief, host)]
    return outcome(found, 2 * len(hosts))


def lacking(brief: Brief, host: Thing) -> list[Finding]:
    """What a computer lacks to shut down in time."""
    found = []
    switch = next((t for t in brief.things if t.SWITCHES), None)
    if switch is None or not switch.ASKS_FIRST:
        how = (
            f"{switch.name} cuts the power of {host.name}"
            if switch
            else f"Nothing turns {host.name} off but pulling its source"
        )
        found.append(
            RULE.finding(
                f"{how} while files may be open.",
                "Take a power button with latch: it asks first, and the host lets go when it is"
                " done.",
                (thing(host.name),),
            )
        )
    source = source_of(brief, host)
    if source is not None and not warned(brief, source):
        found.append(
            RULE.finding(
                f"{host.name} is fed by {source.name} and does not hear that it runs low.",
                (
                    "Add a cell gauge on its bus, or measure the cell, so that it can shut down in"
                    " time."
                    if source.charging_ma()
                    else (
                        "Take a lithium cell with a gauge on its bus; what feeds it now cannot be "
                        "watched."
                    )
                ),
                (thing(host.name), thing(source.name)),
            )
        )
    return found


def source_of(brief: Brief, host: Thing) -> Thing | None:
    """The cell at the end of the rails that feed a brain; nothing where power comes from outside,
    or of a ring.
    """
    seen, rail = set[str](), rail_of(brief, host)
    while rail.name not in seen:
        seen.add(rail.name)
        feeder = next((t for t in brief.things if t.name == rail.fed_by), None)
        if feeder is None:
            return None
        if not feeder.LOWER_FEED:
            supply = feeder.source()
            return feeder if supply is not None and not supply.stays else None
        rail = rail_of(brief, feeder)
    return None


def warned(brief: Brief, source: Thing) -> bool:
    """Whether anything tells a brain how full a source is."""
    return source.measured() or any(t.GAUGES for t in brief.things)


RULE = Rule(
    "shut-down",
    "power",
    "stop",
    "A computer that loses power with files open may not start again.",
    Source(kind="common practice", text="no source"),
    run,
)
