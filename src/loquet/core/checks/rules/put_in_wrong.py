"""A source that is put in the wrong way round harms nothing."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import about, named, switched_on, when
from loquet.core.energising.limits import wrongs
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at every state in which a cell, wires or an adapter are the wrong way round."""
    energised = switched_on(subject)
    turned = [s for s in energised.states if any(x == "reversed" for _, x in s.sources)]
    if not turned:
        return NotApplicable("no source of this device can be put in the wrong way round")
    found = []
    for wrong in wrongs(energised):
        words = when(energised, wrong.state)
        if wrong.ref:
            found.append(
                RULE.finding(
                    f"{words}: {named(energised, wrong.ref)} gets {wrong.volts:.1f} V at "
                    f"{wrong.node} and takes -0.3 V; {1000 * wrong.amperes:.0f} mA flow.",
                    "Put a guard into the line of the source, or let it come in over a keyed plug.",
                    about(energised, wrong.ref),
                    state=energised.states[wrong.state].id,
                )
            )
        else:
            found.append(
                RULE.finding(
                    f"{words}: it is shorted, {1000 * wrong.amperes:.0f} mA flow.",
                    "Put a guard into the line of the source, or let it come in over a keyed plug.",
                    (thing(wrong.node),),
                    state=energised.states[wrong.state].id,
                )
            )
    return outcome(found, len(turned))


RULE = Rule(
    "put-in-wrong",
    "power",
    "stop",
    "Sooner or later somebody puts the cell in backwards; what has no guard is destroyed, and a "
    "lithium cell that is shorted can burn.",
    Source(
        kind="common practice",
        text="data sheets allow 0.3 V below ground, from memory; currents of the device",
    ),
    run,
    ("circuit",),
)
