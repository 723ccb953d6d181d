"""Negotiated congestion: every net is routed as if alone, then again and again while shared places
grow dearer.
"""

from collections.abc import Callable
from dataclasses import dataclass

from loquet.core.board.model import Routing, Track, Via
from loquet.core.routing.ground import ground_is_whole, ground_link, shy_of_spokes
from loquet.core.routing.pairs import drawn_to_its_mate
from loquet.core.routing.plane_drops import with_drops
from loquet.core.routing.router import NetState, RouteInput, Router, Terms
from loquet.core.routing.straightening import segments_of
from loquet.core.routing.tightening import tightened
from loquet.core.routing.widening import widened

MOST_ROUNDS = 60
STAGNANT_ROUNDS = 18
PRESSURE_START, PRESSURE_GROWTH, PRESSURE_MOST = 1.5, 1.6, 50.0
LINK_PRESSURE = 6.0
HISTORY_STEP = 12.0
STUCK_ROUNDS = 3
VIA_COST = 160.0
POLISH_VIA_COST = 240.0
GROUND_TRIES = 6
EXACT_TRIES = 4
BY_HAND = {"by_hand": True}
STRICT = Terms(0.0, True, VIA_COST)
POLISHED = Terms(0.0, True, POLISH_VIA_COST, any_close=True)


@dataclass(frozen=True)
class RouteProgress:
    """What the router is doing: round, how many nets still share places, and of how many; `state`
    gives the tracks as they lie now, which may touch each other unless they are `clean`.
    """

    round: int
    contested: int
    nets: int
    state: Callable[[], Routing]
    clean: bool = False


class RoutingStopped(Exception):
    """Someone asked the router to stop."""


Progress = Callable[[RouteProgress], bool]


def route(given: RouteInput, progress: Progress = lambda _: True) -> Routing:
    """Tracks and vias for all nets; ground gets tracks only where its pour would not reach.

    `progress` is told of every step and answers whether to go on; if not, RoutingStopped is raised.

    What could not be joined is listed in `open_links`; nothing that touches another net is ever
    returned.
    """
    router = Router(given)
    shy_of_spokes(router)
    negotiate(router, router.nets, PRESSURE_START, progress)
    lead_ground(router, progress)
    settle_rest(router)
    polish(router, progress)
    lead_ground(router, progress)
    settle_rest(router)
    made = tightened(given, collect(router))
    for _ in range(EXACT_TRIES):
        known = given.cut_off(made)
        if not known.contacts:
            return finished(given, made)
        take_up(router, ground_link(router, known), progress)
        settle_rest(router)
        made = tightened(given, collect(router))
    return collect(router) if given.cut_off(made).contacts else made


def finished(given: RouteInput, made: Routing) -> Routing:
    """The routing with vias into the inner plane of a supply, where there is one, and with tracks
    as wide as their current asks; each only where ground stays whole.
    """
    for step in (with_drops, widened):
        better = step(given, made)
        if better is not made and not given.cut_off(better).contacts:
            made = better
    return made


def negotiate(router: Router, waiting: list[NetState], pressure: float, progress: Progress) -> None:
    """Rounds of rip-up and rerouting until no place is shared, or nothing has improved for long."""
    fewest, stagnant = 1 << 30, 0
    for number in range(MOST_ROUNDS):
        reach = 1.0 + 0.5 * number
        for net in waiting:
            tell(router, progress, number + 1, len(waiting))
            router.take(net)
            router.route_net(net, Terms(pressure, False, VIA_COST, reach))
            router.put(net)
        waiting = [net for net in router.claims if router.contested(net, HISTORY_STEP) > 0]
        if not waiting:
            return
        stagnant = 0 if len(waiting) < fewest else stagnant + 1
        fewest = min(fewest, len(waiting))
        if stagnant > STAGNANT_ROUNDS:
            return
        if stagnant % STUCK_ROUNDS == STUCK_ROUNDS - 1:
            waiting = list(router.claims)
        pressure = min(pressure * PRESSURE_GROWTH, PRESSURE_MOST)


def tell(
    router: Router, progress: Progress, number: int, contested: int, clean: bool = False
) -> None:
    """Say what is being done; raises RoutingStopped where the answer is to stop."""
    seen = RouteProgress(number, contested, len(router.nets), lambda: collect(router), clean)
    if not progress(seen):
        raise RoutingStopped


def lead_ground(router: Router, progress: Progress) -> None:
    """Lead ground pads that the pour would not reach into it, and let the other nets make room,
    until it reaches all.
    """
    for _ in range(GROUND_TRIES):
        if ground_is_whole(router):
            return
        take_up(router, ground_link(router), progress)


def take_up(router: Router, link: NetState, progress: Progress) -> None:
    """Put a link of ground in the place of the one before, and let the nets make room for it."""
    if router.link is not None:
        router.take(router.link)
    router.link = link
    negotiate(router, [link], LINK_PRESSURE, progress)


def settle_rest(router: Router) -> None:
    """Nets that still share places are routed strictly; what finds no way stays open."""
    for net in router.claims:
        if router.contested(net) > 0:
            router.take(net)
            router.route_net(net, STRICT)
            router.put(net)


def polish(router: Router, progress: Progress) -> None:
    """Two strict passes over all nets, each against all others as they lie: shorter, straighter,
    fewer vias, and pairs together.
    """
    router.grid.history[:] = router.grid.shy
    for _ in range(2):
        for net in router.nets:
            tell(router, progress, 0, 0, clean=True)
            router.take(net)
            before = (net.paths, net.nodes, net.vias, net.missing)
            with drawn_to_its_mate(router, net):
                router.route_net(net, POLISHED)
            if len(net.missing) > len(before[3]):
                net.paths, net.nodes, net.vias, net.missing = before
            router.put(net)


def collect(router: Router) -> Routing:
    """The routing in nanometres, in net order."""
    tracks: list[Track] = []
    vias: list[Via] = []
    links: list[tuple[str, str, str]] = []
    for net in router.claims:
        width = 2 * router.grid.half_nm[net.width]
        for path in net.paths:
            for far, (x1, y1), (x2, y2) in segments_of(path, router.grid):
                tracks.append(
                    Track(
                        net=net.name,
                        far=far,
                        x1_nm=x1,
                        y1_nm=y1,
                        x2_nm=x2,
                        y2_nm=y2,
                        width_nm=width,
                    )
                )
        vias += [
            Via(net=net.name, x_nm=x, y_nm=y)
            for x, y in (router.grid.place_nm(int(v)) for v in net.vias)
        ]
        links += [(net.name, net.labels[0], label) for label in net.missing]
    drawn = router.given.wires
    return Routing(
        tracks=(*(t.model_copy(update=BY_HAND) for t in drawn.tracks), *tracks),
        vias=(*(v.model_copy(update=BY_HAND) for v in drawn.vias), *vias),
        open_links=tuple(links),
    )
