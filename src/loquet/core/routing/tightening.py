"""Ways made shorter and straighter once all of them are found: off the searching grid's order,
still in eight directions.
"""

from collections import defaultdict
from collections.abc import Iterator
from itertools import pairwise
from math import hypot

import shapely

from loquet.core.board.copper import FAR, NEAR
from loquet.core.board.model import Routing, Track
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import polygon_of
from loquet.core.routing.router import RouteInput
from loquet.core.routing.surroundings import Surroundings

Point = tuple[int, int]
WINDOW = 9
PASSES = 3
SHORTER_NM = 1_000.0
WIDEST_COSINE = 0.5


def tightened(
    given: RouteInput, routing: Routing, only: frozenset[str] = frozenset(), drawn: bool = False
) -> Routing:
    """The routing with every way between two fixed places pulled straight, where all rules allow
    it, of all nets or `only` of these; ground stays as it lies, and so does what a person drew
    unless `drawn` says otherwise.
    """
    around = Surroundings(given, routing)
    nets: dict[tuple[str, bool], list[Track]] = defaultdict(list)
    for track in routing.tracks:
        nets[track.net, track.far].append(track)
    instead: dict[Track, list[Track]] = {}
    for (net, _), tracks in nets.items():
        if net != GROUND and (not only or net in only):
            fast = set() if drawn else {t for t in tracks if t.by_hand}
            instead |= NetSide(given, routing, tracks, fast).tightened(around)
    laid = tuple(t for track in routing.tracks for t in instead.get(track, [track]))
    return routing.model_copy(update={"tracks": laid})


class NetSide:
    """The tracks of a net on one side: which places must stay, and the ways between them."""

    def __init__(
        self, given: RouteInput, routing: Routing, tracks: list[Track], fast: set[Track]
    ) -> None:
        net, side = tracks[0].net, FAR if tracks[0].far else NEAR
        self.tracks = list(dict.fromkeys(tracks))
        self.pads = [polygon_of(p.shape) for p in given.pads if p.net == net and side in p.sides]
        self.at: dict[Point, list[Track]] = defaultdict(list)
        for track in self.tracks:
            for end in ends_of(track):
                self.at[end].append(track)
        self.fixed = {(v.x_nm, v.y_nm) for v in routing.vias if v.net == net}
        self.fixed |= {p for p, meeting in self.at.items() if len(meeting) != 2}
        self.covered = {p for p in self.at if self.in_a_pad(p)}
        self.fixed |= self.covered
        for track in self.tracks:
            if track in fast or self.crossed(track):
                self.fixed |= set(ends_of(track))

    def in_a_pad(self, spot: Point) -> bool:
        """Whether a place lies on a pad of the net."""
        point = shapely.Point(spot)
        return any(pad.intersects(point) for pad in self.pads)

    def crossed(self, track: Track) -> bool:
        """Whether something of the net hangs on a track elsewhere than at its ends: another end, a
        via, a pad.
        """
        line = core_of_track(track)
        ends = set(ends_of(track))
        spots = [p for p in self.at.keys() | self.fixed if p not in ends]
        if spots and bool((shapely.distance(line, shapely.points(spots)) < 1.0).any()):
            return True
        free = [pad for pad in self.pads if not any(pad.intersects(shapely.Point(e)) for e in ends)]
        return any(pad.intersects(line) for pad in free)

    def ways(self) -> Iterator[list[Track]]:
        """Runs of tracks from one fixed place to the next, of one width, with something between
        that may move.
        """
        used: set[Track] = set()
        for first in self.tracks:
            for start in ends_of(first):
                if first in used or start not in self.fixed:
                    continue
                way, spot = [first], other_end(first, start)
                while spot not in self.fixed:
                    following = next((t for t in self.at[spot] if t is not way[-1]), None)
                    if following is None or following.width_nm != first.width_nm:
                        break
                    way.append(following)
                    spot = other_end(following, spot)
                used |= set(way)
                if len(way) > 1:
                    yield way

    def tightened(self, around: Surroundings) -> dict[Track, list[Track]]:
        """What comes instead of which tracks."""
        instead: dict[Track, list[Track]] = {}
        for way in list(self.ways()):
            points = points_of(way)
            shorter = self.shorter(points, way, around)
            if shorter != points:
                new = [piece(way[0], a, b) for a, b in pairwise(shorter)]
                around.exchange(way, new)
                for end, last in ((points[0], new[0]), (points[-1], new[-1])):
                    self.at[end] = [*(t for t in self.at[end] if t not in way), last]
                instead |= {track: [] for track in way[1:]} | {way[0]: new}
        return instead

    def shorter(self, points: list[Point], old: list[Track], around: Surroundings) -> list[Point]:
        """A way over fewer or nearer places from the first to the last."""
        for _ in range(PASSES):
            before = points
            first = 0
            while first < len(points) - 2:
                found = self.shortcut(points, first, old, around)
                points = found or points
                first += 0 if found else 1
            if points == before:
                break
        return points

    def shortcut(
        self, points: list[Point], first: int, old: list[Track], around: Surroundings
    ) -> list[Point] | None:
        """The points with a better way from one of them to a later one, as late as can be."""
        for last in range(min(len(points) - 1, first + WINDOW), first + 1, -1):
            now = points[first : last + 1]
            for way in ways_between(points[first], points[last]):
                if not better(way, now):
                    continue
                new = straightened([*points[:first], *way, *points[last + 1 :]])
                if self.bends_well(new, old) and around.free(way, old[0]):
                    return new
        return None

    def bends_well(self, points: list[Point], old: list[Track]) -> bool:
        """Whether no corner of a way turns by more than a right angle, nor its ends meet other
        tracks of the net at a sharp angle.
        """
        steps = [(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(points)]
        if any(a[0] * b[0] + a[1] * b[1] < 0 for a, b in pairwise(steps)):
            return False
        leaving = ((points[0], steps[0]), (points[-1], (-steps[-1][0], -steps[-1][1])))
        for spot, step in leaving:
            if spot in self.covered:
                continue
            for other in self.at[spot]:
                end = other_end(other, spot)
                if (
                    other not in old
                    and cosine(step, (end[0] - spot[0], end[1] - spot[1])) > WIDEST_COSINE
                ):
                    return False
        return True


def ends_of(track: Track) -> tuple[Point, Point]:
    """Both ends of a track."""
    return (track.x1_nm, track.y1_nm), (track.x2_nm, track.y2_nm)


def other_end(track: Track, spot: Point) -> Point:
    """The end that is not this one."""
    one, two = ends_of(track)
    return two if one == spot else one


def core_of_track(track: Track) -> shapely.LineString:
    """The middle line of a track."""
    return shapely.LineString(ends_of(track))


def points_of(way: list[Track]) -> list[Point]:
    """The places that a run of tracks goes over."""
    one, two = ends_of(way[0])
    points = [two, one] if one in ends_of(way[1]) else [one, two]
    for track in way[1:]:
        points.append(other_end(track, points[-1]))
    return points


def ways_between(a: Point, b: Point) -> list[list[Point]]:
    """The straight way in one of eight directions, or the two ways over one corner of 45
    degrees.
    """
    dx, dy = b[0] - a[0], b[1] - a[1]
    slant = min(abs(dx), abs(dy))
    if slant in (0, max(abs(dx), abs(dy))):
        return [[a, b]]
    sx, sy = slant * (1 if dx > 0 else -1), slant * (1 if dy > 0 else -1)
    return [[a, (a[0] + sx, a[1] + sy), b], [a, (b[0] - sx, b[1] - sy), b]]


def length_of(points: list[Point]) -> float:
    """Length of a way in nm."""
    return sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(points))


def better(new: list[Point], old: list[Point]) -> bool:
    """Whether a way is shorter, or as short over fewer corners."""
    gain = length_of(old) - length_of(new)
    return gain > SHORTER_NM or (gain > -1.0 and len(new) < len(old))


def straightened(points: list[Point]) -> list[Point]:
    """Points without those that lie on the straight way between their neighbours."""
    kept = points[:1]
    for spot, after in pairwise(points[1:]):
        (ax, ay), (bx, by) = kept[-1], after
        cross = (spot[0] - ax) * (by - ay) - (spot[1] - ay) * (bx - ax)
        if spot != kept[-1] and cross:
            kept.append(spot)
    return [*kept, points[-1]]


def cosine(a: Point, b: Point) -> float:
    """Of the angle between two steps; 1 for the same direction."""
    long = hypot(*a) * hypot(*b)
    return (a[0] * b[0] + a[1] * b[1]) / long if long else 1.0


def piece(like: Track, a: Point, b: Point) -> Track:
    """A track between two places, as wide as another one of its net."""
    ends = {"x1_nm": a[0], "y1_nm": a[1], "x2_nm": b[0], "y2_nm": b[1]}
    return like.model_copy(update=ends)
