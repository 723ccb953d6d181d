"""Each recipe on its own: what it makes, what it works out, and where it refuses."""

from dataclasses import replace

import pytest

from loquet.catalogue.bundled import part
from loquet.catalogue.chips import find_chip
from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief, brief_from_plain
from loquet.core.circuit import Component, RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.circuit.two_wire import pull_up_value
from loquet.core.parts import Part, PartError
from tests.core.benches import bench_for
from tests.making import plain_of, thing, varied


def circuit_of(brief: Brief, parts: dict[str, Part] | None = None) -> dict[str, Component]:
    """Components by role; a part may be another one than the catalogue's."""
    bench = bench_for(brief)
    bench = replace(bench, parts={**bench.parts, **(parts or {})})
    return {c.role: c for c in assemble(bench).components}


def test_too_much_capacitance_for_the_speed_is_refused(brief: Brief) -> None:
    ports = tuple(thing("spare-bus", f"port {i}") for i in range(9))
    heavy = varied(brief, plus=ports)
    with pytest.raises(RecipeNotPossible) as caught:
        pull_up_value(heavy.thing("screen"), bench_for(heavy))
    assert "400 kHz" in caught.value.limit
    assert "100 kHz" in caught.value.nearest
    slow = varied(brief, plus=ports, things={"screen": {"bus_khz": 100}})
    assert pull_up_value(slow.thing("screen"), bench_for(slow))[0] > 0


@pytest.mark.parametrize(("coil_ohm", "said"), [(8.0, "draws 375 mA"), (16.0, "of a pin")])
def test_a_coil_that_asks_too_much_is_refused(brief: Brief, coil_ohm: float, said: str) -> None:
    hungry = part("buzzer-9x9-magnetic").model_copy(update={"values": {"coil_ohm": coil_ohm}})
    with pytest.raises(RecipeNotPossible) as caught:
        circuit_of(brief, {hungry.id: hungry})
    assert said in caught.value.limit


def test_a_strong_light_is_kept_off_the_pin(brief: Brief) -> None:
    """Above 8 mA from the rail through an NPN transistor (1 base, 2 emitter, 3 collector): (3.0 -
    2.0) V / 20 mA = 50 Ω, 51 Ω of E24; forced gain 20: (3.0 - 0.4 - 0.7) V / 1 mA = 1.9 kΩ, 2
    kΩ of E24.
    """
    made = circuit_of(varied(brief, things={"light": {"light_ma": 20}}))
    assert made["light"].pads == {"1": "LIGHT_LOW", "2": "LIGHT_ANODE"}
    series, base, off = (made[f"light {word}"] for word in ("resistor", "base resistor", "off"))
    assert (series.value, series.pads) == ("51 Ω", {"1": "SUPPLY", "2": "LIGHT_ANODE"})
    assert made["light transistor"].pads == {"1": "LIGHT_BASE", "2": "GROUND", "3": "LIGHT_LOW"}
    assert (base.value, base.pads) == ("2 kΩ", {"1": "LIGHT_DRIVE", "2": "LIGHT_BASE"})
    assert (off.value, off.pads) == ("100 kΩ", {"1": "LIGHT_BASE", "2": "GROUND"})


@pytest.mark.parametrize(("current_ma", "value"), [(2, "510 Ω"), (1, "1 kΩ"), (8, "130 Ω")])
def test_the_light_gets_its_current(brief: Brief, current_ma: float, value: str) -> None:
    """(3.0 - 2.0) V over the current, nearest E24."""
    made = circuit_of(varied(brief, things={"light": {"light_ma": current_ma}}))
    assert made["light resistor"].value == value
    assert made["light resistor"].pads == {"1": "LIGHT_DRIVE", "2": "LIGHT_ANODE"}
    assert made["light"].pads == {"1": "GROUND", "2": "LIGHT_ANODE"}
    blue = part("light-2012-amber").model_copy(update={"values": {"forward_v": 3.1}})
    with pytest.raises(RecipeNotPossible, match="red or amber"):
        circuit_of(brief, {blue.id: blue})


@pytest.mark.parametrize(
    ("name", "said"),
    [
        ("resistor", "not a microcontroller name"),
        ("stm32l051c8t9", "not in the open data set"),
        ("stm32l051t8y6", "without a land-pattern family"),
    ],
)
def test_unknown_chips_are_refused_with_a_hint(name: str, said: str) -> None:
    with pytest.raises(PartError) as caught:
        bundled_library().pattern(f"chip:{find_chip(name).name}")
    assert said in caught.value.problem
    assert caught.value.way_out


@pytest.mark.parametrize(
    ("name", "package", "pins", "resets", "boots"),
    [
        ("stm32l051c8t6", "LQFP48", 48, 1, 1),
        ("stm32g031k8t6", "LQFP32", 32, 1, 1),
        ("stm32f103c8t6", "LQFP48", 48, 1, 1),
        ("stm32c031k6u6", "QFN32", 32, 1, 1),
    ],
)
def test_chips_are_read_with_all_their_pins(
    name: str, package: str, pins: int, resets: int, boots: int
) -> None:
    chip = find_chip(name)
    assert (chip.package, len(chip.pins)) == (package, pins)
    assert [int(p.number) for p in chip.pins] == list(range(1, pins + 1))
    assert sum(p.is_reset for p in chip.pins) == resets
    assert sum(p.is_boot for p in chip.pins) == boots


def test_a_crystal_that_stands_first_is_no_brain(brief: Brief) -> None:
    rows = [thing("crystal", "quartz"), *plain_of(brief)["things"]]
    assert brief_from_plain({**plain_of(brief), "things": rows}).brain == brief.brain
