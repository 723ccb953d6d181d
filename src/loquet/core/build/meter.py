"""What a meter reads between any two nodes of a device with the power off."""

import numpy as np
from numpy.typing import NDArray

from loquet.core.circuit.nodal.solving import join
from loquet.core.energising.compiled import order_of
from loquet.core.energising.elements import Network

Floats = NDArray[np.float64]
LEAK_S = 1e-9
"""Every node leaks so much to ground (a gigaohm), so that nothing floats."""
OPEN_OHM = 2e7
"""A meter says `open` from here on; common practice, no source."""


class Meter:
    """The resistances of a network that are there under some conditions, as a matrix."""

    def __init__(self, network: Network, on: frozenset[str] = frozenset()) -> None:
        self.at = order_of(network)
        self.there = [r for r in network.resistances if not r.when or r.when in on]

    def between(self) -> Floats:
        """What a meter reads between any two nodes, in ohm: the inverse of the conductances once,
        then R = Z_ii + Z_jj - 2 Z_ij.
        """
        size = len(self.at)
        matrix = np.zeros((size, size))
        matrix[np.diag_indices(size)] = LEAK_S
        for r in self.there:
            join(matrix, (self.at[r.a], self.at[r.b]), 1 / r.ohm)
        z = np.linalg.inv(matrix)
        d = np.diag(z)
        found: Floats = d[:, None] + d[None, :] - 2 * z
        return np.maximum(found, 0.0)
