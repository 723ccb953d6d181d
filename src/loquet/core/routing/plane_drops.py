"""Vias that lead a net into its inner plane: one beside every pad that has none near."""

from collections.abc import Iterator
from math import cos, hypot, pi, sin

import shapely

from loquet.core.board.copper import FAR, NEAR, Copper
from loquet.core.board.model import Routing, Track, Via
from loquet.core.geometry import Round, gap_between, middle_of
from loquet.core.routing.router import RouteInput
from loquet.core.routing.surroundings import Surroundings

NEAR_NM = 1_500_000  # a via serves a pad this near; common practice, no source
STEP_NM, FARTHEST_NM = 100_000, 2_500_000
APART_NM = 60_000  # between a via and a pad of its own net, as for stitches
WAYS = 8


def with_drops(given: RouteInput, routing: Routing) -> Routing:
    """The routing with a via and a short track beside every surface pad of the net with an inner
    plane that no plated hole of the net is near; a pad without room for one keeps to its tracks
    alone.
    """
    net = given.plane
    if not net:
        return routing
    around = Surroundings(given, routing)
    tracks, vias = list(routing.tracks), list(routing.vias)
    for pad in given.pads:
        if pad.net != net or pad.drill_nm or reached(given, vias, pad):
            continue
        found = next(drops(given, around, vias, pad), None)
        if found is not None:
            track, via = found
            tracks.append(track)
            vias.append(via)
            around.exchange([], [track])
            around.add_via(via)
    return routing.model_copy(update={"tracks": tuple(tracks), "vias": tuple(vias)})


def reached(given: RouteInput, vias: list[Via], pad: Copper) -> bool:
    """Whether a plated hole of the pad's net lies near it."""
    spots = [(v.x_nm, v.y_nm) for v in vias if v.net == pad.net]
    spots += [(p.drill_x, p.drill_y) for p in given.pads if p.net == pad.net and p.drill_nm]
    return any(gap_between(pad.shape, Round(x, y, 0)) < NEAR_NM for x, y in spots)


def drops(
    given: RouteInput, around: Surroundings, vias: list[Via], pad: Copper
) -> Iterator[tuple[Track, Via]]:
    """Places about a pad where a via and its track may lie, the nearest first, eight ways at each
    distance.
    """
    rules, (mx, my) = given.rules, middle_of(pad.shape)
    for away in range(STEP_NM, FARTHEST_NM, STEP_NM):
        for way in range(WAYS):
            angle = 2 * pi * way / WAYS
            x = round((mx + away * cos(angle)) / STEP_NM) * STEP_NM
            y = round((my + away * sin(angle)) / STEP_NM) * STEP_NM
            if not via_fits(given, around, vias, pad.net, x, y):
                continue
            for width in (rules.supply_width_nm, rules.signal_width_nm):
                track = Track(
                    net=pad.net,
                    far=FAR in pad.sides,
                    x1_nm=mx,
                    y1_nm=my,
                    x2_nm=x,
                    y2_nm=y,
                    width_nm=width,
                )
                if around.free([(mx, my), (x, y)], track):
                    yield track, Via(net=pad.net, x_nm=x, y_nm=y)


def via_fits(
    given: RouteInput, around: Surroundings, vias: list[Via], net: str, x: int, y: int
) -> bool:
    """Whether a via keeps its gap on both sides, its distance to all holes, and off the pads of its
    own net.
    """
    rules = given.rules
    disc = Round(x, y, rules.via_nm)
    drilled = [(v.x_nm, v.y_nm, rules.via_hole_nm) for v in vias]
    drilled += [(h.x, h.y, h.d) for h in given.holes]
    if any(
        hypot(hx - x, hy - y) < (d + rules.via_hole_nm) / 2 + rules.hole_gap_nm
        for hx, hy, d in drilled
    ):
        return False
    if any(p.net == net and gap_between(p.shape, disc) < APART_NM for p in given.pads):
        return False
    spot = shapely.Point(x, y)
    return around.room(rules.via_nm).covers(spot) and all(
        around.sides[name].clear(spot, net, around.gap_nm + rules.via_nm / 2)
        for name in (NEAR, FAR)
    )
