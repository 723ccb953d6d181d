"""What parts take of a board: courtyards, plated holes from the far side, and room for pins that
come out behind.
"""

import numpy as np

from loquet.core.board.through import pins_rect
from loquet.core.geometry import Box, Rect, Round, Seat
from loquet.core.parts import LandPattern
from loquet.core.parts.land import turns_unseen
from loquet.core.parts.patterns import extent
from loquet.core.placement.ground_plan import BEHIND, BODY, LOW, Rows, rows_of
from loquet.core.placement.kept_rooms import Storeys

LOW_MM, AROUND_NM = 2.0, 250_000
MARK_NM, FEWEST_PINS = 650_000, 4


def courtyard_rect(pattern: LandPattern, seat: Seat) -> Rect:
    """The courtyard of a seated part."""
    return seat.rect(pattern.courtyard)


def near_rects(pattern: LandPattern, seat: Seat) -> list[Rect]:
    """What a part takes of the near side: its courtyard, or where it sits on the far side all that
    comes through the board, plated or as a peg.
    """
    if not seat.far:
        return [courtyard_rect(pattern, seat)]
    drilled = [pad.shape for pad in pattern.pads if pad.drill_nm]
    pegs = [Round(hole.x, hole.y, hole.d) for hole in pattern.holes]
    rects = []
    for shape in (*drilled, *pegs):
        left, bottom, right, top = extent(seat.shape(shape))
        rects.append((left - AROUND_NM, bottom - AROUND_NM, right + AROUND_NM, top + AROUND_NM))
    return rects


def mark_rect(pattern: LandPattern, seat: Seat) -> Rect | None:
    """The room for the mark of the first pin beside the courtyard, of a part that fits the wrong
    way round as well.
    """
    if pattern.first_pin is None or len(pattern.pads) < FEWEST_PINS or not turns_unseen(pattern):
        return None
    (x, y), yard = pattern.first_pin, pattern.courtyard
    side = -1 if x < yard.x else 1
    out = yard.x + side * (yard.w + MARK_NM) // 2
    return seat.rect(Box(out, y, MARK_NM, MARK_NM))


def room_of(
    pattern: LandPattern,
    seat: Seat,
    height_mm: float,
    bare: bool = False,
    halo_nm: int = 0,
    storeys: Storeys | None = None,
) -> Rows:
    """The rows that a seated part takes: one that is high, or to be reached with a probe, stays
    clear of low areas, and one that is higher than a storey of areas kept free; pins stay clear of
    bodies behind.
    """
    high = LOW if height_mm > LOW_MM or bare else 0
    over = sum(
        bit
        for (far, up_to_mm), bit in (storeys or {}).items()
        if far == seat.far and height_mm > up_to_mm
    )
    near = [
        (left - halo_nm, bottom - halo_nm, right + halo_nm, top + halo_nm)
        for left, bottom, right, top in near_rects(pattern, seat)
    ]
    rows = [(rect, BODY, BODY | high | (0 if seat.far else over)) for rect in near]
    mark = None if halo_nm or seat.far else mark_rect(pattern, seat)
    if mark:
        rows.append((mark, BODY, BODY))
    pins = pins_rect(pattern, seat)
    if pins and not seat.far:
        rows.append((pins, 0, BEHIND))
    if seat.far and (height_mm or pattern.pads):
        rows.append((seat.rect(pattern.courtyard), BEHIND, BEHIND | over))
    return np.concatenate([rows_of([]), *(rows_of([rect], *bits) for rect, *bits in rows)])
