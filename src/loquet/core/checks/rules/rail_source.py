"""Every net that feeds something has a source, and no net ends at a single pad."""

from loquet.core.brief.module_sockets import module_sockets
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit.backfeed import BOTH_WAYS
from loquet.core.circuit.model import GROUND, Component
from loquet.core.power.rails import rails_of
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Count the pads of each net and look for the cells behind each rail."""
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
    fed = reached(subject)
    for net in circuit.nets:
        if net.kind == "supply" and net.name not in fed:
            found.append(
                RULE.finding(
                    f"{net.name} has {len(net.pads)} loads and no source.",
                    "Add a source to this rail.",
                    (f"net:{net.name}",),
                )
            )
    return outcome(found, len(circuit.nets))


def reached(subject: Subject) -> set[str]:
    """Nets that sources reach through cells, guards, switches and converters."""
    assert subject.circuit is not None
    brings = {t.name for t in subject.brief.brains if t.feed() and not t.LOWER_FEED}
    sources = (
        c
        for c in subject.circuit.components
        if c.polar or gives(subject, c) or (c.is_chip and c.thing in brings)
    )
    supplies = {net.name for net in subject.circuit.nets if net.kind == "supply"}
    fed = {net for c in sources for net in c.pads.values() if not c.is_chip or net in supplies} - {
        GROUND
    }
    sockets = {port.name for port in module_sockets(subject.brief).values()}
    fed |= {rail.net for rail in rails_of(subject.brief) if rail.fed_by in sockets}
    passing = [
        (set(c.pads.values()) - {GROUND}) & (supplies if c.is_chip else set(c.pads.values()))
        for c in subject.circuit.components
        if c.block in ("power", "module") or passes(subject, c)
    ]
    for _ in passing:
        for nets in passing:
            if nets & fed:
                fed |= nets
    return fed


def passes(subject: Subject, component: Component) -> bool:
    """Whether a part lets power through, wherever it stands, as a port's fuse does."""
    part = subject.library.parts.get(component.part)
    return part is not None and part.kind in BOTH_WAYS


def gives(subject: Subject, component: Component) -> bool:
    """Whether power comes in through a part, as through a USB socket."""
    part = subject.library.parts.get(component.part)
    return part is not None and "gives_v" in part.values


RULE = Rule(
    "rail-source",
    "circuit",
    "stop",
    "A rail with loads and no source is a forgotten regulator or switch.",
    Source(kind="common practice", text="electrical rule, no source"),
    run,
    ("circuit",),
)
