"""No switch, fuse, diode, transistor, coil or contact carries more than it is made for."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.checks.switched_on import carried_by, switched_on, when
from loquet.core.circuit import Component
from loquet.core.energising.carried import Carried
from loquet.core.energising.energised import Energised
from loquet.core.energising.loading import carries_ma
from loquet.core.parts import Part
from loquet.core.provenance import Outcome, Repair, Source, Working, given


def run(subject: Subject) -> Outcome:
    """Compare what every part in the way of power carries with its limit."""
    circuit, library = subject.circuit, subject.library
    assert circuit is not None
    carries = carried_by(subject)
    carried, energised = carries.parts, switched_on(subject)
    found, looked = [], 0
    for component in circuit.components:
        part, current = library.parts.get(component.part), carried.get(component.ref)
        limit = carries_ma(component, part) if part and current else None
        if current is None or part is None or limit is None:
            continue
        looked += 1
        if current <= limit:
            continue
        about = (f"part:{component.ref}", *((thing(component.thing),) if component.thing else ()))
        does = "holds" if part.kind == "fuse" else "is made for"
        found.append(
            RULE.finding(
                f"{when_of(energised, carries, component.ref)}{component.ref} "
                f"({component.purpose}) carries {current:.0f} mA, and {does} {limit:.0f} mA.",
                WAYS.get(part.kind, "Take a part for more current, or draw less."),
                about,
                working=working_of(component, part, current, limit),
                state=state_of(energised, carries, component.ref),
                repairs=stronger(subject, component, part, current),
            )
        )
    return outcome(found, looked)


def state_of(energised: Energised, carried: Carried, ref: str) -> str:
    """That state itself."""
    return energised.states[carried.states[ref]].id if ref in carried.states else ""


def when_of(energised: Energised, carried: Carried, ref: str) -> str:
    """The state in which a part carries most, as the beginning of a sentence."""
    return f"{when(energised, carried.states[ref])}: " if ref in carried.states else ""


WAYS = {
    "slide switch": "Take a power button with latch: its switch carries no current. Or draw less.",
    "fuse": "Let the port ask for more current, or draw less.",
}


def stronger(
    subject: Subject, component: Component, part: Part, current: float
) -> tuple[Repair, ...]:
    """The least part of the same kind and make that carries it, where the thing's own part may be
    changed.
    """
    if not component.thing or subject.brief.thing(component.thing).part != part.id:
        return ()
    fitting = [
        p
        for p in subject.library.parts.values()
        if p.kind == part.kind and (carries_ma(component, p) or 0.0) >= current
    ]
    if not fitting:
        return ()
    best = min(fitting, key=lambda p: (carries_ma(component, p) or 0.0, p.id))
    edit = {"kind": "change-thing", "name": component.thing, "changes": {"part": best.id}}
    return (Repair(label=f"Take the {best.short}", edit=edit),)


def working_of(component: Component, part: Part, current: float, limit: float) -> Working:
    """How much of its limit a part is asked for."""
    return Working(
        id=f"carried.{component.role}",
        title=f"Load of {component.ref}",
        value=100 * current / limit,
        unit="%",
        shown=f"{100 * current / limit:.0f} %",
        formula="100 x I / Imax",
        inputs=(
            given(
                "I",
                round(current, 1),
                "mA",
                "highest of all states in which all is as it was meant",
            ),
            given("Imax", limit, "mA", part.evidence_text),
        ),
        source=RULE.source,
    )


RULE = Rule(
    "part-current",
    "circuit",
    "stop",
    "A switch that carries twice its current welds; a fuse opens; a coil that saturates burns "
    "its converter.",
    Source(kind="part drawing", text="limits of the parts in the catalogue; peak of each source"),
    run,
    ("circuit",),
)
