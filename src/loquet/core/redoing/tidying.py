"""A net tidied as it lies: ends in the open taken out, ways pulled straight, nothing routed
anew.
"""

from loquet.core.board import Copper, Routing, Track, Via
from loquet.core.board.copper import FAR, NEAR, track_copper
from loquet.core.design import Design
from loquet.core.geometry import Round, gap_between
from loquet.core.library import Library
from loquet.core.pipeline import board_view, route_input
from loquet.core.redoing.rerouting import routed_before
from loquet.core.routing.tightening import ends_of, tightened


def tidied(
    design: Design, library: Library, board: str, net: str
) -> tuple[tuple[Track, ...], tuple[Via, ...]]:
    """The tracks and vias of a net after tidying, whoever drew them; raises StageRefused where the
    board was never routed or has no such net.
    """
    before = routed_before(design, board, frozenset({net}))
    given = route_input(board_view(design, library, board))
    routing = without_stubs(before.value, given.pads, net)
    routing = tightened(given, routing, only=frozenset({net}), drawn=True)
    tracks = tuple(t for t in routing.tracks if t.net == net)
    vias = tuple(v for v in routing.vias if v.net == net and led_on(v, tracks, given.pads))
    return tracks, vias


def led_on(via: Via, tracks: tuple[Track, ...], pads: tuple[Copper, ...]) -> bool:
    """Whether a track or a pad of its net meets a via."""
    spot = Round(via.x_nm, via.y_nm, 0)
    copper = [*map(track_copper, tracks), *(p for p in pads if p.net == via.net)]
    return any(gap_between(c.shape, spot) <= 0 for c in copper)


def without_stubs(routing: Routing, pads: tuple[Copper, ...], net: str) -> Routing:
    """The routing without tracks of a net of which one end touches no other copper of the net, and
    without those that then do.
    """
    tracks = list(routing.tracks)
    while True:
        copper = [*pads, *map(track_copper, tracks)]
        spots = {(v.net, v.x_nm, v.y_nm) for v in routing.vias}
        stubs = [
            track
            for track in tracks
            if track.net == net
            and any(
                (track.net, *end) not in spots and not any(held_by(c, track, end) for c in copper)
                for end in ends_of(track)
            )
        ]
        if not stubs:
            return routing.model_copy(update={"tracks": tuple(tracks)})
        tracks = [track for track in tracks if track not in stubs]


def held_by(copper: Copper, track: Track, end: tuple[int, int]) -> bool:
    """Whether copper of the net lies under an end of a track, and is not the track itself."""
    if copper.net != track.net or (FAR if track.far else NEAR) not in copper.sides:
        return False
    return (
        copper.shape != track_copper(track).shape and gap_between(copper.shape, Round(*end, 0)) <= 0
    )
