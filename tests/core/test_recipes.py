"""Each recipe on its own: what it makes, what it works out, and where it refuses."""

import pytest

from loquet.catalogue.bundled import part, parts, screens
from loquet.catalogue.chips import find_chip
from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief, Buzzer, Light, Screen
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.recipes.buzzer_driver import buzzer_driver
from loquet.core.circuit.recipes.cell_input import cell_input
from loquet.core.circuit.recipes.controls import controls
from loquet.core.circuit.recipes.indicator import indicator
from loquet.core.circuit.recipes.screen_header import screen_header
from loquet.core.circuit.recipes.service import PORT_ORDER, programming_header
from loquet.core.circuit.supply import TWO_AAA
from loquet.core.design import Design
from loquet.core.parts import PartError
from loquet.core.pipeline import slice_of

SCREEN = Screen(x_mm=10, y_mm=10)


def test_buttons_use_diagonal_legs_which_are_never_joined(brief: Brief) -> None:
    legs = {tuple(sorted(c.pads)) for c in controls(brief, parts(), TWO_AAA).components}
    assert legs == {("1", "4")}
    assert all(not {"1", "4"} <= set(pair) for pair in part("button-6x6-surface").joined)


def test_the_pull_up_lies_between_its_limits_for_any_track(brief: Brief) -> None:
    for track_mm in (0, 30, 120, 400):
        fragment = screen_header(SCREEN, screens()["screen-128x32-two-wire"], track_mm, TWO_AAA)
        working = next(w for w in fragment.workings if w.id == "screen.pull_up")
        low, high = (
            float(i.value) if i.name == "Rmin" else float(i.origin.split(" ns")[0])
            for i in working.inputs
        )
        assert low <= working.value
        assert high == 300


def test_too_much_capacitance_for_the_speed_is_refused() -> None:
    heavy = screens()["screen-128x32-two-wire"].model_copy(update={"bus_pf": 400.0})
    with pytest.raises(RecipeNotPossible) as caught:
        screen_header(SCREEN, heavy, 50, TWO_AAA)
    assert "400 kHz" in caught.value.limit
    assert "100 kHz" in caught.value.nearest
    assert screen_header(SCREEN.model_copy(update={"bus_khz": 100}), heavy, 50, TWO_AAA).components


def test_the_screen_header_follows_the_drawing_of_the_module() -> None:
    module = screens()["screen-128x32-two-wire"]
    turned = module.model_copy(update={"pins": tuple(reversed(module.pins))})
    first = screen_header(SCREEN, module, 20, TWO_AAA).components[0].pads
    other = screen_header(SCREEN, turned, 20, TWO_AAA).components[0].pads
    assert first == {"1": "GROUND", "2": "SUPPLY", "3": "SCREEN_CLOCK", "4": "SCREEN_DATA"}
    assert [other[str(i)] for i in (4, 3, 2, 1)] == [first[str(i)] for i in (1, 2, 3, 4)]


def test_the_buzzer_driver_saturates_and_protects() -> None:
    fragment = buzzer_driver(
        Buzzer(), part("buzzer-9x9-magnetic"), part("transistor-npn-sot23"), TWO_AAA
    )
    by_role = {c.role: c for c in fragment.components}
    # (3.0 - 0.4 - 0.7) V / (3.0 V / 42 ohm / 20) = 532 ohm; nearest E24 is 510
    assert by_role["buzzer base resistor"].value == "510 Ω"
    assert by_role["buzzer diode"].pads == {"1": "SUPPLY", "2": "BUZZER_LOW"}
    assert by_role["buzzer transistor"].pads["3"] == by_role["buzzer"].pads["2"]


@pytest.mark.parametrize(("coil_ohm", "said"), [(8.0, "draws 375 mA"), (16.0, "of a pin")])
def test_a_coil_that_asks_too_much_is_refused(coil_ohm: float, said: str) -> None:
    hungry = part("buzzer-9x9-magnetic").model_copy(update={"values": {"coil_ohm": coil_ohm}})
    with pytest.raises(RecipeNotPossible) as caught:
        buzzer_driver(Buzzer(), hungry, part("transistor-npn-sot23"), TWO_AAA)
    assert said in caught.value.limit


@pytest.mark.parametrize(("current_ma", "value"), [(2, "510 Ω"), (1, "1 kΩ"), (10, "100 Ω")])
def test_the_light_gets_its_current(current_ma: float, value: str) -> None:
    lamp = part("light-2012-amber")
    fragment = indicator(Light(x_mm=1, y_mm=1, current_ma=current_ma), lamp, TWO_AAA)
    assert fragment.components[1].value == value
    with pytest.raises(RecipeNotPossible, match="red or amber"):
        indicator(
            Light(x_mm=1, y_mm=1), lamp.model_copy(update={"values": {"forward_v": 3.1}}), TWO_AAA
        )


def test_cells_reach_the_rail_only_through_guard_and_switch() -> None:
    by_role = {c.role: c.pads for c in cell_input(part("transistor-pmos-sot23"), 60).components}
    assert by_role["cell:1"]["2"] == by_role["cell:2"]["1"]
    assert by_role["cell:2"]["2"] == by_role["reverse guard"]["1"] == "GROUND"
    assert by_role["cell:1"]["1"] == by_role["reverse guard"]["3"]
    assert by_role["reverse guard"]["2"] == by_role["switch"]["2"]
    assert by_role["switch"]["3"] == "SUPPLY"


def test_the_programming_header_has_ground_in_the_middle() -> None:
    assert programming_header().components[0].pads["3"] == "GROUND"
    assert set(PORT_ORDER) == {"SUPPLY", "GROUND", "DEBUG_CLOCK", "DEBUG_DATA", "RESET"}


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
