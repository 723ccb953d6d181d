"""No source feeds another one."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import switched_on, when
from loquet.core.energising.back_feeding import backs
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look for a current into a source in every state."""
    energised = switched_on(subject)
    if len(energised.ways) < 2:
        return NotApplicable("there is one source")
    found = []
    for back in backs(energised):
        whence = f"from {back.start} into {back.source}" if back.start else f"into {back.source}"
        ends = dict.fromkeys(name for name in (back.start, back.source) if name)
        found.append(
            RULE.finding(
                f"{when(energised, back.state)}: {1000 * back.amperes:.0f} mA flow {whence}, "
                f"through {', '.join(back.through) or 'nothing at all'}.",
                "Put a diode or a power path between them.",
                tuple(thing(name) for name in ends if name in energised.device.things),
                state=energised.states[back.state].id,
            )
        )
    return outcome(found, len(energised.ways) * (len(energised.ways) - 1))


RULE = Rule(
    "back-feed",
    "power",
    "stop",
    "A source that is fed backwards is charged without control, wakes what is off, or harms a"
    " host.",
    Source(
        kind="computed",
        text=(
            "currents of the device in every state; USB Type-C 4.5.2.2: a sink gives nothing back"
        ),
    ),
    run,
    ("circuit",),
)
