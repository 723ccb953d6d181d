"""The two-wire bus carries what hangs on it, and a pull-up exists that suits it."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.pins.buses import BUS_LIMIT_PF, bus_load_pf, bus_workings, pull_up_limits_ohm
from loquet.core.pins.needing import bus_khz_of, on_two_wire
from loquet.core.pins.schemes.comparing import helpers_pf
from loquet.core.pins.wiring import wiring_of
from loquet.core.power import rail_of
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the load with the limit, and the least pull-up with the greatest."""
    brief, library = subject.brief, subject.library
    wiring = wiring_of(brief)
    if not on_two_wire(brief, wiring):
        return NotApplicable("nothing is on two wires")
    extra = helpers_pf(brief, wiring, library.parts)
    load = bus_load_pf(brief, library.screens, extra)
    khz, volts = bus_khz_of(brief), rail_of(brief).fresh_v
    least, greatest = pull_up_limits_ohm(volts, load, khz)
    working = bus_workings(brief, library.screens, extra, khz, volts)[1]
    found = []
    if load > BUS_LIMIT_PF:
        sentence = f"The two-wire bus carries {load:.0f} pF, and {BUS_LIMIT_PF:.0f} pF is the most."
        found.append(
            RULE.finding(
                sentence,
                "Take branches off, or put a buffer between.",
                ("two-wire",),
                working=working,
            )
        )
    elif greatest < least:
        sentence = f"No pull-up suits the two-wire bus: {load:.0f} pF at {khz} kHz."
        found.append(
            RULE.finding(
                sentence, "Run it at 100 kHz, or take branches off.", ("two-wire",), working=working
            )
        )
    return outcome(found, 1)


RULE = Rule(
    "bus-load",
    "pins",
    "stop",
    "A bus with branches and no thought for its pull-ups fails now and then.",
    Source(kind="standard", text="UM10204 (I2C-bus specification) sections 7.1 and 7.2"),
    run,
    ("share",),
)
