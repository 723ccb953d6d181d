"""The answer of a network in any number of states, and whether it may be believed: the currents of
every element are worked out anew from its law and summed at every node.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from loquet.core.energising.compiled import Compiled, compiled
from loquet.core.energising.elements import THERMAL_V, Element, Network, nodes_of
from loquet.core.energising.kernels import (
    BEND_V,
    EDGE_V,
    ENABLED_V,
    KNEE,
    LEAK_S,
    OUT_OHM,
    RISE,
    SHARP,
    solved,
)

Floats = NDArray[np.float64]
SUM_A, SUM_SHARE = 1e-7, 1e-4
"""The sum at a node may be off by so many amperes, or such a share of what flows there."""


@dataclass(frozen=True)
class Given:
    """What is so in one state: the conditions that hold, by name the share of its volts that a
    source has, and what a load draws in A (nothing said: as its element says).
    """

    on: frozenset[str] = frozenset()
    volts: Mapping[str, float] = field(default_factory=dict)
    amperes: Mapping[str, float] = field(default_factory=dict)


Values = tuple[Floats, ...]
"""What is on by kind of element, a row a state: conductances, whether there, volts, amperes."""


class Answers:
    """Volts by state and node; an answer that does not keep its sums is not `sound`."""

    def __init__(self, made: Compiled, values: Values, volts: Floats, found: NDArray[np.bool_]):
        self.made, self.values, self.volts, self.found = made, values, volts, found

    def volt(self, node: str) -> Floats:
        """The volts of a node by state; 0 for one that nothing reaches."""
        row = self.made.at.get(node)
        return np.zeros(len(self.volts)) if row is None else self.volts[:, row]

    def take(self, rows: Sequence[int], given: Sequence[Given]) -> "Answers":
        """Some of these volts, a row for each of other states."""
        values = values_of(self.made.network, given)
        return Answers(self.made, values, self.volts[rows], self.found[rows])

    def with_rows(self, rows: Sequence[int], others: "Answers") -> "Answers":
        """The same with other answers in place of some."""
        volts, found = self.volts.copy(), self.found.copy()
        volts[rows], found[rows] = others.volts, others.found
        return Answers(self.made, self.values, volts, found)

    @cached_property
    def currents(self) -> dict[str, Floats]:
        """By kind of element: amperes by state, element and terminal, into the element."""
        net, volts = self.made.network, self.volts
        rg, don, mon, qon, sv, son, xi, con = self.values
        (ra, rb, da, db, dis, dnv, _, mg, md, ms, msign, mrow) = self.made.laws[0]
        (qb, qc, qe, qrow, _, sp, sm, sg, slim, xa, xb, xv, cs, co, cg, ce, crow) = self.made.laws[
            1
        ]

        def two(amps: Floats) -> Floats:
            return np.stack([amps, -amps], axis=-1)

        found = {"resistances": two((volts[:, ra] - volts[:, rb]) * rg)}
        found["junctions"] = two(don * shockley(volts[:, da] - volts[:, db], dis, dnv))
        drain = mon * channels(volts[:, mg], volts[:, md], volts[:, ms], msign, mrow)
        found["channels"] = np.stack([np.zeros_like(drain), drain, -drain], axis=-1)
        forward = shockley(volts[:, qb] - volts[:, qe], qrow[:, 0], THERMAL_V)
        back = shockley(volts[:, qb] - volts[:, qc], qrow[:, 0], THERMAL_V)
        collector = qon * (forward - back * (1 + 1 / qrow[:, 2]))
        base = qon * (forward / qrow[:, 1] + back / qrow[:, 2])
        found["bipolars"] = np.stack([base, collector, -base - collector], axis=-1)
        x = (sv - volts[:, sp] + volts[:, sm]) * sg
        w = SHARP * slim
        found["sources"] = two(-son * (x - w * np.logaddexp(0, (x - slim) / w)))
        u = (volts[:, xa] - volts[:, xb]) / xv
        found["draws"] = two(xi * RISE * u / np.sqrt(u * u + KNEE * KNEE))
        ground = volts[:, cg]
        given, taken = converted(
            volts[:, cs] - ground, volts[:, co] - ground, volts[:, ce] - ground, crow
        )
        given, taken = con * given, con * taken
        found["converters"] = np.stack(
            [taken, -given, given - taken, np.zeros_like(taken)], axis=-1
        )
        assert found.keys() == {kind for kind, rows in vars(net).items() if kind != "ground"}
        return found

    @cached_property
    def sums(self) -> tuple[Floats, Floats]:
        """By state and node: what is left over of the sum of currents, and half of what flows."""
        left, flowing = LEAK_S * self.volts, np.zeros_like(self.volts)
        for element, amps in self.each:
            for end, node in enumerate(nodes_of(element)):
                left[:, self.made.at[node]] += amps[:, end]
                flowing[:, self.made.at[node]] += np.abs(amps[:, end]) / 2
        left[:, 0] = 0.0
        return left, flowing

    @cached_property
    def sound(self) -> NDArray[np.bool_]:
        """By state, whether an answer was found that keeps Kirchhoff's sums at every node."""
        left, flowing = self.sums
        kept = np.abs(left) <= SUM_A + SUM_SHARE * flowing
        found: NDArray[np.bool_] = self.found & kept.all(axis=1)
        return found

    @cached_property
    def each(self) -> list[tuple[Element, Floats]]:
        """Every element with its currents in A, by state and terminal."""
        return [
            (element, amps[:, index])
            for kind, amps in self.currents.items()
            for index, element in enumerate(getattr(self.made.network, kind))
        ]

    @cached_property
    def of_part(self) -> dict[str, list[tuple[Element, Floats]]]:
        """The same by the reference of the part whose an element is."""
        found: dict[str, list[tuple[Element, Floats]]] = {}
        for element, amps in self.each:
            found.setdefault(element.ref, []).append((element, amps))
        return found


def shockley(volts: Floats, saturation: Floats | float, nvt: Floats | float) -> Floats:
    """The law of a junction."""
    x = volts / nvt
    bent = np.exp(np.clip(x, -80.0, 80.0))
    return np.asarray(saturation * (bent * (1 + np.maximum(x - 80.0, 0.0)) - 1))


def channels(g: Floats, d: Floats, s: Floats, sign: Floats, rows: Floats) -> Floats:
    """Drain currents of MOS transistors."""
    drain, source = sign * d, sign * s
    turned = drain < source
    low, high = np.minimum(drain, source), np.maximum(drain, source)
    over = np.maximum(sign * g - low - rows[:, 0], 0.0)
    across = np.minimum(high - low, over)
    amps = rows[:, 1] * (over - across / 2) * across
    return np.asarray(sign * np.where(turned, -amps, amps))


def converted(u: Floats, o: Floats, e: Floats, rows: Floats) -> tuple[Floats, Floats]:
    """What converters give and take."""
    volts, least, most, efficiency, drop, up, quiet = rows.T
    w = SHARP * most + 1e-6
    on = expit((e - ENABLED_V) / EDGE_V) * expit((u - least) / EDGE_V)
    m = (volts - o) / OUT_OHM
    m = np.where(up < 0.5, m - w * np.logaddexp(0, (m - (u - o) / drop) / w), m)
    m = m - w * np.logaddexp(0, (m - most) / w)
    none = np.minimum(SHARP * most, BEND_V / np.where(up > 0.5, OUT_OHM, np.maximum(drop, OUT_OHM)))
    given = on * none * np.logaddexp(0, m / none)
    share = np.where(
        efficiency > 0,
        np.maximum(o, 0.0) / (np.where(efficiency > 0, efficiency, 1.0) * np.maximum(u, KNEE)),
        1.0,
    )
    return given, given * share + on * quiet


def expit(x: Floats) -> Floats:
    """1 / (1 + e^-x)."""
    return np.asarray(0.5 * (1 + np.tanh(x / 2)))


def values_of(network: Network, states: Sequence[Given]) -> Values:
    """The arrays of what is on."""
    tags = sorted({e.when for e in network.elements()} - {""})
    column = {tag: i for i, tag in enumerate(tags)} | {"": len(tags)}
    active = np.ones((len(states), len(tags) + 1))
    for row, state in enumerate(states):
        active[row, : len(tags)] = [tag in state.on for tag in tags]

    def on(elements: Sequence[Element]) -> Floats:
        columns = np.array([column[e.when] for e in elements], dtype=np.int64)
        return np.ascontiguousarray(active[:, columns])

    conductances = np.array([1 / r.ohm for r in network.resistances])
    shares = [[s.volts.get(e.name, 1.0) * e.volts for e in network.sources] for s in states]
    draws = [[s.amperes.get(e.name, e.amperes) for e in network.draws] for s in states]
    return (
        on(network.resistances) * conductances,
        on(network.junctions),
        on(network.channels),
        on(network.bipolars),
        np.array(shares, dtype=np.float64).reshape(len(states), len(network.sources)),
        on(network.sources),
        np.array(draws, dtype=np.float64).reshape(len(states), len(network.draws))
        * on(network.draws),
        on(network.converters),
    )


def answers(network: Network, states: Sequence[Given]) -> Answers:
    """The network in each of these states, as power comes on."""
    made = compiled(network)
    return answers_from(made, states, np.zeros((len(states), len(made.at))))


def answers_from(made: Compiled, states: Sequence[Given], first: Floats) -> Answers:
    """The same from the volts by state and node that stood there before; of more than one answer
    (a latch) it is the one that is reached from there.
    """
    values = values_of(made.network, states)
    order, starts, behind = made.order
    volts, found = solved(made.laws, values, order, starts, behind, first)
    return Answers(made, values, volts, found)
