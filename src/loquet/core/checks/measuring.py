"""Exact distances between all copper of a board: cores and radii, found with a spatial tree."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial
from math import inf

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.areas import areas_of
from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.geometry import core_of, radius_of
from loquet.core.geometry.neighbours import near_pairs
from loquet.core.plain.remembering import Remembered

CHUNK = 24


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
    """A thing to be measured: exact core, radius, net and name; `net` empty stands for none, which
    is foreign to all. A piece of the line around a large `area` is measured as a line.
    """

    core: BaseGeometry
    radius: float
    net: str
    name: str
    group: str = ""
    area: Polygon | None = None


MEASURED: Remembered[list[Measured]] = Remembered(4)
PADS: Remembered[list[Measured]] = Remembered(8192)


def measured_copper(view: BoardView, side: str) -> list[Measured]:
    """All pads, tracks, vias and poured pieces of one side; several rules ask for those of one
    board.
    """
    return MEASURED.of((view,), lambda: copper_of(view, side), side)


def copper_of(view: BoardView, side: str) -> list[Measured]:
    """Every piece of copper of one side as something to measure."""
    found: list[Measured] = []
    for pads in view.pads_by_part:
        found += PADS.of((pads,), partial(measured_on, side, pads), side)
    found += [measured(c) for c in view.wiring if side in c.sides]
    for piece, area in zip(view.poured, areas_of(view.poured), strict=True):
        if piece.far == (side == FAR):
            found += around(area, piece.net)
    return found


def measured_on(side: str, pads: tuple[Copper, ...]) -> list[Measured]:
    """The pads of a part on one side."""
    return [measured(c) for c in pads if side in c.sides]


def around(area: Polygon, net: str) -> list[Measured]:
    """The line around a poured piece and its holes, cut into short pieces that a tree finds
    quickly.
    """
    found = []
    for ring in (area.exterior, *area.interiors):
        points = shapely.get_coordinates(ring)
        for start in range(0, len(points) - 1, CHUNK):
            line = shapely.LineString(points[start : start + CHUNK + 1])
            found.append(Measured(line, 0.0, net, "pour", area=area))
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
    first, second = near_pairs(cores, radii + gap_nm / 2)
    gaps = shapely.distance(cores[first], cores[second]) - radii[first] - radii[second]
    worst: dict[tuple[int, int], tuple[float, int, int]] = {}
    for a, b, gap in zip(
        first[gaps < gap_nm - 1].tolist(),
        second[gaps < gap_nm - 1].tolist(),
        gaps[gaps < gap_nm - 1].tolist(),
        strict=True,
    ):
        one, two = things[a], things[b]
        if (one.net and one.net == two.net) or (one.group and one.group == two.group):
            continue
        key = (id(one.area) if one.area else a, id(two.area) if two.area else b)
        worst[key] = min(worst.get(key, (gap, a, b)), (gap, a, b))
    for gap, a, b in worst.values():
        one, two = things[a], things[b]
        place = shapely.shortest_line(one.core, two.core).centroid
        yield CloseBy(one.name, two.name, one.net, two.net, gap, place.x, place.y)
    yield from swallowed(things)


def swallowed(things: Sequence[Measured]) -> Iterator[CloseBy]:
    """Things of another net that lie wholly within a poured piece, where no line is near."""
    areas = {id(t.area): t for t in things if t.area is not None}
    others = [t for t in things if t.area is None]
    if not areas or not others:
        return
    spots = np.array([shapely.get_coordinates(t.core)[0] for t in others])
    for outer in areas.values():
        shapely.prepare(outer.area)
        for index in np.flatnonzero(shapely.contains_xy(outer.area, spots)).tolist():
            inner = others[index]
            if not inner.net or inner.net != outer.net:
                x, y = spots[index].tolist()
                yield CloseBy(inner.name, outer.name, inner.net, outer.net, 0.0, x, y)


@dataclass(frozen=True)
class Field:
    """Things to measure with a tree of their cores, the largest radius, and the areas among
    them.
    """

    tree: shapely.STRtree
    radii: NDArray[np.float64]
    most: float
    areas: tuple[tuple[Measured, Polygon], ...]


FIELDS: Remembered[Field] = Remembered(4)


def field_of(things: Sequence[Measured]) -> Field:
    """The tree over a list of things; many ask the same list."""
    return FIELDS.of((things,), lambda: made_field(things))


def made_field(things: Sequence[Measured]) -> Field:
    """A tree over the cores, poured pieces once each."""
    radii = np.array([t.radius for t in things])
    whole = {id(t.area): (t, t.area) for t in things if t.area is not None}
    shapely.prepare([area for _, area in whole.values()])
    tree = shapely.STRtree([t.core for t in things])
    return Field(tree, radii, float(radii.max(initial=0.0)), tuple(whole.values()))


def nearest_to(
    things: Sequence[Measured], place: BaseGeometry, within_nm: float
) -> Iterator[tuple[Measured, float]]:
    """Every thing nearer to a place than asked, with its distance in nm; of the line around a
    poured piece only the piece nearest, minus infinity where it covers the place.
    """
    if not things:
        return
    field = field_of(things)
    close = np.sort(field.tree.query(place, predicate="dwithin", distance=within_nm + field.most))
    gaps = shapely.distance(field.tree.geometries[close], place) - field.radii[close]
    whole: dict[int, tuple[Measured, float]] = {}
    for index, gap in zip(close.tolist(), gaps.tolist(), strict=True):
        thing = things[index]
        key = id(thing.area) if thing.area is not None else index
        if gap < within_nm and (key not in whole or gap < whole[key][1]):
            whole[key] = (thing, gap)
    for thing, area in field.areas:
        if whole.get(id(area), (thing, 1.0))[1] > 0 and area.intersects(place):
            whole[id(area)] = (thing, -inf)
    yield from whole.values()


def both_sides(view: BoardView) -> Iterator[tuple[str, list[Measured]]]:
    """Things to measure, side by side."""
    for side in (NEAR, FAR):
        yield side, measured_copper(view, side)
