"""What a person drew: copper that lies fast, and pads that it joins already."""

from collections.abc import Sequence

from loquet.core.board.copper import Copper, track_copper, via_copper
from loquet.core.board.islands import joined
from loquet.core.board.model import Wires
from loquet.core.board.rules import BoardRules
from loquet.core.routing.grid import Grid, mark_fast

Contacts = dict[str, dict[str, list[Copper]]]


def wires_as_copper(wires: Wires, rules: BoardRules) -> tuple[Copper, ...]:
    """All tracks and vias that were drawn."""
    tracks = tuple(track_copper(track) for track in wires.tracks)
    return tracks + tuple(via_copper(via, rules) for via in wires.vias)


def mark_wires(
    grid: Grid, drawn: Sequence[Copper], numbers: dict[str, int], rules: BoardRules
) -> None:
    """Keep other nets away from what was drawn."""
    for copper in drawn:
        mark_fast(grid, copper, rules, numbers)


def contacts_of(pads: Sequence[Copper], drawn: Sequence[Copper]) -> Contacts:
    """What is to be joined, net by net: pads by contact, those that drawn copper joins already
    together under the name of the first.
    """
    found: Contacts = {}
    for net in {pad.net for pad in pads}:
        copper = [pad for pad in pads if pad.net == net]
        own = [wire for wire in drawn if wire.net == net]
        groups = joined([*copper, *own])
        names: dict[int, str] = {}
        for index, pad in enumerate(copper):
            names.setdefault(groups.find(index), pad.owner)
        contacts = found.setdefault(net, {})
        for index, piece in enumerate([*copper, *own]):
            name = names.get(groups.find(index))
            if name is not None:
                contacts.setdefault(name, []).append(piece)
    return found
