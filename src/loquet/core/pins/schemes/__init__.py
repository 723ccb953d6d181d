"""Ways to read the keys, side by side for one brief: pins, parts, price, area, time, rollover,
ghosting, current.
"""

from loquet.core.pins.schemes.card import SchemeCard
from loquet.core.pins.schemes.comparing import compare

__all__ = ["SchemeCard", "compare"]
