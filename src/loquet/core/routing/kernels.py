"""The loops that must be fast, compiled by numba and cached on disk.

Grid nodes are numbered (side * rows + row) * columns + column. Costs are in tenths of a cell: a straight step 10, a
diagonal 14. `owner` maps hold FREE, a net number, or BLOCKED.
"""

import numpy as np
from numba import njit
from numpy.typing import NDArray

FREE, BLOCKED = -1, -2
STRAIGHT, DIAGONAL = 10.0, 14.142
BEND = 3.0
STEP_X = np.array([1, 1, 0, -1, -1, -1, 0, 1], dtype=np.int32)
STEP_Y = np.array([0, 1, 1, 1, 0, -1, -1, -1], dtype=np.int32)

Ints = NDArray[np.int32]
Shorts = NDArray[np.int16]
Floats = NDArray[np.float64]


@njit(cache=True, nogil=True)
def mark_box(
    owner: Shorts, columns: int, rows: int, base: int, box: Floats, reach: float, net: int
) -> None:  # pragma: no cover
    """Mark cells whose middle is nearer than `reach` to a box (middle x, y, half width, half height; in cells)."""
    x1, x2 = int(np.floor(box[0] - box[2] - reach)), int(np.ceil(box[0] + box[2] + reach))
    y1, y2 = int(np.floor(box[1] - box[3] - reach)), int(np.ceil(box[1] + box[3] + reach))
    for y in range(max(0, y1), min(rows - 1, y2) + 1):
        dy = max(abs(y - box[1]) - box[3], 0.0)
        for x in range(max(0, x1), min(columns - 1, x2) + 1):
            dx = max(abs(x - box[0]) - box[2], 0.0)
            if dx * dx + dy * dy < reach * reach:
                cell = base + y * columns + x
                if owner[cell] == FREE:
                    owner[cell] = net
                elif owner[cell] != net:
                    owner[cell] = BLOCKED


@njit(cache=True, nogil=True)
def stamp(
    occupied: Shorts,
    epoch: Ints,
    mark: int,
    nodes: Ints,
    count: int,
    disc_x: Ints,
    disc_y: Ints,
    columns: int,
    rows: int,
    out: Ints,
) -> int:  # pragma: no cover
    """Count one more occupant on every cell within the disc of any node, each once; returns how many cells."""
    found = 0
    area = columns * rows
    for i in range(count):
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
def push(heap_f: Floats, heap_n: Ints, size: int, f: float, n: int) -> int:  # pragma: no cover
    """Add to a binary heap; returns its new size."""
    i = size
    while i > 0:
        up = (i - 1) >> 1
        if heap_f[up] <= f:
            break
        heap_f[i] = heap_f[up]
        heap_n[i] = heap_n[up]
        i = up
    heap_f[i] = f
    heap_n[i] = n
    return size + 1


@njit(cache=True, nogil=True)
def pop(heap_f: Floats, heap_n: Ints, size: int) -> int:  # pragma: no cover
    """Remove the least entry, which the caller has read at 0; returns the new size."""
    size -= 1
    f, n = heap_f[size], heap_n[size]
    i = 0
    while True:
        child = 2 * i + 1
        if child >= size:
            break
        if child + 1 < size and heap_f[child + 1] < heap_f[child]:
            child += 1
        if heap_f[child] >= f:
            break
        heap_f[i] = heap_f[child]
        heap_n[i] = heap_n[child]
        i = child
    heap_f[i] = f
    heap_n[i] = n
    return size


@njit(cache=True, nogil=True)
def search(
    net: int,
    sources: Ints,
    goal: NDArray[np.uint8],
    goal_box: Floats,
    owner: Shorts,
    owner_via: Shorts,
    occupied: Shorts,
    occupied_via: Shorts,
    history: NDArray[np.float32],
    own_vias: Ints,
    via_reach: float,
    pressure: float,
    hard: bool,
    via_cost: float,
    weight: float,
    columns: int,
    rows: int,
    best: Floats,
    seen: Ints,
    came: Ints,
    heading_to: NDArray[np.int8],
    mark: int,
    heap_f: Floats,
    heap_n: Ints,
) -> int:  # pragma: no cover
    """Cheapest way from any source node to any goal node by A*; returns the goal node, or -1.

    `came` then leads back; the first step of a way has itself as predecessor. `pressure` prices cells that others hold; with
    `hard` such cells are closed. A `weight` above 1 leans towards the goal: faster, a little longer.
    """
    area = columns * rows
    limit = len(heap_f) - 16
    size = 0
    for i in range(len(sources)):
        node = sources[i]
        if seen[node] != mark:
            seen[node] = mark
            best[node] = 0.0
            came[node] = node
            heading_to[node] = -1
            place = node % area
            size = push(
                heap_f,
                heap_n,
                size,
                weight * estimate(place % columns, place // columns, goal_box),
                node,
            )
    while size > 0:
        f, node = heap_f[0], heap_n[0]
        size = pop(heap_f, heap_n, size)
        g = best[node]
        side = node // area
        y = (node - side * area) // columns
        x = node - side * area - y * columns
        if f > g + weight * estimate(x, y, goal_box) + 1e-6:
            continue
        if goal[node] == 1:
            return int(node)
        heading = heading_to[node]
        for d in range(8):
            if heading >= 0:
                turn = abs(d - heading)
                turn = min(turn, 8 - turn)
                if turn > 2:
                    continue
            else:
                turn = 0
            nx, ny = x + STEP_X[d], y + STEP_Y[d]
            if nx < 0 or ny < 0 or nx >= columns or ny >= rows:
                continue
            other = side * area + ny * columns + nx
            if owner[other] != FREE and owner[other] != net:
                continue
            load = occupied[other]
            if load > 0 and hard:
                continue
            base = DIAGONAL if d & 1 else STRAIGHT
            step = (base + history[other]) * (1.0 + pressure * load) + BEND * turn
            if size < limit and (seen[other] != mark or g + step < best[other] - 1e-9):
                seen[other] = mark
                best[other] = g + step
                came[other] = node
                heading_to[other] = d
                size = push(
                    heap_f, heap_n, size, g + step + weight * estimate(nx, ny, goal_box), other
                )
        place = y * columns + x
        other = (1 - side) * area + place
        if owner_via[place] != FREE and owner_via[place] != net:
            continue
        if owner[other] != FREE and owner[other] != net:
            continue
        load = occupied_via[place] + occupied_via[area + place]
        if load > 0 and hard:
            continue
        step = (via_cost + history[other]) * (1.0 + pressure * load)
        for k in range(len(own_vias)):
            vy = own_vias[k] // columns
            vx = own_vias[k] - vy * columns
            apart = (vx - x) * (vx - x) + (vy - y) * (vy - y)
            if apart == 0:
                step = 1.0
            elif apart < via_reach * via_reach:
                step = -1.0
                break
        if step > 0 and size < limit and (seen[other] != mark or g + step < best[other] - 1e-9):
            seen[other] = mark
            best[other] = g + step
            came[other] = node
            heading_to[other] = -1
            size = push(heap_f, heap_n, size, g + step + weight * estimate(x, y, goal_box), other)
    return -1


@njit(cache=True, nogil=True, inline="always")
def estimate(x: int, y: int, box: Floats) -> float:  # pragma: no cover
    """Least cost from a cell to a box (left, bottom, right, top in cells), without obstacles."""
    dx = max(box[0] - x, x - box[2], 0.0)
    dy = max(box[1] - y, y - box[3], 0.0)
    return float(STRAIGHT * max(dx, dy) + (DIAGONAL - STRAIGHT) * min(dx, dy))


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
    """How many nodes of a claimed way others hold as well (its own claim counts 1); `add` is put on their history."""
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
