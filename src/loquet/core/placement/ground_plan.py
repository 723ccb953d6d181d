"""Which places are free: a raster of what is forbidden, and rectangles that are taken already."""

from collections.abc import Iterable
from dataclasses import dataclass, field

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from loquet.core.geometry import Rect
from loquet.core.placement.kernels import CELL_NM, clear_spots

BODY, LOW, BEHIND = 1, 2, 4
"""What a rectangle is: a body on the near side, an area under something low, a body on the far
side. Each also says which of these it must stay clear of.
"""
Rows = NDArray[np.int64]
NOTHING: Rows = np.zeros((0, 6), dtype=np.int64)


def rows_of(rects: Iterable[Rect], what: int = BODY, clear_of: int = BODY) -> Rows:
    """Rectangles (left, bottom, right, top in nm) as rows with what they are and what they must
    stay clear of.
    """
    rows = [(*rect, what, clear_of) for rect in rects]
    return np.array(rows, dtype=np.int64).reshape(-1, 6)


@dataclass
class GroundPlan:
    """Forbidden cells of 0.25 mm as a running sum, and the rows that each owner takes."""

    outline: Polygon
    edge_nm: int
    taken: dict[str, Rows] = field(default_factory=dict)

    def __post_init__(self) -> None:
        left, bottom, right, top = (int(v) for v in self.outline.bounds)
        self.origin = np.array([left, bottom], dtype=np.int64)
        xs = np.arange(left + CELL_NM // 2, right, CELL_NM)
        ys = np.arange(bottom + CELL_NM // 2, top, CELL_NM)
        inset = self.outline.buffer(-self.edge_nm)
        shapely.prepare(inset)
        grid_x, grid_y = np.meshgrid(xs, ys)
        bad = ~shapely.contains_xy(inset, grid_x, grid_y)
        self.sums = np.zeros((len(ys) + 1, len(xs) + 1), dtype=np.int64)
        self.sums[1:, 1:] = bad.cumsum(0).cumsum(1)

    def rows(self, ignore: str = "") -> Rows:
        """All rows that are taken, but for those of one owner."""
        found = [rows for owner, rows in self.taken.items() if owner != ignore]
        return np.concatenate(found) if found else NOTHING

    def free(
        self, xs: NDArray[np.int64], ys: NDArray[np.int64], rows: Rows, ignore: str = ""
    ) -> NDArray[np.bool_]:
        """For things that take `rows` about (xs, ys): whether their bodies lie inside and nothing
        meets what it must stay clear of.
        """
        clear: NDArray[np.bool_] = clear_spots(
            xs, ys, rows, self.rows(ignore), self.sums, self.origin
        )
        return clear
