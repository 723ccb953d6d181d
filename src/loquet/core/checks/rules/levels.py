"""No pin is brought above what it takes by a part, a brain or a resistor on a higher supply."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.switched_on import about, named, switched_on, when
from loquet.core.energising.energised import Energised
from loquet.core.energising.levels import Over, overs
from loquet.core.energising.pins import MEASURES
from loquet.core.provenance import Failed, Finding, NotApplicable, Outcome, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Hold every pin against its own supply in every state in which its part is on."""
    energised = switched_on(subject)
    if not energised.pins:
        return NotApplicable("no part has pins with limits of their own")
    found = [said(energised, over) for over in overs(energised) if over.alive]
    if any(finding.severity == "stop" for finding in found):
        return Failed(tuple(found))
    return Undetermined(tuple(found)) if found else outcome([], len(energised.pins))


def said(energised: Energised, over: Over) -> Finding:
    """What brings a pin too high; one of which nobody knows whether it takes that is a stop where
    it is driven hard.
    """
    pin = over.pin
    known = pin.use is None or pin.use in MEASURES or pin.five_volt is not None
    how = "pulls" if over.pulled else "drives"
    takes = f"takes {over.takes_v:.1f} V" if known else "is not known to take that"
    net = energised.device.by_ref[pin.ref].pads.get(pin.pad, pin.node)
    refs = [ref for ref in (over.by, pin.ref) if ref]
    return RULE.finding(
        f"{when(energised, over.state)}: {named(energised, over.by)} {how} {net} up to "
        f"{over.volts:.1f} V, and pin {pin.pad} of {pin.ref} {takes}.",
        "Put a divider or a buffer between them, or feed both from one rail.",
        (f"net:{net}", *about(energised, *refs)),
        severity="look" if over.pulled and not known else "stop",
        state=energised.states[over.state].id,
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
