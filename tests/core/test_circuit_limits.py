"""Corners of the circuit that only a single line decides: counts, numbers and names, by hand."""

from dataclasses import replace

import pytest

from loquet.core.circuit import Circuit, Component, RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.circuit.key_levels import pull_up_working
from loquet.core.circuit.model import Net
from loquet.core.power import rails_of
from tests.core.benches import bench_for
from tests.core.netlists import netlist
from tests.making import device, thing

CHIP, LEADS = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads")


def roles(*things: dict[str, object], **wishes: object) -> dict[str, Component]:
    made = assemble(bench_for(device(CHIP, LEADS, *things, **wishes)))
    return {c.role: c for c in made.components}


def keys(count: int) -> list[dict[str, object]]:
    return [
        thing("button", f"key {i}", 10 + 12 * (i % 8), 15 + 20 * (i // 8)) for i in range(count)
    ]


@pytest.mark.parametrize(("axes", "lines"), [(2, 1), (4, 2), (5, 3), (8, 3)])
def test_a_multiplexer_has_the_select_lines_that_its_channels_want(axes: int, lines: int) -> None:
    """2 to the power of the lines is at least the channels; the other select lines lie at
    ground.
    """
    sliders = [thing("slider", f"fader {i}", 14 * i + 10, 30) for i in range(axes)]
    part = roles(*sliders, analogue_by="multiplexer")["axis multiplexer"]
    nets = set(part.pads.values())
    assert {f"AXES_SELECT_{i}" for i in range(1, 4)} & nets == {
        f"AXES_SELECT_{i + 1}" for i in range(lines)
    }


def test_nine_keys_take_a_second_register_whose_free_lines_lie_at_ground() -> None:
    found = roles(*keys(9), key_scheme={"name": "shift register"})
    first, second = found["key register 1"], found["key register 2"]
    assert "key register 3" not in found
    assert sum(net.startswith("BUTTON_") for net in first.pads.values()) == 8
    assert sum(net.startswith("BUTTON_") for net in second.pads.values()) == 1
    assert list(second.pads.values()).count("GROUND") >= 7


def test_keys_on_an_expander_pull_down_by_themselves_or_not_at_all() -> None:
    with pytest.raises(RecipeNotPossible) as refused:
        roles(*keys(6), key_scheme={"name": "expander 8"}, button_reading="pull-down-resistors")
    assert refused.value.need == "keys"
    assert "pull-down resistors" in refused.value.limit
    assert refused.value.nearest.startswith("Let the keys pull down")


def test_a_pull_up_of_the_chip_takes_75_ua_at_3_v() -> None:
    """Ohm: 3.3 V / 40 kΩ = 82.5 µA, 3.0 V / 40 kΩ = 75 µA."""
    for volts, current in ((3.3, 82.5), (3.0, 75.0)):
        (rail,) = rails_of(device(CHIP, thing("leads", "leads", volts=volts)))
        assert pull_up_working(rail).value == pytest.approx(current)


@pytest.mark.parametrize(
    ("count", "words"),
    [
        (1, ["The cell"]),
        (2, ["Upper cell of the pair", "Lower cell of the pair"]),
        (3, ["Upper cell of the row", "Second cell of the row", "Lowest cell of the row"]),
    ],
)
def test_cells_are_named_by_where_they_stand(count: int, words: list[str]) -> None:
    brief = device(CHIP, thing("cells", "cells", 60, 30, far=True, count=count))
    made = assemble(bench_for(brief))
    assert [c.purpose for c in made.components if c.role.startswith("cell:")] == words


def test_lines_alone_have_neither_supply_nor_ground_beside_them() -> None:
    (line,) = netlist(device(CHIP, LEADS, thing("membrane", "foil", lines=2)), "foil")
    assert line.split(": ")[1] == "1=MEMBRANE_FOIL_1 2=MEMBRANE_FOIL_2"


def test_twins_are_numbered_from_one() -> None:
    """Six capacitors of a host's port (120 µF), the two resistors of a USB-C device."""
    five = thing("converter", "five", gives_v=5.0)
    found = roles(five, thing("usb-downstream", "outlet", rail="five"), thing("usb-device", "plug"))
    bulk = [role for role in found if " bulk " in role and "outlet" in role]
    assert sorted(role[-1] for role in bulk) == ["1", "2", "3", "4", "5", "6"]
    asks = [role for role in found if " asks " in role]
    assert sorted(role[-1] for role in asks) == ["1", "2"]


def test_a_board_has_its_components_and_what_of_the_nets_lies_there() -> None:
    one = Component(
        role="a", ref="R1", part="resistor-1608", block="x", purpose="y", pads={}, board="left"
    )
    two = one.model_copy(update={"role": "b", "ref": "R2", "board": "right"})
    nets = (
        Net(name="BOTH", kind="signal", pads=(("R1", "1"), ("R2", "1"))),
        Net(name="RIGHT", kind="signal", pads=(("R2", "2"),)),
    )
    made = Circuit(components=(one, two), nets=nets, workings=()).on("left")
    assert made.components == (one,)
    assert made.nets == (Net(name="BOTH", kind="signal", pads=(("R1", "1"),)),)


def test_workings_of_drivers_say_what_they_are_of() -> None:
    """From memory: a forced gain of 20; two resistors of 10 kohm side by side are 5 kohm."""
    sounds = thing("speaker", "voice", feed_by="sound bus")
    made = assemble(bench_for(device(CHIP, LEADS, thing("load-switch", "quiet"), sounds)))
    by_id = {w.id: w for w in made.workings}
    assert by_id["quiet.switch.base"].title == "Base resistor of quiet"
    origins = {i.name: (i.value, i.origin) for i in by_id["voice.corner"].inputs}
    assert origins["R"] == ("5000", "two of 10 kΩ side by side")


def test_a_coil_that_asks_too_much_is_answered_with_one_that_does_not() -> None:
    """3.3 V over 10 ohm are 330 mA; a transistor for 200 mA carries it from 16.5 ohm on."""
    bench = bench_for(device(CHIP, LEADS, thing("buzzer", "tone")))
    strong = bench.parts["buzzer-9x9-magnetic"].model_copy(update={"values": {"coil_ohm": 10.0}})
    with pytest.raises(RecipeNotPossible) as refused:
        assemble(replace(bench, parts={**bench.parts, strong.id: strong}))
    assert refused.value.limit == "the coil draws 330 mA"
    assert refused.value.nearest == "Choose a coil of at least 17 ohm."


def test_two_converters_of_axes_answer_at_addresses_that_follow_one_another() -> None:
    """The first at its first address with its pin at ground, the second one above, at the rail."""
    sliders = [thing("slider", f"fader {i}", 14 * i + 10, 30) for i in range(5)]
    found = roles(*sliders, analogue_by="converter")
    first, second = found["axis converter 1"], found["axis converter 2"]
    assert (first.value, second.value) == ("address 0x48", "address 0x49")
    assert (first.pads["1"], second.pads["1"]) == ("GROUND", "SUPPLY")
