"""Tracks as wide as their current asks, where there is room: a piece between fine pads stays a
neck.
"""

from loquet.core.board.current import WIDTH_STEP_NM
from loquet.core.board.model import Routing, Track
from loquet.core.routing.router import RouteInput
from loquet.core.routing.surroundings import Surroundings
from loquet.core.routing.tightening import ends_of


def widened(given: RouteInput, routing: Routing) -> Routing:
    """The routing with every track of a net that asks for more width as wide as that, or as its
    neighbours leave room for; what a person drew stays as it is.
    """
    widths_nm = given.widths_nm
    if not any(t.width_nm < widths_nm.get(t.net, 0) for t in routing.tracks):
        return routing
    around = Surroundings(given, routing)
    instead: dict[Track, Track] = {}
    for track in dict.fromkeys(routing.tracks):
        wanted = 0 if track.by_hand else widths_nm.get(track.net, 0)
        wide = widest(track, wanted, around)
        if wide != track:
            around.exchange([track], [wide])
            instead[track] = wide
    laid = tuple(instead.get(track, track) for track in routing.tracks)
    return routing.model_copy(update={"tracks": laid})


def widest(track: Track, wanted_nm: int, around: Surroundings) -> Track:
    """The track at the largest width, up to what is wanted, at which it still keeps its
    distances.
    """
    for width in range(wanted_nm, track.width_nm, -WIDTH_STEP_NM):
        wide = track.model_copy(update={"width_nm": width})
        if around.free(list(ends_of(track)), wide):
            return wide
    return track
