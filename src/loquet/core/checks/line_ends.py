"""Both ends of every line: how high each part may drive it, and how much each pin on it takes or
asks for.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from loquet.core.checks.rule import Subject
from loquet.core.circuit import Circuit, Component
from loquet.core.circuit.lifting import high_asked_v, high_driven_v
from loquet.core.circuit.model import GROUND
from loquet.core.parts.terminal import Does
from loquet.core.pins.model import NeedKind
from loquet.core.power import lines_v, logic_rail_of, rail_of, rails_of
from loquet.core.quantities.shown import read_si

ABOVE_V = 0.3
"""So far above its own supply a pin may be driven; from memory of data sheets."""
INPUTS: tuple[Does, ...] = ("input",)
TAKEN: tuple[Does, ...] = ("input", "analogue in", "open drain", "both ways")
DRIVING: tuple[Does, ...] = ("output", "analogue out")
DRIVES: tuple[NeedKind, ...] = (
    "output",
    "high drive",
    "timer",
    "converter output",
    "serial clock",
    "serial out",
    "port transmit",
    "sound clock",
    "sound word",
    "sound data",
)
READS: tuple[NeedKind, ...] = (
    "input",
    "interrupt",
    "wake-up",
    "serial in",
    "port receive",
    "two-wire clock",
    "two-wire data",
)
MEASURES: tuple[NeedKind, ...] = ("analogue", "touch", "touch sample")


@dataclass(frozen=True)
class Drive:
    """What brings a net up: the part, the most volts, the least volts for high; `pulled` by a
    resistor only.
    """

    component: Component
    most_v: float
    high_v: float
    pulled: bool = False


@dataclass(frozen=True)
class Pin:
    """What a net meets: the part and its pad, the most volts it takes, the least that it takes for
    high (0: a voltage is measured), and whether that it takes no more is known.
    """

    component: Component
    pad: str
    takes_v: float
    asks_v: float
    known: bool = True


@dataclass(frozen=True)
class Line:
    """A net with everything that drives it and everything that it meets."""

    net: str
    drives: tuple[Drive, ...]
    pins: tuple[Pin, ...]


def lines_of(subject: Subject) -> Iterator[Line]:
    """Every net that two parts share and that carries no supply."""
    circuit = subject.circuit
    assert circuit is not None
    rails = {rail.net: (rail.usual_v, rail.fresh_v) for rail in rails_of(subject.brief)}
    carried = {n.name for n in circuit.nets if n.kind != "signal"} | rails.keys() | {GROUND}
    drives: dict[str, list[Drive]] = {}
    pins: dict[str, list[Pin]] = {}
    for component in circuit.components:
        for net, drive in driven_by(subject, component):
            drives.setdefault(net, []).append(drive)
        for net, pin in met_by(subject, component):
            pins.setdefault(net, []).append(pin)
    for net, drive in pulled_up(circuit, rails):
        drives.setdefault(net, []).append(drive)
    for net in sorted((drives.keys() & pins.keys()) - carried):
        yield Line(net, tuple(drives[net]), tuple(pins[net]))


def kinds_at(subject: Subject, component: Component) -> dict[str, NeedKind]:
    """By pad of a brain, what it does there."""
    own = next((b for b in subject.brains if thing_of(b.share.brain) == component.thing), None)
    return {a.pin: a.kind for a in own.plan.assignments} if own and own.plan else {}


def thing_of(thing: object) -> str:
    """The name of a thing, or nothing."""
    return str(getattr(thing, "name", ""))


def supply_v(subject: Subject, component: Component) -> tuple[float, float] | None:
    """The usual and the highest volts of the rail at a part's supply pin; nothing where it has
    none.
    """
    part = subject.library.parts.get(component.part)
    if part is None or not component.thing:
        return None
    nets = {
        component.pads.get(pad)
        for terminal in part.terminals.values()
        if terminal.does == "supply"
        for pad in terminal.pads
    }
    rail = next((r for r in rails_of(subject.brief) if r.net in nets), None)
    return (rail.usual_v, rail.fresh_v) if rail else None


def own_v(subject: Subject, component: Component) -> tuple[float, float]:
    """The usual and the highest volts on which a thing of one's own lives."""
    rail = rail_of(subject.brief, subject.brief.thing(component.thing))
    return rail.usual_v, rail.fresh_v


def brain_v(subject: Subject, component: Component) -> tuple[float, float]:
    """The usual and the highest volts of a brain's lines."""
    brain = subject.brief.thing(component.thing)
    rail, usual = logic_rail_of(subject.brief, brain), lines_v(subject.brief, brain)
    return usual, rail.fresh_v if rail else usual


def driven_by(subject: Subject, component: Component) -> Iterator[tuple[str, Drive]]:
    """Nets that a part may drive high."""
    if component.is_chip:
        usual, most = brain_v(subject, component)
        for pad, kind in kinds_at(subject, component).items():
            if kind in DRIVES:
                yield component.pads[pad], Drive(component, most, high_driven_v(usual))
        return
    if component.block == "own":
        usual, most = own_v(subject, component)
        for net in component.pads.values():
            if reads_it(subject, net):
                yield net, Drive(component, most, high_driven_v(usual))
        return
    volts_at = supply_v(subject, component)
    if volts_at is None:
        return
    part = subject.library.parts[component.part]
    for pad, net in component.pads.items():
        if part.terminals[part.at_pad[pad]].does in DRIVING:
            yield net, Drive(component, volts_at[1], high_driven_v(volts_at[0]))


def reads_it(subject: Subject, net: str) -> bool:
    """Whether a brain reads or measures a net."""
    return any(
        a.net == net and a.kind in (*READS, *MEASURES) and not a.kind.startswith("two-wire")
        for own in subject.brains
        if own.plan
        for a in own.plan.assignments
    )


def met_by(subject: Subject, component: Component) -> Iterator[tuple[str, Pin]]:
    """Nets that meet a pin with limits of its own."""
    if component.is_chip:
        usual, most = brain_v(subject, component)
        for pad, kind in kinds_at(subject, component).items():
            if kind in (*READS, *MEASURES):
                takes = None if kind in MEASURES else takes_five(subject, component, pad)
                limit = max(most + ABOVE_V, 5.5 if takes else 0.0)
                asks = high_asked_v(usual) if kind in READS else 0.0
                known = takes is not None or kind in MEASURES
                yield component.pads[pad], Pin(component, pad, limit, asks, known)
        return
    volts_at = supply_v(subject, component)
    if volts_at is None:
        return
    part = subject.library.parts[component.part]
    limit = max(part.values.get("takes_v", 0.0), volts_at[1] + ABOVE_V)
    asks = part.values.get("input_high_v", high_asked_v(volts_at[0]))
    for pad, net in component.pads.items():
        does = part.terminals[part.at_pad[pad]].does
        if does in TAKEN:
            yield net, Pin(component, pad, limit, asks if does in INPUTS else 0.0)


def takes_five(subject: Subject, component: Component, pad: str) -> bool | None:
    """Whether a chip's pin takes more than its rail, as its table says; nothing where that is not
    known.
    """
    for brain in subject.brains:
        if brain.chip and brain.chip.name == component.value:
            return brain.chip.pin(pad).five_volt
    return None


def pulled_up(
    circuit: Circuit, rails: Mapping[str, tuple[float, float]]
) -> Iterator[tuple[str, Drive]]:
    """Nets that resistors hold up: the volts between what pulls up and what pulls down."""
    held: dict[str, list[tuple[Component, float, float, float]]] = {}
    for component in circuit.components:
        ohm = read_si(component.value, "Ω")
        ends = list(component.pads.values())
        if not ohm or len(ends) != 2:
            continue
        for net, other in (ends, ends[::-1]):
            if other in rails or other == GROUND:
                held.setdefault(net, []).append((component, *rails.get(other, (0.0, 0.0)), ohm))
    for net, rows in held.items():
        siemens = sum(1 / ohm for *_, ohm in rows)
        usual = sum(volts / ohm for _, volts, _, ohm in rows) / siemens
        most = sum(volts / ohm for _, _, volts, ohm in rows) / siemens
        if most > 0:
            upper = max(rows, key=lambda row: row[1])
            yield net, Drive(upper[0], most, usual, pulled=True)
