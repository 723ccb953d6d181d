"""Nothing holds a line of a part high while its switched rail is off."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit import Circuit
from loquet.core.circuit.model import GROUND
from loquet.core.power import rails_of
from loquet.core.provenance import NotApplicable, Outcome, Source

PASSIVE_PADS = 3


def run(subject: Subject) -> Outcome:
    """Look at what else is on the nets of every part that a switched rail feeds."""
    circuit, brief = subject.circuit, subject.brief
    assert circuit is not None
    switches = {t.name for t in brief.things if t.PASSES}
    rails = rails_of(brief)
    dark = {rail.net: rail.fed_by for rail in rails if rail.fed_by in switches}
    lit = {rail.net for rail in rails} - dark.keys()
    if not dark:
        return NotApplicable("no rail is switched")
    found, looked = [], 0
    for component in circuit.components:
        switch = next((dark[net] for net in component.pads.values() if net in dark), "")
        lines = set(component.pads.values()) - dark.keys() - lit - {GROUND}
        if not switch or not lines or len(component.pads) <= PASSIVE_PADS:
            continue
        looked += 1
        owner = (thing(component.thing),) if component.thing else ()
        held = sorted(line for line in lines if pulled_up(circuit, line, lit))
        driven = sorted(line for line in lines if line not in held and at_a_brain(circuit, line))
        if held:
            found.append(
                RULE.finding(
                    f"While {switch} is off, {component.ref} ({component.purpose}) is fed through"
                    f" its own inputs: {', '.join(held)} {'is' if len(held) == 1 else 'are'} pulled"
                    " up to another rail.",
                    f"Feed those resistors from {switch} as well, or leave the part on its rail: it"
                    " sleeps by itself.",
                    (thing(switch), *owner, f"part:{component.ref}"),
                )
            )
        elif driven:
            found.append(
                RULE.finding(
                    f"While {switch} is off, the firmware must hold {', '.join(driven)} of"
                    f" {component.ref} low or leave them open.",
                    "Do so before it is switched off; a line that is high feeds the part through"
                    " its input.",
                    (thing(switch), *owner, f"part:{component.ref}"),
                    severity="note",
                )
            )
    return outcome(found, looked)


def pulled_up(circuit: Circuit, line: str, lit: set[str]) -> bool:
    """Whether a part with two ends joins a line to a rail that stays on."""
    return any(
        len(c.pads) == 2 and line in c.pads.values() and lit & set(c.pads.values())
        for c in circuit.components
    )


def at_a_brain(circuit: Circuit, line: str) -> bool:
    """Whether a chip drives or reads a line."""
    return any(c.is_chip and line in c.pads.values() for c in circuit.components)


RULE = Rule(
    "dark-lines",
    "power",
    "look",
    "A part that is off but fed through its inputs is half on: it draws current, and starts in a"
    " state that nobody has seen.",
    Source(
        kind="common practice",
        text=(
            "inputs are clamped to their supply by diodes; makers' data sheets allow 0.3 V above it"
        ),
    ),
    run,
    ("circuit",),
)
