"""USB runs on 3.0 V and more, and a device that feeds itself gives nothing to its port."""

from collections.abc import Iterator

import numpy as np

from loquet.core.brief.regulated import UsbPower
from loquet.core.checks.rule import ReadBy, Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import about, named, switched_on, when
from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import meant
from loquet.core.energising.pins import Pin
from loquet.core.energising.supplied import stays_on
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source

LEAST_V = 3.0


def run(subject: Subject) -> Outcome:
    """Look at the supply of every brain that carries the pair while its port is plugged in, and at
    a pull-up that is always on.
    """
    energised = switched_on(subject)
    pairs = [pin for pin in energised.pins if pin.use == "usb minus"]
    if not pairs:
        return NotApplicable("no brain carries USB of its own")
    found = [finding for pin in pairs for finding in too_low(energised, pin)]
    for own in subject.brains:
        found += always_pulled(own)
    return outcome(found, len(pairs))


def too_low(energised: Energised, pin: Pin) -> Iterator[Finding]:
    """The least volts of the transceiver while a port is there and the brain is on."""
    ports = {t.name for t in energised.device.brief.things if isinstance(t, UsbPower)}
    there = np.array(
        [
            state.on and not ports.isdisjoint(name for name, _ in state.sources)
            for state in energised.states
        ]
    )
    volts = energised.volt(pin.supply) - energised.volt(pin.ground)
    rows = meant(energised) & there & stays_on(energised, volts > LEAST_V / 2)
    if not rows.any():
        return
    at = int(np.argmin(np.where(rows, volts, np.inf)))
    if volts[at] < LEAST_V:
        yield RULE.finding(
            f"{when(energised, at)}: {named(energised, pin.ref)} gets {volts[at]:.2f} V, and its "
            f"USB wants {LEAST_V:g} V and more.",
            "Feed it through a converter to 3.3 V that gets there from this source.",
            about(energised, pin.ref),
            state=energised.states[at].id,
        )


def always_pulled(own: ReadBy) -> Iterator[Finding]:
    """A pull-up outside of the chip that stays on beside a port that does not feed the device."""
    brain, chip = own.share.brain, own.chip
    ports = [t for t in own.share.things if isinstance(t, UsbPower)]
    if brain is None or chip is None or brain.READY_MADE or chip.usb_pull_up != "outside":
        return
    if any(port.feed() is None for port in ports):
        yield RULE.finding(
            f"The pull-up of {chip.name} is always on, and the device feeds itself: through "
            "it the port of a host that is off gets volts.",
            "Let the port feed the device, or take a chip with the pull-up inside.",
            (thing(brain.name), *(thing(p.name) for p in ports)),
        )


RULE = Rule(
    "usb-supply",
    "circuit",
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
    ("circuit",),
)
