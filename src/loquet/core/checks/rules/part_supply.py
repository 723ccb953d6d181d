"""Every part with limits of its own runs on what its rail gives, from fresh to empty, and so does
the chip's analogue converter.
"""

from collections.abc import Iterator

from loquet.core.checks.limits import Limits, limits_on
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import about as about_parts
from loquet.core.checks.switched_on import switched_on, when
from loquet.core.energising.energised import Energised
from loquet.core.energising.supplied import fed_at
from loquet.core.power import rail_of
from loquet.core.provenance import Finding, Outcome, Severity, Source

LOSS_V = 0.03
"""So much is lost in a pin's way, or made too much by a divider of E24 values: no limit is so
sharp. Common practice, no source.
"""


def run(subject: Subject) -> Outcome:
    """Compare the limits of parts with what their supply pins get in all states."""
    assert subject.circuit is not None
    energised = switched_on(subject)
    rows = [*limits_on(subject.circuit, subject.brief, subject.library), *brains_on(subject)]
    found = [f for row in rows for f in compared(row, energised)]
    found += [*converters(subject), *hanging(subject)]
    return outcome(found, len(rows))


def brains_on(subject: Subject) -> Iterator[Limits]:
    """Brains with what they stand, where their rail is meant to be within that: what lies outside
    of it by the brief is said at the Pins.
    """
    assert subject.circuit is not None
    for own in subject.brains:
        brain, chip = own.share.brain, own.chip
        if brain is None or chip is None or not chip.supply_min_mv or not chip.supply_max_mv:
            continue
        rail = rail_of(subject.brief, brain)
        least, most = chip.supply_min_mv / 1000, chip.supply_max_mv / 1000
        parts = (c for c in subject.circuit.components if c.is_chip and c.thing == brain.name)
        component = next(parts, None)
        if component is not None and least <= rail.empty_v and rail.fresh_v <= most:
            yield Limits(component, rail.net, least, most, chip.supply_source)


def compared(row: Limits, energised: Energised) -> Iterator[Finding]:
    """What is wrong between a part and what feeds it."""
    fed, least, most, origin = fed_at(energised, row.net), row.least_v, row.most_v, row.origin
    if fed is None:
        return
    about = about_parts(energised, row.component.ref)
    name = f"{row.component.ref} ({row.component.purpose})"

    def said(state: int, words: str, way_out: str, severity: Severity = "stop") -> Finding:
        sentence = f"{when(energised, state)}: {name} {words} ({origin})."
        at = energised.states[state].id
        return RULE.finding(sentence, way_out, about, severity=severity, state=at)

    if fed.most_v > most + LOSS_V:
        words = f"takes {most:g} V at the most, and gets {fed.most_v:.2f} V"
        yield said(fed.most_at, words, "Feed it from a lower rail, or take another part.")
    if fed.usual_v < least - LOSS_V:
        words = f"wants {least:g} V, and gets {fed.usual_v:.2f} V"
        yield said(fed.usual_at, words, "Feed it from a higher rail, or take another part.")
    elif fed.late_v < least - LOSS_V:
        words = f"stops below {least:g} V, and gets {fed.late_v:.2f} V"
        out = "Accept a shorter run time, or put a converter between."
        yield said(fed.late_at, words, out, "look")


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
