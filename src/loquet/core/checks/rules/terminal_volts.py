"""No terminal gets more volts than its drawing says that it stands."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import switched_on
from loquet.core.energising.meant import highest_volts
from loquet.core.provenance import NotApplicable, Outcome, Source, Working, given


def run(subject: Subject) -> Outcome:
    """Compare every terminal that says its most volts with the highest that its net comes to."""
    circuit, parts = subject.circuit, subject.library.parts
    assert circuit is not None
    volts = highest_volts(switched_on(subject))
    found, looked = [], 0
    for component in circuit.components:
        part = parts.get(component.part)
        for name, terminal in part.terminals.items() if part else ():
            net = component.pads.get(terminal.pads[0])
            if part is None or terminal.most_v is None or net is None or net not in volts:
                continue
            looked += 1
            if volts[net] <= terminal.most_v:
                continue
            about = (f"part:{component.ref}", f"net:{net}")
            found.append(
                RULE.finding(
                    f"{name} of {component.ref} ({component.purpose}) stands {terminal.most_v:g} V,"
                    f" and {net} may come to {volts[net]:.2f} V.",
                    "Feed it from a lower rail, put a divider or a shifter between, or take"
                    " another part.",
                    (*about, thing(component.thing)) if component.thing else about,
                    working=Working(
                        id=f"volts.{component.role}.{name}",
                        title=f"Volts at {name} of {component.ref}",
                        value=100 * volts[net] / terminal.most_v,
                        unit="%",
                        shown=f"{100 * volts[net] / terminal.most_v:.0f} %",
                        formula="100 x V / Vmost",
                        inputs=(
                            given(
                                "V",
                                volts[net],
                                "V",
                                "highest of all states in which all is as it was meant",
                            ),
                            given("Vmost", terminal.most_v, "V", part.evidence_text),
                        ),
                        source=RULE.source,
                    ),
                )
            )
    if not looked:
        return NotApplicable("no terminal says what it stands")
    return outcome(found, looked)


RULE = Rule(
    "terminal-volts",
    "circuit",
    "stop",
    "A pin above its limit conducts into its part's supply, heats, or dies at once.",
    Source(kind="part drawing", text="absolute limits of the parts on the shelf"),
    run,
    ("circuit",),
)
