"""A computer with open files is asked before its power is cut, and hears that its cell runs low."""

from loquet.core.brief import Brief, Thing
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power import rail_of
from loquet.core.provenance import Finding, NotApplicable, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look at what feeds every brain that keeps files."""
    brief = subject.brief
    hosts = [b for b in brief.brains if b.loses_files() and b.feed() is None]
    if not hosts:
        return NotApplicable("nothing that loses files is fed by the board")
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
                " done. Or run it from a card that is read only.",
                (thing(host.name),),
                repairs=(read_only(host),),
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
                repairs=(read_only(host),),
            )
        )
    return found


def read_only(host: Thing) -> Repair:
    """The decision that nothing is lost when it is cut."""
    edit = {"kind": "change-thing", "name": host.name, "changes": {"keeps_files": False}}
    return Repair(label=f"The card of {host.name} is read only", edit=edit)


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
