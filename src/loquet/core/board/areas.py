"""Poured pieces as areas, made once for each pour."""

import numpy as np
from shapely.geometry import Polygon

from loquet.core.board.model import PourPiece
from loquet.core.remembering import Remembered

AREAS: Remembered[tuple[Polygon, ...]] = Remembered(8)


def areas_of(pieces: tuple[PourPiece, ...]) -> tuple[Polygon, ...]:
    """The area of every piece in nm; those of the same pieces are not made twice."""
    return AREAS.of((pieces,), lambda: tuple(area_of(piece) for piece in pieces))


def area_of(piece: PourPiece) -> Polygon:
    """A piece as a polygon in nm."""
    return Polygon(np.array(piece.outer), [np.array(ring) for ring in piece.holes])
