"""The loops that must be fast, compiled by numba and cached on disk.

Grid nodes are numbered (side * rows + row) * columns + column. Costs are whole tenths of a cell: a
straight step 10, a diagonal 14. `owner` maps hold FREE, a net number, or BLOCKED.
"""

import numpy as np
from numba import njit
from numpy.typing import NDArray

FREE, BLOCKED = -1, -2
STRAIGHT, DIAGONAL, BEND = 10, 14, 3
BUCKETS = 1 << 16
DEAREST_STEP = BUCKETS - 64
VIA_STEP, SOURCE = 8, 9
STEP_X = np.array([1, 1, 0, -1, -1, -1, 0, 1], dtype=np.int32)
STEP_Y = np.array([0, 1, 1, 1, 0, -1, -1, -1], dtype=np.int32)

Bytes = NDArray[np.uint8]
Ints = NDArray[np.int32]
Shorts = NDArray[np.int16]
Longs = NDArray[np.int64]
Floats = NDArray[np.float64]


@njit(cache=True, nogil=True)
def near_box(box: Floats, reach: float, columns: int, rows: int) -> Longs:  # pragma: no cover
    """Cells of one side whose middle is nearer than `reach` to a box (middle x, y, half width, half
    height, cosine and sine of its turn; in cells).
    """
    cosine, sine = box[4], box[5]
    wide = abs(cosine) * box[2] + abs(sine) * box[3] + reach
    high = abs(sine) * box[2] + abs(cosine) * box[3] + reach
    left, right = max(0, int(np.ceil(box[0] - wide))), min(columns - 1, int(box[0] + wide))
    bottom, top = max(0, int(np.ceil(box[1] - high))), min(rows - 1, int(box[1] + high))
    found = np.empty(max(0, right - left + 1) * max(0, top - bottom + 1), dtype=np.int64)
    count = 0
    for y in range(bottom, top + 1):
        for x in range(left, right + 1):
            across, up = x - box[0], y - box[1]
            u = max(abs(across * cosine + up * sine) - box[2], 0.0)
            v = max(abs(up * cosine - across * sine) - box[3], 0.0)
            if u * u + v * v < reach * reach:
                found[count] = y * columns + x
                count += 1
    return found[:count]


@njit(cache=True, nogil=True)
def stamp(
    occupied: Shorts,
    epoch: Ints,
    mark: int,
    nodes: Ints,
    disc_x: Ints,
    disc_y: Ints,
    columns: int,
    rows: int,
    out: Ints,
) -> int:  # pragma: no cover
    """Count one more occupant on every cell within the disc of any node, each once; returns how
    many cells.
    """
    found = 0
    area = columns * rows
    for i in range(len(nodes)):
        node = nodes[i]
        side = node // area
        y = (node - side * area) // columns
        x = node - side * area - y * columns
        for k in range(len(disc_x)):
            cx, cy = x + disc_x[k], y + disc_y[k]
            if cx < 0 or cy < 0 or cx >= columns or cy >= rows:
                continue
            cell = side * area + cy * columns + cx
            if epoch[cell] == mark:
                continue
            epoch[cell] = mark
            occupied[cell] += 1
            out[found] = cell
            found += 1
    return found


@njit(cache=True, nogil=True)
def lift(occupied: Shorts, cells: Ints) -> None:  # pragma: no cover
    """Take one occupant off every listed cell."""
    for i in range(len(cells)):
        occupied[cells[i]] -= 1


@njit(cache=True, nogil=True)
def keep_apart(
    near_vias: Ints, mark: int, place: int, reach: float, columns: int, rows: int
) -> None:  # pragma: no cover
    """Note a via of the net that is being routed: its own place can be used again (`mark`), a place
    nearer than `reach` cells takes no second one (-`mark`).
    """
    vy = place // columns
    vx = place - vy * columns
    span = int(reach) + 1
    for y in range(max(0, vy - span), min(rows - 1, vy + span) + 1):
        for x in range(max(0, vx - span), min(columns - 1, vx + span) + 1):
            apart = (x - vx) * (x - vx) + (y - vy) * (y - vy)
            if 0 < apart < reach * reach and near_vias[y * columns + x] != mark:
                near_vias[y * columns + x] = -mark
    near_vias[place] = mark


@njit(cache=True, nogil=True)
def least_apart(
    nodes: Ints, x: float, y: float, columns: int, area: int
) -> float:  # pragma: no cover
    """Least distance in cells, along rows and columns, from any node to a place."""
    least = 1e9
    for node in nodes:
        place = node % area
        away = abs(place % columns - x) + abs(place // columns - y)
        least = min(least, away)
    return least


@njit(cache=True, nogil=True, inline="always")
def estimate(x: int, y: int, box: Ints) -> int:  # pragma: no cover
    """Least cost from a cell to a box (left, bottom, right, top in cells), without obstacles."""
    dx = max(box[0] - x, x - box[2], 0)
    dy = max(box[1] - y, y - box[3], 0)
    return int(STRAIGHT * max(dx, dy) + (DIAGONAL - STRAIGHT) * min(dx, dy))


@njit(cache=True, nogil=True)
def search(
    net: int,
    sources: Ints,
    goal: Shorts,
    goal_box: Ints,
    window: Ints,
    owner: Shorts,
    owner_via: Shorts,
    occupied: Shorts,
    occupied_via: Shorts,
    history: NDArray[np.float32],
    near_vias: Ints,
    via_mark: int,
    pressure: float,
    hard: bool,
    via_cost: float,
    columns: int,
    rows: int,
    states: Longs,
    came: NDArray[np.int8],
    mark: int,
    heads: Ints,
    entry_node: Ints,
    entry_next: Ints,
) -> int:  # pragma: no cover
    """Cheapest way within a window from any source node to any goal node by A* with a bucket queue;
    returns the goal node, or -1.

    `came` then leads back: the direction of the step that led to a node, VIA_STEP for the other
    side of a via, SOURCE where a way begins. `states` holds the number of the search and the cost
    so far of each node. `pressure` prices cells that others hold; with `hard` such cells are
    closed. `window` and `goal_box` are left, bottom, right, top in cells.
    """
    area = columns * rows
    heads[:] = -1
    entries, waiting, free = 0, 0, -1
    level = -1
    number = np.int64(mark) << 32
    for i in range(len(sources)):
        node = sources[i]
        place = node % area
        x, y = place % columns, place // columns
        if x < window[0] or x > window[2] or y < window[1] or y > window[3]:
            continue
        if states[node] >> 32 == mark:
            continue
        states[node] = number
        came[node] = SOURCE
        f = estimate(x, y, goal_box)
        if level < 0 or f < level:
            level = f
    if level < 0:
        return -1
    for i in range(len(sources)):
        node = sources[i]
        place = node % area
        x, y = place % columns, place // columns
        if x < window[0] or x > window[2] or y < window[1] or y > window[3]:
            continue
        f = estimate(x, y, goal_box)
        if f - level > DEAREST_STEP:
            continue
        slot = f & (BUCKETS - 1)
        entry_node[entries] = node
        entry_next[entries] = heads[slot]
        heads[slot] = entries
        entries += 1
        waiting += 1
    limit = len(entry_node) - 16
    while waiting > 0:
        slot = level & (BUCKETS - 1)
        entry = heads[slot]
        if entry < 0:
            level += 1
            continue
        heads[slot] = entry_next[entry]
        node = entry_node[entry]
        entry_next[entry] = free
        free = entry
        waiting -= 1
        g = states[node] - number
        side = node // area
        y = (node - side * area) // columns
        x = node - side * area - y * columns
        if g + estimate(x, y, goal_box) != level:
            continue
        if goal[node] > 0:
            return int(node)
        heading = came[node]
        for d in range(9):
            if d < 8:
                turn = 0
                if heading < 8:
                    turn = abs(d - heading)
                    turn = min(turn, 8 - turn)
                    if turn > 2:
                        continue
                nx, ny = x + STEP_X[d], y + STEP_Y[d]
                if nx < window[0] or ny < window[1] or nx > window[2] or ny > window[3]:
                    continue
                other = side * area + ny * columns + nx
                if owner[other] != FREE and owner[other] != net:
                    continue
                load = occupied[other]
                if load > 0 and hard:
                    continue
                base = float(DIAGONAL if d & 1 else STRAIGHT)
                step = int((base + history[other]) * (1.0 + pressure * load)) + BEND * turn
            else:
                nx, ny = x, y
                place = y * columns + x
                other = (1 - side) * area + place
                if owner_via[place] != FREE and owner_via[place] != net:
                    continue
                if owner[other] != FREE and owner[other] != net:
                    continue
                load = occupied_via[place] + occupied_via[area + place]
                if load > 0 and hard:
                    continue
                if near_vias[place] == -via_mark:
                    continue
                if near_vias[place] == via_mark:
                    step = 1
                else:
                    step = int((via_cost + history[other]) * (1.0 + pressure * load))
            step = min(step, DEAREST_STEP)
            total = g + step
            if states[other] >> 32 == mark and number + total >= states[other]:
                continue
            if entries >= limit and free < 0:
                continue
            states[other] = number + total
            came[other] = d
            f = total + estimate(nx, ny, goal_box)
            slot = f & (BUCKETS - 1)
            if free >= 0:
                entry = free
                free = entry_next[entry]
            else:
                entry = entries
                entries += 1
            entry_node[entry] = other
            entry_next[entry] = heads[slot]
            heads[slot] = entry
            waiting += 1
    return -1


@njit(cache=True, nogil=True)
def trace(
    came: NDArray[np.int8], node: int, columns: int, area: int, out: Ints
) -> int:  # pragma: no cover
    """The way back from a node to where its search began, written to `out` in order from the node;
    returns how many.
    """
    count = 0
    out[0] = node
    while came[node] != SOURCE:
        d = came[node]
        if d == VIA_STEP:
            node += area if node < area else -area
        else:
            node -= STEP_X[d] + STEP_Y[d] * columns
        count += 1
        out[count] = node
    return count + 1


@njit(cache=True, nogil=True)
def conflicts(
    nodes: Ints,
    vias: Ints,
    occupied: Shorts,
    occupied_via: Shorts,
    history: NDArray[np.float32],
    area: int,
    add: float,
) -> int:  # pragma: no cover
    """How many nodes of a claimed way others hold as well (its own claim counts 1); `add` is put on
    their history.
    """
    found = 0
    for i in range(len(nodes)):
        if occupied[nodes[i]] > 1:
            found += 1
            history[nodes[i]] += add
    for i in range(len(vias)):
        for side in range(2):
            node = side * area + vias[i]
            if occupied_via[node] > 1:
                found += 1
                history[node] += add
    return found


@njit(cache=True, nogil=True)
def head_of(heads: Ints, item: int) -> int:  # pragma: no cover
    """The head of an item's group, its way there shortened."""
    while heads[item] != item:
        heads[item] = heads[heads[item]]
        item = heads[item]
    return item


@njit(cache=True, nogil=True)
def join(heads: Ints, one: int, other: int) -> None:  # pragma: no cover
    """Put the groups of two items together."""
    a, b = head_of(heads, one), head_of(heads, other)
    heads[max(a, b)] = min(a, b)


@njit(cache=True, nogil=True)
def pools(
    open_cells: Bytes, crossings: Bytes, columns: int, rows: int, heads: Ints
) -> None:  # pragma: no cover
    """Which open cells of both sides are joined: neighbours along rows and columns, and both sides
    of a crossing; `heads` gets the head of each cell. Runs along a row hang on their first cell;
    two runs are joined where they first lie side by side.
    """
    area = columns * rows
    run = 0
    for node in range(2 * area):
        heads[node] = node
        if not open_cells[node]:
            continue
        place = node % area
        on = place % columns > 0 and open_cells[node - 1] > 0
        run = run if on else node
        heads[node] = run
        below = node - columns
        if place >= columns and open_cells[below] and not (on and open_cells[below - 1]):
            join(heads, node, below)
        through = node >= area and crossings[place] and open_cells[place]
        if through and not (on and crossings[place - 1] and open_cells[place - 1]):
            join(heads, node, place)
    for node in range(2 * area):
        if open_cells[node]:
            heads[node] = head_of(heads, node)
