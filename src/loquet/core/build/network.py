"""Nodal analysis: what a meter reads between two nodes, and the volts of every node when power is
on.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquet.core.circuit.nodal.solving import join

LEAK_S = 1e-9
"""Every node leaks so much to ground (a gigaohm), so that nothing floats."""
OPEN_OHM = 2e7
"""A meter says `open` from here on; common practice, no source."""
ROUNDS = 40
SETTLING = 6


@dataclass(frozen=True)
class Resistance:
    """A resistance between two nodes."""

    a: str
    b: str
    ohm: float


@dataclass(frozen=True)
class Valve:
    """A diode or something like it: it conducts from a to b once there are so many volts across it,
    with so many ohm then.
    """

    a: str
    b: str
    volts: float
    ohm: float


@dataclass(frozen=True)
class Gate:
    """A switch of a P-channel transistor: source and drain are joined by so many ohm while its gate
    lies this far below the higher of them.
    """

    gate: str
    source: str
    drain: str
    volts: float
    ohm: float


@dataclass(frozen=True)
class Battery:
    """A source: so many volts from minus to plus behind so many ohm."""

    plus: str
    minus: str
    volts: float
    ohm: float


@dataclass(frozen=True)
class Regulator:
    """What makes a rail: so many volts at `out` against `ground`, and so many amperes at the most,
    while `enable` is up and `source` has at least so many volts. One with an efficiency draws the
    power that it gives by it, a linear one (0) the current.
    """

    source: str
    out: str
    ground: str
    enable: str
    volts: float
    least: float
    most_a: float
    efficiency: float = 0.0
    ohm: float = 0.1


@dataclass(frozen=True)
class Network:
    """Everything that conducts; `ground` is the node that volts count from."""

    ground: str
    resistances: tuple[Resistance, ...]
    valves: tuple[Valve, ...] = ()
    gates: tuple[Gate, ...] = ()
    batteries: tuple[Battery, ...] = ()
    regulators: tuple[Regulator, ...] = ()


Floats = NDArray[np.float64]


class Solver:
    """A network as a matrix of conductances."""

    def __init__(self, network: Network) -> None:
        names = {network.ground}
        for r in network.resistances:
            names |= {r.a, r.b}
        for v in network.valves:
            names |= {v.a, v.b}
        for g in network.gates:
            names |= {g.gate, g.source, g.drain}
        for source in network.batteries:
            names |= {source.plus, source.minus}
        for made in network.regulators:
            names |= {made.source, made.out, made.ground, made.enable}
        self.names = sorted(names)
        self.at = {name: index for index, name in enumerate(self.names)}
        self.network = network

    def conductances(self, resistances: Sequence[Resistance]) -> Floats:
        """The matrix, leaks included."""
        size = len(self.names)
        matrix = np.zeros((size, size))
        matrix[np.diag_indices(size)] = LEAK_S
        for r in resistances:
            join(matrix, (self.at[r.a], self.at[r.b]), 1 / r.ohm)
        return matrix

    def between(self) -> Floats:
        """What a meter reads between any two nodes with the power off, in ohm: the inverse of the
        conductances once, then R = Z_ii + Z_jj - 2 Z_ij.
        """
        z = np.linalg.inv(self.conductances(self.network.resistances))
        d = np.diag(z)
        found: Floats = d[:, None] + d[None, :] - 2 * z
        return np.maximum(found, 0.0)

    def on_power(self) -> dict[str, float]:
        """Volts of every node: valves, gates and regulators are switched until nothing changes,
        each round solved as a linear network.
        """
        volts = dict.fromkeys(self.names, 0.0)
        states: list[tuple[bool, ...]] = []
        for _ in range(ROUNDS):
            state = self.state(volts, states[-1] if states else ())
            if states and (state == states[-1] or state in states[:-1]):
                break
            states.append(state)
            volts = self.solved(state)
        return volts

    def state(self, volts: dict[str, float], before: tuple[bool, ...]) -> tuple[bool, ...]:
        """What is switched on at these volts: valves, gates, regulators in turn."""
        ground = volts[self.network.ground]
        found = []
        for index, valve in enumerate(self.network.valves):
            was = bool(before) and before[index]
            across = volts[valve.a] - volts[valve.b]
            found.append(across > valve.volts - (1e-6 if was else -1e-6))
        for gate in self.network.gates:
            top = max(volts[gate.source], volts[gate.drain])
            found.append(top - volts[gate.gate] > gate.volts)
        for made in self.network.regulators:
            down = volts[made.ground] - ground
            enabled = volts[made.enable] - ground > 0.6
            found.append(
                volts[made.source] - volts[made.ground] >= made.least and enabled and down < 0.5
            )
        return tuple(found)

    def solved(self, state: tuple[bool, ...]) -> dict[str, float]:
        """Volts with everything switched like this; regulators limit their current."""
        net = self.network
        valves, gates, made = len(net.valves), len(net.gates), len(net.regulators)
        on_valves = [v for v, on in zip(net.valves, state[:valves], strict=True) if on]
        on_gates = [
            g for g, on in zip(net.gates, state[valves : valves + gates], strict=True) if on
        ]
        on_made = [m for m, on in zip(net.regulators, state[valves + gates :], strict=True) if on]
        assert len(state) == valves + gates + made
        resistances = [*net.resistances]
        resistances += [Resistance(g.source, g.drain, g.ohm) for g in on_gates]
        current: Floats = np.zeros(len(self.names))
        for v in on_valves:
            resistances.append(Resistance(v.a, v.b, v.ohm))
            self.push(current, v.b, v.a, v.volts / v.ohm)
        for source in net.batteries:
            resistances.append(Resistance(source.plus, source.minus, source.ohm))
            self.push(current, source.minus, source.plus, source.volts / source.ohm)
        given, limited = dict.fromkeys(on_made, 0.0), set[Regulator]()
        volts = self.solve(resistances, current)
        for _ in range(SETTLING if on_made else 0):
            flow, more = current.copy(), list(resistances)
            for m in on_made:
                if m in limited:
                    self.push(flow, m.ground, m.out, m.most_a)
                else:
                    more.append(Resistance(m.out, m.ground, m.ohm))
                    self.push(flow, m.ground, m.out, m.volts / m.ohm)
                self.push(flow, m.source, m.ground, self.drawn(m, volts, given[m]))
            volts = self.solve(more, flow)
            for m in on_made:
                given[m] = m.most_a if m in limited else max(0.0, self.given(m, volts))
            limited |= {m for m in on_made if given[m] > m.most_a}
        return {name: float(volts[i]) for name, i in self.at.items()}

    def given(self, made: Regulator, volts: Floats) -> float:
        """How many amperes a regulator would give at these volts."""
        out = float(volts[self.at[made.out]] - volts[self.at[made.ground]])
        return (made.volts - out) / made.ohm

    def drawn(self, made: Regulator, volts: Floats, given: float) -> float:
        """How many amperes it draws for what it gives."""
        before = float(volts[self.at[made.source]] - volts[self.at[made.ground]])
        if not made.efficiency or before < 0.1:
            return given
        return given * made.volts / (before * made.efficiency)

    def push(self, current: Floats, start: str, end: str, amperes: float) -> None:
        """A current out of one node into another."""
        current[self.at[start]] -= amperes
        current[self.at[end]] += amperes

    def solve(self, resistances: Sequence[Resistance], current: Floats) -> Floats:
        """Volts of all nodes against ground."""
        matrix = self.conductances(resistances)
        ground = self.at[self.network.ground]
        matrix[ground, :] = 0.0
        matrix[ground, ground] = 1.0
        flow = current.copy()
        flow[ground] = 0.0
        return np.asarray(np.linalg.solve(matrix, flow), dtype=np.float64)
