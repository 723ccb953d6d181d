"""How many separate pieces the ground falls into, from geometry alone."""

import numpy as np
import shapely
from shapely.geometry import Polygon

from loquet.core.board.copper import FAR, NEAR, BoardView, via_copper
from loquet.core.board.model import PourPiece, Via
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import polygon_of


class Groups:
    """Union and find over numbered things."""

    def __init__(self, count: int) -> None:
        self.parent = list(range(count))

    def find(self, item: int) -> int:
        """The head of an item's group."""
        while self.parent[item] != item:
            self.parent[item] = self.parent[self.parent[item]]
            item = self.parent[item]
        return item

    def join(self, a: int, b: int) -> None:
        """Put two groups together; the smaller number leads."""
        a, b = self.find(a), self.find(b)
        self.parent[max(a, b)] = min(a, b)


def ground_islands(
    view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]
) -> int:
    """Groups of touching ground copper, counted over pads, tracks, vias and poured pieces."""
    copper = [c for c in (*view.pads, *view.wiring) if c.net == GROUND] + [
        via_copper(v, view.rules) for v in stitches
    ]
    shapes = [(polygon_of(c.shape), c.sides) for c in copper]
    shapes += [(Polygon(p.outer, p.holes), (FAR if p.far else NEAR,)) for p in pieces]
    if not shapes:
        return 0
    groups = Groups(len(shapes))
    for side in (NEAR, FAR):
        members = [i for i, (_, sides) in enumerate(shapes) if side in sides]
        geometries = np.array([shapes[i][0] for i in members], dtype=object)
        tree = shapely.STRtree(geometries)
        for a, b in tree.query(geometries, predicate="intersects").T:
            groups.join(members[int(a)], members[int(b)])
    by_pad: dict[str, int] = {}
    for index, c in enumerate(copper):
        if c.ref:
            groups.join(by_pad.setdefault(c.owner, index), index)
    return len({groups.find(i) for i in range(len(shapes))})
