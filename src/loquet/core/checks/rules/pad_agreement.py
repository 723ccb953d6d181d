"""Every pad that the circuit uses exists in the land pattern."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare pad numbers of circuit and pattern, both ways for chips."""
    view = subject.view
    assert view is not None
    found = []
    for component in view.circuit.components:
        drawn = {pad.number for pad in view.patterns[component.ref].pads}
        for number in sorted(component.pads.keys() - drawn):
            found.append(
                RULE.finding(
                    f"{component.ref} ({component.purpose}) uses pad {number}, which its pattern"
                    f" {view.patterns[component.ref].name} does not have.",
                    "Correct the part's drawing.",
                    (f"part:{component.ref}",),
                )
            )
    return outcome(found, len(view.circuit.components))


RULE = Rule(
    "pad-agreement",
    "circuit",
    "stop",
    "A pad numbered unlike the drawing turns a part round.",
    Source(kind="part drawing", text="pad numbers of the land pattern"),
    run,
    ("view",),
)
