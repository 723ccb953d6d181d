"""Where pins stand beyond their supplies, and by whom they are brought there."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquet.core.energising.answering import shockley
from loquet.core.energising.conditions import absent
from loquet.core.energising.elements import THERMAL_V, Resistance, junction_of, nodes_of
from loquet.core.energising.energised import Energised
from loquet.core.energising.pins import Pin
from loquet.core.energising.semiconductors import CLAMP_A, CLAMP_V

Bools = NDArray[np.bool_]
ABOVE_V = 0.3
"""So far above its own supply, and below ground, a pin may be driven; from memory of data
sheets.
"""
FIVE_V = 5.5
"""What a pin that takes 5 V takes at the most; from memory of data sheets."""
TRICKLE_A = 10e-6
"""A current into a clamp that nobody minds; common practice, no source."""
ALIVE_SHARE = 0.8
"""A part whose supply has less than such a share of what its rail has counts as off."""


@dataclass(frozen=True)
class Over:
    """A pin above what it takes, where it is worst: the state, its volts, what it takes, the
    current in A that goes into its supply, who brings it there, and whether its part is on.
    """

    pin: Pin
    state: int
    volts: float
    takes_v: float
    amperes: float
    by: str
    pulled: bool
    alive: bool


def takes_v(energised: Energised, pin: Pin) -> NDArray[np.float64]:
    """What a pin takes at the most, by state; a rail that is itself brought above its volts does
    not count for more.
    """
    fixed = max(pin.takes_v, FIVE_V if pin.five_volt else 0.0)
    made, supply = energised.device.rails.get(pin.supply), energised.volt(pin.supply)
    if made is not None:
        supply = np.minimum(supply, made.rail.fresh_v)
    return np.maximum(supply + ABOVE_V, fixed)


def supply_usual_v(energised: Energised, pin: Pin) -> float:
    """What the supply of a pin has usually: its rail, or the most that it has while everything is
    as it was meant to be.
    """
    made = energised.device.rails.get(pin.supply)
    if made is not None:
        return made.rail.empty_v
    rows = meant(energised)
    volts = energised.volt(pin.supply)[rows]
    return float(volts.max()) if len(volts) else 0.0


def meant(energised: Energised) -> Bools:
    """States in which all is as it was meant to be."""
    return energised.rows([state.usual for state in energised.states])


def overs(energised: Energised) -> Iterator[Over]:
    """Every pin that is brought above what it takes while all is as it was meant to be, once while
    its part is on and once while it is off.
    """
    rows, saturation = meant(energised), np.float64(junction_of(CLAMP_V, CLAMP_A))
    for pin in energised.pins:
        volts, supply = energised.volt(pin.node), energised.volt(pin.supply)
        takes = takes_v(energised, pin)
        amps = shockley(volts - supply, saturation, THERMAL_V)  # type: ignore[arg-type]
        amps = amps if pin.clamped else np.zeros_like(amps)
        high = rows & (volts > takes + 1e-6) & ((amps > TRICKLE_A) | (not pin.clamped))
        if not high.any():
            continue
        alive = supply >= ALIVE_SHARE * supply_usual_v(energised, pin)
        for wanted in (True, False):
            here = high & (alive == wanted)
            if here.any():
                state = int(np.argmax(np.where(here, volts - takes, -1e9)))
                by, pulled = brought_by(energised, pin, state)
                yield Over(
                    pin,
                    state,
                    open_v(energised, pin, state),
                    float(takes[state]),
                    float(amps[state]),
                    by,
                    pulled,
                    wanted,
                )


def brought_by(energised: Energised, pin: Pin, state: int) -> tuple[str, bool]:
    """The part out of which most of the current flows into a pin's node, and whether it is a
    resistor.
    """
    best, most, pulled = "", 0.0, False
    for kind, amps in energised.answers.currents.items():
        for index, element in enumerate(getattr(energised.answers.made.network, kind)):
            if element.ref == pin.ref or not element.ref:
                continue
            for end, node in enumerate(nodes_of(element)):
                given = -float(amps[state, index, end])
                if node == pin.node and given > most:
                    component = energised.device.by_ref[element.ref]
                    best, most = element.ref, given
                    pulled = (
                        isinstance(element, Resistance)
                        and energised.device.kind(component) == "resistor"
                    )
    return best, pulled


def open_v(energised: Energised, pin: Pin, state: int) -> float:
    """The volts that a pin would be brought to if its own clamp did not hold it: of what the
    element that brings it there has at its other end.
    """
    best, most = float(energised.volt(pin.node)[state]), 0.0
    for index, element in enumerate(energised.answers.made.network.resistances):
        ends = (element.a, element.b)
        if element.ref != pin.ref and pin.node in ends:
            other = element.b if element.a == pin.node else element.a
            amps = abs(float(energised.answers.currents["resistances"][state, index, 0]))
            if amps > most and energised.volt(other)[state] > best:
                best, most = float(energised.volt(other)[state]), amps
    return best


HIGH_SHARE = 0.7
"""From such a share of its supply on a CMOS input is high (JEDEC JESD8)."""
LIFTED_V = 0.5
"""A line that nothing lifts so far is not held high by anything but the pin's own pull-up."""


@dataclass(frozen=True)
class Low:
    """An input that its driver does not bring high, where it is worst: the state, the volts, what
    it asks, and who drives it; `late` is one that is low only when a source is nearly empty.
    """

    pin: Pin
    state: int
    volts: float
    asks_v: float
    by: str
    pulled: bool
    late: bool


def lows(energised: Energised) -> Iterator[Low]:
    """Every input that stays below what it asks for high while lines are driven high, or held so
    by resistors.
    """
    high = meant(energised) & np.array([s.acts == "high" for s in energised.states])
    driven: dict[str, set[str]] = {}
    for pin in energised.pins:
        if pin.does in ("output", "analogue out"):
            driven.setdefault(pin.node, set()).add(pin.ref)
    for pin in energised.pins:
        if not pin.reads:
            continue
        drivers = driven.get(pin.node, set()) - {pin.ref}
        by_others = bool(drivers)
        supply = energised.volt(pin.supply)
        alive = supply >= ALIVE_SHARE * supply_usual_v(energised, pin)
        asks = np.maximum(pin.asks_v, 0.0) if pin.asks_v else HIGH_SHARE * supply
        asks = np.broadcast_to(asks, supply.shape)
        volts = energised.volt(pin.node)
        here = high & alive & (volts > LIFTED_V) & (volts < asks)
        if here.any():
            state = int(np.argmax(np.where(here, asks - volts, -1e9)))
            by, pulled = min(drivers, default=""), False
            if not by_others:
                by, pulled = brought_by(energised, pin, state)
            amounts = float(volts[state]), float(asks[state])
            fresh = [all(x != "least" for _, x in s.sources) for s in energised.states]
            late = not bool((here & np.array(fresh)).any())
            yield Low(pin, state, *amounts, by, pulled, late)


BACK_A = 0.8e-3
"""A current into a source from which on it is fed backwards; into one that is absent it is 0.8 V at
its plug, above which a port counts as powered (USB Type-C 2.1: vSafe0V).
"""


@dataclass(frozen=True)
class Back:
    """A source that current flows into, where it is worst: the state, the current in A, the source
    that it comes from, and the parts on the way.
    """

    source: str
    state: int
    amperes: float
    start: str
    through: tuple[str, ...]


def backs(energised: Energised) -> Iterator[Back]:
    """Every source that another one feeds, but for a cell that its charger fills."""
    rows = meant(energised)
    for name, given in energised.given_a.items():
        into = -given - charged_a(energised, name) + absent_a(energised, name)
        here = rows & (into > BACK_A)
        if here.any():
            state = int(np.argmax(np.where(here, into, -1e9)))
            start, through = traced(energised, name, state)
            yield Back(name, state, float(into[state]), start, through)


def absent_a(energised: Energised, name: str) -> NDArray[np.float64]:
    """What flows into a source that is absent, by state, in A; an empty holder takes nothing."""
    network, amps = energised.answers.made.network, energised.answers.currents["resistances"]
    for index, element in enumerate(network.resistances):
        if element.when == absent(name):
            return np.asarray(amps[:, index, 0])
    return np.zeros(len(energised.states))


def charged_a(energised: Energised, name: str) -> NDArray[np.float64]:
    """What the chargers of a source give by state, in A."""
    whole = np.zeros(len(energised.states))
    for ref, rows in energised.answers.indices.items():
        component = energised.device.by_ref.get(ref)
        if component is None or component.thing != name:
            continue
        if energised.device.kind(component) == "charger":
            for kind, index, _ in rows:
                if kind == "converters":
                    whole = whole - energised.answers.currents[kind][:, index, 1]
    return whole


def traced(energised: Energised, name: str, state: int) -> tuple[str, tuple[str, ...]]:
    """Where the current into a source comes from: the source at the other end, and the parts on
    the way to it, by the largest current at each node.
    """
    answer = energised.answers
    owner = {source.plus: source.name for source in answer.made.network.sources}
    here = next(s.plus for s in answer.made.network.sources if s.name == name)
    through: list[str] = []
    for _ in range(40):
        step, most, ref = "", 0.0, ""
        for kind, amps in answer.currents.items():
            for index, element in enumerate(getattr(answer.made.network, kind)):
                ends = nodes_of(element)
                if kind == "sources" or here not in ends:
                    continue
                flows = amps[state, index]
                if -flows[ends.index(here)] > most:
                    most, ref = -float(flows[ends.index(here)]), element.ref
                    step = ends[int(np.argmax(flows))]
        if not step:
            break
        through.append(ref)
        here = step
        if owner.get(here, name) != name:
            return owner[here], tuple(dict.fromkeys(through[::-1]))
    return "", tuple(dict.fromkeys(through[::-1]))


def highest_volts(energised: Energised) -> dict[str, float]:
    """The highest volts of every node against ground while all is as it was meant to be."""
    volts = energised.answers.volts[meant(energised)]
    if not len(volts):
        return {}
    return {node: float(volts[:, row].max()) for node, row in energised.answers.made.at.items()}


def through_a(energised: Energised, ref: str) -> NDArray[np.float64]:
    """What flows through a part by state, in A: the largest current of its elements together at
    one terminal, whichever way.
    """
    by_node: dict[str, NDArray[np.float64]] = {}
    for kind, index, element in energised.answers.indices.get(ref, ()):
        amps = energised.answers.currents[kind]
        for end, node in enumerate(nodes_of(element)):
            so_far = by_node.get(node, np.zeros(len(energised.states)))
            by_node[node] = so_far + amps[:, index, end]
    rows = [np.abs(row) for row in by_node.values()]
    found: NDArray[np.float64] = np.max(rows, axis=0) if rows else np.zeros(len(energised.states))
    return found


WRONG_A = 1e-3
"""A current out of ground through a pin that is below it, from which on a part is harmed; common
practice, no source.
"""
SHORT_A = 0.2
"""A current of a source that is in the wrong way round from which on something burns; common
practice, no source.
"""


@dataclass(frozen=True)
class Wrong:
    """What a source does that is put in the wrong way: the state, the part that it harms (nothing
    where it is shorted), the node, and how many volts or amperes.
    """

    state: int
    ref: str
    node: str
    volts: float
    amperes: float


@dataclass(frozen=True)
class Burst:
    """A part that stands fewer volts than the wrong adapter gives it: the state, its reference, the
    volts and what it stands.
    """

    state: int
    ref: str
    volts: float
    most_v: float


def bursts(energised: Energised) -> Iterator[Burst]:
    """Parts that the wrong adapter destroys: at their supply, or across them."""
    rows = energised.rows([any(x == "wrong" for _, x in s.sources) for s in energised.states])
    if not rows.any():
        return
    for component in energised.device.circuit.components:
        part, spot = energised.device.parts.get(component.part), energised.spots[component.ref]
        values = part.values if part else {}
        limit = values.get("input_max_v", values.get("voltage"))
        node = spot.node("in") or spot.node("supply")
        nodes = [node] if "input_max_v" in values and node else list(component.pads.values())
        if limit is None or not nodes:
            continue
        volts = np.where(rows, np.max([np.abs(energised.volt(n)) for n in nodes], axis=0), 0.0)
        if volts.max() > limit:
            state = int(volts.argmax())
            yield Burst(state, component.ref, float(volts[state]), limit)


def wrongs(energised: Energised) -> Iterator[Wrong]:
    """Parts that stand below ground, and sources that are shorted, while one is the wrong way
    round; each part once.
    """
    turned = [any(x == "reversed" for _, x in s.sources) for s in energised.states]
    rows = energised.rows(turned)
    if not rows.any():
        return
    seen: set[str] = set()
    ground = energised.answers.made.network.ground
    amps = energised.answers.currents["junctions"]
    for index, element in enumerate(energised.answers.made.network.junctions):
        flows = np.where(rows, amps[:, index, 0], 0.0)
        kind = energised.device.kind(energised.device.by_ref[element.ref])
        clamp = element.a == ground and kind not in ("diode", "light")
        if clamp and flows.max() > WRONG_A and element.ref not in seen:
            seen.add(element.ref)
            state = int(flows.argmax())
            volts = float(energised.volt(element.b)[state])
            yield Wrong(state, element.ref, element.b, volts, float(flows[state]))
    for name, given in energised.given_a.items():
        own = [any(x == (name, "reversed") for x in s.sources) for s in energised.states]
        flows = np.where(energised.rows(own), np.abs(given), 0.0)
        if flows.max() > SHORT_A and not seen:
            state = int(flows.argmax())
            yield Wrong(state, "", name, 0.0, float(flows[state]))


@dataclass(frozen=True)
class Fed:
    """What a supply pin gets while all is as it was meant to be: the most volts, the least while
    its sources are at their usual volts and while one is nearly empty, each with its state.
    """

    most_v: float
    most_at: int
    usual_v: float
    usual_at: int
    late_v: float
    late_at: int


def fed_at(energised: Energised, node: str) -> Fed | None:
    """What a node gets as a supply; nothing for one that is never fed. The most counts while nobody
    drives a line: what comes in through pins is said of those.
    """
    rows, volts = meant(energised), energised.volt(node)
    quiet = np.array([s.acts not in ("high", "low") for s in energised.states])
    most_at = int(np.argmax(np.where(rows & quiet, volts, -1e9)))
    most = float(volts[most_at]) if rows.any() else 0.0
    if most < LIFTED_V:
        return None
    on = rows & (volts > most / 2)
    late = np.array([any(x == "least" for _, x in s.sources) for s in energised.states])
    usual_at = int(np.argmin(np.where(on & ~late, volts, 1e9)))
    late_at = int(np.argmin(np.where(on & late, volts, 1e9))) if (on & late).any() else usual_at
    return Fed(
        most,
        most_at,
        float(volts[usual_at]),
        usual_at,
        float(volts[late_at]),
        late_at,
    )
