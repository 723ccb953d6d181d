"""Forty devices with one fault put into each (bridged, missing, turned, weak, on another net): the
rule that ought to finds it, and says nothing of the device without it. What a fault does is Ohm's
law and the parts' own limits; the faults are chosen by hand.
"""

from collections.abc import Callable
from functools import cache

import pytest

from loquet.core.brief import Brief
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.circuit import Circuit, Component
from tests.core.benches import seen_with
from tests.making import Plain, device, thing

Change = Callable[[Component], Component | None]
CHIP = thing("chip", "chip", part="stm32l433rct6")
FIVE = thing("converter", "five", gives_v=5.0)
CELL = thing("lithium-cell", "cell", 60, 30, far=True)
JACK = thing("barrel-jack", "jack", adapter_v=9.0)
LEADS = thing("leads", "leads", volts=5.0, gives_ma=3000)
THREE = {**CHIP, "rail": "three"}, LEADS, thing("converter", "three", gives_v=3.3)


def of(*things: Plain) -> Brief:
    return device(*things)


POUCH = of(CHIP, CELL, thing("usb-device", "usb"), thing("power-switch", "off", 60, 50))
ROUND = of(CHIP, {**CELL, "holder": True}, thing("usb-charge", "plug"))
CELLS = of(CHIP, thing("cells", "cell", 60, 30, far=True))
LATCHED = of(CHIP, thing("cells", "cell", 60, 30, far=True), thing("power-button", "go", 40, 40))
ADAPTER = of(
    CHIP,
    JACK,
    FIVE,
    thing("light-chain", "ring", 80, 40, count=4, rail="five"),
    thing("usb-downstream", "outlet", rail="five"),
)
BOTH = of(CHIP, thing("nine-volt", "block"), {**JACK, "rail": "block"})
APART = of(CHIP, {**JACK, "adapter_v": 5.0}, thing("host-feed", "feed"))
WIRES = of(*THREE)
DARK = of(
    *THREE,
    thing("load-switch", "dark", rail="three"),
    thing("memory-card", "it", rail="dark"),
)
LIVE = of(*THREE, thing("motion", "level", rail="three"))
STICK = of(*THREE, thing("stick", "axis", 30, 30, supply="5 V"))
PULL = of(*THREE, thing("trigger", "axis", 30, 30, supply="5 V"))
LOUD = of(*THREE, thing("speaker", "it", rail="three"))
CARD = of(*THREE, thing("memory-card", "it", rail="three"))
PORT12 = of(CHIP, thing("usb-charge", "plug", feeds=True, asks="12 V"))
LIT = of(CHIP, LEADS, FIVE, thing("light-chain", "ring", 80, 40, count=4, rail="leads"))


def bridged(one: str, other: str) -> Change:
    """A part is a piece of wire between two of its pads."""

    def change(c: Component) -> Component:
        pads = {"1": c.pads[one], "2": c.pads[other]}
        return c.model_copy(update={"part": "resistor-1608", "value": "100 mΩ", "pads": pads})

    return change


def missing(_: Component) -> None:
    """A part was not fitted."""


def turned(c: Component) -> Component:
    """A part sits the wrong way round: its first two pads are exchanged."""
    one, other, *_ = c.pads
    pads = {**c.pads, one: c.pads[other], other: c.pads[one]}
    return c.model_copy(update={"pads": pads})


def instead(part: str) -> Change:
    """Another part of the same outline was fitted."""
    return lambda c: c.model_copy(update={"part": part})


def valued(value: str) -> Change:
    """A part of another value was fitted."""
    return lambda c: c.model_copy(update={"value": value})


def wired(pad: str, net: str) -> Change:
    """A pad lies on another net."""
    return lambda c: c.model_copy(update={"pads": {**c.pads, pad: net}})


FAULTS: dict[str, tuple[Brief, str, Change, str]] = {
    # put in the wrong way
    "no guard of two cells": (CELLS, "reverse guard", bridged("2", "3"), "put-in-wrong"),
    "no guard behind a latch": (LATCHED, "reverse guard", bridged("2", "3"), "put-in-wrong"),
    "no guard of wires": (WIRES, "leads reverse guard", bridged("2", "3"), "put-in-wrong"),
    "no guard of an adapter": (ADAPTER, "jack reverse guard", bridged("2", "3"), "put-in-wrong"),
    "a round cell straight onto its charger": (
        ROUND,
        "cell turned guard",
        bridged("2", "3"),
        "put-in-wrong",
    ),
    "a guard that is turned round": (CELLS, "reverse guard", wired("3", "SUPPLY"), "rail-source"),
    # one source into another
    "the diode of the path": (POUCH, "cell path diode", bridged("1", "2"), "back-feed"),
    "the diode of the path of a round cell": (
        ROUND,
        "cell path diode",
        bridged("1", "2"),
        "back-feed",
    ),
    "the diode of a block beside a jack": (BOTH, "block one way", bridged("1", "2"), "back-feed"),
    "the diode of a jack beside a block": (BOTH, "jack one way", bridged("1", "2"), "back-feed"),
    "the gate of a path at ground": (POUCH, "cell path", wired("1", "GROUND"), "back-feed"),
    "two converters on one rail": (APART, "feed converter", wired("5", "SUPPLY"), "back-feed"),
    # pins above what they take
    "a stick without its divider": (STICK, "divider upper stick:axis:x", valued("1 Ω"), "levels"),
    "a trigger without its divider": (
        PULL,
        "divider upper trigger:axis:pull",
        valued("1 Ω"),
        "levels",
    ),
    "a bus pulled to 5 V": (LIVE, "bus data", wired("1", "SUPPLY"), "levels"),
    "an alert line pulled to 5 V": (LIVE, "sensor:level hold", wired("1", "SUPPLY"), "levels"),
    # lines that are never high
    "a mute line at an amplifier on 5 V": (
        LOUD,
        "speaker:it amplifier",
        wired("6", "SUPPLY"),
        "levels-up",
    ),
    # parts that are off, and fed
    "a line pulled to a rail that stays on": (
        DARK,
        "link:it hold select",
        wired("1", "SUPPLY_THREE"),
        "dark-lines",
    ),
    "an idle line pulled to 5 V": (DARK, "link:it hold idle 1", wired("1", "SUPPLY"), "dark-lines"),
    # too much current
    "a fuse for a tenth": (POUCH, "link:usb fuse", valued("0.05 A"), "part-current"),
    "a port's fuse for a tenth": (PORT12, "charge:plug fuse", valued("0.005 A"), "part-current"),
    # too many volts
    "a capacitor for 10 V at 12 V": (
        PORT12,
        "charge:plug converter input",
        instead("capacitor-2012"),
        "part-rating",
    ),
    "a transistor for 12 V at 12.6 V": (
        PORT12,
        "charge:plug volts switch",
        instead("transistor-pmos-sot23"),
        "part-rating",
    ),
    "a gate for 8 V at 9 V": (
        ADAPTER,
        "jack reverse guard",
        instead("transistor-pmos-sot23"),
        "part-rating",
    ),
    "a guard that two cells do not open": (
        CELLS,
        "reverse guard",
        instead("transistor-pmos-30v"),
        "part-rating",
    ),
    "a latch that two cells do not open": (
        LATCHED,
        "power button:go latch",
        instead("transistor-pmos-30v"),
        "part-rating",
    ),
    # supplies off their volts
    "a divider that makes 4.9 V of 3.3": (
        ADAPTER,
        "jack converter upper",
        valued("160 kΩ"),
        "part-supply",
    ),
    "a divider that makes 1.3 V of 3.3": (
        ADAPTER,
        "jack converter upper",
        valued("22 kΩ"),
        "part-supply",
    ),
    "an upper resistor that is missing": (
        ADAPTER,
        "jack converter upper",
        missing,
        "part-supply",
    ),
    "a lower resistor that is missing": (ADAPTER, "jack converter lower", missing, "part-supply"),
    "a card on 5 V": (CARD, "link:it", wired("4", "SUPPLY"), "part-supply"),
    "a motion sensor on 5 V": (LIVE, "converter:three converter", bridged("1", "5"), "part-supply"),
    # off, and still drawn from: a divider of 200 kΩ at 3.7 V, and the regulator before it
    "a switch that is bridged": (POUCH, "switch:off", bridged("2", "3"), "off-means-off"),
    # nothing feeds it
    "no regulator": (WIRES, "converter:three converter", missing, "rail-source"),
    "no coil": (ADAPTER, "jack converter coil", missing, "rail-source"),
    "no switch": (POUCH, "switch:off", missing, "rail-source"),
    "no latch": (LATCHED, "power button:go latch", missing, "rail-source"),
    "no path": (ROUND, "cell path", missing, "rail-source"),
    "no fuse of a port": (ADAPTER, "downstream:outlet fuse", missing, "rail-source"),
    "no load switch": (DARK, "switched:dark", missing, "dark-lines"),
    "no guard at all": (WIRES, "leads reverse guard", missing, "rail-source"),
    "a cell that is turned in its row": (CELLS, "cell:2", turned, "rail-source"),
}


def findings(rule: str, brief: Brief, role: str = "", change: Change = missing) -> list[str]:
    """What a rule says of a device, with a part changed."""
    seen = seen_with(brief)
    circuit = seen.circuit
    assert circuit is not None
    if role:
        assert any(c.role == role for c in circuit.components), [c.role for c in circuit.components]
    rows = [change(c) if c.role == role else c for c in circuit.components]
    made: Circuit = circuit.model_copy(
        update={"components": tuple(c for c in rows if c is not None)}
    )
    one = next(r for r in RULES if r.id == rule)
    subject = Subject(
        brief, seen.choices, seen.house, seen.library, brains=seen.brains, circuit=made
    )
    found = findings_of([(one, one.run(subject))])
    return [f.sentence for f in found if f.severity != "note"]


@cache
def quiet(rule: str, brief: Brief) -> bool:
    """Whether a rule says nothing of a device without a fault."""
    return findings(rule, brief) == []


@pytest.mark.parametrize("name", FAULTS)
def test_a_fault_is_found_by_its_rule_and_none_where_there_is_none(name: str) -> None:
    brief, role, change, rule = FAULTS[name]
    assert quiet(rule, brief)
    assert findings(rule, brief, role, change) != []
