"""What is left of capacitors, of a rail with everything on, and of the codes of a converter."""

import pytest

from loquet.core.circuit.model import RecipeNotPossible
from loquet.core.library import Library
from loquet.core.parts import choosing
from loquet.core.parts.dielectric import left_f
from tests.core.benches import bench_for, seen_with
from tests.core.test_power_mistakes import found
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
JACK = thing("barrel-jack", "jack", adapter_v=9.0, gives_v=5.0)
LOW = thing("converter", "low", gives_v=3.3, rail="jack")


@pytest.mark.parametrize(
    ("part", "farads", "volts", "left"),
    [
        # half at half of the volts, from memory of makers' curves; little of what is small
        ("capacitor-2012", 22e-6, 5.0, 11e-6),
        ("capacitor-2012", 22e-6, 0.0, 22e-6),
        ("capacitor-3216", 22e-6, 5.0, 22e-6 / 1.16),
        ("capacitor-1608", 100e-9, 5.0, 100e-9),
        ("capacitor-1608", 1e-6, 8.0, 0.5e-6),
        ("capacitor-1608-steady", 1e-6, 25.0, 1e-6),
    ],
)
def test_a_dense_ceramic_loses_half_at_half_its_volts(
    part: str, farads: float, volts: float, left: float, library: Library
) -> None:
    assert left_f(library.parts[part], farads, volts) == pytest.approx(left)


def test_of_a_part_that_says_no_volts_nothing_is_left_for_sure(library: Library) -> None:
    assert left_f(None, 1e-6, 3.3) == 0.0
    assert left_f(None, 1e-7, 3.3) == 1e-7


@pytest.mark.parametrize(
    ("value", "volts", "part"),
    [
        # class 1 below 1 nF (IEC 60384-21: within 5 %), dense ones above
        ("15 pF", 0.0, "capacitor-1608-steady"),
        ("820 pF", 0.0, "capacitor-1608-steady"),
        ("1 nF", 0.0, "capacitor-1608"),
        ("22 µF", 6.6, "capacitor-2012"),
        ("22 µF", 10.0, "capacitor-3216"),
    ],
)
def test_the_capacitor_that_is_taken(value: str, volts: float, part: str, library: Library) -> None:
    assert choosing.capacitor(library.parts, value, volts) == part


def test_a_step_is_held_by_what_is_left(library: Library) -> None:
    """5 V with a step of some 600 mA at a switching converter: 600 mA / (2 pi 50 kHz 0.25 V) is
    7.6 µF; of 10 µF for 10 V half are left, and 0.1 µF at the chain.
    """
    chain = thing("light-chain", "lamps", count=10, rail="jack")
    brief = device({**CHIP, "rail": "low"}, JACK, LOW, chain)
    seen = seen_with(brief)
    assert seen.circuit is not None
    assert found("bulk", seen) == []
    others = ("lights:lamps bulk", "converter:low converter input")
    rows = [
        c.model_copy(update={"value": "10 µF", "part": "capacitor-2012"})
        if c.role == "jack converter output"
        else c
        for c in seen.circuit.components
        if c.role not in others
    ]
    small = seen.circuit.model_copy(update={"components": tuple(rows)})
    (said,) = found("bulk", seen_with(brief, circuit=small))
    assert said.sentence.endswith(
        "wants 7.6 µF at its converter, and 5.1 µF are left there at 5 V."
    )


def test_a_rail_that_breaks_down_is_not_one_that_is_off(library: Library) -> None:
    """A coin cell of 20 ohm gives 150 mA when it is shorted: 160 mA for a speaker are not there."""
    coin, sound = thing("coin-cell", "cell", 60, 30, far=True), thing("speaker", "horn")
    said = [f.sentence for f in found("part-supply", seen_with(device(CHIP, coin, sound)))]
    assert [words for words in said if "everything on at once: U1 (Microcontroller)" in words]
    assert found("part-supply", seen_with(device(CHIP, coin))) == []


def test_a_control_below_the_volts_of_its_reader_has_fewer_steps(library: Library) -> None:
    """3.3 of 5 V are 66 % of the codes, and the sensor's own ohms take a little."""
    brain = thing("chip", "chip", part="atmega168pa-au", rail="jack")
    stick = thing("stick", "tilt", 30, 30)
    low = found("codes-used", seen_with(device(brain, JACK, LOW, {**stick, "rail": "low"})))
    assert ["which are 65 % of what U1 measures" in f.sentence for f in low] == [True, True]
    assert {f.severity for f in low} == {"look"}
    same = seen_with(device(brain, JACK, LOW, {**stick, "rail": "jack"}))
    assert found("codes-used", same) == []


def test_a_leg_that_is_one_with_another_is_on_its_net(library: Library) -> None:
    """Pads 1 and 2 of a button are one piece of metal: 2 at ground is a key that is held."""
    brief = device(CHIP, thing("leads", "leads"), thing("button", "go", 20, 20))
    seen = seen_with(brief)
    assert seen.circuit is not None
    assert found("joined-legs", seen) == []
    for net, severities in (("GROUND", ["stop"]), ("BUTTON_GO", [])):
        rows = tuple(
            c.model_copy(update={"pads": {**c.pads, "2": net}}) if c.thing == "go" else c
            for c in seen.circuit.components
        )
        wrong = seen.circuit.model_copy(update={"components": rows})
        said = found("joined-legs", seen_with(brief, circuit=wrong))
        assert [f.severity for f in said] == severities
        assert all("joins BUTTON_GO and GROUND: its pads 1 and 2" in f.sentence for f in said)


def test_contacts_to_ground_are_not_pulled_down(library: Library) -> None:
    port: Plain = thing("stick-port", "port", 40, 20)
    leads = thing("leads", "leads")
    with pytest.raises(RecipeNotPossible, match="closes contacts to ground"):
        seen_with(device(CHIP, leads, port, button_reading="pull-down-resistors"))
    made = seen_with(device(CHIP, leads, port)).circuit
    assert made is not None
    assert [c.role for c in made.components if c.role.startswith("pull-down")] == []


def test_a_port_of_20_v_feeds_a_device(library: Library) -> None:
    """20 V within 5 % (USB Power Delivery 3.1) are 21 V: the converter stands 24 V, and so does its
    capacitor.
    """
    port = thing("usb-charge", "plug", feeds=True, asks="20 V")
    taken = bench_for(device(CHIP, port)).rails_made[0].taken
    assert taken is not None
    assert taken.part.values["input_max_v"] >= 21.0
    entry = choosing.capacitor(library.parts, "10 µF", 24.0)
    assert library.parts[entry].values["voltage"] >= 24.0
