"""From grid nodes to straight pieces of track."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from loquet.core.routing.grid import Grid

Point = tuple[int, int]


def segments_of(path: NDArray[np.int32], grid: Grid) -> Iterator[tuple[bool, Point, Point]]:
    """The longest straight pieces of a path, as (far side?, from, to) in nm; steps through a via give none."""
    start = 0
    for index in range(1, len(path)):
        last = index == len(path) - 1
        if (
            not last
            and step(path, index, grid) == step(path, index + 1, grid)
            and step(path, index, grid) is not None
        ):
            continue
        if step(path, index, grid) is not None:
            yield (
                bool(path[index] // grid.area),
                grid.place_nm(int(path[start])),
                grid.place_nm(int(path[index])),
            )
        start = index


def step(path: NDArray[np.int32], index: int, grid: Grid) -> tuple[int, int] | None:
    """Direction of the step that ends at `index`, or None through a via."""
    a, b = int(path[index - 1]), int(path[index])
    if a // grid.area != b // grid.area:
        return None
    a, b = a % grid.area, b % grid.area
    return b % grid.columns - a % grid.columns, b // grid.columns - a // grid.columns
