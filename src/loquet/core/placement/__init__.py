"""Placing: the chip's seat from the brief, then everything the brief does not place."""

from loquet.core.placement.chip_seat import chip_seat
from loquet.core.placement.ground_plan import GroundPlan
from loquet.core.placement.seating import PlacingInput, place

__all__ = ["GroundPlan", "PlacingInput", "chip_seat", "place"]
