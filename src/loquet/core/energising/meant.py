"""What a device does while all is as it was meant to be: the states that count, the highest volts
of a node, what flows through a part.
"""

import numpy as np
from numpy.typing import NDArray

from loquet.core.energising.elements import nodes_of
from loquet.core.energising.energised import Energised

Bools = NDArray[np.bool_]


def meant(energised: Energised) -> Bools:
    """States in which all is as it was meant to be."""
    return energised.rows([state.usual for state in energised.states])


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
    for element, amps in energised.answers.of_part.get(ref, ()):
        for end, node in enumerate(nodes_of(element)):
            so_far = by_node.get(node, np.zeros(len(energised.states)))
            by_node[node] = so_far + amps[:, end]
    rows = [np.abs(row) for row in by_node.values()]
    found: NDArray[np.float64] = np.max(rows, axis=0) if rows else np.zeros(len(energised.states))
    return found
