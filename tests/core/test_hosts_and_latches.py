"""Host computers, their headers, the soft latch, round cells and lifted lines: netlists written out
by hand, and what they are checked for (K33, and levels).
"""

from dataclasses import replace
from typing import Any

import pytest

from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Choices
from loquet.core.library import Library
from tests.core.benches import bench_for, seen_with
from tests.core.netlists import netlist, written
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
LITHIUM = thing("lithium-cell", "cell", 60, 30, far=True)
BUTTON = thing("power-button", "on")
FIVE = thing("converter", "five", gives_v=5.0)


def findings(rule: str, library: Library, *things: Plain) -> list[str]:
    """The sentences of one rule about a device and its circuit."""
    brief = device(*things)
    one = next(r for r in RULES if r.id == rule)
    seen = (
        seen_with(brief)
        if "circuit" in one.needs
        else Subject(brief, Choices(), library.house(Choices().house), library)
    )
    return [f.sentence for f in findings_of([(one, one.run(seen))])]


def test_a_soft_latch_is_opened_by_the_button_and_held_by_the_brain() -> None:
    """High-side P-channel latch, common practice: source at the cell, gate held at the source by
    100 kΩ, pulled down by the button through a diode or by an NPN transistor that the brain
    drives; a second diode lets the brain read the button. Pads: P-channel 1 gate, 2 source, 3
    drain; NPN 1 base, 2 emitter, 3 collector; diode 1 cathode.
    """
    assert netlist(device(CHIP, LITHIUM, BUTTON), "on") == written("""
    transistor-pmos-sot23 P-channel: 1=POWER_BUTTON_ON_GATE 2=CELL_GUARDED 3=CELL_IN
    resistor-1608 100 kΩ: 1=CELL_GUARDED 2=POWER_BUTTON_ON_GATE   # off while nobody holds it
    button-6x6-surface on and off: 1=POWER_BUTTON_ON_KEY 4=GROUND
    diode-sod123 100 V: 1=POWER_BUTTON_ON_KEY 2=POWER_BUTTON_ON_GATE
    diode-sod123 100 V: 1=POWER_BUTTON_ON_KEY 2=POWER_BUTTON_ON_PRESSED
    transistor-npn-sot23 NPN: 1=POWER_BUTTON_ON_BASE 2=GROUND 3=POWER_BUTTON_ON_GATE
    resistor-1608 10 kΩ: 1=POWER_BUTTON_ON_HOLD 2=POWER_BUTTON_ON_BASE
    resistor-1608 100 kΩ: 1=POWER_BUTTON_ON_BASE 2=GROUND   # lets go in reset
    """)


def test_a_latch_stands_where_a_switch_would_and_not_before_high_sources() -> None:
    """A jack with an adapter of 12 V and its 5 % is more than a transistor of 12 V takes; one of 30
    V stands it.
    """
    cells = device(CHIP, thing("cells", "cell"), thing("power-button", "power button"))
    latch = next(c for c in assemble(bench_for(cells)).components if c.role == "power button latch")
    assert latch.pads == {"1": "POWER_BUTTON_GATE", "2": "GUARDED", "3": "SUPPLY"}
    bench = bench_for(device(CHIP, thing("barrel-jack", "jack", adapter_v=12.0), BUTTON))
    latch = next(c for c in assemble(bench).components if c.role.endswith(" latch"))
    assert latch.part == "transistor-pmos-30v"
    few = {name: part for name, part in bench.parts.items() if name != latch.part}
    with pytest.raises(RecipeNotPossible, match="12.6 V are more than any transistor"):
        assemble(replace(bench, parts=few))
    with pytest.raises(RecipeNotPossible, match="nothing that it could switch"):
        netlist(device(CHIP, BUTTON), "on")


def test_a_round_cell_sits_in_its_holder() -> None:
    lines = netlist(device(CHIP, thing("lithium-cell", "cell", holder=True, sense=False)), "cell")
    assert "holder-18650 lithium cell 1000 mAh: 1=CELL_TOP 2=GROUND" in lines
    assert not any(line.startswith("wire-plug") for line in lines)


def test_a_host_on_its_own_plug_brings_the_rail(library: Library) -> None:
    """Ways of the host: 1 and 9 give 3.3 V; 39 and 40 are its 5 V; 5, 13, 20, 24, 29, 33 and 38
    ground (its drawing, invented).
    """
    brief = device(thing("host-computer", "host"), thing("light", "light"))
    host, bulk = (c for c in assemble(bench_for(brief)).components if c.thing == "host")
    by_net: dict[str, list[str]] = {}
    for pad, net in host.pads.items():
        by_net.setdefault(net, []).append(pad)
    assert by_net["SUPPLY"] == ["1", "9"]
    assert by_net["HOST_5V"] == ["39", "40"]
    assert by_net["GROUND"] == ["5", "13", "20", "24", "29", "33", "38"]
    assert set(by_net) == {"SUPPLY", "HOST_5V", "GROUND", "LIGHT_DRIVE"}
    assert (bulk.value, bulk.pads) == ("10 µF", {"1": "HOST_5V", "2": "GROUND"})
    assert (
        findings("rail-source", library, thing("host-computer", "host"), thing("light", "light"))
        == []
    )


def test_a_host_fed_by_the_board_takes_5_v_and_gives_nothing(library: Library) -> None:
    fed = thing("host-computer", "host", power="the board", rail="five", draws_ma=250)
    lines = netlist(device(LITHIUM | {"sense": False}, FIVE, fed), "host")
    host = next(line for line in lines if line.startswith("chip:"))
    assert " 39=SUPPLY_FIVE 40=SUPPLY_FIVE" in host
    assert " 1=" not in host.replace("chip:fellbeck-s40 fellbeck-s40:", "")
    low = thing("host-computer", "host", power="the board", draws_ma=250)
    with pytest.raises(RecipeNotPossible, match=r"gives 3\.3 V, and it takes 4\.75 V or more"):
        netlist(device(LITHIUM | {"sense": False}, low), "host")


@pytest.mark.parametrize(
    ("fields", "line"),
    [
        (
            {"ways": 6, "lines": 2},
            (
                "posts-two-6 it: 1=GROUND 2=GROUND 3=HOST_HEADER_IT_1 4=HOST_HEADER_IT_2 5=GROUND"
                " 6=GROUND"
            ),
        ),
        (
            {"ways": 4, "lines": 1, "feeds": True},
            "posts-two-4 it: 1=HOST_HEADER_IT_TOP 2=GROUND 3=HOST_HEADER_IT_1 4=GROUND",
        ),
    ],
)
def test_a_host_header_carries_lines_and_may_feed(fields: dict[str, Any], line: str) -> None:
    feeds = bool(fields.get("feeds"))
    source = () if feeds else (thing("leads", "leads"),)
    lines = netlist(device(CHIP, *source, thing("host-header", "it", **fields)), "it")
    assert line in lines
    assert (len(lines) > 1) == feeds


def test_more_lines_than_ways_are_refused() -> None:
    with pytest.raises(Exception, match="6 ways carry 4 lines beside 5 V and ground"):
        device(CHIP, thing("host-header", "it", ways=6, lines=5))


HOST = thing("host-computer", "host", power="the board", rail="five")
BLIND = LITHIUM | {"sense": False}
GAUGE = thing("gauge", "gauge")
SLIDE = thing("power-switch", "slide")


def test_k33_a_computer_that_is_cut_with_files_open(library: Library) -> None:
    slide = findings("shut-down", library, BLIND, FIVE, HOST, GAUGE, SLIDE)
    assert slide == ["slide cuts the power of host while files may be open."]
    none = findings("shut-down", library, BLIND, FIVE, HOST, GAUGE)
    assert none == ["Nothing turns host off but pulling its source while files may be open."]
    deaf = findings("shut-down", library, BLIND, FIVE, HOST, BUTTON)
    assert deaf == ["host is fed by cell and does not hear that it runs low."]
    assert findings("shut-down", library, BLIND, FIVE, HOST, BUTTON, GAUGE) == []
    assert findings("shut-down", library, LITHIUM, FIVE, HOST, BUTTON) == []
    # from outside nothing runs low; on its own plug the host is nobody's business here
    jack = thing("barrel-jack", "jack", adapter_v=9.0)
    assert findings("shut-down", library, jack, FIVE, HOST, BUTTON) == []
    assert findings("shut-down", library, thing("host-computer", "host"), SLIDE) == []
    lasting = {**HOST, "keeps_files": False}
    assert findings("shut-down", library, BLIND, FIVE, lasting, SLIDE) == []


JACK = thing("barrel-jack", "jack", gives_v=5.0, adapter_v=9.0)
LOGIC = thing("converter", "logic", gives_v=3.3)
LOW_CHIP = CHIP | {"rail": "logic"}


def test_lights_on_a_higher_rail_get_their_line_lifted(library: Library) -> None:
    """5 V inputs ask 0.7 x 5 = 3.5 V, and a chip at 3.3 V drives 2.9 V; the buffer takes 2.0 V for
    high (JESD8C).
    """
    lights = thing("light-chain", "it", count=2)
    assert netlist(device(LOW_CHIP, JACK, LOGIC, lights), "it") == written("""
    wire-plug-2.5-3 it: 1=SUPPLY 2=LIGHTS_IT_CHAIN_PLUG 3=GROUND
    buffer-lifting single buffer with low input thresholds: 1=GROUND 2=LIGHTS_IT_CHAIN 3=GROUND
        4=LIGHTS_IT_CHAIN_HIGH 5=SUPPLY
    capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
    resistor-1608 330 Ω: 1=LIGHTS_IT_CHAIN_HIGH 2=LIGHTS_IT_CHAIN_PLUG
    capacitor-2012 22 µF: 1=SUPPLY 2=GROUND
    """)
    plain = netlist(device(CHIP, thing("leads", "leads"), lights), "it")
    assert not any(line.startswith("buffer") for line in plain)
    assert findings("levels-up", library, LOW_CHIP, JACK, LOGIC, lights) == []


def test_a_line_that_is_too_low_for_its_part_is_found(library: Library) -> None:
    """A speaker and a memory card on 5 V, driven from 3.3 V: mute and the card's inputs ask 3.5
    V.
    """
    speaker = thing("speaker", "it")
    (said,) = findings("levels-up", library, LOW_CHIP, JACK, LOGIC, speaker)
    assert said.endswith(
        "U1 (Microcontroller) drives SPEAKER_IT_MUTE to 3.3 V, and U4 (Amplifier of the speaker) "
        "takes 3.5 V and more for high."
    )
    card = thing("memory-card", "it")
    low = findings("levels-up", library, LOW_CHIP, JACK, LOGIC, card)
    assert sorted(line.split(" drives ")[1].split(" to ")[0] for line in low) == [
        "LINK_IT_CLOCK",
        "LINK_IT_SELECT",
        "LINK_IT_TO_CARD",
    ]
    for fed in (speaker, card):
        assert findings("levels-up", library, LOW_CHIP, JACK, LOGIC, fed | {"rail": "logic"}) == []


def test_axes_past_the_fourth_go_to_a_second_converter() -> None:
    """Four channels each; the second converter has its address pin at the rail, and what is left
    over lies at ground.
    """
    sticks = tuple(thing("stick", f"s{i}", press=False) for i in range(3))
    brief = device(CHIP, thing("leads", "leads"), *sticks, analogue_by="converter")
    one, two = (c for c in assemble(bench_for(brief)).components if c.part == "converter-4")
    channels = [[c.pads[pad] for pad in "4567"] for c in (one, two)]
    assert channels == [
        ["STICK_S0_X", "STICK_S0_Y", "STICK_S1_X", "STICK_S1_Y"],
        ["STICK_S2_X", "STICK_S2_Y", "GROUND", "GROUND"],
    ]
    assert (one.pads["1"], two.pads["1"]) == ("GROUND", "SUPPLY")


FED = thing("host-computer", "host", power="the board", rail="five", draws_ma=250)


def test_what_hangs_on_a_host_lives_on_its_lines_and_not_on_its_supply() -> None:
    """A host fed with 5 V has lines of 3.3 V: its expanders and the pull-ups of its bus take the
    3.3 V rail.
    """
    keys = tuple(thing("button", f"k{i}") for i in range(4))
    more: dict[str, Any] = {"key_scheme": {"name": "expander 8"}}
    made = assemble(bench_for(device(BLIND, FIVE, FED, *keys, **more))).components
    expander = next(c for c in made if c.part == "expander-8")
    assert expander.pads["16"] == "SUPPLY"
    pulls = {
        net for c in made if c.purpose.startswith("Pull-up of the bus") for net in c.pads.values()
    }
    assert pulls == {"SUPPLY", "BUS_CLOCK", "BUS_DATA"}
    high = thing("barrel-jack", "five", gives_v=5.0, adapter_v=9.0)
    with pytest.raises(RecipeNotPossible, match=r"its lines live on 3\.3 V, and no rail has that"):
        assemble(bench_for(device(high, FED, *keys, **more)))


def test_the_lines_of_a_module_live_on_the_rail_that_it_makes() -> None:
    """Its ladder is read against its own volts."""
    keys = tuple(thing("button", f"k{i}") for i in range(3))
    module = thing("ready-module", "module", part="fellbeck-c20")
    ladder: dict[str, Any] = {"key_scheme": {"name": "resistor ladder"}}
    made = assemble(bench_for(device(module, thing("cells", "cell"), *keys, **ladder))).components
    top = next(c for c in made if c.role == "key ladder 1 pull-up")
    assert top.pads["1"] == "SUPPLY_MODULE"


def test_5_v_into_a_line_of_a_host_is_found(library: Library) -> None:
    """A voltage sensor on 5 V drives its output up to 5 V; the host takes 5 V at its supply, and
    3.3 V at its lines.
    """
    chip = next(r for r in RULES if r.id == "levels")
    sensor = thing("trigger", "pull", supply="5 V")
    brief = device(BLIND, FIVE, FED, sensor, analogue_by="converter")
    made = assemble(bench_for(brief))
    line = next(
        net
        for c in made.components
        if c.role == "host"
        for net in c.pads.values()
        if net.startswith("BUS")
    )
    wired = tuple(
        c.model_copy(update={"pads": {**c.pads, "2": line}}) if c.part == "trigger-magnetic" else c
        for c in made.components
    )
    seen = seen_with(brief, circuit=made.model_copy(update={"components": wired}))
    hits = [f for f in findings_of([(chip, chip.run(seen))]) if f"net:{line}" in f.about]
    assert all(f"drives {line} up to 5.0 V" in f.sentence for f in hits)
    assert {f.severity for f in hits} == {"stop"}
