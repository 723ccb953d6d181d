"""Every part with limits of its own runs on what its rail gives, from fresh to empty, and so does
the chip's analogue converter.
"""

from collections.abc import Iterator

from loquet.core.checks.limits import Limits, limits_on
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power import Rail, rail_of, rails_of
from loquet.core.provenance import Finding, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the limits of parts with the rails that their supply pins are on."""
    assert subject.circuit is not None
    rails = {rail.net: rail for rail in rails_of(subject.brief)}
    rows = limits_on(subject.circuit, subject.brief, subject.library)
    found = [f for row in rows if row.net in rails for f in compared(row, rails[row.net])]
    found += [*converters(subject), *hanging(subject)]
    return outcome(found, len(rows))


def compared(row: Limits, rail: Rail) -> Iterator[Finding]:
    """What is wrong between a part and its rail."""
    component, least, most, origin = row.component, row.least_v, row.most_v, row.origin
    about = (f"part:{component.ref}", *((thing(component.thing),) if component.thing else ()))
    name = f"{component.ref} ({component.purpose})"
    if rail.fresh_v > most:
        yield RULE.finding(
            f"{name} takes {most:g} V at the most, and {rail.words} may give {rail.fresh_v:g} V"
            f" ({origin}).",
            "Feed it from a lower rail, or take another part.",
            about,
        )
    if rail.usual_v < least:
        yield RULE.finding(
            f"{name} wants {least:g} V, and {rail.words}"
            f" give{'s' if not rail.words.endswith('s') else ''} {rail.usual_v:g} V ({origin}).",
            "Feed it from a higher rail, or take another part.",
            about,
        )
    elif rail.empty_v < least:
        yield RULE.finding(
            f"{name} stops below {least:g} V, before {rail.words} are empty at {rail.empty_v:g} V"
            f" ({origin}).",
            "Accept a shorter run time, or put a converter between.",
            about,
            severity="look",
        )


def hanging(subject: Subject) -> Iterator[Finding]:
    """What hangs on plugs and wants more than their rail gives."""
    for each in subject.brief.things:
        rail = rail_of(subject.brief, each)
        if rail.usual_v < each.LEAST_V:
            yield RULE.finding(
                f"What hangs on {each.label} wants {each.LEAST_V:g} V and more (from memory), and "
                f"its rail gives {rail.usual_v:g} V: it may stay dark, or show other colours.",
                "Feed it from a rail of 5 V, or make sure that it is made for less.",
                (thing(each.name),),
                severity="look",
            )


def converters(subject: Subject) -> Iterator[Finding]:
    """Chips that measure voltages on a rail that falls below what their converter wants."""
    for own in subject.brains:
        chip, brain = own.chip, own.share.brain
        if chip is None or brain is None or chip.converter_min_mv is None or own.plan is None:
            continue
        measured = [a for a in own.plan.assignments if a.kind == "analogue"]
        rail, least = rail_of(subject.brief, brain), chip.converter_min_mv / 1000
        if measured and rail.empty_v < least:
            yield RULE.finding(
                f"The converter of {chip.name} measures nothing below {least:g} V"
                f" ({chip.supply_source}), and {rail.words} fall to {rail.empty_v:g} V.",
                "Take readings only above that, or put a converter between.",
                (thing(brain.name),),
                severity="look",
            )


RULE = Rule(
    "part-supply",
    "circuit",
    "stop",
    "A part below its least volts gives nonsense before it stops; above its highest it dies.",
    Source(
        kind="part drawing",
        text="limits of the parts in the catalogue; rails over their whole discharge",
    ),
    run,
    ("circuit",),
)
