"""Every element of a network against answers worked out by hand or by scipy's root finder, and
Kirchhoff's and energy's laws on networks that nobody chose.
"""

import numpy as np
import pytest
from scipy.optimize import brentq

from loquet.core.energising.answering import Answers, Given, answers
from loquet.core.energising.elements import (
    THERMAL_V,
    Bipolar,
    Channel,
    Converter,
    Draw,
    Element,
    Junction,
    Network,
    Resistance,
    Source,
    junction_of,
    nodes_of,
)
from tests.reference.test_energising import some_network

VT = 0.025852  # 1.380649e-23 x 300 / 1.602177e-19
STIFF = 1e-3


def solved(*elements: Element, given: Given | None = None) -> Answers:
    network = Network("0")
    network.add(*elements)
    found = answers(network, [given or Given()])
    assert found.sound.all()
    return found


def volt(node: str, *elements: Element, given: Given | None = None) -> float:
    return float(solved(*elements, given=given).volt(node)[0])


def held(node: str, volts: float) -> Source:
    """A node that is held at so many volts."""
    return Source(node, "0", volts, STIFF)


def test_thermal_volts_are_k_t_over_q() -> None:
    assert pytest.approx(VT, rel=1e-4) == THERMAL_V


def test_a_divider_divides() -> None:
    """9 V over 2 and 1 kohm: 3 V; over 1 ohm inside, 3 mA lose 3 mV first."""
    rows = Resistance("a", "b", 2000.0), Resistance("b", "0", 1000.0)
    assert volt("b", held("a", 9.0), *rows) == pytest.approx(3.0, abs=1e-4)
    assert volt("a", Source("a", "0", 9.0, 1.0), *rows) == pytest.approx(9 * 3000 / 3001, abs=1e-6)


def test_what_is_joined_to_itself_or_to_nothing_carries_nothing() -> None:
    found = solved(held("a", 5.0), Resistance("a", "a", 1.0), Resistance("b", "c", 1.0))
    assert len(found.made.network.resistances) == 1
    assert found.volt("b")[0] == pytest.approx(0.0)
    assert found.volt("nowhere").tolist() == [0.0]


@pytest.mark.parametrize(("volts", "ohm", "n"), [(5.0, 1000.0, 1.0), (3.3, 68.0, 2.0)])
def test_a_diode_behind_a_resistor(volts: float, ohm: float, n: float) -> None:
    """(V - v) / R = Is (exp(v / n Vt) - 1), solved by scipy; 0.6 V at 1 mA is its point."""
    saturation = junction_of(0.6, 0.001, n)
    assert saturation * (np.exp(0.6 / (n * VT)) - 1) == pytest.approx(0.001)
    wanted = brentq(
        lambda v: (volts - v) / ohm - saturation * (np.exp(v / (n * VT)) - 1), 0.0, volts
    )
    row = held("a", volts), Resistance("a", "d", ohm)
    assert volt("d", *row, Junction("d", "0", saturation, n)) == pytest.approx(wanted, abs=1e-4)
    assert volt("d", *row, Junction("0", "d", saturation, n)) == pytest.approx(volts, abs=1e-3)


@pytest.mark.parametrize(
    ("gate", "ohm", "wanted"),
    [
        # off below its threshold of 1 V
        (4.5, 1000.0, 0.0),
        # saturated: 2/2 (1.5 - 1)^2 = 0.25 A into 4 ohm
        (3.5, 4.0, 1.0),
        # open: 2 (4 - u/2) u = (5 - u) / 100 -> u = 0.00625 V across
        (0.0, 100.0, 4.99376),
    ],
)
def test_a_p_channel_by_its_square_law(gate: float, ohm: float, wanted: float) -> None:
    channel = Channel("g", "d", "s", -1, 1.0, 2.0)
    row = held("s", 5.0), held("g", gate), channel, Resistance("d", "0", ohm)
    assert volt("d", *row) == pytest.approx(wanted, abs=2e-3)


def test_an_n_channel_carries_current_both_ways() -> None:
    """k (3 - 1 - u/2) u = (1 - u) / 1 with k = 1: u = 0.3542 V, whichever end is higher."""
    u = brentq(lambda u: (2 - u / 2) * u - (1 - u), 0, 1)
    down = held("g", 3.0), held("top", 1.0), Resistance("top", "d", 1.0)
    assert volt("d", *down, Channel("g", "d", "0", 1, 1.0, 1.0)) == pytest.approx(u, abs=2e-3)
    assert volt("d", *down, Channel("g", "0", "d", 1, 1.0, 1.0)) == pytest.approx(u, abs=2e-3)


def test_a_transistor_gains_and_saturates() -> None:
    """Base over 430 kohm from 5 V: 10 uA, gain 100: 1 mA in 1 kohm leaves 4 V; over 10 kohm in
    10 kohm it saturates.
    """
    npn = Bipolar("b", "c", "0", junction_of(0.7, 0.001), 100.0)
    row = held("a", 5.0), Resistance("a", "b", 430_000.0), Resistance("a", "c", 1000.0)
    found = solved(*row, npn)
    assert found.volt("c")[0] == pytest.approx(4.0, abs=0.01)
    base, collector, emitter = found.currents["bipolars"][0, 0]
    assert collector / base == pytest.approx(100, rel=1e-3)
    assert base + collector + emitter == pytest.approx(0.0, abs=1e-12)
    row = held("a", 5.0), Resistance("a", "b", 10_000.0), Resistance("a", "c", 10_000.0)
    assert 0.0 < volt("c", *row, npn) < 0.1


def test_a_source_gives_no_more_than_it_can() -> None:
    """5 V behind 0.1 ohm, 0.5 A: 20 ohm see 5 x 20 / 20.1; 2 ohm see 0.5 A x 2 ohm."""
    port = Source("a", "0", 5.0, 0.1, 0.5)
    assert volt("a", port, Resistance("a", "0", 20.0)) == pytest.approx(4.9751, abs=1e-3)
    assert volt("a", port, Resistance("a", "0", 2.0)) == pytest.approx(1.0, abs=0.01)


def test_a_source_has_the_share_that_a_state_says() -> None:
    cell = Source("a", "0", 3.0, 1.0, name="cells")
    assert volt("a", cell, Resistance("a", "0", 2.0)) == pytest.approx(2.0)
    turned = Given(volts={"cells": -1.0})
    assert volt("a", cell, Resistance("a", "0", 2.0), given=turned) == pytest.approx(-2.0)


def test_a_load_draws_what_it_says_and_less_when_it_starves() -> None:
    """u / sqrt(u^2 + 0.09) x 1.044: at its volts 1, at half of them 0.895, at a tenth 0.330."""
    load = Draw("a", "0", 0.1, 3.0, name="screen")
    for share, wanted in ((1.0, 1.0), (0.5, 0.8953), (0.1, 0.3302)):
        found = solved(held("a", 3.0 * share), load)
        assert found.currents["draws"][0, 0, 0] == pytest.approx(0.1 * wanted, rel=2e-3)
    found = solved(held("a", 3.0), load, given=Given(amperes={"screen": 0.02}))
    assert found.currents["draws"][0, 0, 0] == pytest.approx(0.02, rel=1e-3)


def test_what_a_condition_asks_for_is_there_only_then() -> None:
    row = held("a", 4.0), Resistance("a", "b", 1000.0), Resistance("b", "0", 1000.0, when="held")
    assert volt("b", *row) == pytest.approx(4.0, abs=1e-3)
    assert volt("b", *row, given=Given(frozenset({"held"}))) == pytest.approx(2.0, abs=1e-3)


def linear(**changes: float) -> Converter:
    figures = {"volts": 3.3, "least_v": 2.5, "most_a": 0.3, "drop_ohm": 1.0} | changes
    return Converter("in", "out", "0", "in", **figures)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("before", "load", "wanted"),
    [
        # holds: 33 mA lose 0.7 mV in the 20 mohm behind it
        (5.0, 100.0, 3.2993),
        # drops out: 3.2 V over 1 ohm into 18 ohm
        (3.2, 18.0, 3.0316),
        # at its limit: 0.3 A into 5 ohm
        (5.0, 5.0, 1.5),
        # off below 2.5 V
        (2.2, 100.0, 0.0),
    ],
)
def test_a_linear_regulator(before: float, load: float, wanted: float) -> None:
    row = held("in", before), linear(), Resistance("out", "0", load)
    assert volt("out", *row) == pytest.approx(wanted, abs=0.01)


def test_a_linear_regulator_takes_what_it_gives_and_what_it_needs_itself() -> None:
    found = solved(held("in", 5.0), linear(quiet_a=1e-3), Resistance("out", "0", 100.0))
    taken, given, ground, enable = found.currents["converters"][0, 0]
    assert taken == pytest.approx(0.033 + 0.001, rel=2e-3)
    assert (given, ground, enable) == (
        pytest.approx(-0.033, rel=2e-3),
        pytest.approx(-0.001),
        pytest.approx(0.0),
    )


def test_a_converter_that_steps_up_takes_its_power() -> None:
    """12 V into 240 ohm are 0.6 W; at 85 % from 3 V: 235 mA."""
    made = Converter("in", "out", "0", "in", 12.0, 0.9, 0.5, 0.85, steps_up=True)
    found = solved(held("in", 3.0), made, Resistance("out", "0", 240.0))
    assert found.volt("out")[0] == pytest.approx(12.0, abs=0.01)
    assert found.currents["converters"][0, 0, 0] == pytest.approx(0.6 / 0.85 / 3.0, rel=5e-3)


def test_a_converter_is_off_while_its_pin_is_low() -> None:
    made = Converter("in", "out", "0", "on", 3.3, 2.5, 0.3)
    row = held("in", 5.0), made, Resistance("out", "0", 100.0)
    assert volt("out", *row, held("on", 0.2)) == pytest.approx(0.0, abs=1e-3)
    assert volt("out", *row, held("on", 3.0)) == pytest.approx(3.3, abs=0.01)


@pytest.mark.parametrize(("open_v", "amperes"), [(3.5, 0.2), (4.18, 0.2), (4.19, 0.0833)])
def test_a_charger_goes_from_constant_current_to_constant_volts(
    open_v: float, amperes: float
) -> None:
    """200 mA set; a cell of 4.19 V behind 0.1 ohm takes (4.2 - 4.19) / (0.1 + 0.02) A."""
    charger = Converter("in", "cell", "0", "in", 4.2, 4.0, 0.2, drop_ohm=0.3)
    row = held("in", 5.0), charger, Source("cell", "0", open_v, 0.1)
    found = solved(*row)
    wanted = min(amperes, (4.2 - open_v) / 0.12)
    assert -found.currents["converters"][0, 0, 1] == pytest.approx(wanted, rel=0.02)


def test_random_networks_keep_the_laws() -> None:
    """At every node of a thousand networks currents sum to nothing (Kirchhoff), nothing but a
    source gives power, and what sources give is what the rest takes (Tellegen).
    """
    for seed in range(1000, 2000):
        found = answers(some_network(seed), [Given()])
        assert found.sound.all(), seed
        given = 0.0
        for kind, amps in found.currents.items():
            for index, element in enumerate(getattr(found.made.network, kind)):
                volts = np.array([found.volt(node)[0] for node in nodes_of(element)])
                watts = float(amps[0, index] @ volts)
                given += watts
                if kind != "sources":
                    assert watts > -2e-5, (seed, element)
        leaked = 1e-9 * float((found.volts**2).sum())
        assert given + leaked == pytest.approx(0.0, abs=1e-4), seed


def test_an_answer_that_fails_its_own_sums_is_not_believed() -> None:
    found = solved(held("a", 5.0), Resistance("a", "b", 100.0), Resistance("b", "0", 100.0))
    wrong = Answers(found.made, found.values, found.volts * [1.0, 1.0, 1.01], found.found)
    assert not wrong.sound.any()
