"""A model of cells: open-circuit voltage over what is left, with an inner resistance, emptied by a
load. It is a model, and says so.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from loquet.core.brief import Supply
from loquet.core.provenance import Source

MODEL = Source(
    kind="from memory",
    text=(
        "model: open-circuit voltage by kind of cell at 20 °C, points from memory of typical"
        " curves, behind a constant inner resistance"
    ),
)
# Left in the cell (1 is full), and open-circuit volts of one cell.
CURVES: dict[str, tuple[tuple[float, float], ...]] = {
    "lithium": (
        (0.0, 3.00),
        (0.05, 3.40),
        (0.1, 3.55),
        (0.2, 3.65),
        (0.4, 3.75),
        (0.6, 3.85),
        (0.8, 4.00),
        (1.0, 4.20),
    ),
    "alkaline": (
        (0.0, 0.80),
        (0.1, 1.02),
        (0.2, 1.12),
        (0.4, 1.22),
        (0.6, 1.28),
        (0.8, 1.37),
        (0.9, 1.45),
        (1.0, 1.60),
    ),
    "coin": ((0.0, 2.00), (0.05, 2.50), (0.1, 2.75), (0.2, 2.88), (0.9, 2.98), (1.0, 3.20)),
}
# At 0 °C: what can still be drawn of what is held at 20 °C, and how many times the inner
# resistance grows.
COLD_C = 0
COLD: dict[str, tuple[float, float]] = {
    "lithium": (0.85, 2.5),
    "alkaline": (0.65, 2.5),
    "coin": (0.9, 2.0),
}
COLD_MODEL = Source(
    kind="from memory",
    text=(
        "model as at 20 °C with less to draw and more resistance, by kind of cell; from memory of"
        " typical curves"
    ),
)
# What a store loses by itself in a year, as a share of what it holds, at 20 °C.
LOSES: dict[str, float] = {"lithium": 0.25, "alkaline": 0.03, "coin": 0.01}
LOSES_MODEL = Source(
    kind="from memory",
    text=(
        "self-discharge at 20 °C: alkaline 3 % a year, lithium coin 1 %, a lithium cell with its"
        " protection some 2 % a month; from memory of data sheets"
    ),
)
# What a cell gives of what is printed on it, by the hours in which it is emptied.
GIVES: dict[str, tuple[tuple[float, float], ...]] = {
    "lithium": ((1.0, 0.95), (5.0, 1.0)),
    "alkaline": ((2.5, 0.35), (10.0, 0.6), (25.0, 0.8), (100.0, 0.95), (250.0, 1.0)),
    "coin": ((10.0, 0.4), (23.5, 0.57), (80.0, 0.8), (235.0, 0.93), (1200.0, 1.0)),
}
GIVES_MODEL = Source(
    kind="from memory",
    text=(
        "what a cell gives by the rate at which it is emptied (a coin of 235 mAh some 135 mAh at"
        " 10 mA); from memory of data sheets"
    ),
)
HOURS_A_YEAR = 8760.0
STEPS = 2000
Load = Callable[[NDArray[np.float64]], NDArray[np.float64]]


@dataclass(frozen=True)
class Rundown:
    """How long a source lasts in hours, what share of it is used, and its lowest voltage under
    load.
    """

    hours: float
    share: float
    volts: float


def in_the_cold(supply: Supply) -> Supply:
    """A source as it is at 0 °C."""
    holds, resists = COLD[supply.chemistry]
    return replace(
        supply,
        capacity_mah=supply.capacity_mah * holds,
        resistance_ohm=supply.resistance_ohm * resists,
    )


def self_discharge_ma(supply: Supply) -> float:
    """What a store loses by itself, as a current in mA."""
    return supply.capacity_mah * LOSES.get(supply.chemistry, 0.0) / HOURS_A_YEAR


def usable_share(supply: Supply, current_ma: float) -> float:
    """What a store gives of its capacity at a current in mA."""
    points = GIVES.get(supply.chemistry)
    if points is None or current_ma <= 0:
        return 1.0
    hours = np.log([p[0] for p in points])
    return float(np.interp(np.log(supply.capacity_mah / current_ma), hours, [p[1] for p in points]))


def open_v(supply: Supply, left: NDArray[np.float64] | float) -> NDArray[np.float64]:
    """Open-circuit volts of a source with so much left (0 to 1)."""
    points = CURVES[supply.chemistry]
    shares, volts = [p[0] for p in points], [p[1] for p in points]
    return np.asarray(np.interp(left, shares, volts)) * supply.in_series


def under_load_v(supply: Supply, left: NDArray[np.float64], load: Load) -> NDArray[np.float64]:
    """Volts at the terminals: the open voltage less what is lost inside, where the load's current
    (mA) may itself follow the voltage.
    """
    inside = open_v(supply, left)
    volts = inside.copy()
    for _ in range(40):
        volts = np.maximum(inside - load(volts) / 1000 * supply.resistance_ohm, 0.1)
    return volts


def rundown(supply: Supply, load: Load, stops_v: float) -> Rundown:
    """From full until the terminals fall below `stops_v`: dt = C dq / I(V(q)), summed over 2,000
    steps of charge.

    `load` gives the source's current in mA for volts at its terminals.
    """
    left = np.linspace(1.0, 0.0, STEPS + 1)
    volts = under_load_v(supply, left, load)
    low = np.nonzero(volts < max(stops_v, supply.empty_v) - 1e-9)[0]
    last = int(low[0]) if len(low) else STEPS
    current = load(volts)
    slices = 2.0 / (current[1:] + current[:-1]) * supply.capacity_mah / STEPS
    return Rundown(float(slices[:last].sum()), float(last / STEPS), float(volts[min(last, STEPS)]))
