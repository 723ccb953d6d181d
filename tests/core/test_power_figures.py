"""Figures of the Power station worked out by hand for one small device: a chip of 8 mA and a light
of 2 mA on 1000 mAh of lithium.
"""

import numpy as np
import pytest

from loquet.catalogue.bundled import parts
from loquet.core.library import Library
from loquet.core.lookup.powering import power_of
from loquet.core.power.brain_currents import brain_ma
from loquet.core.power.converting import conversions
from loquet.core.power.discharge import open_v
from loquet.core.power.plan import PowerPlan
from loquet.core.provenance import Working
from tests.making import Plain, device, made, thing

CHIP, LIGHT = thing("chip", "chip", part="stm32l433rct6"), thing("light", "lamp", 30, 30)
CELL = thing("lithium-cell", "cell", 60, 30, far=True, capacity_mah=1000)


def plan_of(library: Library, *things: Plain) -> PowerPlan:
    return power_of(device(CHIP, *things), library)


def figure(plan: PowerPlan, name: str) -> Working:
    return next(w for w in plan.workings if w.id == name)


@pytest.fixture(scope="module")
def plan(library: Library) -> PowerPlan:
    return plan_of(library, LIGHT, CELL, thing("usb-charge", "plug"))


@pytest.mark.parametrize(
    ("mode", "value", "shown"),
    [
        ("play", 10.0, "10 mA"),
        ("idle", 4.0, "4.0 mA"),  # a quarter of the chip, the light stays on
        ("sleep", 0.004, "4.0 µA"),  # 0.0005 of the chip
        ("peak", 10.0, "10 mA"),
    ],
)
def test_a_rail_adds_up_in_every_mode(plan: PowerPlan, mode: str, value: float, shown: str) -> None:
    found = figure(plan, f"power.cell.{mode}")
    assert (found.value, found.shown) == (pytest.approx(value), shown)
    assert plan.rails[0].load.of(mode) == pytest.approx(value)
    # the linear regulator takes 4 µA more
    assert plan.sources[0].drawn.of(mode) == pytest.approx(value + 0.004)


def test_how_long_it_lasts(plan: PowerPlan) -> None:
    """It stops at 3.3 V and 0.25 V x 10 / 300; 3.3083 V and 1 mV inside are reached with 3.87 %
    left: 961 mAh / 10.004 mA.
    """
    found = figure(plan, "power.cell.run.play")
    assert found.value == pytest.approx(96.1, abs=0.1)
    assert found.shown == "4 days, 96 h"
    assert plan.sources[0].hours["play"] == pytest.approx(found.value, abs=0.001)
    idle = figure(plan, "power.cell.run.idle")
    # 3.3033 V with 3.8 % left: 962 mAh / 4.004 mA
    assert idle.value == pytest.approx(240.2, abs=0.3)
    assert set(plan.sources[0].hours) == {"play", "idle", "sleep"}


def test_hours_are_shown_as_hours_up_to_three_days(library: Library) -> None:
    """100 mAh: a tenth of 96.1 h."""
    small = plan_of(library, LIGHT, {**CELL, "capacity_mah": 100})
    assert figure(small, "power.cell.run.play").shown == "9.6 h"


def test_what_sags_what_warns_and_what_gets_hot(plan: PowerPlan) -> None:
    # 3.65 V with a fifth left, less 10 mA x 0.1 Ω
    assert figure(plan, "power.cell.sag").value == pytest.approx(3.649, abs=0.0005)
    # 15 minutes are 2.5 mAh: 4.12 % left is 3.329 V, half of it of 3.3 V in 4095 steps
    warning = figure(plan, "power.cell.warning")
    assert warning.value == pytest.approx(2065, abs=3)
    assert warning.shown.startswith("3.33 V, 206")
    assert [i.value for i in warning.inputs if i.name == "codes"] == ["4095"]
    # 4.2 V full: 0.9 V x 10 mA + 4.2 V x 4 µA = 9.02 mW at 200 K/W
    assert figure(plan, "power.cell.junction").value == pytest.approx(41.8, abs=0.01)
    # 4.7 µF, since a port sees it, from 3.7 V to 3.308 V at 37.0 mW
    held = figure(plan, "power.cell.hold_up")
    assert held.value == pytest.approx(174.3, abs=0.7)
    assert held.shown == "174 µs"
    # 280 mA leave the charger cool: next E24 above 1000 V / 280 mA is 3.6 kΩ; 1.3 x 1000 mAh / 278
    # mA
    assert figure(plan, "cell.charge").value == pytest.approx(277.8, abs=0.05)
    assert figure(plan, "cell.charge_time").value == pytest.approx(4.68)
    assert figure(plan, "cell.charge_time").shown == "4.7 h"


def test_without_a_port_nothing_is_charged_and_without_sense_nothing_warns(
    library: Library,
) -> None:
    bare = plan_of(library, LIGHT, {**CELL, "sense": False})
    ids = {w.id for w in bare.workings}
    assert not ids & {"cell.charge", "cell.charge_time", "power.cell.warning"}
    outside = {w.id for w in plan_of(library, LIGHT, thing("host-feed", "feed")).workings}
    assert "power.feed.hold_up" in outside
    assert not any(".run." in name or name.endswith(".sag") for name in outside)


def test_ways_side_by_side(plan: PowerPlan) -> None:
    """Regulator 14 and two capacitors of 4.5 cents; converter 92, two capacitors, coil 17 and two
    resistors of 0.8.
    """
    rows = {row.title: row for row in plan.ways}
    linear, both = rows["Linear regulator"], rows["Step-up and step-down"]
    assert (linear.price_cents, linear.parts, linear.taken, linear.recommended) == (
        *(23.0, 3, True, True),
    )
    assert (both.price_cents, both.parts, both.taken, both.recommended) == (
        *(119.6, 6, False, False),
    )
    assert [row.fits for row in plan.ways] == [True, False, False, False, False, True]
    # 33 mW / 0.9 at 3.7 V and less: lasts longer than 96.1 h, by less than 15 %
    assert both.hours is not None
    assert 96.1 < both.hours < 96.1 * 1.15
    assert linear.reason.startswith("lasts 96.1 h of ")


def test_a_rail_of_a_rail_loads_what_it_is_made_of(library: Library) -> None:
    """A light of 10 mA at 5 V: 50 mW / 0.88 / 3.3 V = 17.2 mA and 30 µA more on the first rail,
    beside the chip's 8 mA.
    """
    five = thing("converter", "five", gives_v=5.0)
    lamp = thing("light", "lamp", 30, 30, light_ma=10.0, rail="five")
    rails = {row.name: row for row in plan_of(library, thing("leads", "leads"), five, lamp).rails}
    assert rails["five"].load.play == 10.0
    assert rails["five"].drawn.play == pytest.approx(17.25, abs=0.01)
    assert rails["leads"].load.play == pytest.approx(25.25, abs=0.01)
    assert (rails["five"].parent, rails["leads"].parent) == ("leads", "")
    assert (rails["five"].way, rails["leads"].way) == ("Step-up converter", "is its source")


def test_cells_that_are_the_rail_themselves(library: Library) -> None:
    """Two AAA: the chip stops at 1.71 V, where the cells hold 1.8 V: 0.9 V a cell and 2.5 mV inside
    with 4.7 % left: 953 mAh / 10 mA.
    """
    plan = plan_of(library, LIGHT, thing("cells", "cells", 60, 30, far=True))
    (source,) = plan.sources
    assert (source.name, source.capacity_mah, source.stays) == ("cells", 1000.0, False)
    assert source.hours["play"] == pytest.approx(95.3, abs=0.3)
    assert (plan.ways, plan.rails[0].way, plan.rails[0].parent) == ((), "is its source", "")


def test_curves_of_cells() -> None:
    """Open-circuit volts of one cell, from memory of typical curves: full, nine tenths, half, a
    fifth, a tenth, a twentieth, empty.
    """
    left = np.array([1.0, 0.9, 0.7, 0.5, 0.3, 0.2, 0.1, 0.05, 0.0])
    lithium = open_v(made("lithium-cell").source(), left)
    assert lithium == pytest.approx([4.2, 4.1, 3.925, 3.8, 3.7, 3.65, 3.55, 3.4, 3.0])
    alkaline = open_v(made("cells", count=1).source(), left)
    assert alkaline == pytest.approx([1.6, 1.45, 1.325, 1.25, 1.17, 1.12, 1.02, 0.91, 0.8])
    coin = open_v(made("coin-cell").source(), left)
    assert coin == pytest.approx(
        [3.2, 2.98, 2.9514, 2.9229, 2.8943, 2.88, 2.75, 2.5, 2.0], abs=0.001
    )
    assert open_v(made("nine-volt").source(), 1.0) == pytest.approx(9.6)


def test_in_the_frost_a_cell_holds_less_and_gives_it_less_easily(library: Library) -> None:
    """Two AAA at 8 mA (the chip alone, 6.5 mA here): of 1000 mAh 650 can be drawn at 0 °C, so that
    the run is shorter by 35 % and a little for the inner resistance.
    """
    brief = device(thing("chip", "chip", part="stm32l051c8t6"), thing("cells", "cell"))
    figures = {w.id: w.value for w in power_of(brief, library).workings}
    warm, cold = figures["power.cell.run.play"], figures["power.cell.run.play.cold"]
    assert 0.62 < cold / warm < 0.65


def test_while_a_cell_is_charged_the_port_gives_both(library: Library) -> None:
    """A cell of 400 mAh is charged with half of it in an hour, 200 mA (a resistor of 5.1 kΩ: 196
    mA); a linear regulator passes the chip's 8 mA on.
    """
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("lithium-cell", "cell", capacity_mah=400, converter="linear"),
        thing("usb-charge", "plug"),
    )
    (rail,) = power_of(brief, library).rails
    assert rail.plugged is not None
    assert rail.plugged.port == "plug"
    assert rail.plugged.charge_ma == pytest.approx(196, abs=1)
    assert rail.plugged.play_ma == pytest.approx(8.0, abs=0.05)
    without = device(thing("chip", "chip", part="stm32l433rct6"), thing("lithium-cell", "cell"))
    assert [r.plugged for r in power_of(without, library).rails] == [None]


# Open-circuit volts of one cell at what is left of it; points of typical curves at 20 °C, from
# memory.
TYPICAL = {
    "lithium-cell": (
        *((0.0, 3.0), (0.05, 3.4), (0.1, 3.55), (0.2, 3.65)),
        *((0.4, 3.75), (0.6, 3.85), (0.8, 4.0), (1.0, 4.2)),
    ),
    "cells": (
        *((0.0, 0.8), (0.1, 1.02), (0.2, 1.12), (0.4, 1.22)),
        *((0.6, 1.28), (0.8, 1.37), (0.9, 1.45), (1.0, 1.6)),
    ),
    "coin-cell": ((0.0, 2.0), (0.05, 2.5), (0.1, 2.75), (0.2, 2.88), (0.9, 2.98), (1.0, 3.2)),
}


@pytest.mark.parametrize("kind", TYPICAL)
def test_a_cell_falls_along_its_typical_curve(kind: str) -> None:
    supply = made(kind).source()
    found = [float(open_v(supply, left)) / supply.in_series for left, _ in TYPICAL[kind]]
    assert found == pytest.approx([volts for _, volts in TYPICAL[kind]])


@pytest.mark.parametrize(
    ("part", "current"),
    [
        # full speed at 3.3 V with peripherals, from memory of the makers' data sheets
        *(
            ("stm32c011f6p6", 6),
            ("stm32f042k6t6", 20),
            ("stm32f103rbt6", 36),
            ("stm32f205rbt6", 50),
        ),
        *(("stm32f303cbt6", 45), ("stm32f405rgt6", 60), ("stm32f722ret6", 120)),
        *(
            ("stm32g031k8t6", 8),
            ("stm32g431kbt6", 30),
            ("stm32h503rbt6", 60),
            ("stm32h743vit6", 150),
        ),
        *(
            ("stm32l051c8t6", 6.5),
            ("stm32l151rbt6", 10),
            ("stm32l433rct6", 8),
            ("stm32l552ret6", 11),
        ),
        *(("stm32u083rct6", 4), ("stm32u575rit6", 14), ("stm32wb55rgv6", 9), ("stm32wle5jci6", 7)),
        *(("nrf52840-qiaa", 6), ("nrf5340-qkaa", 8), ("atmega168pa-au", 9), ("samd21g18a-au", 7)),
        *(("fellbeck-c20", 25), ("fellbeck-h28", 7), ("nobody-knows", 8)),
    ],
)
def test_what_a_brain_draws_at_full_speed(part: str, current: float) -> None:
    assert brain_ma(part)[0] == current
    assert "from memory" in brain_ma(part)[1]


@pytest.mark.parametrize(
    ("light_ma", "shown"), [(0.05, "50 µA"), (0.09, "90 µA"), (0.11, "0.1 mA"), (12.0, "12 mA")]
)
def test_currents_are_shown_in_the_unit_that_fits(
    light_ma: float, shown: str, library: Library
) -> None:
    """Below 0.1 mA in µA; ten and more without a decimal."""
    brief = device(thing("leads", "leads"), thing("light", "lamp", light_ma=light_ma))
    figures = {w.id: w.shown for w in power_of(brief, library).workings}
    assert figures["power.leads.peak"] == shown


def test_a_run_time_follows_from_what_is_shown_beside_it(library: Library) -> None:
    """Its capacity, the share that is used and the mean current: hours are C x share / I."""
    brief = device(thing("chip", "chip"), thing("cells", "cell"))
    figures = {w.id: w for w in power_of(brief, library).workings}
    run = figures["power.cell.run.play"]
    shown = {row.name: float(row.value) for row in run.inputs}
    assert shown["I"] == pytest.approx(6.5, rel=0.01)
    assert run.value == pytest.approx(shown["C"] * shown["share"] / shown["I"], rel=1e-3)


def test_a_sag_follows_from_what_is_shown_beside_it(library: Library) -> None:
    """The open volts less the current in ampere times the inner resistance in ohm."""
    brief = device(thing("chip", "chip"), thing("cells", "cell"), thing("buzzer", "horn"))
    sag = next(w for w in power_of(brief, library).workings if w.id == "power.cell.sag")
    shown = {row.name: float(row.value) for row in sag.inputs}
    # 6.5 mA and 3.0 V / 42 Ω
    assert shown["I"] == pytest.approx(0.0065 + 3.0 / 42, rel=1e-3)
    assert sag.value == pytest.approx(shown["Vopen"] - shown["I"] * shown["R"], abs=1e-4)


@pytest.mark.parametrize(("load_ma", "why"), [(400, ""), (600, "would have to carry 1136 mA")])
def test_a_step_up_converter_carries_more_than_its_rail_gives(load_ma: float, why: str) -> None:
    """5 V x 0.6 A / 0.88 / 3.0 V = 1.14 A in its switch, which carries 1 A; 0.4 A are 0.76 A."""
    supply = made("lithium-cell").source()
    ways = {c.way.name: c for c in conversions(parts(), supply, 5.0, load_ma)}
    assert ways["boost"].fits == (not why)
    assert why in ways["boost"].why_not


def test_two_sources_with_rails_of_their_own_have_nothing_before_them(library: Library) -> None:
    brief = device(thing("chip", "chip"), thing("nine-volt", "block"), thing("barrel-jack", "jack"))
    plan = power_of(brief, library)
    assert [(r.name, r.parent, r.fed_by) for r in plan.rails] == [
        ("block", "", "block"),
        ("jack", "", "jack"),
    ]
    assert [s.name for s in plan.sources] == ["block", "jack"]
