"""Areas that are kept free, as placing sees them: with no part at all, or none above a height."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import ceil, floor, inf

import numpy as np

from loquet.core.board.openings import KeptFree, kept_free
from loquet.core.brief import Brief
from loquet.core.geometry import Rect
from loquet.core.placement.ground_plan import BEHIND, BODY, NOTHING, Rows, rows_of


@dataclass(frozen=True)
class KeptRoom:
    """An area of one side where no part may stand that is higher than `up_to_mm`; with 0 none at
    all.
    """

    rect: Rect
    far: bool = False
    up_to_mm: float = 0.0

    @property
    def storey(self) -> tuple[bool, float]:
        """Its side and height."""
        return self.far, self.up_to_mm


Storeys = dict[tuple[bool, float], int]
MOST_STOREYS = 32
"""Rows have one bit for each; areas of further heights are kept free of all parts."""


def storeys_of(kept: Iterable[KeptRoom]) -> Storeys:
    """The bit in rows for every side and height to which areas are kept low."""
    heights = sorted({room.storey for room in kept if room.up_to_mm})[:MOST_STOREYS]
    return {storey: BEHIND << index for index, storey in enumerate(heights, 1)}


def rows_kept(kept: Iterable[KeptRoom], storeys: Storeys) -> Rows:
    """Areas that are kept free as rows: a body where no part may stand, else the bit of its
    storey.
    """
    rows = [NOTHING]
    for room in kept:
        if room.storey in storeys:
            rows.append(rows_of([room.rect], storeys[room.storey], 0))
        else:
            rows.append(rows_of([room.rect], *((BEHIND, 0) if room.far else (BODY, BODY))))
    return np.concatenate(rows)


def kept_rooms(brief: Brief, board: str) -> tuple[KeptRoom, ...]:
    """What of a board is kept free of parts, or of high ones."""
    return tuple(
        KeptRoom(rect_about(kept), kept.far, kept.up_to_mm)
        for kept in kept_free(brief, brief.board(board))
        if kept.parts
    )


def near_rects_kept(brief: Brief, board: str, height_mm: float = inf) -> tuple[Rect, ...]:
    """The areas of the near side in which a part of this height may not stand."""
    areas = kept_free(brief, brief.board(board))
    return tuple(rect_about(kept) for kept in areas if kept.bars(False, height_mm))


def rect_about(kept: KeptFree) -> Rect:
    """An area as an upright rectangle in nm."""
    left, bottom, right, top = kept.area.bounds
    return floor(left), floor(bottom), ceil(right), ceil(top)
