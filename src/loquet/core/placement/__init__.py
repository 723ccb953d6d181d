"""Placing: the chip's seat from the brief, then everything the brief does not place.

May import board, circuit and geometry with all below; not the router.
"""

from loquet.core.placement.chip_seat import chip_seat
from loquet.core.placement.ground_plan import GroundPlan
from loquet.core.placement.seating import PlacingInput, place

__all__ = ["GroundPlan", "PlacingInput", "chip_seat", "place"]
