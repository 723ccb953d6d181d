"""What drives a line brings it high enough for everything that reads it."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.switched_on import about, named, switched_on, when
from loquet.core.energising.levels import lows
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the volts of every driven line with what each input on it asks for high."""
    energised = switched_on(subject)
    if not any(pin.reads for pin in energised.pins):
        return NotApplicable("nothing drives an input of a part that is known")
    found = []
    for low in lows(energised):
        pin, by = low.pin, named(energised, low.by)
        net = energised.device.by_ref[pin.ref].pads.get(pin.pad, pin.node)
        found.append(
            RULE.finding(
                f"{when(energised, low.state)}: {by} {'pulls' if low.pulled else 'drives'} {net} "
                f"to {low.volts:.1f} V, and {named(energised, pin.ref)} takes {low.asks_v:.1f} V "
                "and more for high.",
                "Put a buffer with low thresholds between them, or feed both from one rail.",
                (f"net:{net}", *about(energised, *(r for r in (low.by, pin.ref) if r))),
                severity="look" if low.late else "stop",
                state=energised.states[low.state].id,
            )
        )
    return outcome(found, len(energised.pins))


RULE = Rule(
    "levels-up",
    "circuit",
    "stop",
    "An input that is never quite high works on one bench in two.",
    Source(
        kind="standard",
        text="JEDEC JESD8: CMOS inputs take 0.7 of their supply for high",
    ),
    run,
    ("circuit",),
)
