"""Legs that a part's own metal joins lie on one net."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at every terminal that is joined inside of its part."""
    circuit, parts = subject.circuit, subject.library.parts
    assert circuit is not None
    found, looked = [], 0
    for component in circuit.components:
        part = parts.get(component.part)
        for name, terminal in part.terminals.items() if part else ():
            on = {pad: component.pads[pad] for pad in terminal.pads if pad in component.pads}
            looked += terminal.joined
            if terminal.joined and len(set(on.values())) > 1:
                legs, nets = " and ".join(on), " and ".join(sorted(set(on.values())))
                found.append(
                    RULE.finding(
                        f"{component.ref} ({component.purpose}) joins {nets}: its pads {legs} are "
                        f"one piece of metal, terminal '{name}'.",
                        "Put them on one net, or leave one of them open.",
                        (
                            f"part:{component.ref}",
                            *((thing(component.thing),) if component.thing else ()),
                        ),
                    )
                )
    return outcome(found, looked)


RULE = Rule(
    "joined-legs",
    "circuit",
    "stop",
    "A key whose other leg lies on ground is pressed for ever, and no track shows it.",
    Source(kind="part drawing", text="terminals of the parts in the catalogue"),
    run,
    ("circuit",),
)
