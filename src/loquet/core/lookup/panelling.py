"""The panel of a board as its design asks for it, with the limits of the house and what breaks
easily.
"""

from loquet.core.board import BoardView
from loquet.core.design import Choices
from loquet.core.library import Library
from loquet.core.panel import Panel, lay_panel
from loquet.core.quantities.lengths import UM

LARGE_NM = 1_800_000
"""A ceramic capacitor is large from here on: it cracks where the board bends."""


def panel_of(view: BoardView, choices: Choices, library: Library) -> Panel | None:
    """The panel of a board, or nothing where boards are ordered singly."""
    if choices.panel is None:
        return None
    score_nm = library.house(choices.house).score_um * UM
    return lay_panel(view, choices.panel, score_nm, large_ceramics(view, library))


def large_ceramics(view: BoardView, library: Library) -> frozenset[str]:
    """The references of capacitors longer than 1.8 mm."""
    return frozenset(
        c.ref
        for c in view.circuit.components
        if (part := library.parts.get(c.part)) is not None
        and part.kind == "capacitor"
        and max(view.patterns[c.ref].body.w, view.patterns[c.ref].body.h) >= LARGE_NM
    )
