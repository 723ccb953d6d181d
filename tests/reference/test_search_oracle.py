"""The router's searches and pools against networkx, a general graph library, on random grids."""

from itertools import pairwise

import networkx
import numpy as np
import pytest

from loquet.core.routing.kernels import BUCKETS, FREE, pools, search, trace

COLUMNS, ROWS = 24, 18
AREA = COLUMNS * ROWS
VIA_COST = 60.0


def found(
    owner: np.ndarray,
    via: np.ndarray,
    start: int,
    goal: int,
    columns: int = COLUMNS,  # type: ignore[type-arg]
) -> list[int]:
    """The way from one node to another by the router's kernel; empty where there is none."""
    size, area = len(owner), len(via)
    goals = np.zeros(size, dtype=np.int16)
    goals[goal] = 1
    spot = goal % area
    at = np.array([spot % columns, spot // columns] * 2, dtype=np.int32)
    rows = area // columns
    whole = np.array([0, 0, columns - 1, rows - 1], dtype=np.int32)
    nothing, came = np.zeros(size, dtype=np.int16), np.zeros(size, dtype=np.int8)
    node = search(
        *(0, np.array([start], dtype=np.int32), goals, at, whole, owner, via, nothing, nothing),
        *(np.zeros(size, dtype=np.float32), np.zeros(area, dtype=np.int32), 1, 0.0, True),
        *(VIA_COST, columns, rows, np.zeros(size, dtype=np.int64), came, 1),
        np.zeros(BUCKETS, dtype=np.int32),
        *(np.zeros(2 * size, dtype=np.int32) for _ in range(2)),
    )
    if node < 0:
        return []
    out = np.zeros(size, dtype=np.int32)
    return out[: trace(came, node, columns, area, out)][::-1].tolist()


def graph_of(owner: np.ndarray, via: np.ndarray) -> networkx.Graph:  # type: ignore[type-arg]
    """Free nodes, joined to their eight neighbours and through free via places."""
    graph = networkx.Graph()
    for node in np.flatnonzero(owner == FREE).tolist():
        graph.add_node(node)
        side, place = divmod(node, AREA)
        x, y = place % COLUMNS, place // COLUMNS
        for dx, dy, cost in ((1, 0, 10), (0, 1, 10), (1, 1, 14), (-1, 1, 14)):
            nx, ny = x + dx, y + dy
            other = side * AREA + ny * COLUMNS + nx
            if 0 <= nx < COLUMNS and ny < ROWS and owner[other] == FREE:
                graph.add_edge(node, other, weight=cost)
        if side == 0 and via[place] == FREE and owner[AREA + place] == FREE:
            graph.add_edge(node, AREA + place, weight=VIA_COST)
    return graph


@pytest.mark.parametrize("seed", range(40))
def test_ways_are_whole_and_hardly_longer_than_the_shortest(seed: int) -> None:
    """The kernel forbids sharp turns and charges for bends, so that a little more than the shortest
    is right, and a way may be missing only where the graph has none or only sharp ones.
    """
    rng = np.random.default_rng(seed)
    owner = np.where(rng.random(2 * AREA) < 0.22, -2, FREE).astype(np.int16)
    via = np.where(rng.random(AREA) < 0.6, -2, FREE).astype(np.int16)
    start, goal = 2 * COLUMNS + 2, AREA + (ROWS - 3) * COLUMNS + COLUMNS - 3
    owner[[start, goal]] = FREE
    graph, way = graph_of(owner, via), found(owner, via, start, goal)
    if not networkx.has_path(graph, start, goal):
        assert way == []
        return
    shortest = networkx.dijkstra_path_length(graph, start, goal)
    assert (way[0], way[-1]) == (start, goal)
    steps = list(pairwise(way))
    assert all(graph.has_edge(a, b) for a, b in steps)
    cost = sum(graph.edges[a, b]["weight"] for a, b in steps)
    assert shortest <= cost <= 1.35 * shortest + 30


def test_a_way_of_half_a_metre_is_found() -> None:
    """5,000 cells in a row."""
    open_cells = np.full(2 * 5000, FREE, dtype=np.int16)
    way = found(open_cells, np.full(5000, -2, dtype=np.int16), 0, 4999, columns=5000)
    assert way == list(range(5000))


def test_an_open_board_is_crossed_straight() -> None:
    """23 columns and no row: 23 straight steps."""
    owner = np.full(2 * AREA, FREE, dtype=np.int16)
    way = found(owner, np.full(AREA, FREE, dtype=np.int16), 5 * COLUMNS, 5 * COLUMNS + 23)
    assert way == list(range(5 * COLUMNS, 5 * COLUMNS + 24))


@pytest.mark.parametrize("seed", range(20))
def test_pools_are_connected_components(seed: int) -> None:
    """Cells joined along rows and columns, and through crossings, as networkx finds them."""
    rng = np.random.default_rng(seed)
    cells = (rng.random(2 * AREA) < 0.55).astype(np.uint8)
    crossings = (rng.random(AREA) < 0.05).astype(np.uint8)
    heads = np.zeros(2 * AREA, dtype=np.int32)
    pools(cells, crossings, COLUMNS, ROWS, heads)
    graph = networkx.Graph()
    graph.add_nodes_from(np.flatnonzero(cells).tolist())
    for node in graph.nodes:
        place = node % AREA
        near = [node + 1] if place % COLUMNS < COLUMNS - 1 else []
        near += [node + COLUMNS] if place + COLUMNS < AREA else []
        near += [node + AREA] if node < AREA and crossings[place] else []
        graph.add_edges_from((node, other) for other in near if cells[other])
    for component in networkx.connected_components(graph):
        assert len({int(heads[n]) for n in component}) == 1
    assert len({int(heads[n]) for n in graph.nodes}) == networkx.number_connected_components(graph)


DIAGONALS = ((1, 1), (-1, 1), (-1, -1), (1, -1))


@pytest.mark.parametrize("first", DIAGONALS)
@pytest.mark.parametrize("side", [1, -1])
def test_a_way_may_turn_by_a_quarter_to_either_side(first: tuple[int, int], side: int) -> None:
    """A slanting corridor one cell wide that turns by 90 degrees, which no step can cut short: it
    is gone through as it is.
    """
    dx, dy = first
    second = (-side * dy, side * dx)
    corner = (COLUMNS // 2, ROWS // 2)
    before = [(corner[0] - n * dx, corner[1] - n * dy) for n in range(4, 0, -1)]
    after = [(corner[0] + n * second[0], corner[1] + n * second[1]) for n in range(1, 5)]
    cells = [y * COLUMNS + x for x, y in (*before, corner, *after)]
    owner = np.full(2 * AREA, -2, dtype=np.int16)
    owner[cells] = FREE
    assert found(owner, np.full(AREA, -2, dtype=np.int16), cells[0], cells[-1]) == cells
