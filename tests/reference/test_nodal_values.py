"""Nodal analysis against closed forms (handbook formulas, from memory), and the curves of circuits
against hand calculation.
"""

from math import exp, log, pi, sqrt

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from loquet.core.circuit import Circuit, Component, Net
from loquet.core.circuit.nodal import curves_of
from loquet.core.circuit.nodal.solving import (
    Element,
    NodalError,
    after_step,
    at_rest,
    over_frequency,
)
from loquet.core.library import Library
from loquet.core.power.rails import Rail
from loquet.core.provenance import Source
from loquet.core.quantities.shown import read_si, show_si


def r(a: str, b: str, ohm: float) -> Element:
    return Element("resistor", a, b, ohm)


def c(a: str, b: str, farad: float) -> Element:
    return Element("capacitor", a, b, farad)


def v(a: str, volts: float) -> Element:
    return Element("source", a, "GROUND", volts)


def test_divider_and_bridge() -> None:
    """U2 = U R2 / (R1 + R2); Wheatstone bridge by Thevenin."""
    volts = at_rest([v("top", 9.0), r("top", "mid", 2e3), r("mid", "GROUND", 1e3)])
    assert volts["mid"] == pytest.approx(3.0, rel=1e-6)
    bridge = [
        v("t", 10.0),
        r("t", "a", 1e3),
        r("a", "GROUND", 2e3),
        r("t", "b", 3e3),
        r("b", "GROUND", 1e3),
        r("a", "b", 500.0),
    ]
    thevenin = 10 * 2 / 3 - 10 / 4
    current = thevenin / (2e3 / 3 + 750.0 + 500.0)
    volts = at_rest(bridge)
    assert volts["a"] - volts["b"] == pytest.approx(current * 500.0, rel=1e-6)


def test_two_sources_superpose_and_contradict() -> None:
    volts = at_rest(
        [v("a", 5.0), v("b", -3.0), r("a", "m", 1e3), r("b", "m", 3e3), r("m", "GROUND", 1e3)]
    )
    assert volts["m"] == pytest.approx(
        (5 / 1e3 - 3 / 3e3) / (1 / 1e3 + 1 / 3e3 + 1 / 1e3), rel=1e-6
    )
    with pytest.raises(NodalError, match="contradict"):
        at_rest([v("a", 5.0), v("a", 3.0)])


def test_rc_step_and_corner() -> None:
    """1 - exp(-t / RC); 1 / (2 pi RC), there 1 / sqrt 2 and -45 degrees."""
    ohm, farad = 10e3, 100e-9
    parts = [v("in", 3.3), r("in", "out", ohm), c("out", "GROUND", farad)]
    found = after_step(parts, "out", 3 * ohm * farad)
    for share in (0.5, 1.0, 2.0, 3.0):
        at = round(len(found) * share / 3) - 1
        assert found[at] == pytest.approx(3.3 * (1 - exp(-share)), rel=3e-3)
    corner = 1 / (2 * pi * ohm * farad)
    (at_corner,) = over_frequency([v("in", 1.0), *parts[1:]], "out", [corner])
    assert abs(at_corner) == pytest.approx(1 / sqrt(2), rel=1e-6)
    assert np.angle(at_corner, deg=True) == pytest.approx(-45.0, abs=1e-3)


def test_coil_and_resonance() -> None:
    """L / R rise; series resonance at 1 / (2 pi sqrt LC), where the capacitor has Q times the
    volts; against scipy after a step.
    """
    ohm, henry, farad = 10.0, 1e-3, 1e-6
    coil = Element("inductor", "in", "mid", henry)
    rise = after_step([v("in", 1.0), coil, r("mid", "GROUND", ohm)], "mid", 3 * henry / ohm)
    assert rise[len(rise) // 3 - 1] == pytest.approx(1 - exp(-1), rel=3e-3)
    ringing = [v("in", 1.0), coil, r("mid", "out", ohm), c("out", "GROUND", farad)]
    (peak,) = over_frequency(ringing, "out", [1 / (2 * pi * sqrt(henry * farad))])
    assert abs(peak) == pytest.approx(sqrt(henry / farad) / ohm, rel=1e-5)
    end = 3e-4
    exact = solve_ivp(
        lambda t, y: [y[1] / farad, (1 - y[0] - ohm * y[1]) / henry],
        (0, end),
        [0, 0],
        rtol=1e-9,
        atol=1e-12,
    ).y[0, -1]
    assert after_step(ringing, "out", end, 20_000)[-1] == pytest.approx(exact, rel=2e-3)


def test_values_are_read_as_they_are_written() -> None:
    for value in (0.5, 1.0, 470.0, 4.7e3, 1e6, 100e-9, 22e-12, 4.7e-6):
        for unit in ("Ω", "F", "H"):
            assert read_si(show_si(value, unit), unit) == pytest.approx(value)
    for text in ("switch", "4.7k", "4.7 kF", "kΩ", "4.7 xΩ"):
        assert read_si(text, "Ω") is None


RAIL = Rail(
    "rail", "SUPPLY", 2.0, 3.0, 3.3, "cell", "x", Source(kind="assumed", text="x"), True, 100.0
)


def circuit(*rows: tuple[str, str, str, dict[str, str]]) -> Circuit:
    components = tuple(
        Component(
            role=role,
            ref=role,
            part=part,
            value=value,
            block="x",
            purpose="x",
            pads=pads,
            board="main",
        )
        for role, part, value, pads in rows
    )
    nets = {
        net: "ground" if net == "GROUND" else "supply" if net.startswith("SUPPLY") else "signal"
        for x in components
        for net in x.pads.values()
    }
    return Circuit(
        components=components,
        nets=tuple(Net(name=n, kind=k, pads=()) for n, k in nets.items()),
        workings=(),
    )  # type: ignore[arg-type]


R, C = "resistor-1608", "capacitor-1608"


def test_curves_of_a_small_circuit(library: Library) -> None:
    """A sense divider with its capacitor, a reset, a ladder of two keys, and the rail: each by
    hand.
    """
    made = circuit(
        ("top", R, "100 kΩ", {"1": "SUPPLY_IN", "2": "SENSE"}),
        ("low", R, "150 kΩ", {"1": "SENSE", "2": "GROUND"}),
        ("quiet", C, "100 nF", {"1": "SENSE", "2": "GROUND"}),
        ("reset", C, "100 nF", {"1": "RESET", "2": "GROUND"}),
        ("bulk", C, "10 µF", {"1": "SUPPLY", "2": "GROUND"}),
        ("key ladder 1 pull-up", R, "10 kΩ", {"1": "SUPPLY", "2": "KEYS"}),
        ("one", R, "10 kΩ", {"1": "KEYS", "2": "ONE"}),
        ("two", R, "22 kΩ", {"1": "KEYS", "2": "TWO"}),
        ("S1", "button-6x6-surface", "", {"1": "ONE", "2": "ONE", "3": "GROUND", "4": "GROUND"}),
        ("S2", "button-6x6-surface", "", {"1": "TWO", "3": "GROUND"}),
        ("elsewhere", R, "10 kΩ", {"1": "SUPPLY", "2": "ALONE"}),
        ("S3", "button-6x6-surface", "", {"1": "ALONE", "3": "GROUND"}),
    )
    by_id = {curve.id: curve for curve in curves_of(made, library.parts, (RAIL,), 5.0)}
    assert set(by_id) == {
        "divider SENSE",
        "filter SENSE",
        "reset RESET",
        "rise SUPPLY",
        "ladder KEYS",
    }
    divider = by_id["divider SENSE"]
    assert divider.mark == (pytest.approx(5.0), pytest.approx(3.0, rel=1e-5))
    assert divider.points[5] == (pytest.approx(2.5), pytest.approx(1.5, rel=1e-5))
    corner = by_id["filter SENSE"]
    assert corner.mark[0] == pytest.approx(1 / (2 * pi * 60e3 * 100e-9), rel=0.01)
    assert corner.points[0][1] == pytest.approx(20 * np.log10(0.6), abs=0.01)
    assert corner.mark[1] == pytest.approx(20 * np.log10(0.6 / 2**0.5), abs=0.01)
    assert corner.points[-1][1] == pytest.approx(
        20 * np.log10(1 / (2 * pi * 1e6 * 100e3 * 100e-9)), abs=0.1
    )
    # 40 kohm inside, high at 0.7: t = -RC ln 0.3
    assert by_id["reset RESET"].mark[0] == pytest.approx(-40e3 * 100e-9 * log(0.3) * 1e3, rel=0.01)
    assert by_id["reset RESET"].points[-1][1] == pytest.approx(3.0 * (1 - exp(-5)), rel=0.01)
    # 3 V at 100 mA is 30 ohm; 95 % after 3.0 RC
    assert by_id["rise SUPPLY"].mark[0] == pytest.approx(30 * 10e-6 * log(20) * 1e3, rel=0.01)
    ladder = by_id["ladder KEYS"]
    assert [y for _, y in ladder.points] == [
        pytest.approx(1.5, rel=1e-4),
        pytest.approx(3.0 * 22 / 32, rel=1e-4),
        pytest.approx(3.0, rel=1e-4),
    ]
    assert ladder.says == "Closest steps 562 mV apart, at S1."


def test_what_no_curve_is_about(library: Library) -> None:
    """A pull-up is no divider, a decoupling capacitor no filter, a capacitor between two signals
    neither.
    """
    made = circuit(
        ("up", R, "10 kΩ", {"1": "SUPPLY", "2": "LINE"}),
        ("cross", C, "100 nF", {"1": "LINE", "2": "OTHER"}),
        ("one", R, "1 kΩ", {"1": "OTHER", "2": "FAR"}),
        ("small", C, "22 pF", {"1": "FAR", "2": "GROUND"}),
    )
    assert curves_of(made, library.parts, (RAIL,), 5.0) == ()


def test_a_supply_stands_still_behind_a_low_pass(library: Library) -> None:
    """What holds the line up to a supply hangs on it as if to ground: 5 kohm and 100 nF, 318 Hz."""
    made = circuit(
        ("series", R, "10 kΩ", {"1": "DRIVE", "2": "LINE"}),
        ("up", R, "10 kΩ", {"1": "SUPPLY", "2": "LINE"}),
        ("quiet", C, "100 nF", {"1": "LINE", "2": "GROUND"}),
    )
    (low_pass,) = (c for c in curves_of(made, library.parts, (RAIL,), 5.0) if "filter" in c.id)
    assert low_pass.mark[0] == pytest.approx(1 / (2 * pi * 5e3 * 100e-9), rel=0.02)
    assert low_pass.points[0][1] == pytest.approx(20 * np.log10(0.5), abs=0.02)
