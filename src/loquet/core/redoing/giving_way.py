"""A track drawn where others lie: theirs are taken out of the way and led about it, all else stays
exactly as it lies.
"""

from loquet.core.board import Copper, Routing, Track, Via, Wires
from loquet.core.board.copper import BoardView, track_copper, via_copper
from loquet.core.board.linking import open_links
from loquet.core.circuit.model import GROUND
from loquet.core.design import Design
from loquet.core.edits.wire_edits import DrawTracks
from loquet.core.geometry import Round, gap_between
from loquet.core.library import Library
from loquet.core.pipeline import Progress, StageRefused, board_view
from loquet.core.redoing.rerouting import routed_about, routed_before
from loquet.core.redoing.tidying import led_on, without_stubs


def made_to_give_way(
    design: Design, library: Library, drawing: DrawTracks, progress: Progress
) -> tuple[Design, tuple[str, ...]]:
    """The design with these wires drawn, and the nets that were led about them: of what the router
    laid there nothing stays nearer than the gap, and what hung on it is routed again. Raises
    EditRefused where it cannot be drawn, StageRefused where the board was never routed or a net
    finds no other way.
    """
    board = drawing.board
    routed_before(design, board, frozenset())
    after = drawing.apply(design)
    drawn = after.choices.wires[board]
    view = board_view(after, library, board)
    before = after.routing[board].value
    freed = with_room(before, view, new_copper(drawing, view))
    yielding = nets_with_less(before, freed)
    if not yielding:
        return after, ()
    kept = Wires(tracks=freed.tracks, vias=freed.vias)
    made = routed_about(after, library, board, kept, drawn, progress)
    led = after.with_made("routing", board, made)
    was_open = {link.net for link in open_links(board_view(design, library, board))}
    is_open = {link.net for link in open_links(board_view(led, library, board))}
    stuck = sorted((is_open - was_open) & set(yielding))
    if stuck:
        raise StageRefused(
            "routing",
            f"{', '.join(stuck)} would find no other way on {board}.",
            "Draw it elsewhere, or on the other side.",
        )
    return led, yielding


def new_copper(drawing: DrawTracks, view: BoardView) -> tuple[Copper, ...]:
    """What is drawn, as copper."""
    tracks = tuple(track_copper(track) for track in drawing.tracks)
    return tracks + tuple(via_copper(via, view.rules) for via in drawing.vias)


def with_room(routing: Routing, view: BoardView, new: tuple[Copper, ...]) -> Routing:
    """The routing without what the router laid too near to new copper of another net, and without
    what then leads nowhere.
    """
    tracks = tuple(t for t in routing.tracks if t.by_hand or stays(track_copper(t), view, new))
    vias = tuple(
        v for v in routing.vias if v.by_hand or stays(via_copper(v, view.rules), view, new)
    )
    freed = routing.model_copy(update={"tracks": tracks, "vias": vias})
    for net in nets_with_less(routing, freed):
        if net != GROUND:  # its ends lie in the pour
            freed = without_loose(freed, view.pads, net)
    return freed


def stays(copper: Copper, view: BoardView, new: tuple[Copper, ...]) -> bool:
    """Whether copper keeps the gap to all new copper of other nets on its sides."""
    gap = view.rules.drawn_gap_nm
    return all(
        piece.net == copper.net
        or not set(piece.sides) & set(copper.sides)
        or gap_between(piece.shape, copper.shape) >= gap
        for piece in new
    )


def without_loose(routing: Routing, pads: tuple[Copper, ...], net: str) -> Routing:
    """The routing without ends of a net in the open, back to the next pad, branch or change of side
    that still leads on.
    """
    while True:
        freed = without_stubs(routing, pads, net)
        own = tuple(t for t in freed.tracks if t.net == net)
        vias = tuple(v for v in freed.vias if v.net != net or v.by_hand or leads_on(v, own, pads))
        if vias == freed.vias:
            return freed
        routing = freed.model_copy(update={"vias": vias})


def leads_on(via: Via, tracks: tuple[Track, ...], pads: tuple[Copper, ...]) -> bool:
    """Whether a via joins something on both sides, or a pad lies on it."""
    if led_on(via, (), pads):
        return True
    spot = Round(via.x_nm, via.y_nm, 0)
    met = {t.far for t in tracks if gap_between(track_copper(t).shape, spot) <= 0}
    return len(met) > 1


def nets_with_less(before: Routing, after: Routing) -> tuple[str, ...]:
    """The nets that have lost a piece."""
    less = {t.net for t in set(before.tracks) - set(after.tracks)}
    return tuple(sorted(less | {v.net for v in set(before.vias) - set(after.vias)}))
