"""What parts in the way of power carry, added up by hand, and the stops that follow."""

from dataclasses import replace

import pytest

from loquet.core.brief import Brief
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Outcome
from loquet.core.checks.switched_on import carried_by
from loquet.core.circuit.assembling import assemble
from loquet.core.library import Library
from loquet.core.power.charging import held_ma, real_ma
from loquet.core.provenance import Failed, Passed
from tests.core.benches import bench_for, seen_with
from tests.making import device, made, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")


def lit(count: int, **switch: str) -> Brief:
    """So many lights of 60 mA (three colours of 20 mA; from memory) and a chip of 8 mA on leads of
    5 V, behind a slide switch.
    """
    ring = thing("light-chain", "ring", 80, 40, count=count, rail="leads")
    leads = thing("leads", "leads", volts=5.0, gives_ma=5000)
    switched = thing("power-switch", "on", 20, 50, **switch)
    return device(CHIP, leads, ring, thing("converter", "three", gives_v=3.3), switched)


def outcome_of(rule: str, brief: Brief) -> Outcome:
    return next(r for r in RULES if r.id == rule).run(seen_with(brief))


def test_currents_add_up_along_the_way(library: Library) -> None:
    """10 x 60 mA + 8 mA pass the leads, their guard and the switch; 600 of them the plug of the
    lights; the second rail carries nothing.
    """
    seen = seen_with(lit(10))
    assert seen.circuit is not None
    found = carried_by(seen)
    purposes = {c.ref: c.part for c in seen.circuit.components}
    way = ("lead-pads", "transistor-pmos-sot23", "switch-slide-surface", "wire-plug-2.5-3")
    assert {
        purposes[ref]: ma for ref, ma in found.parts.items() if purposes[ref] in way
    } == pytest.approx(dict(zip(way, (608, 608, 608, 600), strict=True)), rel=3e-3)
    wanted = {"LEADS_TOP": 608, "LEADS_GUARDED": 608, "SUPPLY": 608, "SUPPLY_THREE": 0}
    assert {net: found.nets[net] for net in wanted} == pytest.approx(wanted, rel=3e-3, abs=0.1)


def test_a_line_counts_where_it_carries_much_and_ground_never() -> None:
    """A sounder of 42 ohm at 3.3 V: less than 79 mA through its transistor; a light of 10 mA at a
    pin has a line like any other.
    """
    two = thing("cells", "cell", 60, 30, far=True), thing("light", "lamp", 20, 20)
    nets = carried_by(seen_with(device(CHIP, *two, thing("buzzer", "horn")))).nets
    assert 50 < nets["BUZZER_HORN_LOW"] < 3300 / 42
    assert {"GROUND", "LIGHT_LAMP_DRIVE", "BUZZER_HORN_DRIVE"} & nets.keys() == set()
    assert nets["SUPPLY"] > nets["BUZZER_HORN_LOW"]


def test_a_switch_is_not_asked_for_more_than_its_contacts_take() -> None:
    """Contacts of 300 mA: 4 lights (248 mA) pass, 5 (308 mA) do not; a switch of 1 A is offered,
    and takes them.
    """
    assert isinstance(outcome_of("part-current", lit(4)), Passed)
    failed = outcome_of("part-current", lit(5))
    assert isinstance(failed, Failed)
    (finding,) = failed.findings
    assert finding.severity == "stop"
    assert "carries 308 mA, and is made for 300 mA" in finding.sentence
    (repair,) = finding.repairs
    assert repair.edit["changes"] == {"part": "switch-slide-1a"}
    assert isinstance(outcome_of("part-current", lit(5, part="switch-slide-1a")), Passed)


def test_a_hot_charger_holds_its_current_back(library: Library) -> None:
    """110 °C less 40 °C over 190 K/W are 368 mW, and from 5.0 V to 3.7 V 283 mA: 200 mA flow as
    set, of 500 mA 283 do, and that is said.
    """
    charger = library.parts["charger-linear"]
    assert held_ma(charger) == pytest.approx(283, abs=1)
    assert real_ma(made("lithium-cell", charge_ma=200), charger) == pytest.approx(200, rel=0.05)
    assert real_ma(made("lithium-cell", charge_ma=500), charger) == pytest.approx(283, abs=1)
    port = thing("usb-device", "usb", asks="1.5 A")

    def charged(wanted: int) -> Outcome:
        cell = thing("lithium-cell", "cell", 60, 30, far=True, charge_ma=wanted)
        return outcome_of("charger-heat", device(CHIP, port, cell))

    assert isinstance(charged(250), Passed)
    assert isinstance(charged(500), Failed)


def test_nobody_is_told_what_leads_give() -> None:
    """Without a figure it is a question, not a pass; with one it is compared."""
    said = outcome_of("power-budget", lit(10))
    assert isinstance(said, Passed)
    unsaid = outcome_of("power-budget", device(CHIP, thing("leads", "leads")))
    assert isinstance(unsaid, Failed)
    assert "Nobody has said how much the source behind leads gives" in unsaid.findings[0].sentence
    assert unsaid.findings[0].severity == "look"


def test_a_latch_above_the_gate_s_limit_sees_half_the_volts() -> None:
    """A block of 9.6 V: two equal resistors leave the gate half of it, 4.8 of the 8 V that it
    takes.
    """
    brief = device(CHIP, thing("nine-volt", "block"), thing("power-button", "on", 40, 40))
    bench = bench_for(brief)
    few = {name: part for name, part in bench.parts.items() if name != "transistor-pmos-30v"}
    circuit = assemble(replace(bench, parts=few))
    (latch,) = (c for c in circuit.components if c.role.endswith(" latch"))
    gate = latch.pads["1"]
    beside = [c for c in circuit.components if gate in c.pads.values() and c is not latch]
    assert [(c.part, c.value) for c in beside] == [("resistor-1608", "100 kΩ")] * 2
    assert latch.pads["2"] in {n for c in beside for n in c.pads.values()}
