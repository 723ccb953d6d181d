"""Exact distances between all copper of a board: cores and radii, found with a spatial tree."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.geometry import core_of, radius_of


@dataclass(frozen=True)
class CloseBy:
    """Two things nearer than asked: their names, nets, the gap and a place, in nm."""

    first: str
    second: str
    first_net: str
    second_net: str
    gap_nm: float
    x: float
    y: float


@dataclass(frozen=True)
class Measured:
    """A thing to be measured: exact core, radius, net and name; `net` empty stands for none, which is foreign to all."""

    core: BaseGeometry
    radius: float
    net: str
    name: str
    group: str = ""


def measured_copper(view: BoardView, side: str) -> list[Measured]:
    """All pads, tracks, vias and poured pieces of one side."""
    found = [measured(c) for c in (*view.pads, *view.wiring) if side in c.sides]
    for piece in view.pour.pieces if view.pour else ():
        if piece.far == (side == FAR):
            found.append(
                Measured(
                    Polygon(piece.outer, piece.holes),
                    0.0,
                    view.pour.net if view.pour else "",
                    "pour",
                )
            )
    return found


def measured(copper: Copper) -> Measured:
    """Copper as something to measure; pads of one contact count as one thing."""
    return Measured(
        core_of(copper.shape),
        radius_of(copper.shape),
        copper.net,
        copper.owner,
        copper.owner if copper.ref else "",
    )


def too_close(things: Sequence[Measured], gap_nm: float) -> Iterator[CloseBy]:
    """All pairs of different nets that are nearer than the gap (exact to the nanometre)."""
    if len(things) < 2:
        return
    cores = np.array([t.core for t in things], dtype=object)
    radii = np.array([t.radius for t in things])
    reach = gap_nm + radii + radii.max()
    tree = shapely.STRtree(cores)
    first, second = tree.query(cores, predicate="dwithin", distance=reach)
    once = first < second
    first, second = first[once], second[once]
    gaps = shapely.distance(cores[first], cores[second]) - radii[first] - radii[second]
    for a, b, gap in zip(
        first[gaps < gap_nm - 1], second[gaps < gap_nm - 1], gaps[gaps < gap_nm - 1], strict=True
    ):
        one, two = things[int(a)], things[int(b)]
        if (one.net and one.net == two.net) or (one.group and one.group == two.group):
            continue
        place = shapely.shortest_line(one.core, two.core).centroid
        yield CloseBy(one.name, two.name, one.net, two.net, float(gap), place.x, place.y)


def both_sides(view: BoardView) -> Iterator[tuple[str, list[Measured]]]:
    """Things to measure, side by side."""
    for side in (NEAR, FAR):
        yield side, measured_copper(view, side)
