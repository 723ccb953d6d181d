"""Each recipe on its own: what it makes, what it works out, and where it refuses."""

from dataclasses import replace

import pytest

from loquet.catalogue.bundled import part, parts, screens
from loquet.catalogue.chips import find_chip
from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief, brief_from_plain
from loquet.core.circuit import Component, RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.circuit.two_wire import pull_up_value
from loquet.core.design import Design, slice_of
from loquet.core.geometry import middle_of
from loquet.core.parts import Part, PartError
from loquet.core.power import rails_of
from tests.core.benches import bench_for
from tests.making import device, plain_of, thing, varied


def circuit_of(brief: Brief, parts: dict[str, Part] | None = None) -> dict[str, Component]:
    """Components by role; a part may be another one than the catalogue's."""
    bench = bench_for(brief)
    bench = replace(bench, parts={**bench.parts, **(parts or {})})
    return {c.role: c for c in assemble(bench).components}


def test_buttons_use_diagonal_legs_which_are_never_joined(brief: Brief) -> None:
    made = circuit_of(brief)
    legs = {tuple(sorted(c.pads)) for role, c in made.items() if role.startswith("button:")}
    assert legs == {("1", "4")}
    assert all(not {"1", "4"} <= set(pair) for pair in part("button-6x6-surface").joined)


def test_the_pull_up_lies_between_the_limits_of_the_bus(brief: Brief) -> None:
    """By hand: module 20 pF, chip pin 10 pF, track 8 pF at 3.3 V; UM10204 section 7.1."""
    module = screens()["screen-128x32-two-wire"]
    load = module.bus_pf + 10 + 8
    least, greatest = (3.3 - 0.4) / 3e-3, 300e-9 / (0.8473 * load * 1e-12)
    found = assemble(bench_for(brief)).workings
    value = next(w for w in found if w.id == "screen.pull_up").value
    assert least < value < greatest
    assert next(w for w in found if w.id == "bus.load").value == load
    made = circuit_of(brief)
    for line, net in (("clock", "SCREEN_CLOCK"), ("data", "SCREEN_DATA")):
        assert made[f"screen pull-up {line}"].pads == {"1": "SUPPLY", "2": net}


def test_too_much_capacitance_for_the_speed_is_refused(brief: Brief) -> None:
    ports = tuple(thing("spare-bus", f"port {i}") for i in range(9))
    heavy = varied(brief, plus=ports)
    with pytest.raises(RecipeNotPossible) as caught:
        pull_up_value(heavy.thing("screen"), bench_for(heavy))
    assert "400 kHz" in caught.value.limit
    assert "100 kHz" in caught.value.nearest
    slow = varied(brief, plus=ports, things={"screen": {"bus_khz": 100}})
    assert pull_up_value(slow.thing("screen"), bench_for(slow))[0] > 0


def test_the_screen_header_follows_the_drawing_of_the_module(brief: Brief) -> None:
    bench = bench_for(brief)
    module = screens()["screen-128x32-two-wire"]
    turned = module.model_copy(update={"pins": tuple(reversed(module.pins))})
    first = circuit_of(brief)["screen"].pads
    other = next(
        c
        for c in assemble(replace(bench, modules={module.id: turned})).components
        if c.role == "screen"
    ).pads
    assert first == {"1": "GROUND", "2": "SUPPLY", "3": "SCREEN_CLOCK", "4": "SCREEN_DATA"}
    assert [other[str(i)] for i in (4, 3, 2, 1)] == [first[str(i)] for i in (1, 2, 3, 4)]


def test_the_buzzer_driver_saturates_and_protects(brief: Brief) -> None:
    made = circuit_of(brief)
    # (3.0 - 0.4 - 0.7) V / (3.0 V / 42 ohm / 20) = 532 ohm; nearest E24 is 510
    assert made["buzzer base resistor"].value == "510 Ω"
    assert made["buzzer base resistor"].pads == {"1": "BUZZER_DRIVE", "2": "BUZZER_BASE"}
    # SOT-23: 1 base, 2 emitter, 3 collector; the emitter is at ground, the collector at the coil
    assert part("transistor-npn-sot23").pin_names == {"1": "base", "2": "emitter", "3": "collector"}
    assert made["buzzer transistor"].pads == {"1": "BUZZER_BASE", "2": "GROUND", "3": "BUZZER_LOW"}
    assert made["buzzer"].pads == {"1": "SUPPLY", "2": "BUZZER_LOW"}
    # the diode carries the coil's current upwards: its cathode (1) is at the rail
    assert made["buzzer diode"].pads == {"1": "SUPPLY", "2": "BUZZER_LOW"}


@pytest.mark.parametrize(("coil_ohm", "said"), [(8.0, "draws 375 mA"), (16.0, "of a pin")])
def test_a_coil_that_asks_too_much_is_refused(brief: Brief, coil_ohm: float, said: str) -> None:
    hungry = part("buzzer-9x9-magnetic").model_copy(update={"values": {"coil_ohm": coil_ohm}})
    with pytest.raises(RecipeNotPossible) as caught:
        circuit_of(brief, {hungry.id: hungry})
    assert said in caught.value.limit


def test_a_strong_light_is_kept_off_the_pin(brief: Brief) -> None:
    """Above 8 mA from the rail through an NPN transistor (1 base, 2 emitter, 3 collector): (3.0 -
    2.0) V / 20 mA = 50 Ω, 51 Ω of E24; forced gain 20: (3.0 - 0.4 - 0.7) V / 1 mA = 1.9 kΩ, 2 kΩ of
    E24.
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


def test_cells_reach_the_rail_only_through_guard_and_switch(brief: Brief) -> None:
    made = {role: c.pads for role, c in circuit_of(brief).items()}
    assert made["cell:1"] == {"1": "CELLS", "2": "CELLS_MIDDLE"}
    assert made["cell:2"] == {"1": "CELLS_MIDDLE", "2": "GROUND"}
    # P-channel: 1 gate at ground, 2 source at the load, 3 drain at the cells, so that the body
    # diode points to the load
    assert part("transistor-pmos-sot23").pin_names == {"1": "gate", "2": "source", "3": "drain"}
    assert made["reverse guard"] == {"1": "GROUND", "2": "GUARDED", "3": "CELLS"}
    assert made["switch"] == {"2": "GUARDED", "3": "SUPPLY"}


@pytest.mark.parametrize("count", [1, 2, 3])
def test_cells_stand_in_series_whatever_their_number(brief: Brief, count: int) -> None:
    """Walked from ground, each cell lifts the voltage by one: the rail has as many as there are
    cells.
    """
    row = varied(
        brief, things={"cell": {"count": count}, "switch": None, "light": None, "buzzer": None}
    )
    made = circuit_of(row)
    volts, net = 0, "GROUND"
    cells = [made[f"cell:{i + 1}"].pads for i in range(count)]
    while net != made["reverse guard"].pads["3"]:
        net = next(pads["1"] for pads in cells if pads["2"] == net)
        volts += 1
    assert volts == count
    assert made["reverse guard"].pads["2"] == "SUPPLY"
    rail = rails_of(row)[0]
    assert (rail.usual_v, rail.empty_v) == (1.5 * count, pytest.approx(0.9 * count))


def test_the_programming_header_has_ground_in_the_middle(brief: Brief) -> None:
    """The probe sees the level behind 1 kΩ, so that it cannot charge alkaline cells."""
    made = circuit_of(brief)
    assert made["port"].pads == {
        "1": "DEBUG_SENSE",
        "2": "DEBUG_CLOCK",
        "3": "GROUND",
        "4": "DEBUG_DATA",
        "5": "RESET",
    }
    sense = made["port sense"]
    assert (sense.value, sense.pads) == ("1 kΩ", {"1": "SUPPLY", "2": "DEBUG_SENSE"})


def test_the_sounder_is_quiet_while_the_chip_is_in_reset(brief: Brief) -> None:
    off = circuit_of(brief)["buzzer off"]
    assert (off.value, off.pads) == ("100 kΩ", {"1": "BUZZER_BASE", "2": "GROUND"})


def test_boot_and_reset_are_held_the_right_way(brief: Brief) -> None:
    """The strap pulls down, so that the chip starts its own program; the capacitor of reset goes to
    ground.
    """
    made = circuit_of(brief)
    assert made["boot strap"].pads == {"1": "BOOT", "2": "GROUND"}
    assert made["reset filter"].pads == {"1": "RESET", "2": "GROUND"}
    assert (made["boot strap"].value, made["reset filter"].value) == ("10 kΩ", "100 nF")


def test_every_supply_pin_has_its_capacitor_and_every_ground_pin_its_ground(
    finished: Design,
) -> None:
    circuit, chip = slice_of(finished.circuit), find_chip("stm32l051c8t6")
    core = circuit.component("U1")
    for pin in chip.pins:
        if pin.kind == "supply":
            near = [
                c
                for c in circuit.components
                if c.near_role == "chip" and c.near_pad == pin.number and c.value == "100 nF"
            ]
            assert len(near) == 1
            assert core.pads[pin.number] == "SUPPLY"
        if pin.kind == "ground":
            assert core.pads[pin.number] == "GROUND"
    assert core.pads["7"] == "RESET"
    assert core.pads["44"] == "BOOT"


def test_references_and_nets_agree(finished: Design) -> None:
    circuit = slice_of(finished.circuit)
    refs = [c.ref for c in circuit.components]
    assert len(refs) == len(set(refs))
    joined = {(ref, pad): net.name for net in circuit.nets for ref, pad in net.pads}
    assert joined == {(c.ref, pad): net for c in circuit.components for pad, net in c.pads.items()}


def test_every_working_has_a_source_and_every_part_its_evidence(finished: Design) -> None:
    assert all(w.source.text and w.formula and w.shown for w in slice_of(finished.circuit).workings)
    assert all(p.evidence_text and p.evidence != "none" for p in parts().values())


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


@pytest.mark.parametrize(
    ("name", "pin"), [("stm32l433rct6", "60"), ("stm32g431c8t6", "45"), ("stm32f042k6t6", "31")]
)
def test_a_boot_pin_that_is_a_port_as_well_has_its_strap(name: str, pin: str) -> None:
    """BOOT0 on PH3 (LQFP64 pin 60), PB8 (LQFP48 pin 45; LQFP32 pin 31): data sheets, from
    memory.
    """
    chip = thing("chip", "chip", part=name)
    made = circuit_of(device(chip, thing("leads", "leads"), thing("button", "go", 30, 30)))
    strap = made["boot strap"]
    assert (strap.value, strap.pads) == ("10 kΩ", {"1": "BOOT", "2": "GROUND"})
    assert (made["chip"].pads[pin], strap.near_pad) == ("BOOT", pin)


def test_a_crystal_that_stands_first_is_no_brain(brief: Brief) -> None:
    rows = [thing("crystal", "quartz"), *plain_of(brief)["things"]]
    assert brief_from_plain({**plain_of(brief), "things": rows}).brain == brief.brain


@pytest.mark.parametrize("name", ["diode-sod123", "diode-schottky-sod123", "light-2012-amber"])
def test_the_mark_of_a_diode_stands_beside_its_cathode(name: str) -> None:
    """Pad 1, on the left of the pattern, is the cathode of all three (their drawings and
    outlines).
    """
    pattern = bundled_library().pattern(name)
    left = min(pattern.pads, key=lambda pad: middle_of(pad.shape)[0])
    assert left.number == "1"
    assert pattern.first_pin == middle_of(left.shape)
    assert bundled_library().pattern("resistor-1608").first_pin is None
