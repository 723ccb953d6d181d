"""The loops of placing that must be fast, compiled by numba and cached on disk.

All lengths are nanometres.

A row is left, bottom, right, top, what it is, and what it must stay clear of (bits of
`ground_plan`).
"""

import numpy as np
from numba import njit
from numpy.typing import NDArray

CELL_NM = 250_000
ON_BOARD = 1 | 4  # bodies of either side
LATTICE_NM = 500_000
FAR_AWAY = 1e15

Longs = NDArray[np.int64]
Floats = NDArray[np.float64]


@njit(cache=True, nogil=True)
def meet(
    left: int, bottom: int, right: int, top: int, what: int, clear_of: int, other: Longs
) -> bool:  # pragma: no cover
    """Whether a rectangle overlaps a row of which one must stay clear of the other."""
    if not (clear_of & other[4]) and not (other[5] & what):
        return False
    return bool(left < other[2] and other[0] < right and bottom < other[3] and other[1] < top)


@njit(cache=True, nogil=True)
def outside(
    left: int, bottom: int, right: int, top: int, sums: Longs, origin: Longs
) -> bool:  # pragma: no cover
    """Whether a rectangle holds a forbidden cell or leaves the raster."""
    rows, columns = sums.shape[0] - 1, sums.shape[1] - 1
    c1, r1 = (left - origin[0]) // CELL_NM, (bottom - origin[1]) // CELL_NM
    c2, r2 = -((origin[0] - right) // CELL_NM), -((origin[1] - top) // CELL_NM)
    if c1 < 0 or r1 < 0 or c2 > columns or r2 > rows:
        return True
    return bool(sums[r2, c2] - sums[r1, c2] - sums[r2, c1] + sums[r1, c1] > 0)


@njit(cache=True, nogil=True)
def clear_spots(
    xs: Longs, ys: Longs, rows: Longs, taken: Longs, sums: Longs, origin: Longs
) -> NDArray[np.bool_]:  # pragma: no cover
    """For each place whether the rows about it lie inside and meet none of the taken ones."""
    found = np.ones(len(xs), dtype=np.bool_)
    for i in range(len(xs)):
        for k in range(len(rows)):
            left, bottom = xs[i] + rows[k, 0], ys[i] + rows[k, 1]
            right, top = xs[i] + rows[k, 2], ys[i] + rows[k, 3]
            what, clear_of = rows[k, 4], rows[k, 5]
            if what & ON_BOARD and outside(left, bottom, right, top, sums, origin):
                found[i] = False
                break
            for j in range(len(taken)):
                if meet(left, bottom, right, top, what, clear_of, taken[j]):
                    found[i] = False
                    break
            if not found[i]:
                break
    return found


@njit(cache=True, nogil=True)
def reach_costs(
    xs: Longs, ys: Longs, pads: Longs, weights: Floats, bounds: Longs, points: Longs
) -> Floats:  # pragma: no cover
    """For each place the weighted distance, along rows and columns, of every own pad to the nearest
    point of its net.

    `pads` are places about (xs, ys), with half of what each reaches across and up (0: its middle
    counts); the points of pad k are `points[bounds[k]:bounds[k + 1]]`.
    """
    found = np.zeros(len(xs))
    for i in range(len(xs)):
        total = 0.0
        for k in range(len(pads)):
            if bounds[k] == bounds[k + 1]:
                continue
            x, y = xs[i] + pads[k, 0], ys[i] + pads[k, 1]
            nearest = FAR_AWAY
            for j in range(bounds[k], bounds[k + 1]):
                across = max(0, abs(points[j, 0] - x) - pads[k, 2])
                up = max(0, abs(points[j, 1] - y) - pads[k, 3])
                nearest = min(nearest, float(across + up))
            total += weights[k] * nearest
        found[i] = total
    return found


@njit(cache=True, nogil=True)
def item_cost(
    item: int,
    x: int,
    y: int,
    turn: int,
    pad_bounds: Longs,
    pads: Longs,
    nets: Longs,
    weights: Floats,
    net_bounds: Longs,
    net_pads: Longs,
    owners: Longs,
    spots: Longs,
    fixed_bounds: Longs,
    fixed: Longs,
    likes: Longs,
    places: Longs,
    align_nm: float,
    turn_nm: float,
) -> float:  # pragma: no cover
    """What an item costs at a place: its pads to the nearest other pad of their nets, its turn, and
    standing in line with none of its like.
    """
    total = turn_nm * (turn // 2)
    for k in range(pad_bounds[item], pad_bounds[item + 1]):
        px, py, net = x + pads[turn, k, 0], y + pads[turn, k, 1], nets[k]
        nearest = FAR_AWAY
        for j in range(fixed_bounds[net], fixed_bounds[net + 1]):
            nearest = min(nearest, float(abs(fixed[j, 0] - px) + abs(fixed[j, 1] - py)))
        for j in range(net_bounds[net], net_bounds[net + 1]):
            other = net_pads[j]
            if owners[other] != item:
                away = float(abs(spots[other, 0] - px) + abs(spots[other, 1] - py))
                nearest = min(nearest, away)
        if nearest < FAR_AWAY:
            total += weights[k] * nearest
    if likes[item] >= 0:
        aligned = False
        for other in range(len(likes)):
            if other != item and likes[other] == likes[item] and places[other, 2] == turn:
                aligned = aligned or places[other, 0] == x or places[other, 1] == y
        if not aligned:
            total += align_nm
    return total


@njit(cache=True, nogil=True)
def item_fits(
    item: int,
    x: int,
    y: int,
    turn: int,
    also: int,
    row_bounds: Longs,
    rows: Longs,
    places: Longs,
    taken: Longs,
    sums: Longs,
    origin: Longs,
) -> bool:  # pragma: no cover
    """Whether an item may stand at a place, `also` being an item that is out of the way."""
    for k in range(row_bounds[item], row_bounds[item + 1]):
        left, bottom = x + rows[turn, k, 0], y + rows[turn, k, 1]
        right, top = x + rows[turn, k, 2], y + rows[turn, k, 3]
        what, clear_of = rows[turn, k, 4], rows[turn, k, 5]
        if what & ON_BOARD and outside(left, bottom, right, top, sums, origin):
            return False
        for j in range(len(taken)):
            if meet(left, bottom, right, top, what, clear_of, taken[j]):
                return False
        for other in range(len(row_bounds) - 1):
            if other in (item, also):
                continue
            ox, oy, ot = places[other, 0], places[other, 1], places[other, 2]
            for j in range(row_bounds[other], row_bounds[other + 1]):
                theirs = rows[ot, j]
                if not (clear_of & theirs[4]) and not (theirs[5] & what):
                    continue
                if (
                    left < ox + theirs[2]
                    and ox + theirs[0] < right
                    and bottom < oy + theirs[3]
                    and oy + theirs[1] < top
                ):
                    return False
    return True


@njit(cache=True, nogil=True)
def anneal(
    seed: int,
    steps: int,
    hot_nm: float,
    cold_nm: float,
    wide_nm: int,
    places: Longs,
    row_bounds: Longs,
    rows: Longs,
    pad_bounds: Longs,
    pads: Longs,
    nets: Longs,
    weights: Floats,
    net_bounds: Longs,
    net_pads: Longs,
    owners: Longs,
    spots: Longs,
    fixed_bounds: Longs,
    fixed: Longs,
    likes: Longs,
    align_nm: float,
    turn_nm: float,
    taken: Longs,
    sums: Longs,
    origin: Longs,
) -> int:  # pragma: no cover
    """Move, turn and swap items of a legal arrangement by simulated annealing; it stays legal.

    Returns how many steps were taken up.

    `places` (x, y, quarter turns) and `spots` (absolute pads) are changed in place.
    """
    np.random.seed(seed)
    links = (pad_bounds, pads, nets, weights, net_bounds, net_pads, owners, spots)
    costs = (*links, fixed_bounds, fixed, likes, places, align_nm, turn_nm)
    count, taken_up = len(places), 0
    for step in range(steps):
        part = step / steps
        heat = hot_nm * (cold_nm / hot_nm) ** part
        reach = max(int(wide_nm * (1 - part)), LATTICE_NM)
        item = np.random.randint(count)
        x, y, turn = places[item, 0], places[item, 1], places[item, 2]
        other = -1
        dice = np.random.random()
        nx, ny, nturn = x, y, turn
        if dice < 0.15:
            nturn = np.random.randint(4)
        elif dice < 0.3 and count > 1:
            other = np.random.randint(count)
            if other == item:
                continue
            nx, ny = places[other, 0], places[other, 1]
        else:
            span = reach // LATTICE_NM
            nx += LATTICE_NM * np.random.randint(-span, span + 1)
            ny += LATTICE_NM * np.random.randint(-span, span + 1)
            if dice > 0.9:
                nturn = np.random.randint(4)
        if nx == x and ny == y and nturn == turn:
            continue
        if not item_fits(item, nx, ny, nturn, other, row_bounds, rows, places, taken, sums, origin):
            continue
        oturn = places[other, 2] if other >= 0 else 0
        before = 0.0
        for who, wx, wy, wt in ((item, x, y, turn), (other, nx, ny, oturn)):
            if who >= 0:
                before += item_cost(who, wx, wy, wt, *costs)
        put(item, nx, ny, nturn, places, pad_bounds, pads, spots)
        if other >= 0:
            if not item_fits(other, x, y, oturn, -1, row_bounds, rows, places, taken, sums, origin):
                put(item, x, y, turn, places, pad_bounds, pads, spots)
                continue
            put(other, x, y, oturn, places, pad_bounds, pads, spots)
        after = 0.0
        for who, wx, wy, wt in ((item, nx, ny, nturn), (other, x, y, oturn)):
            if who >= 0:
                after += item_cost(who, wx, wy, wt, *costs)
        if after <= before or np.random.random() < np.exp((before - after) / heat):
            taken_up += 1
            continue
        put(item, x, y, turn, places, pad_bounds, pads, spots)
        if other >= 0:
            put(other, nx, ny, oturn, places, pad_bounds, pads, spots)
    return taken_up


@njit(cache=True, nogil=True)
def put(
    item: int,
    x: int,
    y: int,
    turn: int,
    places: Longs,
    pad_bounds: Longs,
    pads: Longs,
    spots: Longs,
) -> None:  # pragma: no cover
    """Stand an item at a place."""
    places[item, 0], places[item, 1], places[item, 2] = x, y, turn
    for k in range(pad_bounds[item], pad_bounds[item + 1]):
        spots[k, 0], spots[k, 1] = x + pads[turn, k, 0], y + pads[turn, k, 1]
