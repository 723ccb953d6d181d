"""Every net that feeds something has a source, and no net ends at a single pad."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import switched_on, when
from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import highest_volts
from loquet.core.provenance import Finding, Outcome, Source

FED_V, FED_SHARE = 0.5, 0.75
"""What never comes to so much, or a rail to such a share of its volts, is fed by nothing; common
practice, no source.
"""


def run(subject: Subject) -> Outcome:
    """Count the pads of each net, and look at the volts of every supply in all states."""
    circuit = subject.circuit
    assert circuit is not None
    found = []
    for net in circuit.nets:
        if len(net.pads) == 1:
            ref, pad = net.pads[0]
            found.append(
                RULE.finding(
                    f"{net.name} ends at {ref} pad {pad} and reaches nothing else.",
                    "Connect it or take it out.",
                    (f"net:{net.name}",),
                    severity="look",
                )
            )
    energised = switched_on(subject)
    volts = highest_volts(energised)
    for net in circuit.nets:
        if net.kind == "supply" and volts.get(net.name, 0.0) < FED_V:
            found.append(
                RULE.finding(
                    f"{net.name} has {len(net.pads)} loads and no source.",
                    "Add a source to this rail.",
                    (f"net:{net.name}",),
                )
            )
    if not found:
        found += unfed(energised)
    return outcome(found, len(circuit.nets))


def unfed(energised: Energised) -> list[Finding]:
    """Sources that do not bring their own rail up when they are there alone and hardly anything is
    drawn.
    """
    found = []
    for index, state in enumerate(energised.states):
        if state.acts != "asleep" or len(state.sources) != 1 or state.sources[0][1] != "usual":
            continue
        name = state.sources[0][0]
        for net, made in energised.device.rails.items():
            volts = float(energised.volt(net)[index])
            if made.rail.fed_by == name and volts < FED_SHARE * made.rail.usual_v:
                found.append(
                    RULE.finding(
                        f"{when(energised, index)}: {net} comes to {volts:.2f} V, and is to be fed "
                        f"from {name} with {made.rail.usual_v:g} V.",
                        "Join what is between them.",
                        (f"net:{net}", thing(name)),
                        state=state.id,
                    )
                )
    return found


RULE = Rule(
    "rail-source",
    "circuit",
    "stop",
    "A rail with loads and no source is a forgotten regulator or switch.",
    Source(kind="common practice", text="electrical rule, no source"),
    run,
    ("circuit",),
)
