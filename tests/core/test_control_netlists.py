"""Controls, cells, sounders and service parts: their netlists written out by hand from the drawings
named in the catalogue.
"""

import pytest

from loquet.core.circuit.assembling import assemble
from loquet.core.pins.needing import needs_of
from tests.core.benches import bench_for
from tests.core.netlists import netlist, written
from tests.making import Plain, device, thing

CHIP, FEED = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads")


def made(kind: str, **fields: object) -> set[str]:
    return netlist(device(CHIP, FEED, thing(kind, "it", 60, 30, **fields)), "it")


# A push button has two joined pairs of legs, 1-2 and 3-4 (drawing): 1 and 4 lie across, so that a
# turned part closes the same.
# Sticks and triggers: order of pins of their drawings. Encoder: a, common, b; press, common. A key
# closes to ground.
CONTROLS: dict[str, tuple[dict[str, object], str]] = {
    "button": ({}, "button-6x6-surface it: 1=BUTTON_IT 4=GROUND"),
    "pad": (
        {},
        """
        button-6x6-surface it up: 1=PAD_IT_UP 4=GROUND
        button-6x6-surface it down: 1=PAD_IT_DOWN 4=GROUND
        button-6x6-surface it left: 1=PAD_IT_LEFT 4=GROUND
        button-6x6-surface it right: 1=PAD_IT_RIGHT 4=GROUND
        """,
    ),
    "stick": (
        {},
        (
            "stick-resistive-13 it: 1=SUPPLY 2=STICK_IT_Y 3=GROUND 4=SUPPLY 5=STICK_IT_X 6=GROUND"
            " 7=STICK_IT_PRESS 8=GROUND"
        ),
    ),
    "trigger": (
        {},
        """
        trigger-magnetic it: 1=SUPPLY 2=TRIGGER_IT_PULL 3=GROUND
        capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
        """,
    ),
    "slider": ({}, "slider-20 it: 1=SUPPLY 2=SLIDER_IT_LEVEL 3=GROUND"),
    "encoder": (
        {},
        "encoder-11 it: 1=ENCODER_IT_A 2=GROUND 3=ENCODER_IT_B 4=ENCODER_IT_PRESS 5=GROUND",
    ),
    "test-point": ({"net": "SUPPLY"}, "test-point-round SUPPLY: 1=SUPPLY"),
    "fiducial": ({}, "fiducial-round :"),
    # debug port of two wires (Arm ADIv5): clock, data, ground, reset; the probe senses the rail
    # through 1 kΩ and cannot feed it
    "programming": (
        {},
        """
        header-5-way programming: 1=DEBUG_IT_SENSE 2=DEBUG_IT_CLOCK 3=GROUND 4=DEBUG_IT_DATA 5=RESET
        resistor-1608 1 kΩ: 1=SUPPLY 2=DEBUG_IT_SENSE
        """,
    ),
    # 3.3 V on 42 Ω: 79 mA, a twentieth of it for the base: (3.3 - 0.4 - 0.7) V / 3.93 mA = 560 Ω;
    # the coil's own current
    # goes on through the diode (cathode 1 at the rail); NPN 1 base, 2 emitter, 3 collector
    "buzzer": (
        {},
        """
        buzzer-9x9-magnetic Magnetic sounder 9 x 9 mm, 3 V, 42 ohm coil, 2.7 kHz: 1=SUPPLY
            2=BUZZER_IT_LOW
        diode-sod123 100 V: 1=SUPPLY 2=BUZZER_IT_LOW
        transistor-npn-sot23 NPN: 1=BUZZER_IT_BASE 2=GROUND 3=BUZZER_IT_LOW
        resistor-1608 560 Ω: 1=BUZZER_IT_DRIVE 2=BUZZER_IT_BASE
        resistor-1608 100 kΩ: 1=BUZZER_IT_BASE 2=GROUND
        """,
    ),
    # (3.3 - 2.0) V / 2 mA = 650 Ω, E24 680 Ω
    "light": (
        {},
        """
        light-2012-amber Amber indicator light: 1=GROUND 2=LIGHT_IT_ANODE
        resistor-1608 680 Ω: 1=LIGHT_IT_DRIVE 2=LIGHT_IT_ANODE
        """,
    ),
}


@pytest.mark.parametrize("kind", CONTROLS)
def test_a_control_is_wired_as_its_drawing_says(kind: str) -> None:
    fields, expected = CONTROLS[kind]
    assert {line.strip() for line in made(kind, **fields)} == written(expected)


def test_a_light_of_a_rail_takes_no_pin() -> None:
    """5 V: (5.0 - 2.0) V / 2 mA = 1.5 kΩ."""
    five = thing("converter", "five", gives_v=5.0)
    brief = device(CHIP, FEED, five, thing("light", "it", 60, 30, rail="five", lit_by="its rail"))
    assert netlist(brief, "it") == written("""
    light-2012-amber Amber indicator light: 1=GROUND 2=LIGHT_IT_ANODE
    resistor-1608 1.5 kΩ: 1=SUPPLY_FIVE 2=LIGHT_IT_ANODE
    """)
    assert [need.signal for need in needs_of(brief)] == []


def test_a_strong_light_is_fed_from_the_rail() -> None:
    """20 mA: 1.3 V / 20 mA = 65 Ω, E24 68 Ω; 1 mA for the base: 2.2 V / 1 mA = 2.2 kΩ."""
    assert made("light", light_ma=20.0) == written("""
    light-2012-amber Amber indicator light: 1=LIGHT_IT_LOW 2=LIGHT_IT_ANODE
    resistor-1608 68 Ω: 1=SUPPLY 2=LIGHT_IT_ANODE
    transistor-npn-sot23 NPN: 1=LIGHT_IT_BASE 2=GROUND 3=LIGHT_IT_LOW
    resistor-1608 2.2 kΩ: 1=LIGHT_IT_DRIVE 2=LIGHT_IT_BASE
    resistor-1608 100 kΩ: 1=LIGHT_IT_BASE 2=GROUND
    """)


@pytest.mark.parametrize(
    ("plus", "expected"),
    [
        # the guard's gate is at ground, its body diode points from the cells to the device: source
        # 2 at the device, drain 3 at the cells
        (
            (thing("cells", "cell"), thing("power-switch", "switch", 20, 20)),
            """
            holder-aaa-surface AAA cell: 1=CELLS 2=CELLS_MIDDLE
            holder-aaa-surface AAA cell: 1=CELLS_MIDDLE 2=GROUND
            transistor-pmos-sot23 P-channel: 1=GROUND 2=GUARDED 3=CELLS
            """,
        ),
        (
            (thing("cells", "cell", count=1),),
            """
            holder-aaa-surface AAA cell: 1=CELLS 2=GROUND
            transistor-pmos-sot23 P-channel: 1=GROUND 2=SUPPLY 3=CELLS
            """,
        ),
        (
            (thing("cells", "cell", count=3, size="AA"),),
            """
            holder-aa-surface AA cell: 1=CELLS 2=CELLS_1
            holder-aa-surface AA cell: 1=CELLS_1 2=CELLS_2
            holder-aa-surface AA cell: 1=CELLS_2 2=GROUND
            transistor-pmos-sot23 P-channel: 1=GROUND 2=SUPPLY 3=CELLS
            """,
        ),
    ],
)
def test_cells_stand_in_a_row_behind_their_guard(plus: tuple[Plain, ...], expected: str) -> None:
    assert netlist(device(CHIP, *plus), "cell") == written(expected)


def test_a_stick_with_low_passes() -> None:
    """1 kΩ and a quarter of 10 kΩ are 3.5 kΩ: for 100 Hz 1 / (2 pi 3500 100) = 455 nF, E12 470
    nF, which gives 97 Hz.
    """
    both = made("stick", filter_hz=100.0, press=False)
    stick = next(line for line in both if line.startswith("stick"))
    assert "2=STICK_IT_Y_RAW" in stick
    assert "5=STICK_IT_X_RAW" in stick
    assert both - {stick} == written("""
    resistor-1608 1 kΩ: 1=STICK_IT_X_RAW 2=STICK_IT_X
    capacitor-1608 470 nF: 1=STICK_IT_X 2=GROUND
    resistor-1608 1 kΩ: 1=STICK_IT_Y_RAW 2=STICK_IT_Y
    capacitor-1608 470 nF: 1=STICK_IT_Y 2=GROUND
    """)
    brief = device(CHIP, FEED, thing("stick", "it", 60, 30, filter_hz=100.0))
    figures = {w.id: w.value for w in assemble(bench_for(brief)).workings}
    assert figures["it.x.filter"] == pytest.approx(96.75, abs=0.05)


def test_a_magnetic_trigger_has_no_track_and_a_divided_stick_its_divider() -> None:
    """1 kΩ alone: for 1 kHz 159 nF, E12 150 nF.

    Of 5 V a divider of 5.6 kΩ and 10 kΩ: with the track's quarter 8.1 kΩ beside 10 kΩ are 4.48
    kΩ: for 100 Hz 356 nF, E12 330 nF.
    """
    assert "capacitor-1608 150 nF: 1=TRIGGER_IT_PULL 2=GROUND" in made("trigger", filter_hz=1000.0)
    five = thing("converter", "five", gives_v=5.0)
    stick = thing("stick", "it", 60, 30, supply="5 V", rail="five", press=False, filter_hz=100.0)
    lines = netlist(device(CHIP, FEED, five, stick), "it")
    assert lines >= written("""
    resistor-1608 5.6 kΩ: 1=STICK_IT_X_FULL 2=STICK_IT_X
    resistor-1608 10 kΩ: 1=STICK_IT_X 2=GROUND
    capacitor-1608 330 nF: 1=STICK_IT_X 2=GROUND
    """)
    assert not any("RAW" in line for line in lines)


@pytest.mark.parametrize(
    ("part", "module"),
    [
        # pads in the order of its table: 8 lines, ground 9, in 10, 3.3 V out 11, ground 12; the
        # first lines of the plan on 1
        ("fellbeck-c20", "1=BUTTON_K 9=GROUND 10=SUPPLY 11=SUPPLY_IT 12=GROUND"),
        # reset 1, ground 13, in 14; ground 27, 3.3 V out 28
        ("fellbeck-h28", "2=BUTTON_K 13=GROUND 14=SUPPLY 27=GROUND 28=SUPPLY_IT"),
    ],
)
def test_a_ready_module_takes_its_rail_and_makes_another(part: str, module: str) -> None:
    brief = device(
        thing("ready-module", "it", part=part),
        thing("leads", "leads", volts=5.0),
        thing("button", "k"),
    )
    assert netlist(brief, "it") == written(f"""
    chip:{part} {part}: {module}
    capacitor-2012 10 µF: 1=SUPPLY 2=GROUND
    """)
