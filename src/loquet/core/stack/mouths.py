"""The mouth of a socket: where its plug goes in, and how far it stands beyond the edge of its
board.
"""

from shapely.geometry import Point, Polygon

from loquet.core.board.copper import BoardView
from loquet.core.quantities.lengths import MM


def mouth_of(view: BoardView, ref: str) -> tuple[int, int]:
    """The middle of the mouth, in nm; the mating side of a socket is the lower side of its
    drawing.
    """
    body = view.patterns[ref].body
    return view.seats[ref].point(body.x, body.y - body.h // 2)


def beyond_mm(view: BoardView, mouth_nm: tuple[int, int]) -> float:
    """How far a mouth stands beyond the edge of the board, in mm; less than 0 behind it."""
    whole, spot = Polygon(view.outline.exterior), Point(mouth_nm)
    if whole.contains(spot):
        return -float(whole.boundary.distance(spot)) / MM
    return float(spot.distance(whole)) / MM


def middle_mm(view: BoardView, ref: str, board_mm: float) -> float:
    """The height of the middle of a mouth, in mm from the far face of the board."""
    height = view.heights_mm[ref]
    return -height / 2 if view.seats[ref].far else board_mm + height / 2
