"""Which of many things lie near each other, by their upright boxes first."""

import numpy as np
import shapely
from numpy.typing import NDArray

Things = NDArray[np.object_]
Longs = NDArray[np.int64]
Floats = NDArray[np.float64]


def near_pairs(things: Things, reach: Floats | float) -> tuple[Longs, Longs]:
    """Pairs (first < second) whose upright boxes, each grown by its own reach, overlap: none that
    is nearer than both reaches is left out.
    """
    bounds = shapely.bounds(things)
    grow = np.broadcast_to(np.asarray(reach, dtype=np.float64), (len(things),))
    boxes = shapely.box(
        bounds[:, 0] - grow, bounds[:, 1] - grow, bounds[:, 2] + grow, bounds[:, 3] + grow
    )
    first, second = shapely.STRtree(boxes).query(boxes)
    once = first < second
    return first[once], second[once]


def touching(things: Things) -> tuple[Longs, Longs]:
    """Pairs (first < second) that touch or overlap; of two, the one with more corners is prepared
    and asked, which is what makes large areas quick.
    """
    first, second = near_pairs(things, 0.0)
    corners = shapely.get_num_coordinates(things)
    swapped = corners[first] < corners[second]
    larger, smaller = np.where(swapped, second, first), np.where(swapped, first, second)
    shapely.prepare(things[np.unique(larger)])
    meet = shapely.intersects(things[larger], things[smaller])
    return first[meet], second[meet]
