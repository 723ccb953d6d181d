"""Run times with every path of the finished circuit: against a separate integration by scipy, and
asleep against sums by hand.
"""

from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.optimize import brentq

from loquet.core.brief import Brief
from loquet.core.design import Design
from loquet.core.energising.answering import answers
from loquet.core.energising.device import Device
from loquet.core.energising.lasting import lasting
from loquet.core.energising.network import network_of
from loquet.core.energising.states import State, given_of, ways_of
from loquet.core.library import Library
from loquet.core.lookup.powering import lowest_of
from loquet.core.pipeline import run_stage
from loquet.core.power.discharge import CURVES, self_discharge_ma, usable_share
from tests.core.benches import switched_on
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
LOW = thing("chip", "chip", part="stm32l051c8t6")
POUCH = thing("lithium-cell", "cell", 60, 30, far=True)
FEEDS: dict[str, tuple[Plain, ...]] = {
    "two AAA": (thing("cells", "cell", 60, 30, far=True),),
    "two AA": (thing("cells", "cell", 60, 30, far=True, size="AA"),),
    "a pouch": (POUCH, thing("usb-charge", "plug")),
    "a large pouch": ({**POUCH, "capacity_mah": 2500}, thing("usb-charge", "plug")),
    "a coin": (thing("coin-cell", "cell", 60, 30, far=True),),
}
LOADS: dict[str, tuple[Plain, ...]] = {
    "alone": (thing("button", "go", 20, 20),),
    "slider": (thing("slider", "dim", 30, 30),),
    "light": (thing("light", "lamp", 20, 20), thing("button", "go", 30, 20)),
    "stick": (thing("stick", "axis", 30, 30),),
}


def made(brief: Brief, library: Library) -> Device:
    design = run_stage(run_stage(Design(brief=brief), "pins", library), "circuit", library)
    return switched_on(design, library)


def current_ma(seen: Device, left: float, mode: str) -> float:
    """What the source gives with so much left, solved for that alone."""
    cell = seen.brief.thing("cell")
    supply = cell.source()
    assert supply is not None
    shares, volts = zip(*CURVES[supply.chemistry], strict=True)
    share = float(np.interp(left, shares, volts)) * supply.in_series / supply.usual_v
    acts, at = ("asleep" if mode == "sleep" else "runs"), (("cell", "usual"),)
    given = given_of(seen, ways_of(seen), State(at, acts, mode))  # type: ignore[arg-type]
    found = answers(network_of(seen), [replace(given, volts={"cell": share})])
    index = next(i for i, s in enumerate(found.made.network.sources) if s.name == "cell")
    return -1000 * float(found.currents["sources"][0, index, 0])


@pytest.mark.parametrize("load", LOADS)
@pytest.mark.parametrize("feed", FEEDS)
def test_run_times_are_what_scipy_integrates(feed: str, load: str, library: Library) -> None:
    """dt = C dq / (I(q) + what the cell loses by itself), from full to where it stops, within a
    thirtieth.
    """
    seen = made(device(CHIP, *FEEDS[feed], *LOADS[load]), library)
    cell = seen.brief.thing("cell")
    supply = cell.source()
    assert supply is not None
    found = lasting(seen, cell, supply, "play", lowest_of(seen.brief, library))
    lost = self_discharge_ma(supply)
    gives = supply.capacity_mah * usable_share(supply, found.mean_ma)
    hours, _ = quad(
        lambda left: gives / (current_ma(seen, left, "play") + lost),
        1 - found.share,
        1.0,
        limit=20,
        epsrel=1e-2,
    )
    assert found.hours == pytest.approx(hours, rel=0.03)


def test_a_device_stops_where_its_brain_does(library: Library) -> None:
    """Two AAA under 8 mA: the open volts from which less the losses inside (0.5 ohm) are the 1.71 V
    of the chip, by the curve of the cell.
    """
    seen = made(device(CHIP, *FEEDS["two AAA"], *LOADS["alone"]), library)
    cell = seen.brief.thing("cell")
    supply = cell.source()
    assert supply is not None
    found = lasting(seen, cell, supply, "play", lowest_of(seen.brief, library))
    shares, volts = zip(*CURVES["alkaline"], strict=True)
    inside = max(1.71, supply.empty_v) + found.mean_ma / 1000 * supply.resistance_ohm
    left = brentq(lambda q: 2 * float(np.interp(q, shares, volts)) - inside, 0.0, 1.0)
    assert 1 - found.share == pytest.approx(left, abs=0.03)


def test_a_rail_stops_where_its_regulator_lets_it_fall(library: Library) -> None:
    """A pouch behind a linear regulator of 0.25 V at 300 mA: 95 % of 3.3 V and what 8 mA lose in it
    (7 mV) and in the cell (1 mV) are 3.143 V of 3.0 to 3.4 V, in which the last twentieth lies.
    """
    seen = made(device(CHIP, *FEEDS["a pouch"], *LOADS["alone"]), library)
    cell = seen.brief.thing("cell")
    supply = cell.source()
    assert supply is not None
    found = lasting(seen, cell, supply, "play", lowest_of(seen.brief, library))
    assert 1 - found.share == pytest.approx(0.05 * 0.143 / 0.4, abs=0.002)
    assert found.stops_v == pytest.approx(3.14, abs=0.02)


# Each device, what its paths draw at the cell asleep in mA by hand, and from what.
ASLEEP: dict[str, tuple[tuple[Plain, ...], float]] = {
    # a chip asleep at 0.0005 of 8 mA
    "a chip alone": ((CHIP, *FEEDS["two AAA"], *LOADS["alone"]), 0.004),
    # a track of 10 kohm at 3.0 V
    "a slider on two AAA": ((CHIP, *FEEDS["two AAA"], *LOADS["slider"]), 0.004 + 0.3),
    # two tracks of 10 kohm at 3.0 V
    "a stick on two AAA": ((CHIP, *FEEDS["two AAA"], *LOADS["stick"]), 0.004 + 0.6),
    "two sliders": (
        (CHIP, *FEEDS["two AA"], *LOADS["slider"], thing("slider", "tone", 50, 30)),
        0.004 + 0.6,
    ),
    "a slider on a coin": ((CHIP, *FEEDS["a coin"], *LOADS["slider"]), 0.004 + 0.3),
    # 3.3 V behind a linear regulator of 4 uA, a divider of 2 Mohm at 3.7 V
    "a pouch": (
        (CHIP, *FEEDS["a pouch"], *LOADS["alone"]),
        0.004 + 0.00185 + 0.004,
    ),
    "a slider on a pouch": (
        (CHIP, *FEEDS["a pouch"], *LOADS["slider"]),
        0.004 + 0.00185 + 0.004 + 0.33,
    ),
    "a stick on a pouch": (
        (CHIP, *FEEDS["a pouch"], *LOADS["stick"]),
        0.004 + 0.00185 + 0.004 + 0.66,
    ),
    "a pouch that is not measured": (
        (CHIP, {**POUCH, "sense": False}, thing("usb-charge", "plug"), *LOADS["slider"]),
        0.004 + 0.004 + 0.33,
    ),
    # a magnetic trigger takes its current as long as its rail is on
    "a magnetic trigger": ((CHIP, *FEEDS["two AA"], thing("trigger", "pull", 30, 30)), 0.004),
}


@pytest.mark.parametrize("name", ASLEEP)
def test_asleep_it_draws_what_its_paths_add_up_to(name: str, library: Library) -> None:
    things, wanted = ASLEEP[name]
    seen = made(device(*things), library)
    if "magnetic" in name:
        wanted += seen.parts[seen.brief.thing("pull").bodies()[0].part].values["draws_ma"]
    supply = seen.brief.thing("cell").source()
    assert supply is not None
    points = dict(CURVES[supply.chemistry])
    shares, volts = zip(*sorted(points.items()), strict=True)
    left = float(np.interp(supply.usual_v / supply.in_series, volts, shares))
    assert current_ma(seen, left, "sleep") == pytest.approx(wanted, rel=0.03)


def test_paths_have_the_shares_of_what_they_draw(library: Library) -> None:
    """A track of 10 kohm at 3.0 V and less beside 4 uA of the chip: 0.3 of 0.304 mA, all shares
    together are one; without it the chip and the cell's own loss remain.
    """
    seen = made(device(CHIP, *FEEDS["two AAA"], *LOADS["slider"]), library)
    cell = seen.brief.thing("cell")
    supply = cell.source()
    assert supply is not None
    found = lasting(seen, cell, supply, "sleep", lowest_of(seen.brief, library))
    first = found.paths[0]
    assert seen.by_ref[first.ref].thing == "dim"
    assert first.share == pytest.approx(0.3 / 0.304, rel=0.01)
    assert first.share <= sum(path.share for path in found.paths) <= 1.0
    lost = self_discharge_ma(supply)
    assert first.ma == pytest.approx(found.mean_ma * first.share, rel=0.02)
    longer = (found.mean_ma + lost) / (found.mean_ma - first.ma + lost)
    assert first.hours_without == pytest.approx(found.hours * longer, rel=0.05)
