"""What a track must keep away from while tracks change: exact distances, side by side."""

import numpy as np
import shapely
from shapely.geometry import LineString
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, Copper, track_copper, via_copper
from loquet.core.board.model import Routing, Track, Via
from loquet.core.board.pouring import CURVE_NM, relieved, spokes_of
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import core_of, radius_of
from loquet.core.routing.router import RouteInput

SLACK_NM = 100


class OneSide:
    """Copper of one side: what was there at first in a tree, what came later in a list, what went
    marked as gone.
    """

    def __init__(self, copper: list[Copper], gap_nm: float) -> None:
        self.cores: list[BaseGeometry] = [core_of(c.shape) for c in copper]
        self.radii = [radius_of(c.shape) + max(0.0, c.bare_nm - gap_nm) for c in copper]
        self.nets = [c.net for c in copper]
        self.gone = [False] * len(copper)
        self.tree = shapely.STRtree(self.cores)
        self.most = max(self.radii, default=0.0)

    def add(self, copper: Copper) -> int:
        """One more; returns its number."""
        self.cores.append(core_of(copper.shape))
        self.radii.append(radius_of(copper.shape))
        self.nets.append(copper.net)
        self.gone.append(False)
        return len(self.cores) - 1

    def clear(self, line: BaseGeometry, net: str, reach_nm: float) -> bool:
        """Whether a line or a place keeps this distance from all copper of other nets."""
        first = len(self.tree.geometries)
        close = self.tree.query(line, predicate="dwithin", distance=reach_nm + self.most).tolist()
        near = [
            i
            for i in (*close, *range(first, len(self.cores)))
            if not self.gone[i] and self.nets[i] != net
        ]
        if not near:
            return True
        gaps = shapely.distance(np.array([self.cores[i] for i in near], dtype=object), line)
        return bool((gaps - np.array([self.radii[i] for i in near]) >= reach_nm).all())


class Surroundings:
    """A board while its tracks are made tighter: a new piece keeps the gap to copper of other nets,
    the distance to edges and holes, and leaves the spokes of ground pads free.
    """

    def __init__(self, given: RouteInput, routing: Routing) -> None:
        self.given, rules = given, given.rules
        self.gap_nm = rules.drawn_gap_nm + SLACK_NM
        vias = [via_copper(via, rules) for via in routing.vias]
        tracks = [track_copper(track) for track in routing.tracks]
        self.sides, self.numbers = {}, dict[Track, int]()
        for name in (NEAR, FAR):
            pads = [c for c in (*given.pads, *vias) if name in c.sides]
            spokes = [
                Copper(GROUND, (name,), bar, "spoke")
                for pad in given.pads
                if pad.net == GROUND and name in pad.sides and relieved(pad)
                for bar in spokes_of(pad.shape)
            ]
            fixed = [*pads, *spokes]
            own = [(t, c) for t, c in zip(routing.tracks, tracks, strict=True) if name in c.sides]
            self.sides[name] = OneSide([*fixed, *(c for _, c in own)], self.gap_nm)
            for index, (track, _) in enumerate(own, len(fixed)):
                self.numbers[track] = index
        self.holes = [hole for hole in given.holes if not hole.plated]
        self.rooms: dict[int, BaseGeometry] = {}

    def room(self, width_nm: int) -> BaseGeometry:
        """Where the middle of a track of this width may run."""
        if width_nm not in self.rooms:
            half = width_nm / 2
            area = self.given.area.buffer(-(self.given.rules.edge_nm + half + SLACK_NM))
            round_holes = [
                shapely.Point(h.x, h.y).buffer(h.keep_nm + half + CURVE_NM) for h in self.holes
            ]
            room = area.difference(shapely.union_all(round_holes))
            shapely.prepare(room)
            self.rooms[width_nm] = room
        return self.rooms[width_nm]

    def free(self, points: list[tuple[int, int]], like: Track) -> bool:
        """Whether a way over these points may be laid in the net, on the side and in the width of a
        track.
        """
        line = LineString(points)
        if not self.room(like.width_nm).covers(line):
            return False
        side = self.sides[FAR if like.far else NEAR]
        return side.clear(line, like.net, self.gap_nm + like.width_nm / 2)

    def add_via(self, via: Via) -> None:
        """A via more, on both sides."""
        for side in self.sides.values():
            side.add(via_copper(via, self.given.rules))

    def exchange(self, old: list[Track], new: list[Track]) -> None:
        """Tracks that are gone, and those in their place."""
        for track in old:
            self.sides[FAR if track.far else NEAR].gone[self.numbers.pop(track)] = True
        for track in new:
            side = self.sides[FAR if track.far else NEAR]
            self.numbers[track] = side.add(track_copper(track))
