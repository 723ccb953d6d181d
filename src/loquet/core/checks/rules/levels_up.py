"""No part on a higher rail is driven too low by a chip to take the line for high."""

from collections.abc import Iterator

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit.lifting import high_asked_v, high_driven_v
from loquet.core.circuit.model import Circuit, Component
from loquet.core.power import lines_v, rails_of
from loquet.core.provenance import NotApplicable, Outcome, Source

# Inputs of parts that a chip drives by itself; open-drain lines are judged by their pull-ups.
DRIVEN = frozenset(
    (
        "line in",
        "enable",
        "load",
        "select",
        "to card",
        "word",
        "inhibit",
        "select 1",
        "select 2",
        "select 3",
    )
)


def run(subject: Subject) -> Outcome:
    """Compare what each chip drives with what the parts on higher rails ask."""
    circuit = subject.circuit
    assert circuit is not None
    rows = list(driven(subject, circuit))
    if not rows:
        return NotApplicable("no chip drives an input of a named part")
    found = [
        RULE.finding(
            f"{chip.ref} drives {net} to {high:.1f} V, and {part.ref} ({part.purpose}) takes {asks:.1f} V and more for high.",
            "Put a buffer with low thresholds between them, or feed the part from the chip's rail.",
            (f"net:{net}",),
        )
        for chip, net, high, part, asks in rows
        if asks > high
    ]
    return outcome(found, len(rows))


def driven(
    subject: Subject, circuit: Circuit
) -> Iterator[tuple[Component, str, float, Component, float]]:
    """Chip, net, volts to which the chip drives it, the part that the net drives, and the volts that it asks for high."""
    volts = {rail.net: rail.usual_v for rail in rails_of(subject.brief)}
    chips = [c for c in circuit.components if c.is_chip]
    for part in circuit.components:
        known = subject.library.parts.get(part.part)
        if part.is_chip or known is None:
            continue
        names = known.pin_names
        own = [
            volts[net]
            for pad, net in part.pads.items()
            if names.get(pad) == "supply" and net in volts
        ]
        if not own:
            continue
        asks = known.values.get("input_high_v", high_asked_v(max(own)))
        lines = {net for pad, net in part.pads.items() if names.get(pad) in DRIVEN}
        for chip in chips:
            high = high_driven_v(lines_v(subject.brief, subject.brief.thing(chip.thing)))
            for net in sorted(lines & set(chip.pads.values()) - set(volts) - {"GROUND"}):
                yield chip, net, high, part, asks


RULE = Rule(
    "levels-up",
    "circuit",
    "stop",
    "An input that is never quite high works on one bench in two.",
    Source(
        kind="standard",
        text="JEDEC JESD8: CMOS inputs take 0.7 of their supply for high; chips drive their rail less 0.4 V",
    ),
    run,
    ("circuit",),
)
