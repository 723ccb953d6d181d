"""What a brain measures swings over most of what it can tell apart."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.switched_on import about, switched_on, when
from loquet.core.energising.tracks import swings
from loquet.core.provenance import NotApplicable, Outcome, Source

LEAST_SHARE = 0.75
"""Less of its codes than this are a coarse stick; common practice, no source."""


def run(subject: Subject) -> Outcome:
    """Hold the swing of every measured line against the supply that its brain measures by."""
    energised = switched_on(subject)
    rows = list(swings(energised))
    if not rows:
        return NotApplicable("no brain measures a control")
    found = []
    for row in rows:
        pin, span = row.pin, row.high_v - row.low_v
        if span < LEAST_SHARE * row.full_v:
            net = energised.device.by_ref[pin.ref].pads.get(pin.pad, pin.node)
            found.append(
                RULE.finding(
                    f"{when(energised, row.state)}: {net} swings over {span:.1f} V, which are "
                    f"{100 * span / row.full_v:.0f} % of what {pin.ref} measures.",
                    "Feed the control from the rail of the brain, or measure by a reference of the "
                    "control's volts where the brain has a pin for one.",
                    (f"net:{net}", *about(energised, pin.ref)),
                    state=energised.states[row.state].id,
                )
            )
    return outcome(found, len(rows))


RULE = Rule(
    "codes-used",
    "circuit",
    "look",
    "A control that swings over half of the volts has half of the steps, and looks as if it never "
    "reached its ends.",
    Source(kind="computed", text="volts of the device with its controls at both ends"),
    run,
    ("circuit",),
)
