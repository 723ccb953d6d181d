"""A resistor ladder on one analogue pin: preferred values, and windows that must not touch in the
worst case.
"""

from dataclasses import dataclass
from itertools import pairwise

from loquet.core.quantities.preferred import nearest

PULL_UP_OHM = 10_000.0
CONTACT_OHM = 100.0
LEAKAGE_A = 1e-6
BITS = 12
KEYS_A_LADDER = 8


@dataclass(frozen=True)
class Window:
    """The codes that a key can give: lowest, usual, highest; the last window is that of no key."""

    key: str
    resistor_ohm: float
    low: float
    usual: float
    high: float


def ladder_windows(
    keys: tuple[str, ...], tolerance: float = 0.01, supply_v: float = 3.0
) -> tuple[Window, ...]:
    """Windows in converter codes, key by key, rising.

    Each key puts its own resistor to ground below one common pull-up; the converter's reference is
    the same rail. Worst case: both resistors at opposite ends of their tolerance, worn contacts of
    up to 100 Ω, 1 µA of pin leakage either way, and one code.
    """
    count = len(keys)
    found = []
    for index, key in enumerate(keys):
        share = index / count
        ohm = 0.0 if index == 0 else nearest(PULL_UP_OHM * share / (1 - share), "E96")
        low = code(ohm * (1 - tolerance), PULL_UP_OHM * (1 + tolerance), -LEAKAGE_A, supply_v)
        high = code(
            ohm * (1 + tolerance) + CONTACT_OHM, PULL_UP_OHM * (1 - tolerance), LEAKAGE_A, supply_v
        )
        found.append(Window(key, ohm, low - 1, code(ohm, PULL_UP_OHM, 0, supply_v), high + 1))
    top = 2**BITS - 1
    return (
        *found,
        Window(
            "no key", float("inf"), top - LEAKAGE_A * PULL_UP_OHM / supply_v * top - 1, top, top
        ),
    )


def code(low_ohm: float, high_ohm: float, leakage_a: float, supply_v: float) -> float:
    """The converter's code for a divider with a leakage current into its middle."""
    volts = (supply_v * low_ohm + leakage_a * low_ohm * high_ohm) / (low_ohm + high_ohm)
    return min(max(volts / supply_v, 0.0), 1.0) * float(2**BITS - 1)


def least_gap(windows: tuple[Window, ...]) -> float:
    """The smallest distance in codes between neighbouring windows; not above zero where two
    touch.
    """
    return min(b.low - a.high for a, b in pairwise(windows))
