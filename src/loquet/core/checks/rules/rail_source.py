"""Every net that feeds something has a source, and no net ends at a single pad."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.checks.switched_on import switched_on
from loquet.core.energising.limits import highest_volts
from loquet.core.provenance import Outcome, Source

FED_V = 0.5
"""A rail that never comes to so much is fed by nothing; common practice, no source."""


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
    volts = highest_volts(switched_on(subject))
    for net in circuit.nets:
        if net.kind == "supply" and volts.get(net.name, 0.0) < FED_V:
            found.append(
                RULE.finding(
                    f"{net.name} has {len(net.pads)} loads and no source.",
                    "Add a source to this rail.",
                    (f"net:{net.name}",),
                )
            )
    return outcome(found, len(circuit.nets))


RULE = Rule(
    "rail-source",
    "circuit",
    "stop",
    "A rail with loads and no source is a forgotten regulator or switch.",
    Source(kind="common practice", text="electrical rule, no source"),
    run,
    ("circuit",),
)
