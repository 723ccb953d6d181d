"""Sources that another one feeds, and the way that the current takes."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquet.core.energising.conditions import absent
from loquet.core.energising.elements import Converter, Source, nodes_of
from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import meant

BACK_A = 0.8e-3
"""A current into a source from which on it is fed backwards; into one that is absent it is 0.8 V at
its plug, above which a port counts as powered (USB Type-C 2.1: vSafe0V).
"""
FARTHEST = 40
"""No way between two sources has more parts."""


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
    found = (amps for element, amps in energised.answers.each if element.when == absent(name))
    first = next(found, None)
    return np.zeros(len(energised.states)) if first is None else first[:, 0]


def charged_a(energised: Energised, name: str) -> NDArray[np.float64]:
    """What the chargers of a source give by state, in A."""
    whole, device = np.zeros(len(energised.states)), energised.device
    for component in device.circuit.components:
        if component.thing == name and device.kind(component) == "charger":
            for element, amps in energised.answers.of_part.get(component.ref, ()):
                if isinstance(element, Converter):
                    whole = whole - amps[:, 1]
    return whole


def traced(energised: Energised, name: str, state: int) -> tuple[str, tuple[str, ...]]:
    """Where the current into a source comes from: the source at the other end, and the parts on
    the way to it, by the largest current at each node.
    """
    answer = energised.answers
    owner = {source.plus: source.name for source in answer.made.network.sources}
    here = next(s.plus for s in answer.made.network.sources if s.name == name)
    through: list[str] = []
    for _ in range(FARTHEST):
        step, most, ref = "", 0.0, ""
        for element, amps in answer.each:
            ends, flows = nodes_of(element), amps[state]
            if isinstance(element, Source) or here not in ends:
                continue
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
