"""Which places on the near side are free: a raster of what is forbidden, and the courtyards already taken."""

from dataclasses import dataclass, field

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from loquet.core.geometry import Rect

CELL_NM = 250_000


@dataclass
class GroundPlan:
    """Forbidden cells of 0.25 mm as a running sum, and rectangles (left, bottom, right, top in nm) that are taken."""

    outline: Polygon
    edge_nm: int
    taken: dict[str, list[Rect]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        left, bottom, right, top = (int(v) for v in self.outline.bounds)
        self.origin = (left, bottom)
        self.xs = np.arange(left + CELL_NM // 2, right, CELL_NM)
        self.ys = np.arange(bottom + CELL_NM // 2, top, CELL_NM)
        inset = self.outline.buffer(-self.edge_nm)
        grid_x, grid_y = np.meshgrid(self.xs, self.ys)
        bad = ~shapely.contains_xy(inset, grid_x, grid_y)
        self.sums = np.zeros((len(self.ys) + 1, len(self.xs) + 1), dtype=np.int64)
        self.sums[1:, 1:] = bad.cumsum(0).cumsum(1)

    def free(
        self, xs: NDArray[np.int64], ys: NDArray[np.int64], offset: Rect, ignore: str = ""
    ) -> NDArray[np.bool_]:
        """For parts whose courtyard is `offset` about (xs, ys): whether it lies inside and overlaps nothing taken."""
        left, bottom, right, top = xs + offset[0], ys + offset[1], xs + offset[2], ys + offset[3]
        good = self.inside(left, bottom, right, top)
        for owner, rects in self.taken.items():
            if owner == ignore:
                continue
            for l2, b2, r2, t2 in rects:
                good &= (left >= r2) | (right <= l2) | (bottom >= t2) | (top <= b2)
        return good

    def inside(
        self,
        left: NDArray[np.int64],
        bottom: NDArray[np.int64],
        right: NDArray[np.int64],
        top: NDArray[np.int64],
    ) -> NDArray[np.bool_]:
        """Whether rectangles hold no forbidden cell."""
        columns, rows = len(self.xs), len(self.ys)
        c1 = np.clip((left - self.origin[0]) // CELL_NM, 0, columns)
        c2 = np.clip(-(-(right - self.origin[0]) // CELL_NM), 0, columns)
        r1 = np.clip((bottom - self.origin[1]) // CELL_NM, 0, rows)
        r2 = np.clip(-(-(top - self.origin[1]) // CELL_NM), 0, rows)
        bad = self.sums[r2, c2] - self.sums[r1, c2] - self.sums[r2, c1] + self.sums[r1, c1]
        whole = (left >= self.origin[0]) & (bottom >= self.origin[1])
        whole &= (right <= self.origin[0] + columns * CELL_NM) & (
            top <= self.origin[1] + rows * CELL_NM
        )
        free: NDArray[np.bool_] = whole & (bad == 0)
        return free
