"""Poured pieces as areas, made once for each pour."""

import numpy as np
import shapely
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.model import PourArea, PourPiece
from loquet.core.plain.remembering import Remembered

AREAS: Remembered[tuple[Polygon, ...]] = Remembered(8)


def areas_of(pieces: tuple[PourPiece, ...]) -> tuple[Polygon, ...]:
    """The area of every piece in nm; those of the same pieces are not made twice."""
    return AREAS.of((pieces,), lambda: tuple(area_of(piece) for piece in pieces))


def area_of(piece: PourPiece) -> Polygon:
    """A piece as a polygon in nm."""
    return Polygon(np.array(piece.outer), [np.array(ring) for ring in piece.holes])


def drawn_area(area: PourArea) -> BaseGeometry:
    """What the line of an area encloses, in nm; of a line that crosses itself (which only a file
    from elsewhere can hold) the parts.
    """
    drawn = Polygon(area.ring)
    return drawn if drawn.is_valid else shapely.make_valid(drawn)
