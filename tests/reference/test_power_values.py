"""Power against outside values: worked examples by hand, a numeric integration by scipy, and a
plain graph search by networkx.
"""

import random

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from loquet.catalogue.bundled import parts
from loquet.core.brief import Supply
from loquet.core.power.converting import conversions
from loquet.core.power.discharge import CURVES, rundown
from loquet.core.provenance import Source
from tests.making import made

BY_HAND = Source(kind="assumed", text="test")


def supply(chemistry: str, cells: int, mah: float, ohm: float) -> Supply:
    volts = {"lithium": (3.0, 3.7, 4.2), "alkaline": (0.9, 1.5, 1.6), "coin": (2.0, 3.0, 3.2)}
    low, usual, high = (cells * v for v in volts[chemistry])
    return Supply(low, usual, high, chemistry, cells, mah, ohm, 2000, BY_HAND)


def by_scipy(source: Supply, power_mw: float, current_ma: float, stops_v: float) -> float:
    """Hours until the terminals reach the stop: dq/dt = -I/C, with I the root of I (Voc - I R) = P
    plus a steady part.
    """
    shares, volts = zip(*CURVES[source.chemistry], strict=True)

    def inside(left: float) -> float:
        return float(np.interp(left, shares, volts)) * source.in_series

    def amps(left: float) -> float:
        open_v, r = inside(left) - current_ma / 1000 * source.resistance_ohm, source.resistance_ohm
        p = power_mw / 1000
        root = (open_v - (max(open_v**2 - 4 * r * p, 0.0)) ** 0.5) / (2 * r) if r else p / open_v
        return root + current_ma / 1000

    def terminals(left: float) -> float:
        return inside(left) - amps(left) * source.resistance_ohm

    def stop(_: float, left: np.ndarray) -> float:
        return terminals(float(left[0])) - stops_v

    stop.terminal = True  # type: ignore[attr-defined]
    found = solve_ivp(
        lambda _, left: [-amps(float(left[0])) * 1000 / source.capacity_mah],
        (0, 1e5),
        [1.0],
        events=(stop, empty),
        max_step=source.capacity_mah / 400,
        rtol=1e-8,
    )
    return float(found.t[-1])


def empty(_: float, left: np.ndarray) -> float:
    return float(left[0])


empty.terminal = True  # type: ignore[attr-defined]


@pytest.mark.parametrize("seed", range(12))
def test_run_time_agrees_with_a_numeric_integration(seed: int) -> None:
    """Within 2 %, for steady currents (linear regulator, direct) and steady powers (switching)."""
    rng = random.Random(seed)
    chemistry = rng.choice(["lithium", "alkaline", "coin"])
    cells = 1 if chemistry == "coin" else rng.randint(1, 4)
    source = supply(chemistry, cells, rng.uniform(100, 3000), rng.uniform(0.05, 0.5))
    current = source.capacity_mah / rng.uniform(8, 200)
    power = rng.choice([0.0, current * source.usual_v * 0.7])
    stops = source.empty_v * rng.uniform(1.0, 1.1)
    found = rundown(source, lambda volts: power / volts + current, stops)
    assert found.hours == pytest.approx(by_scipy(source, power, current, stops), rel=0.02)


def test_a_steady_current_empties_a_cell_without_resistance_in_c_over_i() -> None:
    """1000 mAh at 50 mA: 20 h, used to the last."""
    found = rundown(supply("lithium", 1, 1000, 0.0), lambda volts: volts * 0 + 50, 3.0)
    assert (found.hours, found.share) == (pytest.approx(20.0, rel=1e-3), 1.0)


def test_linear_regulators_against_the_handbook() -> None:
    """P = (Vin - Vout) I, Tj = Ta + P RthJA: 5.25 V to 3.3 V at 100 mA is 195 mW and 40 + 39 °C at
    200 K/W.
    """
    port = Supply(4.4, 5.0, 5.25, "outside", 1, 0, 0.2, 500, BY_HAND)
    low, high, buck, wide, boost, both = conversions(parts(), port, 3.3, 100)
    assert low.heat_mw == pytest.approx(195 + 5.25 * 0.004)
    assert low.junction_c == pytest.approx(79.0, abs=0.1)
    # least input: 3.3 V and a third of the drop of 0.25 V at 300 mA
    assert low.stops_v == pytest.approx(3.383, abs=0.001)
    # 5 mA of its own at 5.25 V come on top in the high one
    assert high.heat_mw == pytest.approx(195 + 26.25)
    assert "may give 4.40 V" in buck.why_not
    assert "needs 5.00 V" in wide.why_not
    assert "only steps up" in boost.why_not
    # a switching one passes on the power: 330 mW / 0.9 / 5 V = 73.3 mA and 0.05 mA of its own
    assert both.draws_ma(5.0, 100) == pytest.approx(73.38, abs=0.01)
    assert low.draws_ma(5.0, 100) == pytest.approx(100.004)


def test_a_step_up_converter_is_held_by_its_switch() -> None:
    """5 V at 150 mA of one AA at 0.9 V: 750 mW / 0.88 / 0.9 V = 947 mA in a switch of 1 A; at 170
    mA it is 1,073 mA.
    """
    one = supply("alkaline", 1, 2500, 0.15)

    def boost(load_ma: float) -> str:
        return next(
            c for c in conversions(parts(), one, 5.0, load_ma) if c.way.name == "boost"
        ).why_not

    assert boost(150) == ""
    assert "would have to carry 1073 mA" in boost(170)


def test_charging_by_hand() -> None:
    """400 mAh at 0.5 C: 200 mA -> 5 kΩ, next E24 5.1 kΩ = 196 mA. 1200 mAh would be 600 mA: 1.3 V
    x 0.6 A x 190 K/W are 148 K over 40 °C, so no more than leaves it cool is taken: 280 mA -> 3.57
    kΩ, next E24 3.6 kΩ = 278 mA. It holds itself back from 70 K / (190 K/W x 1.3 V) = 283 mA on.
    500 mA that are asked for are 2 kΩ, and 283 mA that flow.
    """
    from loquet.core.power.charging import charge_ma, held_ma, program_ohm, real_ma

    charger = parts()["charger-linear"]
    large, small = made("lithium-cell", capacity_mah=1200), made("lithium-cell", capacity_mah=400)
    assert program_ohm(large, charger) == 3600.0
    assert charge_ma(large, charger) == pytest.approx(277.8, abs=0.05)
    asked = made("lithium-cell", capacity_mah=1200, charge_ma=500)
    assert (program_ohm(asked, charger), charge_ma(asked, charger)) == (2000.0, 500.0)
    assert held_ma(charger) == pytest.approx(283.4, abs=0.05)
    assert real_ma(asked, charger) == pytest.approx(283.4, abs=0.05)
    assert real_ma(small, charger) == charge_ma(small, charger)
    assert program_ohm(small, charger) == 5100.0
    assert charge_ma(small, charger) == pytest.approx(196.1, abs=0.05)
    assert made("lithium-cell", capacity_mah=400, charge_ma=100).charging_ma() == 100
