"""How many separate pieces the ground falls into, from geometry alone."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from shapely.geometry import Polygon

from loquet.core.board.areas import areas_of
from loquet.core.board.copper import FAR, NEAR, BoardView, Copper, via_copper
from loquet.core.board.model import PourPiece, Via
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import polygons_of
from loquet.core.geometry.neighbours import touching
from loquet.core.plain.remembering import Remembered


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
    """All ground copper with the group that each belongs to: pads and tracks first, then stitches,
    then poured pieces.
    """

    copper: tuple[Copper, ...]
    stitches: int
    groups: tuple[int, ...]

    def of_pads(self) -> set[int]:
        """Groups that hold a pad of a part."""
        return {self.groups[i] for i, c in enumerate(self.copper) if c.ref}


GROUNDS: Remembered[Ground] = Remembered(4)


def ground_of(view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]) -> Ground:
    """Which ground copper touches which, from geometry alone; pads of one part and number count as
    joined. What several ask of one view is worked out once.
    """
    return GROUNDS.of((view, pieces, stitches), lambda: touching_ground(view, pieces, stitches))


def touching_ground(
    view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]
) -> Ground:
    """All ground copper with its groups."""
    own = tuple(c for c in (*view.pads, *view.wiring) if c.net == GROUND)
    copper = [*own, *(via_copper(v, view.rules) for v in stitches)]
    areas = [
        (area, FAR if p.far else NEAR) for p, area in zip(pieces, areas_of(pieces), strict=True)
    ]
    groups = joined(copper, areas)
    count = len(copper) + len(areas)
    return Ground(own, len(stitches), tuple(groups.find(i) for i in range(count)))


def joined(
    copper: Sequence[Copper], areas: Sequence[tuple[Polygon, str]] = (), nets: Sequence[str] = ()
) -> Groups:
    """Which copper and which areas (each with its side) touch, of one net only where `nets` says
    those of all: copper is numbered first; pads of one part and number count as joined.
    """
    shapes = np.empty(len(copper) + len(areas), dtype=object)
    shapes[: len(copper)] = polygons_of([c.shape for c in copper])
    shapes[len(copper) :] = [area for area, _ in areas]
    sides = [*(c.sides for c in copper), *((side,) for _, side in areas)]
    groups = Groups(len(shapes))
    for side in (NEAR, FAR):
        members = np.array([i for i, on in enumerate(sides) if side in on], dtype=np.int64)
        if not len(members):
            continue
        first, second = touching(shapes[members])
        for a, b in zip(members[first].tolist(), members[second].tolist(), strict=True):
            if not nets or nets[a] == nets[b]:
                groups.join(a, b)
    contacts: dict[str, int] = {}
    for index, c in enumerate(copper):
        if c.ref:
            groups.join(contacts.setdefault(c.owner, index), index)
    return groups


def ground_islands(
    view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]
) -> int:
    """Groups of touching ground copper, counted over pads, tracks, vias and poured pieces."""
    return len(set(ground_of(view, pieces, stitches).groups))


def held_by_pads(
    view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]
) -> tuple[tuple[PourPiece, ...], tuple[Via, ...], int]:
    """Pieces and stitches without those of groups that hold no pad (two floating pieces that only a
    stitch joins), and how many groups are left.
    """
    ground = ground_of(view, pieces, stitches)
    held, first = ground.of_pads(), len(ground.copper)
    vias = tuple(v for i, v in enumerate(stitches, first) if ground.groups[i] in held)
    begin = first + len(stitches)
    kept = tuple(p for i, p in enumerate(pieces, begin) if ground.groups[i] in held)
    return kept, vias, len(set(ground.groups[:first]) | held)


@dataclass(frozen=True)
class CutOff:
    """Ground that the pour does not join to the rest: contacts of parts, and the poured pieces
    around them as (far side?, area).
    """

    contacts: frozenset[str]
    pieces: tuple[tuple[bool, Polygon], ...]


def cut_off_ground(
    view: BoardView, pieces: tuple[PourPiece, ...], stitches: tuple[Via, ...]
) -> CutOff:
    """What is left apart from the group that holds the most contacts; empty where ground is one."""
    ground = ground_of(view, pieces, stitches)
    held = [ground.groups[i] for i, c in enumerate(ground.copper) if c.ref]
    main = max(set(held), key=lambda group: (held.count(group), -group)) if held else -1
    contacts = (c.owner for i, c in enumerate(ground.copper) if c.ref and ground.groups[i] != main)
    first = len(ground.copper) + ground.stitches
    areas = (
        (p.far, area)
        for i, (p, area) in enumerate(zip(pieces, areas_of(pieces), strict=True), first)
        if ground.groups[i] != main
    )
    return CutOff(frozenset(contacts), tuple(areas))
