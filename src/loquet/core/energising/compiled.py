"""A network as arrays: which element lies between which nodes, what is on in which state, and the
order in which nodes are eliminated.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import log, sqrt
from typing import Any

import numpy as np
from numpy.typing import NDArray

from loquet.core.energising.elements import THERMAL_V, Element, Network, nodes_of
from loquet.core.energising.kernels import ordered

Floats = NDArray[np.float64]
Scale = Callable[[Element], Sequence[float] | Floats]


@dataclass(frozen=True)
class Compiled:
    """The arrays of a network; `at` is the row of a node, 0 that of ground."""

    network: Network
    at: dict[str, int]
    laws: Any
    order: Any


def order_of(network: Network) -> dict[str, int]:
    """The rows of all nodes: ground, then the others by name."""
    names = {n for e in network.elements() for n in nodes_of(e)} - {network.ground}
    return {network.ground: 0} | {name: i for i, name in enumerate(sorted(names), 1)}


def compiled(network: Network) -> Compiled:
    """A network made ready for any number of states."""
    at = order_of(network)
    near = np.zeros((len(at), len(at)), dtype=np.bool_)
    for element in network.elements():
        rows = [at[n] for n in nodes_of(element)]
        near[np.ix_(rows, rows)] = True
    np.fill_diagonal(near, False)

    def ends(elements: Sequence[Element], which: int) -> NDArray[np.int64]:
        return np.array([at[nodes_of(e)[which]] for e in elements], dtype=np.int64)

    def figures(rows: list[tuple[float, ...]], width: int) -> Floats:
        return np.array(rows, dtype=np.float64).reshape(len(rows), width)

    n = network
    nvt = np.array([d.ideality * THERMAL_V for d in n.junctions])
    first = (
        ends(n.resistances, 0),
        ends(n.resistances, 1),
        ends(n.junctions, 0),
        ends(n.junctions, 1),
        np.array([d.saturation_a for d in n.junctions]),
        nvt,
        np.array([critical_v(d.saturation_a, d.ideality * THERMAL_V) for d in n.junctions]),
        ends(n.channels, 0),
        ends(n.channels, 1),
        ends(n.channels, 2),
        np.array([float(c.sign) for c in n.channels]),
        figures([(c.threshold_v, c.k) for c in n.channels], 2),
    )
    second = (
        ends(n.bipolars, 0),
        ends(n.bipolars, 1),
        ends(n.bipolars, 2),
        figures([(q.saturation_a, q.gain, q.reverse_gain, THERMAL_V) for q in n.bipolars], 4),
        np.array([critical_v(q.saturation_a, THERMAL_V) for q in n.bipolars]),
        ends(n.sources, 0),
        ends(n.sources, 1),
        np.array([1 / s.ohm for s in n.sources]),
        np.array([s.most_a for s in n.sources]),
        ends(n.draws, 0),
        ends(n.draws, 1),
        np.array([d.usual_v for d in n.draws]),
        *(ends(n.converters, which) for which in range(4)),
        figures(
            [
                (
                    c.volts,
                    c.least_v,
                    c.most_a,
                    c.efficiency,
                    c.drop_ohm,
                    float(c.steps_up),
                    c.quiet_a,
                )
                for c in n.converters
            ],
            7,
        ),
    )
    return Compiled(network, at, (first, second), ordered(near))


def critical_v(saturation_a: float, nvt: float) -> float:
    """From so many volts on a junction is stepped with care."""
    return nvt * log(nvt / (sqrt(2) * saturation_a))
