"""What parts take of a board: courtyards, plated holes from the far side, and room for pins that come out behind."""

import numpy as np

from loquet.core.board.through import pins_rect
from loquet.core.geometry import Rect, Round, Seat
from loquet.core.parts import LandPattern
from loquet.core.placement.ground_plan import BEHIND, BODY, LOW, Rows, rows_of
from loquet.core.placement.kept_rooms import Storeys

LOW_MM = 2.0


def courtyard_rect(pattern: LandPattern, seat: Seat) -> Rect:
    """The courtyard of a seated part."""
    return seat.rect(pattern.courtyard)


def near_rects(pattern: LandPattern, seat: Seat) -> list[Rect]:
    """What a part takes of the near side: its courtyard, or only its plated holes where it sits on the far side."""
    if not seat.far:
        return [courtyard_rect(pattern, seat)]
    rects = []
    for pad in pattern.pads:
        if pad.drill_nm and isinstance(pad.shape, Round):
            x, y = seat.point(pad.shape.x, pad.shape.y)
            r = pad.shape.d // 2 + 250_000
            rects.append((x - r, y - r, x + r, y + r))
    return rects


def room_of(
    pattern: LandPattern,
    seat: Seat,
    height_mm: float,
    bare: bool = False,
    halo_nm: int = 0,
    storeys: Storeys | None = None,
) -> Rows:
    """The rows that a seated part takes: one that is high, or to be reached with a probe, stays clear of low areas, and one that is higher than a storey of areas kept free; pins stay clear of bodies behind."""
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
    pins = pins_rect(pattern, seat)
    if pins and not seat.far:
        rows.append((pins, 0, BEHIND))
    if seat.far and (height_mm or pattern.pads):
        rows.append((seat.rect(pattern.courtyard), BEHIND, BEHIND | over))
    return np.concatenate([rows_of([]), *(rows_of([rect], *bits) for rect, *bits in rows)])
