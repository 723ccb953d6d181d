"""Preferred values of resistors and capacitors (IEC 60063)."""

import math

E12 = (1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2)
E24 = (
    1.0,
    1.1,
    1.2,
    1.3,
    1.5,
    1.6,
    1.8,
    2.0,
    2.2,
    2.4,
    2.7,
    3.0,
    3.3,
    3.6,
    3.9,
    4.3,
    4.7,
    5.1,
    5.6,
    6.2,
    6.8,
    7.5,
    8.2,
    9.1,
)
E96 = tuple(round(10 ** (step / 96), 2) for step in range(96))
SERIES = {"E12": E12, "E24": E24, "E96": E96}


def nearest(value: float, series: str = "E24") -> float:
    """The preferred value nearest in ratio; raises ValueError for a value that is not positive (IEC
    60063).
    """
    return min(neighbours(value, series), key=lambda candidate: abs(math.log(candidate / value)))


def at_least(value: float, series: str = "E24") -> float:
    """The smallest preferred value that is not below `value` (IEC 60063)."""
    return min(
        candidate for candidate in neighbours(value, series) if candidate >= value * (1 - 1e-9)
    )


def at_most(value: float, series: str = "E24") -> float:
    """The largest preferred value that is not above `value` (IEC 60063)."""
    return max(
        candidate for candidate in neighbours(value, series) if candidate <= value * (1 + 1e-9)
    )


def neighbours(value: float, series: str) -> list[float]:
    """All preferred values of the decades around `value`, clean of rounding dust."""
    if not value > 0 or not math.isfinite(value):
        raise ValueError(f"a preferred value is sought for a positive number, not for {value}")
    decade = math.floor(math.log10(value))
    return [
        float(f"{step * 10.0**power:.6g}")
        for power in (decade - 1, decade, decade + 1)
        for step in SERIES[series]
    ]
