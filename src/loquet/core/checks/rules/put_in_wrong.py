"""A source that is put in the wrong way round, or another adapter, harms nothing."""

from collections.abc import Iterator

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import about, named, switched_on, when
from loquet.core.energising.energised import Energised
from loquet.core.energising.put_in_wrong import bursts, wrongs
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at every state in which a cell, wires or an adapter are the wrong way round, or an
    adapter is another one.
    """
    energised = switched_on(subject)
    odd = [s for s in energised.states if not s.usual]
    if not odd:
        return NotApplicable("no source of this device can be put in the wrong way round")
    found = list(burst(energised))
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
    return outcome(found, len(odd))


def burst(energised: Energised) -> Iterator[Finding]:
    """What another adapter with the same plug destroys, in one sentence."""
    rows = sorted(bursts(energised), key=lambda row: row.most_v - row.volts)
    if rows:
        first, more = rows[0], [row.ref for row in rows[1:]]
        beside = f"; {', '.join(more)} as well" if more else ""
        yield RULE.finding(
            f"{when(energised, first.state)}: {named(energised, first.ref)} stands "
            f"{first.most_v:g} V and gets {first.volts:.1f} V{beside}.",
            "Print the volts beside the jack, or take a converter and capacitors that stand that "
            "adapter.",
            about(energised, first.ref),
            severity="look",
            state=energised.states[first.state].id,
        )


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
