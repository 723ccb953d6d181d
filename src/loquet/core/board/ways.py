"""How far the contacts of a net lie from each other along its tracks."""

import heapq
from collections import defaultdict
from itertools import pairwise
from math import hypot, inf

import shapely

from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.board.model import Track
from loquet.core.geometry import Round, gap_between

Node = tuple[int, int, bool] | str
Graph = dict[Node, dict[Node, float]]
ON_TRACK_NM = 1_000.0


def way_lengths(view: BoardView, net: str) -> dict[tuple[str, str], float]:
    """For every two contacts of a net that tracks join, the shortest way along them in nm; a via
    counts nothing.
    """
    graph = graph_of(view, net)
    contacts = sorted(node for node in graph if isinstance(node, str))
    found: dict[tuple[str, str], float] = {}
    for start in contacts:
        away = distances(graph, start)
        found |= {(start, end): away[end] for end in contacts if end != start and end in away}
    return found


def graph_of(view: BoardView, net: str) -> Graph:
    """Ends of tracks and places where others meet them, vias, and contacts, each with its
    neighbours in nm.
    """
    routing = view.routing
    tracks = [t for t in (routing.tracks if routing else ()) if t.net == net]
    vias = [v for v in (routing.vias if routing else ()) if v.net == net]
    graph: Graph = defaultdict(dict)

    def join(a: Node, b: Node, long: float) -> None:
        graph[a][b] = graph[b][a] = min(long, graph[a].get(b, inf))

    spots = {(x, y) for t in tracks for x, y in ((t.x1_nm, t.y1_nm), (t.x2_nm, t.y2_nm))}
    spots |= {(v.x_nm, v.y_nm) for v in vias}
    for track in tracks:
        for (ax, ay), (bx, by) in pairwise(along(track, spots)):
            join((ax, ay, track.far), (bx, by, track.far), hypot(bx - ax, by - ay))
    for via in vias:
        join((via.x_nm, via.y_nm, False), (via.x_nm, via.y_nm, True), 0.0)
    for pad in (p for p in view.pads if p.net == net):
        for node in [n for n in graph if not isinstance(n, str) and lies_on(pad, n)]:
            join(pad.owner, node, 0.0)
    return graph


def along(track: Track, spots: set[tuple[int, int]]) -> list[tuple[int, int]]:
    """The ends of a track and all places on it, in order."""
    ends = ((track.x1_nm, track.y1_nm), (track.x2_nm, track.y2_nm))
    line = shapely.LineString(ends)
    on = {s for s in spots if line.distance(shapely.Point(s)) < ON_TRACK_NM} | set(ends)
    return sorted(on, key=lambda spot: line.project(shapely.Point(spot)))


def lies_on(pad: Copper, node: tuple[int, int, bool]) -> bool:
    """Whether a place lies on a pad, on a side that it has."""
    x, y, far = node
    return (FAR if far else NEAR) in pad.sides and gap_between(pad.shape, Round(x, y, 0)) <= 0


def distances(graph: Graph, start: Node) -> dict[Node, float]:
    """The shortest ways from a place to all others (Dijkstra 1959)."""
    away: dict[Node, float] = {start: 0.0}
    queue: list[tuple[float, int, Node]] = [(0.0, 0, start)]
    count = 0
    while queue:
        so_far, _, node = heapq.heappop(queue)
        if so_far > away.get(node, inf):
            continue
        for other, long in graph[node].items():
            if so_far + long < away.get(other, inf):
                away[other] = so_far + long
                count += 1
                heapq.heappush(queue, (so_far + long, count, other))
    return away
