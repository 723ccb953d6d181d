"""What a supply pin gets, from full sources to nearly empty ones."""

from dataclasses import dataclass

import numpy as np

from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import Bools, meant

NEVER_V = 0.5
"""A supply that never comes to so much is not fed; common practice, no source."""


@dataclass(frozen=True)
class Fed:
    """What a supply pin gets while all is as it was meant to be: the most volts, the least while
    its sources are at their usual volts and while one is nearly empty, each with its state.
    """

    most_v: float
    most_at: int
    usual_v: float
    usual_at: int
    late_v: float
    late_at: int


def fed_at(energised: Energised, node: str) -> Fed | None:
    """What a node gets as a supply; nothing for one that is never fed. The most counts while nobody
    drives a line: what comes in through pins is said of those.
    """
    rows, volts = meant(energised), energised.volt(node)
    quiet = np.array([s.acts not in ("high", "low") for s in energised.states])
    most_at = int(np.argmax(np.where(rows & quiet, volts, -1e9)))
    most = float(volts[most_at]) if rows.any() else 0.0
    if most < NEVER_V:
        return None
    on = rows & stays_on(energised, volts > most / 2)
    stores = {way.name for way in energised.ways if not way.stays}
    late = np.array(
        [any(x == "least" and n in stores for n, x in s.sources) for s in energised.states]
    )
    usual_at = int(np.argmin(np.where(on & ~late, volts, 1e9)))
    late_at = int(np.argmin(np.where(on & late, volts, 1e9))) if (on & late).any() else usual_at
    return Fed(
        most,
        most_at,
        float(volts[usual_at]),
        usual_at,
        float(volts[late_at]),
        late_at,
    )


def stays_on(energised: Energised, up: Bools) -> Bools:
    """States in which a supply is to be there: those in which it is, and those that differ from one
    of them only in how full its sources are and how much is drawn. A rail that breaks down is not
    one that is off.
    """
    alike = [(s.acts, s.on, s.alone, tuple(n for n, _ in s.sources)) for s in energised.states]
    there = {key for key, here in zip(alike, up, strict=True) if here}
    return np.array([key in there for key in alike])
