"""Which board is meant."""

from loquet.api.errors import Refused
from loquet.core.design import Design


def board_named(design: Design, name: str) -> str:
    """The name of a board that is there, the main one where none is given; raises Refused."""
    names = [board.name for board in design.brief.boards]
    if name and name not in names:
        raise Refused(f"There is no board '{name[:40]}'.", "It may have been removed.", 404)
    return name or names[0]
