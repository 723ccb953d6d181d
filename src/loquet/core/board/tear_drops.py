"""Tear-drops: copper that widens a track towards a drilled land, so that a drill that wanders does
not cut it off at its neck (IPC-2221 calls it filleting).
"""

from collections.abc import Iterator
from math import dist

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Point
from shapely.geometry.base import BaseGeometry

from loquet.core.board.areas import area_of
from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.board.model import PourPiece, Track
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Round, polygons_of

AT_LAND = 0.8
"""Width of a tear-drop at the middle of its land, in diameters; common practice, no source."""
LONG = 1.0
"""From the middle of the land to its tip at the most, in diameters; common practice, no source."""
LEAST_NM = 50_000
"""A tear-drop that stands out of its land by less is none."""
ROUNDED_NM = 2
"""Corners are rounded to whole nanometres."""
Shapes = NDArray[np.object_]


def tear_drops(view: BoardView, before: tuple[PourPiece, ...]) -> tuple[PourPiece, ...]:
    """A tear-drop at every end of a track in a round land that is drilled, where there is room for
    it in full; ground has its pour instead.
    """
    found: list[PourPiece] = []
    for far in (False, True):
        room = Room(view, far, before)
        for net, shape in drops_of(view, far):
            if room.holds(net, shape):
                corners = np.rint(shapely.get_coordinates(shape)[:-1]).astype(np.int64).tolist()
                found.append(PourPiece(far=far, outer=tuple((x, y) for x, y in corners), net=net))
    return tuple(found)


def drops_of(view: BoardView, far: bool) -> Iterator[tuple[str, BaseGeometry]]:
    """What would be a tear-drop on a side, with its net."""
    tracks = view.routing.tracks if view.routing else ()
    lands = [
        c for c in (*view.pads, *view.wiring) if c.drill_nm and isinstance(c.shape, Round) and c.net
    ]
    spots = shapely.STRtree(shapely.points([(c.drill_x, c.drill_y) for c in lands]))
    for track in tracks:
        if track.far != far or track.net == GROUND:
            continue
        one, other = (track.x1_nm, track.y1_nm), (track.x2_nm, track.y2_nm)
        for end, away in ((one, other), (other, one)):
            for index in sorted(spots.query(Point(end), "dwithin", track.width_nm / 2).tolist()):
                drop = drop_at(lands[index], track, away)
                if drop is not None:
                    yield track.net, drop


def drop_at(land: Copper, track: Track, away: tuple[int, int]) -> BaseGeometry | None:
    """From a land along a track towards its other end; nothing where the land is another net's,
    hardly wider than the track, or the track hardly leaves it.
    """
    assert isinstance(land.shape, Round)
    d, centre = land.shape.d, (land.shape.x, land.shape.y)
    long = min(dist(centre, away), LONG * d)
    if land.net != track.net or AT_LAND * d <= track.width_nm or long < d / 2 + LEAST_NM:
        return None
    share = long / dist(centre, away)
    tip = [c + share * (a - c) for c, a in zip(centre, away, strict=True)]
    ends = [Point(centre).buffer(AT_LAND * d / 2), Point(tip).buffer(track.width_nm / 2)]
    return shapely.union_all(ends).convex_hull


class Room:
    """What is taken on a side: copper and poured areas by net, and where copper may lie at all."""

    def __init__(self, view: BoardView, far: bool, before: tuple[PourPiece, ...]) -> None:
        side = FAR if far else NEAR
        copper = [c for c in (*view.pads, *view.wiring) if side in c.sides]
        areas = [piece for piece in before if piece.far is far]
        self.gap_nm = view.rules.drawn_gap_nm + ROUNDED_NM
        bare = [Point(h.x, h.y).buffer(h.keep_nm) for h in view.holes if not h.plated]
        self.inside: BaseGeometry = view.wiring_area.buffer(-view.rules.edge_nm)
        self.inside = self.inside.difference(shapely.union_all(bare))
        shapely.prepare(self.inside)
        self.nets = [*(c.net for c in copper), *(piece.net for piece in areas)]
        shapes: Shapes = np.empty(len(self.nets), dtype=object)
        shapes[: len(copper)] = polygons_of([c.shape for c in copper])
        shapes[len(copper) :] = [area_of(piece) for piece in areas]
        self.tree = shapely.STRtree(shapes)
        self.rings = [c.bare_nm for c in copper] + [0] * len(areas)

    def holds(self, net: str, shape: BaseGeometry) -> bool:
        """Whether all of a shape may lie there: on the board, with its gap from everything of
        another net. Tear-drops are narrower than their lands, which keep their own gap from each
        other.
        """
        if not self.inside.contains(shape):
            return False
        most = max([self.gap_nm, *self.rings])
        for index in self.tree.query(shape, "dwithin", most).tolist():
            apart = shape.distance(self.tree.geometries[index])
            if self.nets[index] != net and apart < max(self.gap_nm, self.rings[index]):
                return False
        return True
