"""What a ceramic capacitor has left at the volts that lie on it."""

from loquet.core.parts.part import Part
from loquet.core.provenance import Source

STEADY_TOLERANCE, LARGE_F, LOSES = 0.05, 1e-6, 4.0
"""Class 1 is sold within 5 % (IEC 60384-21); the others are those of `BIAS`."""
BIAS = Source(
    kind="common practice",
    text=(
        "dense ceramics of 1 µF and more keep about 1 / (1 + 4 (V / Vrated)²): half at half "
        "their volts; from memory of makers' curves"
    ),
)


def left_f(part: Part | None, farads: float, volts: float) -> float:
    """What of so many farad is there at so many volts, in F.

    One within 5 % is of a dielectric that loses nothing; small values lose next to nothing.
    """
    values = part.values if part is not None else {}
    if farads < LARGE_F or values.get("tolerance", 1.0) <= STEADY_TOLERANCE:
        return farads
    rated = values.get("voltage", 0.0)
    return farads / (1 + LOSES * (volts / rated) ** 2) if rated else 0.0
