"""From grid nodes to straight pieces of track."""

from collections.abc import Iterator
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from loquet.core.routing.grid import Grid

Point = tuple[int, int]


def segments_of(path: NDArray[np.int32], grid: Grid) -> Iterator[tuple[bool, Point, Point]]:
    """The longest straight pieces of a path, as (far side?, from, to) in nm; steps through a via
    give none.
    """
    steps = np.diff(path)
    ends = np.flatnonzero(np.diff(steps)) + 1
    bounds = [0, *ends.tolist(), len(steps)]
    for first, last in pairwise(bounds):
        if first < last and abs(int(steps[first])) < grid.area:
            begin, end = int(path[first]), int(path[last])
            yield bool(begin // grid.area), grid.place_nm(begin), grid.place_nm(end)
