"""The board: placed parts, tracks, vias, pours, and the copper that all of them are.

May import circuit, parts, brief, geometry and what lies below; neither placing nor routing.
"""

from loquet.core.board.copper import BoardView, Copper, Hole, pads_of
from loquet.core.board.model import (
    PlacedPart,
    Placement,
    Pour,
    PourArea,
    PourChoice,
    PourPiece,
    Routing,
    Track,
    Via,
    Wires,
)
from loquet.core.board.rules import BoardRules

__all__ = [
    "BoardRules",
    "BoardView",
    "Copper",
    "Hole",
    "PlacedPart",
    "Placement",
    "Pour",
    "PourArea",
    "PourChoice",
    "PourPiece",
    "Routing",
    "Track",
    "Via",
    "Wires",
    "pads_of",
]
