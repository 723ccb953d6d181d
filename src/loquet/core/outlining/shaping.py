"""An outline shaped by hand: corners moved, sides made as long as calipers say, notches, round
corners, sides bent.

Sides and corners are numbered from 0 in the order of the points; side i runs from corner i to the
next one.
"""

from collections.abc import Iterable
from math import acos, hypot, pi, tan

from loquet.core.brief import Outline, PolygonOutline, outline_polygon_mm
from loquet.core.geometry.arcs import length_of_side

Point = tuple[float, float]
Corner = tuple[Point, float]  # where a side begins, and its bulge
QUARTER = tan(pi / 8)  # the bulge of a quarter circle


class NotShaped(Exception):
    """A change that the outline does not allow: why, and the way out."""

    def __init__(self, why: str, way_out: str) -> None:
        super().__init__(f"{why} {way_out}")
        self.why, self.way_out = why, way_out


def corners_of(outline: Outline) -> list[Corner]:
    """The corners of an outline; those of a rounded rectangle begin at the left end of its lower
    side.
    """
    if isinstance(outline, PolygonOutline):
        return [(first, bulge) for first, _, bulge in outline.sides()]
    w, h, r = outline.width_mm, outline.height_mm, outline.corner_mm
    if r == 0:
        return [((0, 0), 0), ((w, 0), 0), ((w, h), 0), ((0, h), 0)]
    return [
        ((r, 0), 0),
        ((w - r, 0), QUARTER),
        ((w, r), 0),
        ((w, h - r), QUARTER),
        ((w - r, h), 0),
        ((r, h), QUARTER),
        ((0, h - r), 0),
        ((0, r), QUARTER),
    ]


def outline_from(corners: Iterable[Corner]) -> PolygonOutline:
    """The outline of corners, its lower left brought back to the origin; micrometres."""
    rows = list(corners)
    rough = PolygonOutline.model_construct(
        points_mm=tuple(p for p, _ in rows), bulges=tuple(b for _, b in rows)
    )
    left, bottom = outline_polygon_mm(rough).bounds[:2]
    return PolygonOutline(
        points_mm=tuple(
            (round(max(x - left, 0), 3), round(max(y - bottom, 0), 3)) for (x, y), _ in rows
        ),
        bulges=tuple(round(b, 8) for _, b in rows) if any(b for _, b in rows) else (),
    )


def at(corners: list[Corner], index: int) -> Point:
    """Where a corner is, counted round; raises NotShaped for one that is not there."""
    if not -len(corners) <= index <= 2 * len(corners):
        raise NotShaped(
            f"The outline has {len(corners)} sides, none with number {index}.", "Choose again."
        )
    return corners[index % len(corners)][0]


def corner_moved(outline: Outline, index: int, x_mm: float, y_mm: float) -> PolygonOutline:
    """A corner at another place."""
    corners = corners_of(outline)
    at(corners, index)
    corners[index] = ((x_mm, y_mm), corners[index][1])
    return outline_from(corners)


def corner_added(outline: Outline, side: int, x_mm: float, y_mm: float) -> PolygonOutline:
    """A new corner on a side, which becomes two straight ones."""
    corners = corners_of(outline)
    at(corners, side)
    corners[side] = (corners[side][0], 0.0)
    corners.insert(side + 1, ((x_mm, y_mm), 0.0))
    return outline_from(corners)


def corner_removed(outline: Outline, index: int) -> PolygonOutline:
    """Without a corner; the side before it runs on straight."""
    corners = corners_of(outline)
    at(corners, index)
    if len(corners) <= 3:
        raise NotShaped("An outline has three corners at least.", "Move the corner instead.")
    before = (index - 1) % len(corners)
    corners[before] = (corners[before][0], 0.0)
    del corners[index]
    return outline_from(corners)


def side_made(outline: Outline, side: int, length_mm: float) -> PolygonOutline:
    """A straight side as long as the calipers say: everything beyond its end moves along with
    it.
    """
    corners = corners_of(outline)
    (ax, ay), (bx, by) = at(corners, side), at(corners, side + 1)
    if corners[side][1]:
        raise NotShaped("That side is an arc.", "Give its rise instead.")
    long = hypot(bx - ax, by - ay)
    ux, uy = (bx - ax) / long, (by - ay) / long
    by_mm = length_mm - long
    end = long - 0.0005
    return outline_from(
        (
            ((x + ux * by_mm, y + uy * by_mm), bulge)
            if (x - ax) * ux + (y - ay) * uy >= end
            else ((x, y), bulge)
        )
        for (x, y), bulge in corners
    )


def side_bent(outline: Outline, side: int, rise_mm: float) -> PolygonOutline:
    """A side as an arc that rises so far outwards from its chord; below zero inwards, 0
    straight.
    """
    corners = corners_of(outline)
    (ax, ay), (bx, by) = at(corners, side), at(corners, side + 1)
    long = hypot(bx - ax, by - ay)
    if abs(rise_mm) > long / 2:
        raise NotShaped(
            f"An arc over {long:.2f} mm rises {long / 2:.2f} mm at the most.",
            "Give a smaller rise.",
        )
    way = 1 if outline_polygon_mm(outline).exterior.is_ccw else -1
    corners[side] = (corners[side][0], way * 2 * rise_mm / long)
    return outline_from(corners)


def corner_rounded(outline: Outline, index: int, radius_mm: float) -> PolygonOutline:
    """A corner between two straight sides cut round."""
    corners = corners_of(outline)
    here, before, after = at(corners, index), at(corners, index - 1), at(corners, index + 1)
    if corners[index][1] or corners[(index - 1) % len(corners)][1]:
        raise NotShaped("A side beside that corner is an arc already.", "Straighten it first.")
    one, other = (hypot(p[0] - here[0], p[1] - here[1]) for p in (before, after))
    u = ((before[0] - here[0]) / one, (before[1] - here[1]) / one)
    v = ((after[0] - here[0]) / other, (after[1] - here[1]) / other)
    inside = acos(max(-1.0, min(1.0, u[0] * v[0] + u[1] * v[1])))
    if inside < 0.02 or inside > 3.12:
        raise NotShaped("The two sides run on straight there.", "Choose a real corner.")
    away = radius_mm / tan(inside / 2)
    if away > min(one, other) - 0.001:
        most = (min(one, other) - 0.001) * tan(inside / 2)
        raise NotShaped(
            f"The sides there have room for a radius of {most:.2f} mm.", "Give a smaller one."
        )
    left_turn = u[0] * v[1] - u[1] * v[0] < 0
    bulge = tan((pi - inside) / 4) * (1 if left_turn else -1)
    first = (here[0] + u[0] * away, here[1] + u[1] * away)
    last = (here[0] + v[0] * away, here[1] + v[1] * away)
    corners[index : index + 1] = [(first, bulge), (last, 0.0)]
    return outline_from(corners)


def notched(
    outline: Outline, side: int, from_mm: float, width_mm: float, depth_mm: float
) -> PolygonOutline:
    """A straight side with a rectangular notch: so far from where the side begins, so wide, so
    deep; at an end of the side it is a step.
    """
    corners = corners_of(outline)
    (ax, ay), (bx, by) = at(corners, side), at(corners, side + 1)
    long = hypot(bx - ax, by - ay)
    if corners[side][1]:
        raise NotShaped("That side is an arc.", "Straighten it first.")
    if from_mm + width_mm > long + 0.001 or width_mm > long - 0.001:
        raise NotShaped(
            f"The side is {long:.2f} mm long: a notch from {from_mm:g} to {from_mm + width_mm:g} mm"
            " does not end on it.",
            "Make it narrower, or begin earlier.",
        )
    way = 1 if outline_polygon_mm(outline).exterior.is_ccw else -1
    ux, uy = (bx - ax) / long, (by - ay) / long
    inx, iny = -uy * way * depth_mm, ux * way * depth_mm
    near, far = ((ax + ux * s, ay + uy * s) for s in (from_mm, from_mm + width_mm))
    mouth = [near, (near[0] + inx, near[1] + iny), (far[0] + inx, far[1] + iny), far]
    if from_mm < 0.001:  # the corner itself is cut away
        corners[side] = (mouth[1], 0.0)
        mouth = mouth[2:]
    after = (side + 1) % len(corners)
    if from_mm + width_mm > long - 0.001:
        corners[after] = (mouth.pop(-2), corners[after][1])
        mouth.pop()
    corners[side + 1 : side + 1] = [(point, 0.0) for point in mouth]
    return outline_from(corners)


def side_lengths(outline: Outline) -> list[float]:
    """How long each side is along itself, in mm."""
    corners = corners_of(outline)
    return [
        length_of_side(first, at(corners, i + 1), bulge) for i, (first, bulge) in enumerate(corners)
    ]
