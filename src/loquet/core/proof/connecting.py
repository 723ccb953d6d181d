"""What touches what in the finished files: copper by side, joined through plated holes; nothing
else is known here.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.islands import Groups
from loquet.core.geometry import core_of, radius_of
from loquet.core.proof.drill_reader import ReadHole
from loquet.core.proof.gerber_reader import FileFault, ReadLayer

AT_ONCE, MOST_PAIRS = 256, 4_000_000


@dataclass(frozen=True)
class Piece:
    """A dark piece of copper of one layer as core and radius; `net` is what the file says, for
    naming only.
    """

    side: str
    core: BaseGeometry
    radius: float
    net: str
    name: str


@dataclass(frozen=True)
class Wall:
    """The wall of a hole, in nm, and the group of the copper that it joins; -1 where it joins
    none.
    """

    x: int
    y: int
    d: int
    group: int


@dataclass(frozen=True)
class Fabric:
    """All copper of the files, the group of each piece that is joined, and all holes."""

    pieces: tuple[Piece, ...]
    groups: NDArray[np.int64]
    walls: tuple[Wall, ...] = ()

    def on(self, side: str) -> NDArray[np.int64]:
        """Numbers of the pieces of one side."""
        return np.array(
            [i for i, piece in enumerate(self.pieces) if piece.side == side], dtype=np.int64
        )


def dark_pieces(layer: ReadLayer, side: str) -> list[Piece]:
    """The layer's copper after clear polarity has taken its share, in file order."""
    if layer.arcs:
        raise FileFault(layer.file, 1, "draws copper as an arc, which no file of Loquet does")
    pieces: list[Piece] = []
    events: list[tuple[int, bool, BaseGeometry, float, str, str]] = []
    for item in layer.objects:
        name = (
            f"{item.ref} pad {item.pad}"
            if item.ref
            else ("via" if item.function == "ViaPad" else "track")
        )
        events.append(
            (item.order, item.dark, core_of(item.shape), radius_of(item.shape), item.net, name)
        )
    for region in layer.regions:
        polygon = Polygon(region.ring)
        if not polygon.is_valid:
            raise FileFault(
                layer.file,
                1,
                f"has a region that crosses itself near {region.ring[0][0] / 1e6:.2f},"
                f" {region.ring[0][1] / 1e6:.2f} mm",
            )
        events.append((region.order, region.dark, polygon, 0.0, region.net, "pour"))
    for _, dark, core, radius, net, name in sorted(events, key=lambda event: event[0]):
        if dark:
            pieces.append(Piece(side, core, radius, net, name))
        else:
            area = core.buffer(radius) if radius else core
            pieces = [remaining for piece in pieces for remaining in cut(piece, area)]
    return pieces


def cut(piece: Piece, area: BaseGeometry) -> list[Piece]:
    """What is left of a piece when an area is cleared."""
    if piece.core.distance(area) >= piece.radius and (
        piece.radius or not piece.core.intersects(area)
    ):
        return [piece]
    full = piece.core.buffer(piece.radius) if piece.radius else piece.core
    left = full.difference(area)
    parts = [g for g in shapely.get_parts(left) if isinstance(g, Polygon) and not g.is_empty]
    return [Piece(piece.side, part, 0.0, piece.net, piece.name) for part in parts]


def rebuild(copper: Mapping[str, ReadLayer], holes: Sequence[ReadHole]) -> Fabric:
    """Groups of joined copper, layer by layer: touching on one, or meeting in a plated hole."""
    pieces = tuple(piece for name, layer in copper.items() for piece in dark_pieces(layer, name))
    groups = Groups(len(pieces))
    trees: dict[str, tuple[shapely.STRtree, list[int]]] = {}
    for side in copper:
        members = [i for i, piece in enumerate(pieces) if piece.side == side]
        if members:
            trees[side] = (join_touching(pieces, members, groups), members)
    met = [join_hole(hole, pieces, trees, groups) if hole.plated else -1 for hole in holes]
    walls = tuple(
        Wall(hole.x, hole.y, hole.d, groups.find(piece) if piece >= 0 else -1)
        for hole, piece in zip(holes, met, strict=True)
    )
    heads = np.array([groups.find(i) for i in range(len(pieces))], dtype=np.int64)
    return Fabric(pieces, heads, walls)


def join_touching(pieces: tuple[Piece, ...], members: list[int], groups: Groups) -> shapely.STRtree:
    """Join what touches on one side; cores within the sum of radii."""
    cores = np.array([pieces[i].core for i in members], dtype=object)
    radii = np.array([pieces[i].radius for i in members])
    tree = shapely.STRtree(cores)
    reach = radii + (radii.max() if len(radii) else 0.0)
    pairs = 0
    for start in range(0, len(cores), AT_ONCE):
        first, second = tree.query(
            cores[start : start + AT_ONCE],
            predicate="dwithin",
            distance=reach[start : start + AT_ONCE],
        )
        first = first + start
        pairs += len(first)
        if pairs > MOST_PAIRS:
            raise FileFault(
                "copper", 1, "heaps more copper on one spot than any board of this kind"
            )
        once = first < second
        first, second = first[once], second[once]
        touching = shapely.distance(cores[first], cores[second]) <= radii[first] + radii[second]
        for a, b in zip(first[touching], second[touching], strict=True):
            groups.join(members[int(a)], members[int(b)])
    return tree


def join_hole(
    hole: ReadHole,
    pieces: tuple[Piece, ...],
    trees: dict[str, tuple[shapely.STRtree, list[int]]],
    groups: Groups,
) -> int:
    """A plated hole joins all copper that its wall meets, on all layers; a piece of it, or -1 where
    it meets none.
    """
    wall = shapely.Point(hole.x, hole.y)
    met: list[int] = []
    for tree, members in trees.values():
        reach = hole.d / 2 + max(pieces[i].radius for i in members)
        for index in tree.query(wall, predicate="dwithin", distance=reach):
            piece = pieces[members[int(index)]]
            if piece.core.distance(wall) <= piece.radius + hole.d / 2:
                met.append(members[int(index)])
    for other in met[1:]:
        groups.join(met[0], other)
    return met[0] if met else -1
