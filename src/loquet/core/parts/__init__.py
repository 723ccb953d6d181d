"""Parts, their bodies, the land patterns worked out from them, and microcontrollers with their
pins.

May import geometry, plain, provenance and quantities; it knows no brief.
"""

from loquet.core.parts.chip import AlternateFunction, Chip, ChipPin, PinKind
from loquet.core.parts.land import LandPattern, Pad
from loquet.core.parts.part import Part, PartError
from loquet.core.parts.patterns import pattern_of

__all__ = [
    "AlternateFunction",
    "Chip",
    "ChipPin",
    "LandPattern",
    "Pad",
    "Part",
    "PartError",
    "PinKind",
    "pattern_of",
]
