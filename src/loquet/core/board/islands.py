"""How many separate pieces the ground falls into, from geometry alone."""

from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import Polygon

from loquet.core.board.copper import FAR, NEAR, BoardView, Copper, via_copper
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


@dataclass(frozen=True)
class Ground:
    """All ground copper with the group that each belongs to: pads and tracks first, then stitches, then poured pieces."""

    copper: tuple[Copper, ...]
    stitches: int
    groups: tuple[int, ...]

    def of_pads(self) -> set[int]:
        """Groups that hold a pad of a part."""
        return {self.groups[i] for i, c in enumerate(self.copper) if c.ref}


def ground_of(view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]) -> Ground:
    """Which ground copper touches which, from geometry alone; pads of one part and number count as joined."""
    own = tuple(c for c in (*view.pads, *view.wiring) if c.net == GROUND)
    copper = [*own, *(via_copper(v, view.rules) for v in stitches)]
    shapes = [(polygon_of(c.shape), c.sides) for c in copper]
    shapes += [(Polygon(p.outer, p.holes), (FAR if p.far else NEAR,)) for p in pieces]
    groups = Groups(len(shapes))
    for side in (NEAR, FAR):
        members = [i for i, (_, sides) in enumerate(shapes) if side in sides]
        if not members:
            continue
        geometries = np.array([shapes[i][0] for i in members], dtype=object)
        tree = shapely.STRtree(geometries)
        for a, b in tree.query(geometries, predicate="intersects").T:
            groups.join(members[int(a)], members[int(b)])
    by_pad: dict[str, int] = {}
    for index, c in enumerate(copper):
        if c.ref:
            groups.join(by_pad.setdefault(c.owner, index), index)
    return Ground(own, len(stitches), tuple(groups.find(i) for i in range(len(shapes))))


def ground_islands(
    view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]
) -> int:
    """Groups of touching ground copper, counted over pads, tracks, vias and poured pieces."""
    return len(set(ground_of(view, pieces, stitches).groups))


def held_by_pads(
    view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]
) -> tuple[tuple[PourPiece, ...], tuple[Via, ...]]:
    """Pieces and stitches without those of groups that hold no pad: two floating pieces that only a stitch joins."""
    ground = ground_of(view, pieces, stitches)
    held, first = ground.of_pads(), len(ground.copper)
    vias = tuple(v for i, v in enumerate(stitches, first) if ground.groups[i] in held)
    begin = first + len(stitches)
    return tuple(p for i, p in enumerate(pieces, begin) if ground.groups[i] in held), vias
