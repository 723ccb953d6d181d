"""Strokes joined end to end into closed loops; small gaps are healed and told."""

from collections import defaultdict
from dataclasses import dataclass
from itertools import pairwise
from math import atan, copysign, hypot, sin

import numpy as np
import shapely
from shapely.geometry import LineString, Polygon

from loquet.core.geometry.arcs import flattened, radius_of_arc
from loquet.core.outlining.strokes import DrawingRefused, Point, Stroke

SAME = 1e-4  # ends nearer than this, in mm, are one point
STRAIGHT = 0.002  # how far the corners that are left out may lie from the line, in mm
CHORDS = 24
MOST_LOOSE = 400


@dataclass(frozen=True)
class Loop:
    """A closed line: sides one behind the other."""

    sides: tuple[Stroke, ...]

    def polygon(self) -> Polygon:
        """What it encloses; arcs as 24 chords a quarter."""
        return Polygon(flattened(((s.first, s.last, s.bulge) for s in self.sides), CHORDS))

    def area(self) -> float:
        """What it encloses in square mm, its arcs taken as they are."""
        straight = Polygon([side.first for side in self.sides]) if len(self.sides) > 2 else None
        total = 0.0
        if straight is not None:
            total = straight.area if straight.exterior.is_ccw else -straight.area
        return abs(total + sum(beside_chord(side) for side in self.sides if side.bulge))


def beside_chord(side: Stroke) -> float:
    """The area between an arc and its chord, positive where the arc runs anticlockwise."""
    radius, turn = radius_of_arc(side.first, side.last, side.bulge), 4 * atan(abs(side.bulge))
    return copysign(radius**2 / 2 * (turn - sin(turn)), side.bulge)


@dataclass(frozen=True)
class Joined:
    """The loops of a drawing, the gaps that were healed (where, how wide in mm), and lines that
    stay open.
    """

    loops: tuple[Loop, ...]
    healed: tuple[tuple[Point, float], ...]
    open_lines: tuple[tuple[Stroke, ...], ...]


def joined(strokes: tuple[Stroke, ...], heal_mm: float) -> Joined:
    """Loops of strokes in mm; raises DrawingRefused where more than two lines meet in a point."""
    places, ends = numbered(strokes)
    sides = unlike(strokes, ends)
    at: dict[int, list[int]] = defaultdict(list)
    for index, (a, b) in sides.items():
        at[a].append(index)
        at[b].append(index)
    crowded = next((node for node, there in at.items() if len(there) > 2), None)
    if crowded is not None:
        x, y = places[crowded]
        raise DrawingRefused(
            f"{len(at[crowded])} lines meet at {x:.2f}, {y:.2f} mm.",
            "Leave only the outline and its holes in the drawing, each line once.",
        )
    loose = [node for node, there in at.items() if len(there) == 1]
    if len(loose) > MOST_LOOSE:
        raise DrawingRefused(
            f"{len(loose)} ends of lines hang loose.",
            "Leave only the outline and its holes in the drawing, joined end to end.",
        )
    bridges = nearest_pairs(loose, places, heal_mm)
    across = {a: b for a, b, _ in bridges} | {b: a for a, b, _ in bridges}
    loops, open_lines = walked(strokes, sides, at, across)
    healed = tuple((places[a], gap) for a, _, gap in bridges)
    return Joined(loops, healed, open_lines)


def numbered(strokes: tuple[Stroke, ...]) -> tuple[list[Point], list[tuple[int, int]]]:
    """Points of the drawing, those that are one put together; for each stroke the numbers of its
    two ends.
    """
    ends = [point for stroke in strokes for point in (stroke.first, stroke.last)]
    there: dict[tuple[int, int], int] = {}
    number = []
    for index, (x, y) in enumerate(ends):
        column, row = round(x / SAME), round(y / SAME)
        near = (there.get((column + i, row + j)) for i in (0, -1, 1) for j in (0, -1, 1))
        known = next((one for one in near if one is not None), None)
        if known is None:
            known = there[column, row] = index
        number.append(known)
    return ends, [(number[i], number[i + 1]) for i in range(0, len(ends), 2)]


def unlike(strokes: tuple[Stroke, ...], ends: list[tuple[int, int]]) -> dict[int, tuple[int, int]]:
    """The strokes that are longer than nothing, each once though it is drawn twice."""
    seen: set[tuple[int, int, float]] = set()
    kept = {}
    for index, (a, b) in enumerate(ends):
        bulge = round(strokes[index].bulge, 6)
        key = (a, b, bulge) if a < b else (b, a, -bulge)
        if a != b and key not in seen:
            seen.add(key)
            kept[index] = (a, b)
    return kept


def nearest_pairs(
    loose: list[int], places: list[Point], heal_mm: float
) -> list[tuple[int, int, float]]:
    """Loose ends joined with one another, the nearest first, each once."""
    if not loose:
        return []
    points = [shapely.Point(places[node]) for node in loose]
    pairs = shapely.STRtree(points).query(points, "dwithin", heal_mm).T.tolist()
    gaps = sorted(
        (hypot(*np.subtract(places[loose[a]], places[loose[b]])), loose[a], loose[b])
        for a, b in pairs
        if a < b
    )
    taken: set[int] = set()
    found = []
    for gap, a, b in gaps:
        if a not in taken and b not in taken:
            taken |= {a, b}
            found.append((a, b, gap))
    return found


def walked(
    strokes: tuple[Stroke, ...],
    sides: dict[int, tuple[int, int]],
    at: dict[int, list[int]],
    across: dict[int, int],
) -> tuple[tuple[Loop, ...], tuple[tuple[Stroke, ...], ...]]:
    """Every line walked once: loops, and what stays open."""
    left = dict(sides)
    loops: list[Loop] = []
    open_lines: list[tuple[Stroke, ...]] = []
    loose_first = sorted(
        left, key=lambda i: not any(len(at[n]) == 1 and n not in across for n in left[i])
    )
    for start in loose_first:
        if start not in left:
            continue
        a, b = left.pop(start)
        if len(at[b]) == 1 and b not in across:
            a, b = b, a
        chain = [strokes[start] if (a, b) == sides[start] else strokes[start].turned_round()]
        begin = a
        while True:
            following = next((i for i in at[b] if i in left), None)
            if following is None and b in across:
                b = across[b]
                if b == begin:
                    break
                following = next((i for i in at[b] if i in left), None)
            if following is None:
                break
            c, d = left.pop(following)
            stroke = strokes[following]
            chain.append(stroke if c == b else stroke.turned_round())
            b = d if c == b else c
        if b == begin or across.get(b) == begin:
            sides_of_loop = bridged(chain)
            if len(sides_of_loop) > 2 or any(side.bulge for side in sides_of_loop):
                loops.append(Loop(sides_of_loop))
        else:
            open_lines.append(tuple(chain))
    return tuple(loops), tuple(open_lines)


def bridged(chain: list[Stroke]) -> tuple[Stroke, ...]:
    """The sides of a loop, each beginning where the one before it ends."""
    starts = [side.first for side in chain]
    return tuple(
        Stroke(first, last, side.bulge)
        for side, first, last in zip(chain, starts, [*starts[1:], starts[0]], strict=True)
        if first != last
    )


def straightened(loop: Loop, within: float = STRAIGHT) -> Loop:
    """The loop without corners that turn nowhere: runs of straight sides hold only the corners they
    need.
    """
    sides = list(loop.sides)
    arcs = [i for i, side in enumerate(sides) if side.bulge]
    if arcs:
        sides = sides[arcs[0] :] + sides[: arcs[0]]
    else:
        lowest = min(range(len(sides)), key=lambda i: sides[i].first)
        sides = sides[lowest:] + sides[:lowest]
    found: list[Stroke] = []
    run: list[Stroke] = []
    for side in [*sides, None]:
        if side is not None and side.bulge == 0:
            run.append(side)
            continue
        if run:
            line = LineString([run[0].first, *(s.last for s in run)]).simplify(within)
            corners = [(x, y) for x, y in line.coords]
            found += [Stroke(a, b) for a, b in pairwise(corners)]
            run = []
        if side is not None:
            found.append(side)
    return Loop(tuple(found))
