"""Which way current goes through a part, written down for each kind from what it is."""

import pytest

from loquet.catalogue.bundled import parts
from loquet.core.circuit.backfeed import edges_of
from loquet.core.circuit.model import Component

# part, its pads, and every way in which current can go: from, to, and the net whose power turns it
# off
WAYS: dict[str, tuple[dict[str, str], set[tuple[str, str, str]]]] = {
    # anode to cathode, never back
    "diode-schottky-sod123": ({"1": "K", "2": "A"}, {("A", "K", "")}),
    # body diode of a P-channel transistor from drain to source; its channel from source to drain,
    # until its gate has power
    "transistor-pmos-sot23": ({"1": "G", "2": "S", "3": "D"}, {("D", "S", ""), ("S", "D", "G")}),
    "fuse-resettable-3216": ({"1": "A", "2": "B"}, {("A", "B", ""), ("B", "A", "")}),
    # its pass transistor has a body diode from output to input
    "regulator-linear-low": (
        {"1": "IN", "2": "GROUND", "3": "IN", "5": "OUT"},
        {("IN", "OUT", ""), ("OUT", "IN", "")},
    ),
    "ideal-diode-5": (
        {"1": "IN", "2": "GROUND", "3": "IN", "5": "OUT"},
        {("IN", "OUT", "")},
    ),
    # diodes from both lines to the supply
    "guard-array": (
        {"1": "P", "2": "GROUND", "3": "M", "4": "M", "5": "V", "6": "P"},
        {("P", "V", ""), ("M", "V", "")},
    ),
    # a charger lets nothing out of its cell; a resistor and a capacitor carry no supply
    "charger-linear": ({"2": "GROUND", "3": "CELL", "4": "IN", "5": "SET"}, set()),
    "resistor-1608": ({"1": "A", "2": "B"}, set()),
    "capacitor-1608": ({"1": "A", "2": "B"}, set()),
}


@pytest.mark.parametrize("part", WAYS)
def test_current_goes_as_the_part_lets_it(part: str) -> None:
    pads, expected = WAYS[part]
    component = Component(role="it", part=part, block="power", purpose="", pads=pads)
    found = {(e.start, e.end, e.gate) for e in edges_of(component, parts()[part])}
    assert found == expected


def test_a_transistor_whose_gate_is_at_ground_is_never_turned_off() -> None:
    pads = {"1": "GROUND", "2": "S", "3": "D"}
    guard = Component(role="it", part="transistor-pmos-sot23", block="power", purpose="", pads=pads)
    ways = edges_of(guard, parts()["transistor-pmos-sot23"])
    assert ("S", "D") in {(e.start, e.end) for e in ways}
    assert "G" not in {e.gate for e in ways}
