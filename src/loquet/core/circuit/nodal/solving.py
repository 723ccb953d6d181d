"""Nodal analysis with resistors, capacitors, inductors and sources: at rest, over frequency, after
a step.

Source of the method: Ho, Ruehli, Brennan, "The modified nodal approach to network analysis", IEEE
Transactions on Circuits and Systems 22 (1975); steps by the backward Euler rule.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal, TypeVar, cast

import numpy as np
from numpy.typing import NDArray

EARTH = "GROUND"
LEAK_S = 1e-12
Floats = NDArray[np.float64]
Number = TypeVar("Number", np.float64, np.complex128)


class NodalError(Exception):
    """Elements that have no one answer, such as two sources of different volts on one net: why."""


@dataclass(frozen=True)
class Element:
    """A resistor (ohm), a capacitor (farad), an inductor (henry), or a source (volts) between two
    nets; a source is positive at its first.
    """

    kind: Literal["resistor", "capacitor", "inductor", "source"]
    first: str
    second: str
    value: float


@dataclass
class Matrices:
    """G v + C dv/dt = b over the volts of all nets but ground, and the currents of sources and
    inductors behind them.
    """

    nets: dict[str, int]
    still: Floats = field(repr=False)
    moving: Floats = field(repr=False)
    given: Floats = field(repr=False)


def matrices(elements: Sequence[Element]) -> Matrices:
    """The equations of these elements; every net leaks 1 pS to ground, so that none floats."""
    names = sorted({net for e in elements for net in (e.first, e.second)} - {EARTH})
    nets = {name: index for index, name in enumerate(names)}
    flows = [e for e in elements if e.kind in ("source", "inductor")]
    size = len(nets) + len(flows)
    still, moving, given = np.zeros((size, size)), np.zeros((size, size)), np.zeros(size)
    for index in range(len(nets)):
        still[index, index] = LEAK_S
    for element in elements:
        if element.kind == "resistor":
            stamp(still, nets, element, 1 / element.value)
        elif element.kind == "capacitor":
            stamp(moving, nets, element, element.value)
    for row, element in enumerate(flows, len(nets)):
        for net, sign in ((element.first, 1.0), (element.second, -1.0)):
            if net != EARTH:
                still[row, nets[net]] += sign
                still[nets[net], row] += sign
        if element.kind == "source":
            given[row] = element.value
        else:
            moving[row, row] = -element.value
    return Matrices(nets, still, moving, given)


def stamp(matrix: Floats, nets: Mapping[str, int], element: Element, value: float) -> None:
    """What an element adds between its two nets."""
    join(matrix, [nets[net] for net in (element.first, element.second) if net != EARTH], value)


def join(matrix: Floats, ends: Sequence[int], value: float) -> None:
    """A conductance between two nodes, or from one to ground; one from a node to itself carries
    nothing.
    """
    if len(ends) == 2 and ends[0] == ends[1]:
        return
    for index in ends:
        matrix[index, index] += value
    if len(ends) == 2:
        matrix[ends[0], ends[1]] -= value
        matrix[ends[1], ends[0]] -= value


def solved(matrix: NDArray[Number], given: Floats) -> NDArray[Number]:
    """The answer of a set of equations; raises NodalError where it has none."""
    try:
        return cast("NDArray[Number]", np.linalg.solve(matrix, given))
    except np.linalg.LinAlgError:
        raise NodalError("the sources contradict one another") from None


def at_rest(elements: Sequence[Element]) -> dict[str, float]:
    """Volts of every net when nothing moves any more; raises NodalError."""
    made = matrices(elements)
    volts = solved(made.still, made.given)
    return {EARTH: 0.0} | {net: float(volts[i]) for net, i in made.nets.items()}


def over_frequency(
    elements: Sequence[Element], net: str, hertz: Iterable[float]
) -> NDArray[np.complex128]:
    """The volts of a net, as complex numbers, with all sources as sines of their volts at each
    frequency; raises NodalError.
    """
    made = matrices(elements)
    row = made.nets[net]
    return np.array(
        [solved(made.still + 2j * np.pi * f * made.moving, made.given)[row] for f in hertz],
        dtype=np.complex128,
    )


def after_step(elements: Sequence[Element], net: str, seconds: float, steps: int = 2000) -> Floats:
    """The volts of a net at `steps` equal times up to `seconds`, with everything at 0 V before and
    all sources there from 0 on; raises NodalError.
    """
    made = matrices(elements)
    step = seconds / steps
    left = made.still + made.moving / step
    state = np.zeros(len(made.given))
    found = np.zeros(steps)
    for index in range(steps):
        state = solved(left, made.given + made.moving @ state / step)
        found[index] = state[made.nets[net]]
    return found
