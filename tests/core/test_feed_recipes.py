"""Sources, chargers, converters and USB: their netlists written out by hand, from the pin orders of
the drawings and the circuits named beside them.
"""

import pytest

from loquet.core.brief import BriefError
from loquet.core.checks.rules import back_feed
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.power import rails_of
from loquet.core.provenance import Passed
from tests.core.benches import bench_for, seen_with
from tests.core.netlists import netlist, written
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
SWITCH = thing("power-switch", "switch", 60, 50)
LITHIUM = thing("lithium-cell", "cell", 60, 30, far=True)

# Charger CB-C1: 1 status, 2 ground, 3 cell, 4 in, 5 program; 1000 times the current at 1 V: 280 mA
# leave it cool -> 3.57 kΩ, next E24 3.6 kΩ.
# Power path, common practice: P-channel transistor (1 gate, 2 source, 3 drain) from cell to device,
# gate at the plug's 5 V.
# Regulator CB-L3: 1 in, 2 ground, 3 enable, 5 out.
CHARGED = """
wire-plug-2.0-2 lithium cell 1000 mAh: 1=CELL_TOP 2=GROUND
charger-linear charger for one lithium cell: 2=GROUND 3=CELL_TOP 4=LINK_USB_5V 5=CELL_PROGRAM
resistor-1608 3.6 kΩ: 1=CELL_PROGRAM 2=GROUND
capacitor-2012 4.7 µF: 1=LINK_USB_5V 2=GROUND
capacitor-2012 4.7 µF: 1=CELL_TOP 2=GROUND
transistor-pmos-sot23 P-channel: 1=LINK_USB_5V 2=CELL_GUARDED 3=CELL_TOP
diode-schottky-sod123 Schottky: 1=CELL_GUARDED 2=LINK_USB_5V    # pad 1 is the cathode
resistor-1608 100 kΩ: 1=LINK_USB_5V 2=GROUND  # lets the gate fall when the plug is pulled
regulator-linear-low 3.3 V: 1=CELL_IN 2=GROUND 3=CELL_IN 5=SUPPLY
capacitor-2012 4.7 µF: 1=CELL_IN 2=GROUND    # a port sees 10 µF at the most
capacitor-2012 22 µF: 1=SUPPLY 2=GROUND
resistor-1608 1 MΩ: 1=CELL_TOP 2=CELL_SENSE                      # half of 4.2 V is below 3.3 V
resistor-1608 1 MΩ: 1=CELL_SENSE 2=GROUND
capacitor-1608 100 nF: 1=CELL_SENSE 2=GROUND
"""
# USB Type-C: A1/B12 and A12/B1 ground (1, 12), A4/B9 and A9/B4 supply (2, 11), A5 and B5 (4, 10)
# each 5.1 kΩ to ground,
# A6 and B6 plus (6, 8), A7 and B7 minus (5, 7); A8 and B8 (3, 9) stay open; shell on 13.
USB = """
usb-c-16 USB-C: 1=GROUND 2=LINK_USB_PLUG 4=LINK_USB_CC1 5=USB_MINUS 6=USB_PLUS 7=USB_MINUS
    8=USB_PLUS 10=LINK_USB_CC2 11=LINK_USB_PLUG 12=GROUND 13=GROUND
fuse-resettable-3216 0.5 A: 1=LINK_USB_PLUG 2=LINK_USB_5V
resistor-1608 5.1 kΩ: 1=LINK_USB_CC1 2=GROUND
resistor-1608 5.1 kΩ: 1=LINK_USB_CC2 2=GROUND
guard-array guard array: 1=USB_PLUS 2=GROUND 3=USB_MINUS 4=USB_MINUS 5=LINK_USB_5V 6=USB_PLUS
"""


def test_a_lithium_cell_is_charged_from_usb_behind_a_power_path() -> None:
    brief = device(CHIP, LITHIUM, thing("usb-device", "usb"), SWITCH)
    assert netlist(brief, "cell") == written(CHARGED)
    assert netlist(brief, "usb") == written(USB)
    assert netlist(brief, "switch") == {"switch-slide-surface on and off: 2=CELL_GUARDED 3=CELL_IN"}


def test_without_a_port_the_cell_has_a_guard_and_without_a_switch_no_guarded_net() -> None:
    made = netlist(device(CHIP, {**LITHIUM, "sense": False}), "cell")
    guard = {line for line in made if line.startswith("transistor")}
    assert guard == {"transistor-pmos-sot23 P-channel: 1=GROUND 2=CELL_IN 3=CELL_TOP"}
    assert not any("SENSE" in line or "charger" in line for line in made)


def test_a_port_that_feeds_the_device_lets_nothing_flow_back() -> None:
    brief = device(CHIP, thing("usb-charge", "plug", feeds=True))
    made = netlist(brief, "plug")
    assert "diode-schottky-sod123 Schottky: 1=CHARGE_PLUG_IN 2=CHARGE_PLUG_5V" in made
    assert "regulator-linear-low 3.3 V: 1=CHARGE_PLUG_IN 2=GROUND 3=CHARGE_PLUG_IN 5=SUPPLY" in made
    assert not any("USB_PLUS" in line for line in made)


# Step-down CB-D2: 1 boot, 2 ground, 3 feedback, 4 enable, 5 in, 6 switch; 0.6 V at feedback:
# 22 kΩ x (3.3 / 0.6 - 1) = 99 kΩ, nearest E24 100 kΩ.
STEPPED_DOWN = """
transistor-pmos-30v P-channel: 1=GROUND 2=PACK_IN 3=PACK_TOP
converter-buck step-down converter: 1=PACK_BOOT 2=GROUND 3=PACK_FEEDBACK 4=PACK_IN 5=PACK_IN
    6=PACK_COIL
capacitor-3216 10 µF: 1=PACK_IN 2=GROUND
inductor-4040 4.7 µH: 1=PACK_COIL 2=SUPPLY
capacitor-1608 100 nF: 1=PACK_BOOT 2=PACK_COIL
capacitor-2012 22 µF: 1=SUPPLY 2=GROUND
resistor-1608 100 kΩ: 1=SUPPLY 2=PACK_FEEDBACK
resistor-1608 22 kΩ: 1=PACK_FEEDBACK 2=GROUND
"""


def test_a_series_pack_and_a_block_are_stepped_down_behind_a_guard() -> None:
    pack = "wire-plug-2.5-2 2 lithium cells: 1=PACK_TOP 2=GROUND"
    assert netlist(device(CHIP, thing("series-pack", "pack")), "pack") == written(STEPPED_DOWN) | {
        pack
    }
    block = "wire-plug-2.5-2 nine-volt block: 1=BLOCK_TOP 2=GROUND"
    moved = written(STEPPED_DOWN.replace("PACK", "BLOCK"))
    assert netlist(device(CHIP, thing("nine-volt", "block", 60, 30, far=True)), "block") == (
        moved | {block}
    )


def test_5_v_sources_take_a_linear_regulator_behind_a_transistor() -> None:
    regulated = """
    transistor-pmos-sot23 P-channel: 1=GROUND 2=FEED_IN 3=FEED_TOP
    regulator-linear-low 3.3 V: 1=FEED_IN 2=GROUND 3=FEED_IN 5=SUPPLY
    capacitor-2012 10 µF: 1=FEED_IN 2=GROUND
    capacitor-2012 22 µF: 1=SUPPLY 2=GROUND
    """
    feed = "wire-plug-2.0-2 5 V from the host: 1=FEED_TOP 2=GROUND"
    jack = "jack-barrel-55 adapter 5 V: 1=JACK_TOP 2=GROUND"
    assert netlist(device(CHIP, thing("host-feed", "feed")), "feed") == written(regulated) | {feed}
    made = netlist(device(CHIP, thing("barrel-jack", "jack")), "jack")
    assert made == written(regulated.replace("FEED", "JACK")) | {jack}


# Step-up CB-U1: 1 switch, 2 ground, 3 feedback, 4 enable, 5 out, 6 in; 0.5 V at feedback:
# 22 kΩ x (5 / 0.5 - 1) = 198 kΩ, nearest E24 200 kΩ -> 5.045 V.
FIVE = """
converter-boost step-up converter: 1=FIVE_COIL 2=GROUND 3=FIVE_FEEDBACK 4=SUPPLY 5=SUPPLY_FIVE
    6=SUPPLY
capacitor-2012 10 µF: 1=SUPPLY 2=GROUND
inductor-4040 4.7 µH: 1=SUPPLY 2=FIVE_COIL
capacitor-3216 22 µF: 1=SUPPLY_FIVE 2=GROUND     # twice its volts: dense ceramics lose half
resistor-1608 200 kΩ: 1=SUPPLY_FIVE 2=FIVE_FEEDBACK
resistor-1608 22 kΩ: 1=FIVE_FEEDBACK 2=GROUND
"""


def five_volt_stick(**more: object) -> Plain:
    return thing("stick", "slew", 30, 30, supply="5 V", press=False, **more)


def test_a_second_rail_is_stepped_up_and_a_stick_on_it_is_divided() -> None:
    """10 kΩ x (5 / 3.3 - 1) = 5.15 kΩ, the next E24 is 5.6 kΩ: full scale 3.205 V."""
    cells = thing("leads", "leads", volts=3.3)
    brief = device(CHIP, cells, thing("converter", "five", gives_v=5.0), five_volt_stick())
    made = {line.replace("CONVERTER_FIVE", "FIVE") for line in netlist(brief, "five")}
    assert made == written(FIVE)
    stick = netlist(brief, "slew")
    assert {line for line in stick if line.startswith("resistor")} == written("""
    resistor-1608 5.6 kΩ: 1=STICK_SLEW_X_FULL 2=STICK_SLEW_X
    resistor-1608 10 kΩ: 1=STICK_SLEW_X 2=GROUND
    resistor-1608 5.6 kΩ: 1=STICK_SLEW_Y_FULL 2=STICK_SLEW_Y
    resistor-1608 10 kΩ: 1=STICK_SLEW_Y 2=GROUND
    """)
    (body,) = (line for line in stick if line.startswith("stick"))
    assert "=SUPPLY_FIVE" in body
    assert "=SUPPLY " not in body


def test_volts_that_nothing_makes_are_refused_with_what_every_way_lacks() -> None:
    high = device(CHIP, thing("barrel-jack", "jack", adapter_v=24.0))
    with pytest.raises(RecipeNotPossible) as caught:
        assemble(bench_for(high))
    assert "takes 24 V at the most, and the source gives 25.20 V" in caught.value.limit
    with pytest.raises(RecipeNotPossible, match="no 5 V rail"):
        assemble(bench_for(device(CHIP, thing("leads", "leads"), five_volt_stick())))
    chosen = device(CHIP, thing("barrel-jack", "jack", adapter_v=5.0, converter="buck"))
    made = netlist(
        device(CHIP, thing("barrel-jack", "jack", adapter_v=9.0, converter="buck")), "jack"
    )
    assert any(line.startswith("converter-buck") for line in made)
    assert any(line.startswith("converter-buck") for line in netlist(chosen, "jack"))


def test_the_first_family_wants_series_resistors_and_a_pull_up_at_usb() -> None:
    """Makers' hardware notes, from memory: 22 Ω in both lines, 1.5 kΩ from 3.3 V to plus tells
    full speed.
    """
    chip = thing("chip", "chip", part="stm32f103c8t6")
    made = netlist(device(chip, thing("leads", "leads"), thing("usb-device", "usb")), "usb")
    assert {line for line in made if "22 Ω" in line or "1.5 k" in line} == written("""
    resistor-1608 22 Ω: 1=USB_PLUS_PORT 2=USB_PLUS
    resistor-1608 22 Ω: 1=USB_MINUS_PORT 2=USB_MINUS
    resistor-1608 1.5 kΩ: 1=SUPPLY 2=USB_PLUS
    """)
    assert (
        "guard-array guard array: 1=USB_PLUS_PORT 2=GROUND 3=USB_MINUS_PORT 4=USB_MINUS_PORT"
        " 5=LINK_USB_5V 6=USB_PLUS_PORT" in made
    )


# Negotiator CB-N1: 1 in, 2 ground, 3 cc 1, 4 cc 2, 5 select (15 kΩ: 12 V), 6 good, an open drain.
# The switch: 12 V over 100 kΩ and 100 kΩ leave 6 V at the gate, which may have 8 V; its source is
# at the plug.
TWELVE = """
usb-c-16 USB-C: 1=GROUND 2=CHARGE_PLUG_PLUG 4=CHARGE_PLUG_CC1 10=CHARGE_PLUG_CC2 11=CHARGE_PLUG_PLUG
    12=GROUND 13=GROUND
fuse-3216 4 A: 1=CHARGE_PLUG_PLUG 2=CHARGE_PLUG_FUSED
pd-sink-6 12 V: 1=CHARGE_PLUG_FUSED 2=GROUND 3=CHARGE_PLUG_CC1 4=CHARGE_PLUG_CC2
    5=CHARGE_PLUG_SELECT 6=CHARGE_PLUG_GOOD
resistor-1608 15 kΩ: 1=CHARGE_PLUG_SELECT 2=GROUND
capacitor-3216 1 µF: 1=CHARGE_PLUG_FUSED 2=GROUND
transistor-pmos-30v P-channel: 1=CHARGE_PLUG_GATE 2=CHARGE_PLUG_FUSED 3=CHARGE_PLUG_5V
resistor-1608 100 kΩ: 1=CHARGE_PLUG_FUSED 2=CHARGE_PLUG_GATE
resistor-1608 100 kΩ: 1=CHARGE_PLUG_GATE 2=CHARGE_PLUG_GOOD
capacitor-3216 1 µF: 1=CHARGE_PLUG_5V 2=GROUND
diode-schottky-sod123 Schottky: 1=CHARGE_PLUG_IN 2=CHARGE_PLUG_5V
"""


def test_twelve_volts_are_asked_for_and_let_on_when_they_are_there() -> None:
    made = netlist(device(CHIP, thing("usb-charge", "plug", feeds=True, asks="12 V")), "plug")
    assert written(TWELVE) <= made
    assert len(made - written(TWELVE)) == 3  # at 8 mA a linear regulator with its two capacitors
    assert not any("5.1 kΩ" in line for line in made)


@pytest.mark.parametrize(
    ("asks", "fuse"),
    [
        ("500 mA", "fuse-resettable-3216 0.5 A"),
        ("1.5 A", "fuse-3216 2 A"),
        ("3 A", "fuse-3216 4 A"),
    ],
)
def test_what_is_asked_for_at_5_v_decides_the_fuse(asks: str, fuse: str) -> None:
    made = netlist(device(CHIP, thing("usb-charge", "plug", feeds=True, asks=asks)), "plug")
    assert sum(line.startswith(fuse) for line in made) == 1
    assert sum("5.1 kΩ" in line for line in made) == 2


@pytest.mark.parametrize(
    ("lights", "asks", "part"),
    [
        # 8 mA of the chip; 3 lights are 180 mA, 10 are 600 mA at a rail of 5 V: at 12 V in 0.28 A,
        # through 0.4 V
        (0, "500 mA", "diode-schottky-sod123"),
        (6, "500 mA", "ideal-diode-5"),
        (10, "12 V", "diode-schottky-sod123"),
    ],
)
def test_what_lets_current_out_follows_from_the_current(lights: int, asks: str, part: str) -> None:
    """A Schottky diode of 1 A loses 0.4 V; above 250 mA an ideal diode is worth its price where it
    takes the volts (5.5 V).
    """
    port = thing("usb-charge", "plug", feeds=True, gives_v=3.3, asks=asks)
    more = (thing("light-chain", "ring", count=lights),) if lights else ()
    made = netlist(device(CHIP, port, *more), "plug")
    assert [line.split()[0] for line in made if line.startswith((part, "ideal", "diode"))] == [part]


# Two sources on one rail: each has a diode (pad 1 is the cathode) into the same net; only the host
# has a converter.
BOTH = """
wire-plug-2.5-2 nine-volt block: 1=BLOCK_TOP 2=GROUND
diode-schottky-sod123 Schottky: 1=BLOCK_GUARDED 2=BLOCK_TOP
"""


def test_two_sources_feed_one_rail_and_none_feeds_the_other() -> None:
    jack = thing("barrel-jack", "jack", adapter_v=12.0, rail="block")
    brief = device(CHIP, thing("nine-volt", "block"), jack, SWITCH)
    assert written(BOTH) <= netlist(brief, "block")
    assert netlist(brief, "jack") == written("""
    jack-barrel-55 adapter 12 V: 1=JACK_TOP 2=GROUND
    diode-schottky-sod123 Schottky: 1=BLOCK_GUARDED 2=JACK_TOP
    """)
    assert netlist(brief, "switch") == {
        "switch-slide-surface on and off: 2=BLOCK_GUARDED 3=BLOCK_IN"
    }
    assert isinstance(back_feed.run(seen_with(brief)), Passed)
    assert [rail.net for rail in rails_of(brief)] == ["SUPPLY"]


def test_a_pack_that_is_joined_has_a_diode_where_it_would_have_a_transistor_that_is_on() -> None:
    """5 V of a host beside a pack of one lithium cell without charger: both below 8 V, where alone
    each has a P-channel transistor with its gate at ground.
    """
    alone = netlist(device(CHIP, {**LITHIUM, "sense": False}), "cell")
    assert any(line.startswith("transistor-pmos") for line in alone)
    feed = thing("host-feed", "host", rail="cell")
    brief = device(CHIP, {**LITHIUM, "sense": False}, feed)
    both = netlist(brief, "cell") | netlist(brief, "host")
    assert not any(line.startswith("transistor-pmos") for line in both)
    assert sum(line.startswith("diode-schottky") for line in both) == 2
    assert isinstance(back_feed.run(seen_with(brief)), Passed)


def test_a_source_joins_before_a_converter_and_no_cell_that_is_charged() -> None:
    jack = thing("barrel-jack", "jack", rail="leads")
    with pytest.raises(BriefError, match="is the rail of 'leads', which is that source itself"):
        device(CHIP, thing("leads", "leads"), jack)
    feed = thing("host-feed", "host", rail="cell")
    brief = device(CHIP, LITHIUM, thing("usb-charge", "plug"), feed)
    with pytest.raises(RecipeNotPossible, match="host feeds its rail as well, and plug charges it"):
        assemble(bench_for(brief))


def test_what_names_no_source_has_a_rail_of_its_own() -> None:
    for rail in ("chip", "gone"):
        with pytest.raises(BriefError, match=f"takes the rail '{rail}', which nothing in this"):
            device(CHIP, thing("nine-volt", "block"), thing("barrel-jack", "jack", rail=rail))
    for rail in ("", "jack"):
        brief = device(CHIP, thing("nine-volt", "block"), thing("barrel-jack", "jack", rail=rail))
        assert [r.name for r in rails_of(brief)] == ["block", "jack"]
    ring = (thing("nine-volt", "block", rail="jack"), thing("barrel-jack", "jack", rail="block"))
    assert [r.name for r in rails_of(device(CHIP, *ring))] == ["block", "jack"]


# P-channel transistor: 1 gate, 2 source, 3 drain; NPN: 1 base, 2 emitter, 3 collector. 3.3 V over
# 10 kΩ: 0.33 mA, a twentieth
# of it for the base: (3.3 - 0.4 - 0.7) V / 16.5 µA = 133 kΩ.
SWITCHED = """
transistor-pmos-sot23 P-channel: 1=SWITCHED_QUIET_GATE 2=SUPPLY 3=SUPPLY_QUIET
resistor-1608 10 kΩ: 1=SUPPLY 2=SWITCHED_QUIET_GATE
capacitor-1608 10 nF: 1=SUPPLY 2=SWITCHED_QUIET_GATE
transistor-npn-sot23 NPN: 1=SWITCHED_QUIET_BASE 2=GROUND 3=SWITCHED_QUIET_GATE
resistor-1608 130 kΩ: 1=SWITCHED_QUIET_ON 2=SWITCHED_QUIET_BASE
resistor-1608 100 kΩ: 1=SWITCHED_QUIET_BASE 2=GROUND
capacitor-1608 1 µF: 1=SUPPLY_QUIET 2=GROUND
"""


def test_a_switched_rail_is_off_until_the_brain_turns_it_on() -> None:
    brief = device(CHIP, thing("leads", "leads"), thing("load-switch", "quiet"))
    assert netlist(brief, "quiet") == written(SWITCHED)
    quiet = rails_of(brief)[1]
    assert (quiet.net, quiet.usual_v, quiet.fed_by) == ("SUPPLY_QUIET", 3.3, "quiet")
    five = (thing("converter", "five", gives_v=5.0), thing("load-switch", "quiet", rail="five"))
    rails = rails_of(device(CHIP, thing("leads", "leads"), *five))
    assert [(r.name, r.usual_v) for r in rails] == [("leads", 3.3), ("five", 5.0), ("quiet", 5.0)]


def test_the_divider_of_a_converter_says_what_it_gives_at_its_worst() -> None:
    """0.6 V x (1 + 100 / 22) = 3.327 V; both resistors 1 % off the wrong way: 2 % of 2.727 V."""
    brief = device(CHIP, thing("nine-volt", "block", converter="buck"))
    shown = {w.id: w.shown for w in assemble(bench_for(brief)).workings}
    assert shown["block.feedback"] == "3.327 V ± 0.055 V"
