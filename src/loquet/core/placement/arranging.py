"""The whole arrangement at once: clusters are moved, turned and swapped by simulated annealing
(Kirkpatrick, Gelatt and Vecchi 1983).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquet.core.geometry.placing import QUARTERS
from loquet.core.placement.ground_plan import GroundPlan, Rows
from loquet.core.placement.kernels import anneal

STEPS_EACH, LEAST_STEPS = 2_500, 20_000
HOT_NM, COLD_NM, WIDE_NM = 1_500_000.0, 30_000.0, 12_000_000
ALIGN_NM, TURN_NM = 700_000.0, 300_000.0
ALIGN_SHARES = (0.5, 1.0, 2.5)


@dataclass(frozen=True)
class Item:
    """What may be moved: rows and pads for each quarter turn, its nets with their weights, its
    likeness, and where it stands (x, y, quarters).
    """

    rows: tuple[Rows, ...]
    pads: tuple[tuple[tuple[int, int], ...], ...]
    nets: tuple[int, ...]
    weights: tuple[float, ...]
    like: int
    place: tuple[int, int, int]


def bounds_of(counts: list[int]) -> NDArray[np.int64]:
    """Where each of many runs begins and ends."""
    return np.concatenate([[0], np.cumsum(counts)]).astype(np.int64)


def arranged(
    items: list[Item],
    points: list[list[tuple[int, int]]],
    plan: GroundPlan,
    number: int = 1,
) -> list[tuple[int, int, int]]:
    """Better places for items that stand legally; `points` are the fixed pads of each net, and
    `plan` holds only what is fixed. Another `number` gives another arrangement: every third one
    counts rows and columns more, every third one less.
    """
    if not items:
        return []
    quarters = range(len(QUARTERS))
    rows = np.array([np.concatenate([item.rows[t] for item in items]) for t in quarters])
    pads = np.array(
        [[p for item in items for p in item.pads[t]] for t in quarters], dtype=np.int64
    ).reshape(4, -1, 2)
    pad_bounds = bounds_of([len(item.nets) for item in items])
    nets = np.array([n for item in items for n in item.nets], dtype=np.int64)
    owners = np.repeat(np.arange(len(items)), np.diff(pad_bounds))
    order = np.argsort(nets, kind="stable")
    fixed = np.array([p for net in points for p in net], dtype=np.int64).reshape(-1, 2)
    places = np.array([item.place for item in items], dtype=np.int64)
    spots = np.array(
        [
            (item.place[0] + x, item.place[1] + y)
            for item in items
            for x, y in item.pads[item.place[2]]
        ],
        dtype=np.int64,
    ).reshape(-1, 2)
    rows_count = ALIGN_SHARES[number % 3]
    anneal(
        number,
        max(LEAST_STEPS, STEPS_EACH * len(items)),
        HOT_NM,
        COLD_NM,
        WIDE_NM,
        places,
        bounds_of([len(item.rows[0]) for item in items]),
        rows,
        pad_bounds,
        pads,
        nets,
        np.array([w for item in items for w in item.weights]),
        bounds_of(np.bincount(nets, minlength=len(points)).tolist()),
        order.astype(np.int64),
        owners.astype(np.int64),
        spots,
        bounds_of([len(net) for net in points]),
        fixed,
        np.array([item.like for item in items], dtype=np.int64),
        ALIGN_NM * rows_count,
        TURN_NM,
        plan.rows(),
        plan.sums,
        plan.origin,
    )
    return [(int(x), int(y), int(t)) for x, y, t in places]
