"""USB runs on 3.0 V and more, and a device that feeds itself gives nothing to its port."""

from loquet.core.brief.regulated import UsbPower
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.pins.needing import needs_of
from loquet.core.power import rail_of
from loquet.core.provenance import NotApplicable, Outcome, Source

LEAST_V = 3.0


def run(subject: Subject) -> Outcome:
    """Look at the rail of the brain that carries the pair, and at a pull-up that is always on."""
    chip, share = subject.chip, subject.share
    assert chip is not None
    assert share is not None
    brain = share.brain
    if brain is None or brain.READY_MADE:
        return NotApplicable("this brain carries no USB of its own")
    if not any(need.kind == "usb minus" for need in needs_of(share)):
        return NotApplicable("this brain carries no USB of its own")
    rail = rail_of(subject.brief, brain)
    found = []
    if rail.empty_v < LEAST_V:
        found.append(
            RULE.finding(
                f"USB wants {LEAST_V:g} V and more at {chip.name}, and {rail.words} fall to "
                f"{rail.empty_v:g} V.",
                "Feed it through a converter to 3.3 V.",
                (thing(brain.name),),
            )
        )
    ports = [t for t in share.things if isinstance(t, UsbPower)]
    if chip.usb_pull_up == "outside" and any(p.feed() is None for p in ports):
        found.append(
            RULE.finding(
                f"The pull-up of {chip.name} is always on, and the device feeds itself: through "
                "it the port of a host that is off gets volts.",
                "Let the port feed the device, or take a chip with the pull-up inside.",
                (thing(brain.name), *(thing(p.name) for p in ports)),
            )
        )
    return outcome(found, 1)


RULE = Rule(
    "usb-supply",
    "pins",
    "stop",
    "A line below its levels is not heard, and a host that is fed backwards may not start.",
    Source(
        kind="standard",
        text=(
            "USB 2.0 sections 7.1.5 and 7.2.1: no supply from the device; "
            "3.0 V from memory of data sheets"
        ),
    ),
    run,
    ("share", "chip"),
)
