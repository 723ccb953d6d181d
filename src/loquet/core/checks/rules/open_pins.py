"""Every pin of every part is on a net, or may stay open for a reason."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit import Component
from loquet.core.library import Library
from loquet.core.provenance import Outcome, Source

# Things of one's own: their pin order says which pins are open, and is held complete by the brief.
OWN_BLOCK = "own"
OPEN_ON_CHIPS = ("port", "unused", "dedicated", "reset", "gives")


def run(subject: Subject) -> Outcome:
    """Look at the pins that are on no net."""
    circuit = subject.circuit
    assert circuit is not None
    found = [
        RULE.finding(
            f"{component.ref} ({component.purpose}): pin {pad}{f', {name},' if name else ''} is on"
            " no net.",
            "Connect it at the Circuit, or take back the change that cut it.",
            (f"part:{component.ref}",),
        )
        for component in circuit.components
        for pad, name in unjoined(component, subject.library)
    ]
    return outcome(found, sum(len(c.pads) for c in circuit.components))


def unjoined(component: Component, library: Library) -> list[tuple[str, str]]:
    """Pins that ought to be on a net: their numbers and names."""
    if component.is_chip:
        chip = library.find_chip(component.part[5:])
        return [
            (pin.number, pin.name)
            for pin in chip.pins
            if pin.number not in component.pads and pin.kind not in OPEN_ON_CHIPS
        ]
    if component.block == OWN_BLOCK:
        return []
    part = library.parts[component.part]
    return [
        (pad, part.pin_names.get(pad, ""))
        for terminal in part.terminals.values()
        for pad in terminal.pads
        if pad not in component.pads
        and not terminal.open
        and not (terminal.joined and set(terminal.pads) & set(component.pads))
    ]


RULE = Rule(
    "open-pins",
    "circuit",
    "stop",
    "An input or a supply pin that hangs in the air works on the bench and fails in the hand.",
    Source(
        kind="common practice",
        text=("unused CMOS inputs are tied; what may stay open says why at its terminal"),
    ),
    run,
    ("circuit",),
)
