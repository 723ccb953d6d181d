"""Which board is meant, and a board that is placed."""

from loquet.api.context import Context
from loquet.api.errors import Refused
from loquet.core.board.copper import BoardView
from loquet.core.design import Design
from loquet.core.pipeline import board_view


def board_named(design: Design, name: str) -> str:
    """The name of a board that is there, the main one where none is given; raises Refused."""
    names = [board.name for board in design.brief.boards]
    if name and name not in names:
        raise Refused(f"There is no board '{name[:40]}'.", "It may have been removed.", 404)
    return name or names[0]


def placed_view(design: Design, context: Context, board: str) -> BoardView:
    """A placed board; 404 before it is."""
    name = board_named(design, board)
    if name not in design.placement or not design.circuit:
        raise Refused("The board is not placed yet.", "Place it at the Board station.", 404)
    refs = {c.ref for made in design.circuit.values() for c in made.value.on(name).components}
    if refs != {part.ref for part in design.placement[name].value.parts}:
        raise Refused("The circuit has changed since the board was placed.", "Place it again.", 404)
    return board_view(design, context.known(design), name)
