"""A USB port sees no more capacitance than it is allowed to."""

from loquet.core.brief.regulated import UsbPower
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit.port_load import farads, seen_by_port
from loquet.core.circuit.usb_power import plug_net
from loquet.core.provenance import NotApplicable, Outcome, Source

MOST_F = 10e-6


def run(subject: Subject) -> Outcome:
    """Add up, for every port, what fills from its plug before the next converter."""
    circuit = subject.circuit
    assert circuit is not None
    ports = [t for t in subject.brief.things if isinstance(t, UsbPower)]
    if not ports:
        return NotApplicable("there is no USB port")
    found = []
    for port in ports:
        rows = seen_by_port(circuit, subject.library.parts, plug_net(port))
        held = sum(map(farads, rows))
        if held > MOST_F * 1.001:
            each = ", ".join(f"{c.ref} {c.value}" for c in rows)
            found.append(
                RULE.finding(
                    f"{port.label} sees {held * 1e6:.1f} µF when it is plugged in ({each}), and "
                    f"USB allows {MOST_F * 1e6:g} µF.",
                    "Take smaller ones, or put a load switch before those that have to be large.",
                    (thing(port.name), *(f"part:{c.ref}" for c in rows)),
                )
            )
    return outcome(found, len(ports))


RULE = Rule(
    "port-capacity",
    "power",
    "look",
    "A host whose 5 V dip when a device is plugged in shuts its port off, or loses what else hangs "
    "on it.",
    Source(kind="standard", text="USB 2.0 section 7.2.4.1: at most 10 µF at the end of the cable"),
    run,
    ("circuit",),
)
