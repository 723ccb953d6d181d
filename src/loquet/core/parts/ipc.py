"""Land pattern arithmetic of IPC-7351B: toe, heel and side fillets with root-mean-square
tolerances.

Lengths here are millimetres as floats; the patterns are rounded to 0.01 mm when they become
nanometres.
"""

from dataclasses import dataclass
from math import sqrt

FABRICATION_MM = 0.05
PLACEMENT_MM = 0.05


@dataclass(frozen=True)
class Fillets:
    """Solder fillet goals of the nominal density level, and the courtyard excess, in mm."""

    toe: float
    heel: float
    side: float
    courtyard: float


CHIP_LARGE = Fillets(0.35, -0.05, 0.00, 0.25)
CHIP_SMALL = Fillets(0.20, -0.05, 0.00, 0.15)
GULL_COARSE = Fillets(0.35, 0.35, 0.03, 0.25)
GULL_FINE = Fillets(0.35, 0.35, -0.02, 0.25)
NO_LEAD = Fillets(0.30, 0.00, -0.04, 0.25)


@dataclass(frozen=True)
class Land:
    """Distances over the pads (`z`), between them (`g`) and the width of a pad (`x`), in mm."""

    z: float
    g: float
    x: float

    @property
    def length(self) -> float:
        """Length of one pad in mm."""
        return (self.z - self.g) / 2

    @property
    def middle(self) -> float:
        """Distance of a pad's middle from the axis in mm."""
        return (self.z + self.g) / 4


def land(
    span: tuple[float, float],
    terminal: tuple[float, float],
    width: tuple[float, float],
    goals: Fillets,
) -> Land:
    """Zmax, Gmin and Xmax from limits (min, max) in mm of lead span, terminal length and width.

    Source: IPC-7351B section 3.1.5; S is narrowed to its root-mean-square tolerance as the standard
    describes.
    """
    span_tolerance, terminal_tolerance, width_tolerance = (
        span[1] - span[0],
        terminal[1] - terminal[0],
        width[1] - width[0],
    )
    inner_max, inner_min = span[1] - 2 * terminal[0], span[0] - 2 * terminal[1]
    inner_tolerance = sqrt(span_tolerance**2 + 2 * terminal_tolerance**2)
    inner_max -= (inner_max - inner_min - inner_tolerance) / 2
    z = span[0] + 2 * goals.toe + allowance(span_tolerance)
    g = inner_max - 2 * goals.heel - allowance(inner_tolerance)
    x = width[0] + 2 * goals.side + allowance(width_tolerance)
    return Land(z, g, x)


def allowance(tolerance: float) -> float:
    """Root of the sum of squares of the part's, the board's and the placement's tolerance, in
    mm.
    """
    return sqrt(tolerance**2 + FABRICATION_MM**2 + PLACEMENT_MM**2)
