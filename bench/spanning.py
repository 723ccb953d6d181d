"""The least length that would join the pads of every net: minimum spanning trees between pad
edges.
"""

from math import hypot

import numpy as np
import shapely

from loquet.core.board import BoardView
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import polygons_of


def spanning_mm(view: BoardView) -> float:
    """Sum over all nets but ground, which is poured; contacts with several pads count as one."""
    nets: dict[str, dict[str, list[int]]] = {}
    polygons = polygons_of([pad.shape for pad in view.pads])
    for index, pad in enumerate(view.pads):
        if pad.net and pad.net != GROUND:
            nets.setdefault(pad.net, {}).setdefault(pad.owner, []).append(index)
    return sum(tree_nm(list(c.values()), polygons) for c in nets.values()) / 1e6


def tree_nm(
    contacts: list[list[int]], polygons: "np.ndarray[tuple[int], np.dtype[np.object_]]"
) -> float:
    """Prim's tree over contacts."""
    if len(contacts) < 2:
        return 0.0
    areas = np.array([shapely.union_all(polygons[c]) for c in contacts], dtype=object)
    away = shapely.distance(areas[0], areas)
    reached, total = {0}, 0.0
    while len(reached) < len(areas):
        index = min((i for i in range(len(areas)) if i not in reached), key=lambda i: away[i])
        total += float(away[index])
        reached.add(index)
        away = np.minimum(away, shapely.distance(areas[index], areas))
    return total


def wired_mm(view: BoardView) -> float:
    """Length of all tracks but those of ground."""
    assert view.routing is not None
    return sum(
        hypot(t.x2_nm - t.x1_nm, t.y2_nm - t.y1_nm) / 1e6
        for t in view.routing.tracks
        if t.net != GROUND
    )
