"""Links that no copper makes yet: found from what touches what, whoever drew it."""

from collections import defaultdict
from dataclasses import dataclass
from math import hypot

from loquet.core.board.areas import areas_of
from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.board.islands import joined
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import middle_of


@dataclass(frozen=True)
class Link:
    """A connection that is still open: its net, and the two pads that lie nearest to each other."""

    net: str
    start: Copper
    end: Copper


def open_links(view: BoardView) -> tuple[Link, ...]:
    """For every net but ground, which is poured, the shortest links between groups of pads that
    nothing joins.
    """
    copper = [c for c in (*view.pads, *view.wiring) if c.net and c.net != GROUND]
    poured = view.pour.areas if view.pour else ()
    areas = [
        (area, FAR if piece.far else NEAR)
        for piece, area in zip(poured, areas_of(poured), strict=True)
    ]
    each = [*(c.net for c in copper), *(piece.net for piece in poured)]
    groups = joined(copper, areas, each)
    nets: dict[str, dict[int, list[Copper]]] = defaultdict(lambda: defaultdict(list))
    for index, piece in enumerate(copper):
        if piece.ref:
            nets[piece.net][groups.find(index)].append(piece)
    return tuple(link for net in sorted(nets) for link in tree_of(net, list(nets[net].values())))


def tree_of(net: str, groups: list[list[Copper]]) -> list[Link]:
    """The links of a tree over groups of pads, each between the two that lie nearest."""
    links: list[Link] = []
    reached, left = groups[:1], groups[1:]
    while left:
        _, index, start, end = min(
            (
                (apart(a, b), index, a, b)
                for index, group in enumerate(left)
                for b in group
                for known in reached
                for a in known
            ),
            key=lambda row: row[:2],
        )
        links.append(Link(net, start, end))
        reached.append(left.pop(index))
    return links


def apart(a: Copper, b: Copper) -> float:
    """Distance between the middles of two pads in nm."""
    (ax, ay), (bx, by) = middle_of(a.shape), middle_of(b.shape)
    return hypot(ax - bx, ay - by)
