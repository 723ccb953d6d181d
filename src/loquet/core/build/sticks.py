"""Sticks: what a recorded movement says of span, centre, noise and roundness, against limits, and
the values that go into the firmware.
"""

from collections.abc import Sequence
from math import atan2, hypot, pi, sqrt

from loquet.core.plain.frozen import Frozen

SECTORS = 24
CENTRE_SHARE, NOISE_SHARE, SPAN_SHARE, ROUND_SHARE = 0.05, 0.01, 0.6, 0.15
"""Centre off by a twentieth of the range, noise of a hundredth, a span of at least three fifths,
reach that differs by 15 % around: limits of common practice, no source.
"""


class Sample(Frozen):
    """A moment: codes of both axes, and whether the stick was left alone."""

    x: int
    y: int
    rest: bool = False


class StickAxis(Frozen):
    """An axis as it was recorded: lowest, highest and middle code, the spread at rest (standard
    deviation, codes).
    """

    low: int
    high: int
    centre: float
    noise: float


class StickResult(Frozen):
    """A stick's test: both axes, how much the reach differs around (share), which limits are not
    kept, and the lines for the firmware.
    """

    x: StickAxis
    y: StickAxis
    uneven: float
    faults: tuple[str, ...]
    firmware: tuple[str, ...]


class BadSamples(Exception):
    """Samples of which nothing can be said: what is missing."""


def stick_result(name: str, samples: Sequence[Sample], full: int = 4095) -> StickResult:
    """The test of a stick from samples at rest and once or twice around its rim; `full` is the
    largest code. Raises BadSamples.
    """
    rest = [s for s in samples if s.rest]
    moved = [s for s in samples if not s.rest]
    if len(rest) < 8 or len(moved) < 2 * SECTORS:
        raise BadSamples(
            f"There are {len(rest)} samples at rest and {len(moved)} of the movement. Leave it"
            " alone for a moment, then go twice around its rim."
        )
    x, y = (
        axis_of([s.x for s in moved], [s.x for s in rest]),
        axis_of([s.y for s in moved], [s.y for s in rest]),
    )
    uneven = unevenness(moved, x.centre, y.centre)
    faults = [*axis_faults("x", x, full), *axis_faults("y", y, full)]
    if uneven > ROUND_SHARE:
        faults.append(f"It reaches {100 * uneven:.0f} % less far on one side than on the other.")
    plain = "".join(c if c.isalnum() else "_" for c in name.upper())
    firmware = tuple(
        f"#define {plain}_{axis}_{word} {value}"
        for axis, row in (("X", x), ("Y", y))
        for word, value in (("LOW", row.low), ("CENTRE", round(row.centre)), ("HIGH", row.high))
    )
    return StickResult(x=x, y=y, uneven=round(uneven, 4), faults=tuple(faults), firmware=firmware)


def axis_of(moved: Sequence[int], rest: Sequence[int]) -> StickAxis:
    """One axis."""
    centre = sum(rest) / len(rest)
    noise = sqrt(sum((v - centre) ** 2 for v in rest) / len(rest))
    return StickAxis(
        low=min(moved), high=max(moved), centre=round(centre, 2), noise=round(noise, 2)
    )


def axis_faults(name: str, axis: StickAxis, full: int) -> list[str]:
    """The limits that an axis does not keep."""
    found = []
    middle = (axis.low + axis.high) / 2
    span = axis.high - axis.low
    if span < SPAN_SHARE * full:
        found.append(
            f"The span of {name} is {span} of {full} codes; {SPAN_SHARE * full:.0f} are asked."
        )
    if abs(axis.centre - middle) > CENTRE_SHARE * full:
        found.append(f"The centre of {name} is off by {abs(axis.centre - middle):.0f} codes.")
    if axis.noise > NOISE_SHARE * full:
        found.append(f"The noise of {name} is {axis.noise:.1f} codes at rest.")
    return found


def unevenness(samples: Sequence[Sample], x0: float, y0: float) -> float:
    """By which share the smallest reach of the sectors around differs from the largest."""
    reach = [0.0] * SECTORS
    for s in samples:
        angle = atan2(s.y - y0, s.x - x0)
        sector = int((angle + pi) / (2 * pi) * SECTORS) % SECTORS
        reach[sector] = max(reach[sector], hypot(s.x - x0, s.y - y0))
    if min(reach) <= 0:
        return 1.0
    return 1 - min(reach) / max(reach)
