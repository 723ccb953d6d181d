"""Ports, senses, sound, lights and crystals: their netlists written out by hand, from the drawings
and standards named beside them.
"""

import pytest

from loquet.core.brief import BriefError
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Choices, Design, slice_of
from loquet.core.fabrication.layers import copper_layer, mask_layer
from loquet.core.geometry import Round
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from tests.core.benches import bench_for
from tests.core.netlists import netlist, written
from tests.making import Plain, device, thing

CHIP, FEED = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads")


def made(kind: str, *more: Plain, **fields: object) -> set[str]:
    """The netlist of one thing beside a chip and a supply."""
    return netlist(device(CHIP, FEED, *more, thing(kind, "it", 60, 30, **fields)), "it")


@pytest.mark.parametrize(
    ("kind", "fields", "line"),
    [
        ("expansion", {"lines": 2}, "posts-4 it: 1=SUPPLY 2=LINK_IT_1 3=LINK_IT_2 4=GROUND"),
        ("edge-contacts", {"lines": 1}, "edge-3 it: 1=SUPPLY 2=EDGE_IT_1 3=GROUND"),
        (
            "screw-terminals",
            {"lines": 2},
            "terminals-3 it: 1=TERMINALS_IT_1 2=TERMINALS_IT_2 3=GROUND",
        ),
        ("membrane", {"lines": 3}, "posts-3 it: 1=MEMBRANE_IT_1 2=MEMBRANE_IT_2 3=MEMBRANE_IT_3"),
        (
            "flat-cable",
            {"lines": 1, "pitch_mm": 1.0, "contact": "top"},
            "flat-cable-1.0-3-top it: 1=GROUND 2=CABLE_IT_1 3=GROUND 4=GROUND 5=GROUND",
        ),
        ("serial", {}, "posts-4 it: 1=SUPPLY 2=LINK_IT_TRANSMIT 3=LINK_IT_RECEIVE 4=GROUND"),
        ("spare-bus", {}, "posts-4 it: 1=SUPPLY 2=BUS_CLOCK 3=BUS_DATA 4=GROUND"),
        (
            "stick-port",
            {},
            (
                "stick-port-9 it: 1=STICK_PORT_IT_UP 2=STICK_PORT_IT_DOWN 3=STICK_PORT_IT_LEFT"
                " 4=STICK_PORT_IT_RIGHT 6=STICK_PORT_IT_PRESS 7=SUPPLY 8=GROUND 10=GROUND"
            ),
        ),
    ],
)
def test_a_port_of_plain_lines(kind: str, fields: dict[str, object], line: str) -> None:
    assert made(kind, **fields) == {line}


def test_a_memory_card_has_its_idle_lines_held_high() -> None:
    """Contacts of the card in SPI mode (SD simplified specification): 2 select, 3 in, 4 supply, 5
    clock, 6 ground, 7 out; 1 and 8 idle.
    """
    held = ("IDLE_1", "SELECT", "TO_CARD", "FROM_CARD", "IDLE_2", "DETECT")
    assert made("memory-card") == written("""
    card-socket memory card: 1=LINK_IT_IDLE_1 2=LINK_IT_SELECT 3=LINK_IT_TO_CARD 4=SUPPLY
        5=LINK_IT_CLOCK 6=GROUND 7=LINK_IT_FROM_CARD 8=LINK_IT_IDLE_2 9=LINK_IT_DETECT 10=GROUND
    capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
    capacitor-2012 10 µF: 1=SUPPLY 2=GROUND
    """) | {f"resistor-1608 10 kΩ: 1=SUPPLY 2=LINK_IT_{name}" for name in held}
    bare = made("memory-card", detect=False)
    assert not any("DETECT" in line for line in bare)


def test_another_usb_device_gets_5_v_through_a_fuse_and_120_uf() -> None:
    five = thing("converter", "five", gives_v=5.0)
    assert made("usb-downstream", five, rail="five") == written("""
    usb-a-socket USB: 1=DOWNSTREAM_IT_5V 2=DOWNSTREAM_IT_MINUS 3=DOWNSTREAM_IT_PLUS 4=GROUND
        5=GROUND
    fuse-resettable-3216 0.5 A: 1=SUPPLY_FIVE 2=DOWNSTREAM_IT_5V
    guard-array guard array: 1=DOWNSTREAM_IT_PLUS 2=GROUND 3=DOWNSTREAM_IT_MINUS
        4=DOWNSTREAM_IT_MINUS 5=DOWNSTREAM_IT_5V 6=DOWNSTREAM_IT_PLUS
    capacitor-2012 22 µF: 1=DOWNSTREAM_IT_5V 2=GROUND
    """)
    with pytest.raises(RecipeNotPossible, match=r"takes 4\.75 V or more"):
        made("usb-downstream")
    brief = device(CHIP, FEED, five, thing("usb-downstream", "it", 60, 30, rail="five"))
    bulk = [
        c for c in assemble(bench_for(brief)).components if "bulk" in c.role and c.thing == "it"
    ]
    assert len(bulk) * 22 >= 120  # µF, USB 2.0 section 7.2.4.1


def test_crystals_carry_twice_what_their_load_lacks() -> None:
    """CL = C/2 + Cstray: 2 x (10 - 3) = 14 pF and 2 x (7 - 2.5) = 9 pF; nearest E24 15 pF (1.07
    times; 13 is 1.08) and 9.1 pF.
    """
    assert made("crystal") == written("""
    crystal-3225 crystal: 1=CRYSTAL_IT_IN 2=GROUND 3=CRYSTAL_IT_OUT 4=GROUND
    capacitor-1608-steady 15 pF: 1=CRYSTAL_IT_IN 2=GROUND
    capacitor-1608-steady 15 pF: 1=CRYSTAL_IT_OUT 2=GROUND
    """)
    assert made("clock-crystal") == written("""
    crystal-3215 clock crystal: 1=CLOCK_CRYSTAL_IT_IN 2=CLOCK_CRYSTAL_IT_OUT
    capacitor-1608-steady 9.1 pF: 1=CLOCK_CRYSTAL_IT_IN 2=GROUND
    capacitor-1608-steady 9.1 pF: 1=CLOCK_CRYSTAL_IT_OUT 2=GROUND
    """)


def test_sensors_on_the_bus_have_their_address_and_a_held_alert() -> None:
    """FN-S6: 1 data, 2 ground, 3 address, 4 supply, 5 alert, 6 clock; FN-M10 and FN-G8 as their
    drawings say.
    """
    assert made("bus-sensor", address=0x45, interrupt=True) == written("""
    bus-sensor-6 address 0x45: 1=BUS_DATA 2=GROUND 3=SUPPLY 4=SUPPLY 5=SENSOR_IT_INTERRUPT
        6=BUS_CLOCK
    capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
    resistor-1608 10 kΩ: 1=SUPPLY 2=SENSOR_IT_INTERRUPT
    """)
    assert made("motion", interrupt=False) == written("""
    motion-sensor-10 address 0x68: 1=BUS_DATA 2=BUS_CLOCK 3=GROUND 4=GROUND 5=GROUND 6=SUPPLY
        7=SUPPLY
    capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
    """)
    cell = thing("lithium-cell", "pack", 60, 30, far=True)
    assert netlist(device(CHIP, cell, thing("gauge", "it", 30, 30)), "it") == written("""
    gauge-8 address 0x36: 1=GROUND 2=CELL_PACK_IN 3=CELL_PACK_IN 4=GROUND 6=GROUND 7=BUS_DATA
        8=BUS_CLOCK
    capacitor-1608 100 nF: 1=CELL_PACK_IN 2=GROUND
    """)
    with pytest.raises(RecipeNotPossible, match="no lithium cell"):
        made("gauge")
    assert made("voltage-sensor") == written("""
    voltage-sensor-3 sensor that gives a plain voltage: 1=SUPPLY 2=SENSOR_IT 3=GROUND
    capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
    """)


def test_a_bus_without_a_screen_has_one_pair_of_pull_ups() -> None:
    """Two sensors and the chip, 10 pF each, 8 pF of track: 38 pF; 967 Ω to 300 ns / (0.8473 x 38
    pF) = 9.32 kΩ; the middle is 3.00 kΩ, in E12 3.3 (1.10 times) is nearer than 2.7 (1.11 times).
    """
    sensors = (thing("bus-sensor", "a", 30, 30), thing("bus-sensor", "b", 90, 30, address=0x45))
    components = assemble(bench_for(device(CHIP, FEED, *sensors))).components
    pulls = {(c.value, *c.pads.values()) for c in components if c.role.startswith("bus ")}
    assert pulls == {("3.3 kΩ", "SUPPLY", "BUS_CLOCK"), ("3.3 kΩ", "SUPPLY", "BUS_DATA")}
    assert sum("pull-up" in c.purpose.lower() for c in components) == 2


def test_lights_in_a_chain_and_in_a_matrix() -> None:
    assert made("light-chain") == written("""
    wire-plug-2.5-3 it: 1=SUPPLY 2=LIGHTS_IT_CHAIN_PLUG 3=GROUND
    resistor-1608 330 Ω: 1=LIGHTS_IT_CHAIN 2=LIGHTS_IT_CHAIN_PLUG
    capacitor-2012 22 µF: 1=SUPPLY 2=GROUND
    """)
    two = made("light-chain", wires="two clocked")
    assert (
        "wire-plug-2.5-4 it: 1=SUPPLY 2=LIGHTS_IT_CLOCK_PLUG 3=LIGHTS_IT_DATA_PLUG 4=GROUND" in two
    )
    # (3.3 - 2.0) V / (20 mA / 2) = 130 Ω; anodes (pad 2) on the rows, cathodes behind the column's
    # resistor
    matrix = made("light-matrix", rows=2, columns=2)
    lamps = {line.split(": ")[1] for line in matrix if line.startswith("light")}
    assert lamps == {f"1=LIGHTS_IT_LIT_{c} 2=LIGHTS_IT_ROW_{r}" for r in (1, 2) for c in (1, 2)}
    assert {line for line in matrix if line.startswith("resistor")} == {
        f"resistor-1608 130 Ω: 1=LIGHTS_IT_COLUMN_{c} 2=LIGHTS_IT_LIT_{c}" for c in (1, 2)
    }


# Amplifier TS-A1: 1 enable, 2 bypass, 3 in plus, 4 in minus, 5 out plus, 6 supply, 7 ground, 8 out
# minus; in plus rests at bypass.
SPOKEN = """
resistor-1608 1 kΩ: 1=SPEAKER_IT_FEED 2=SPEAKER_IT_FILTERED
capacitor-1608 10 nF: 1=SPEAKER_IT_FILTERED 2=GROUND
capacitor-1608 1 µF: 1=SPEAKER_IT_FILTERED 2=SPEAKER_IT_COUPLED
resistor-1608 22 kΩ: 1=SPEAKER_IT_COUPLED 2=SPEAKER_IT_SUM
amplifier-class-d class-D amplifier: 1=SPEAKER_IT_MUTE 2=SPEAKER_IT_BYPASS 3=SPEAKER_IT_BYPASS
    4=SPEAKER_IT_SUM 5=SPEAKER_IT_OUT_PLUS 6=SUPPLY 7=GROUND 8=SPEAKER_IT_OUT_MINUS
capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
capacitor-2012 10 µF: 1=SUPPLY 2=GROUND
capacitor-1608 1 µF: 1=SPEAKER_IT_BYPASS 2=GROUND
wire-plug-2.0-2 speaker: 1=SPEAKER_IT_OUT_PLUS 2=SPEAKER_IT_OUT_MINUS
"""


def test_a_speaker_hangs_between_two_outputs_and_never_at_ground() -> None:
    assert made("speaker") == written(SPOKEN)
    open_ = made("speaker", mute_line=False)
    assert any("1=SUPPLY 2=SPEAKER_IT_BYPASS" in line for line in open_)
    wheel = made("speaker", volume=True) - written(SPOKEN)
    assert wheel == {"wheel-16 volume: 1=SUPPLY 2=SPEAKER_IT_VOLUME 3=GROUND"}
    bus = made("speaker", feed_by="sound bus") - written(SPOKEN)
    assert bus == written("""
    sound-converter sound converter for a digital sound bus: 1=SPEAKER_IT_CLOCK 2=SPEAKER_IT_WORD
        3=SPEAKER_IT_DATA 4=GROUND 5=SUPPLY 6=SPEAKER_IT_LEFT_RAW 7=SPEAKER_IT_RIGHT_RAW
        8=SPEAKER_IT_MIDDLE
    capacitor-1608 1 µF: 1=SPEAKER_IT_MIDDLE 2=GROUND
    resistor-1608 10 kΩ: 1=SPEAKER_IT_LEFT_RAW 2=SPEAKER_IT_FILTERED
    resistor-1608 10 kΩ: 1=SPEAKER_IT_RIGHT_RAW 2=SPEAKER_IT_FILTERED
    capacitor-1608 2.2 nF: 1=SPEAKER_IT_FILTERED 2=GROUND
    """)


def test_headphones_hear_the_speaker_or_the_converter_and_tell_their_plug() -> None:
    """TS-H2: 1 in left, 2 in right, 3 ground, 4 supply, 5 out right, 6 out left, 7 pump, 8 enable;
    CJ-H35: 1 sleeve, 2 tip, 3 ring, 4 the tip's contact.
    """
    shared = """
    headphone-socket headphones: 1=GROUND 2=HEADPHONES_IT_TIP 3=HEADPHONES_IT_RING
        4=HEADPHONES_IT_CONTACT
    resistor-1608 10 kΩ: 1=HEADPHONES_IT_CONTACT 2=HEADPHONES_IT_DETECT
    headphone-amplifier amplifier for headphones: 1=HEADPHONES_IT_LEFT_COUPLED
        2=HEADPHONES_IT_RIGHT_COUPLED 3=GROUND 4=SUPPLY 5=HEADPHONES_IT_RING 6=HEADPHONES_IT_TIP
        7=HEADPHONES_IT_PUMP 8=HEADPHONES_IT_DETECT
    capacitor-1608 1 µF: 1=SUPPLY 2=GROUND
    capacitor-1608 1 µF: 1=HEADPHONES_IT_PUMP 2=GROUND
    resistor-1608 100 kΩ: 1=SUPPLY 2=HEADPHONES_IT_DETECT
    """
    heard = {
        "capacitor-1608 1 µF: 1=SPEAKER_FILTERED 2=HEADPHONES_IT_LEFT_COUPLED",
        "capacitor-1608 1 µF: 1=SPEAKER_FILTERED 2=HEADPHONES_IT_RIGHT_COUPLED",
    }
    speaker = thing("speaker", "speaker", 30, 30)
    assert made("headphones", speaker) == written(shared) | heard
    converter = thing("sound-converter", "sound", 30, 30)
    line = made("headphones", converter) - written(shared)
    assert line == {
        "capacitor-1608 1 µF: 1=SOUND_LEFT 2=HEADPHONES_IT_LEFT_COUPLED",
        "capacitor-1608 1 µF: 1=SOUND_RIGHT 2=HEADPHONES_IT_RIGHT_COUPLED",
    }
    with pytest.raises(RecipeNotPossible, match="nothing makes a sound"):
        made("headphones")


def test_a_sound_converter_has_a_filtered_line_output() -> None:
    """470 Ω and 2.2 nF: 1 / (2 pi R C) = 154 kHz, far above what is heard."""
    assert made("sound-converter") == written("""
    sound-converter sound converter for a digital sound bus: 1=SOUND_IT_CLOCK 2=SOUND_IT_WORD
        3=SOUND_IT_DATA 4=GROUND 5=SUPPLY 6=SOUND_IT_LEFT_RAW 7=SOUND_IT_RIGHT_RAW 8=SOUND_IT_BYPASS
    capacitor-1608 100 nF: 1=SUPPLY 2=GROUND
    capacitor-1608 1 µF: 1=SOUND_IT_BYPASS 2=GROUND
    resistor-1608 470 Ω: 1=SOUND_IT_LEFT_RAW 2=SOUND_IT_LEFT
    capacitor-1608 2.2 nF: 1=SOUND_IT_LEFT 2=GROUND
    resistor-1608 470 Ω: 1=SOUND_IT_RIGHT_RAW 2=SOUND_IT_RIGHT
    capacitor-1608 2.2 nF: 1=SOUND_IT_RIGHT 2=GROUND
    wire-plug-2.0-3 line out: 1=SOUND_IT_LEFT 2=GROUND 3=SOUND_IT_RIGHT
    """)


def test_what_is_ones_own_stands_on_posts_in_its_own_order() -> None:
    quiet = "capacitor-1608 100 nF: 1=SUPPLY 2=GROUND"
    assert made("own-part", lines=2) == {
        "posts-4 it: 1=SUPPLY 2=PART_IT_1 3=PART_IT_2 4=GROUND",
        quiet,
    }
    ordered = made("own-part", lines=2, pin_order="ground, 2, open, 1, supply")
    assert ordered == {"posts-5 it: 1=GROUND 2=PART_IT_2 4=PART_IT_1 5=SUPPLY", quiet}
    block = made("own-block", bus="two-wire", inputs=1, outputs=1)
    assert block == {
        (
            "posts-6 it: 1=SUPPLY 2=BUS_CLOCK 3=BUS_DATA 4=BLOCK_IT_GIVES_1 5=BLOCK_IT_TAKES_1 "
            "6=GROUND"
        ),
        quiet,
    }


@pytest.mark.parametrize(
    ("order", "said"),
    [
        ("supply, 1, 3, ground", "names '3', which it does not have"),
        ("supply, 1, ground", "does not name 2"),
        ("1, 2, ground", "does not name supply"),
        ("supply, 1, 2, 2, ground", "names 2 twice"),
        ("supply, 1, 2, ground" + ", open" * 40, "has 44 posts"),
    ],
)
def test_an_order_of_pins_that_makes_no_sense_is_refused_with_its_place(
    order: str, said: str
) -> None:
    with pytest.raises(BriefError) as caught:
        made("own-part", lines=2, pin_order=order)
    assert said in caught.value.problem
    assert caught.value.place.endswith("pin_order")
    assert caught.value.way_out


def test_k11_an_order_that_nobody_has_compared_is_something_to_look_at(library: Library) -> None:
    rule = next(r for r in RULES if r.id == "own-pins")

    def looked(**fields: object) -> list[str]:
        brief = device(CHIP, FEED, thing("own-part", "dimmer", 60, 30, lines=1, **fields))
        seen = Subject(brief, Choices(), library.house(Choices().house), library)
        return [f.sentence for f in findings_of([(rule, rule.run(seen))])]

    assert looked() == [
        "Nobody has compared the pin order of dimmer with its drawing: supply, 1, ground."
    ]
    assert "ground, 1, supply" in looked(pin_order="ground, 1, supply")[0]
    assert looked(compared="drawing D-4, page 2, 2026-11-20") == []


def test_a_touch_electrode_has_its_sampling_capacitor_in_its_own_group(library: Library) -> None:
    """Charge transfer: the electrode behind a series resistor, 47 nF at another pin of the same
    group (notes of the chip makers on touch blocks, from memory); two electrodes take two groups.
    """
    assert made("touch") == written("""
    touch-electrode-10 it: 1=TOUCH_IT_PLATE
    resistor-1608 1 kΩ: 1=TOUCH_IT 2=TOUCH_IT_PLATE
    capacitor-1608 47 nF: 1=TOUCH_IT_SAMPLE 2=GROUND
    """)
    two = (thing("touch", "one", 30, 30), thing("touch", "two", 90, 30))
    design = bring_up_to_date(Design(brief=device(CHIP, FEED, *two)), library, "pins")
    on = {row.signal: row.function for row in slice_of(design.pins).assignments}
    groups = {name: on[f"touch:{name}"].split("_")[0] for name in ("one", "two")}
    assert groups["one"] != groups["two"]
    for name, group in groups.items():
        assert on[f"touch:{name}:sample"].split("_")[0] == group
        assert on[f"touch:{name}:sample"] != on[f"touch:{name}"]


def test_a_touch_electrode_stays_under_the_mask(library: Library) -> None:
    """Its pad is round, and no opening of the mask lies over it."""
    (pad,) = library.pattern("touch-electrode-10").pads
    assert isinstance(pad.shape, Round)
    assert pad.shape.d == 10_000_000
    assert pad.covered
    brief = device(CHIP, FEED, thing("touch", "it", 60, 30))
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    view = board_view(design, library)
    plate = next(c.ref for c in view.circuit.components if c.part == "touch-electrode-10")
    assert plate in {o.ref for o in copper_layer(view, "near", "x").objects}
    open_over = {o.ref for o in mask_layer(view, "near", "x").objects}
    assert plate not in open_over
    assert len(open_over) > 3
