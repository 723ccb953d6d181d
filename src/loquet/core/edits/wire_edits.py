"""Edits of wiring by hand: tracks drawn, kept, cut and given back to the router."""

from typing import Annotated, Literal, TypeVar

from pydantic import Field

from loquet.core.board.model import NetName, Routing, Track, Via, Wires
from loquet.core.brief.counted import Counted
from loquet.core.brief.places import Name
from loquet.core.circuit.model import Net
from loquet.core.design import Design, Made, slice_of
from loquet.core.edits.applying import EditRefused, with_choices
from loquet.core.edits.board_edits import board_of
from loquet.core.edits.fitting import fitting

MOST_PIECES = 20_000
Piece = TypeVar("Piece", Track, Via)
Tracks = Annotated[tuple[Track, ...], Field(max_length=400)]
Vias = Annotated[tuple[Via, ...], Field(max_length=100)]
Nets = Annotated[tuple[NetName, ...], Field(max_length=2_000)]


class DrawTracks(Counted):
    """Draw tracks and vias by hand; they stay as they lie when the board is routed."""

    kind: Literal["draw-tracks"] = "draw-tracks"
    board: Name
    tracks: Tracks = ()
    vias: Vias = ()

    @property
    def label(self) -> str:
        """Words for the history."""
        nets = sorted(self.nets)
        return f"Draw {', '.join(nets[:3])} on {self.board}"

    @property
    def nets(self) -> set[str]:
        """The nets that are drawn."""
        return {track.net for track in self.tracks} | {via.net for via in self.vias}

    def apply(self, design: Design) -> Design:
        """Keep them beside those that are there, and show them at once."""
        board_of(design, self.board)
        known = {net.name for net in on_board(design, self.board)}
        for net in sorted(self.nets - known):
            raise EditRefused(
                f"There is no net '{net}' on {self.board}.", "Begin at a pad of a net."
            )
        for track in self.tracks:
            if (track.x1_nm, track.y1_nm) == (track.x2_nm, track.y2_nm):
                raise EditRefused("A track ends where it begins.", "Draw it to another place.")
        wires = wires_on(design, self.board)
        tracks = tuple(t.model_copy(update={"by_hand": True}) for t in self.tracks)
        vias = tuple(v.model_copy(update={"by_hand": True}) for v in self.vias)
        added = Wires(tracks=(*wires.tracks, *tracks), vias=(*wires.vias, *vias))
        drawn = shown(
            with_wires(design, self.board, added), self.board, Wires(tracks=tracks, vias=vias)
        )
        return fitting(design, drawn, "routing", self.board)


class KeepNets(Counted):
    """Keep the tracks of nets as they lie now; of all nets where none is named."""

    kind: Literal["keep-nets"] = "keep-nets"
    board: Name
    nets: Nets = ()

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Keep {', '.join(self.nets[:3]) or 'all tracks'} on {self.board}"

    def apply(self, design: Design) -> Design:
        """Make them wires of a person."""
        routing = routing_on(design, self.board)
        wires = wires_on(design, self.board)

        def meant(piece: Track | Via) -> bool:
            return not piece.by_hand and (not self.nets or piece.net in self.nets)

        tracks = tuple(by_hand(t) for t in routing.tracks if meant(t))
        vias = tuple(by_hand(v) for v in routing.vias if meant(v))
        kept = Wires(tracks=(*wires.tracks, *tracks), vias=(*wires.vias, *vias))
        marked = routing.model_copy(
            update={
                "tracks": tuple(by_hand(t) if meant(t) else t for t in routing.tracks),
                "vias": tuple(by_hand(v) if meant(v) else v for v in routing.vias),
            }
        )
        after = with_routing(with_wires(design, self.board, kept), self.board, marked)
        return fitting(design, after, "routing", self.board)


class ReleaseNets(Counted):
    """Give the wires of nets back to the router; of all nets where none is named."""

    kind: Literal["release-nets"] = "release-nets"
    board: Name
    nets: Nets = ()

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Let {', '.join(self.nets[:3]) or 'all nets'} on {self.board} be routed again"

    def apply(self, design: Design) -> Design:
        """Drop what was drawn or kept; it lies there until the board is routed again."""
        board_of(design, self.board)
        wires = wires_on(design, self.board)
        left = Wires(
            tracks=tuple(t for t in wires.tracks if self.nets and t.net not in self.nets),
            vias=tuple(v for v in wires.vias if self.nets and v.net not in self.nets),
        )
        if left == wires:
            raise EditRefused("Nothing was drawn there.", "Draw a track first, or keep one.")
        return with_wires(design, self.board, left)


class CutTrack(Counted):
    """Take one track out; the rest of its net is kept as it lies."""

    kind: Literal["cut-track"] = "cut-track"
    board: Name
    track: Track

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Cut a track of {self.track.net} on {self.board}"

    def apply(self, design: Design) -> Design:
        """Keep its net, and drop this piece of it."""
        gone = by_hand(self.track)
        if all(by_hand(t) != gone for t in routing_on(design, self.board).tracks):
            raise EditRefused(
                f"There is no such track of {self.track.net}.", "It may have been routed anew."
            )
        kept = KeepNets(board=self.board, nets=(self.track.net,)).apply(design)
        wires, routing = wires_on(kept, self.board), routing_on(kept, self.board)
        left = tuple(t for t in wires.tracks if t != gone)
        cut = with_wires(kept, self.board, wires.model_copy(update={"tracks": left}))
        tracks = tuple(t for t in routing.tracks if t != gone)
        cut = with_routing(cut, self.board, routing.model_copy(update={"tracks": tracks}))
        return fitting(design, cut, "routing", self.board)


class LayNet(Counted):
    """Lay a net anew by hand, all of it: a corner dragged, another width, a tidied way."""

    kind: Literal["lay-net"] = "lay-net"
    board: Name
    net: NetName
    tracks: Tracks = ()
    vias: Vias = ()

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Lay {self.net} on {self.board}"

    def apply(self, design: Design) -> Design:
        """These pieces stand for all that the net had there; a piece without length is left out."""
        routing, wires = routing_on(design, self.board), wires_on(design, self.board)
        named = {track.net for track in self.tracks} | {via.net for via in self.vias}
        strange = named - {self.net}
        if strange or self.net not in {net.name for net in on_board(design, self.board)}:
            name = sorted(strange or {self.net})[0]
            raise EditRefused(f"'{name}' is not laid by this.", "Name one net of the board.")
        long = [t for t in self.tracks if (t.x1_nm, t.y1_nm) != (t.x2_nm, t.y2_nm)]
        laid = Wires(
            tracks=tuple(by_hand(t) for t in dict.fromkeys(long)),
            vias=tuple(by_hand(v) for v in dict.fromkeys(self.vias)),
        )
        after = with_wires(design, self.board, with_net(wires, self.net, laid))
        after = with_routing(after, self.board, with_net(routing, self.net, laid))
        return fitting(design, after, "routing", self.board)


Laid = TypeVar("Laid", Wires, Routing)


def with_net(before: Laid, net: str, laid: Wires) -> Laid:
    """Wires or a routing with other pieces of one net."""
    tracks = (*(t for t in before.tracks if t.net != net), *laid.tracks)
    vias = (*(v for v in before.vias if v.net != net), *laid.vias)
    return before.model_copy(update={"tracks": tracks, "vias": vias})


def on_board(design: Design, board: str) -> tuple[Net, ...]:
    """The nets of a board; raises EditRefused before there is a circuit."""
    if not design.circuit:
        raise EditRefused("There is no circuit yet.", "Make it first.")
    return slice_of(design.circuit).on(board).nets


def wires_on(design: Design, board: str) -> Wires:
    """What was drawn or kept on a board."""
    return design.choices.wires.get(board, Wires())


def routing_on(design: Design, board: str) -> Routing:
    """The routing of a board; raises EditRefused."""
    board_of(design, board)
    made = design.routing.get(board)
    if made is None:
        raise EditRefused(f"{board} is not routed yet.", "Route it, or draw its tracks.")
    return made.value


def with_wires(design: Design, board: str, wires: Wires) -> Design:
    """The design with other wires on a board; raises EditRefused where they are too many."""
    if len(wires.tracks) + len(wires.vias) > MOST_PIECES:
        raise EditRefused("A board takes 20,000 pieces by hand.", "Give some nets back.")
    others = {name: kept for name, kept in design.choices.wires.items() if name != board}
    return with_choices(design, wires={**others, board: wires} if wires != Wires() else others)


def with_routing(design: Design, board: str, routing: Routing) -> Design:
    """The design with a routing to be seen until the board is routed again."""
    made = design.routing[board]
    return design.with_made("routing", board, Made(made_from=made.made_from, value=routing))


def shown(design: Design, board: str, plus: Wires) -> Design:
    """The design with more wires in its routing, so that they can be seen at once."""
    made = design.routing.get(board)
    if made is None:
        return design
    routing = made.value
    tracks, vias = (*routing.tracks, *plus.tracks), (*routing.vias, *plus.vias)
    return with_routing(design, board, routing.model_copy(update={"tracks": tracks, "vias": vias}))


def by_hand(piece: Piece) -> Piece:
    """The piece, marked as a person's."""
    return piece.model_copy(update={"by_hand": True})
