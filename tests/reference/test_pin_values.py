"""Published and practice values of pins and buses."""

import re

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.pins.buses import (
    axis_working,
    bus_workings,
    codes_used,
    divider_ratio,
    frame_rate,
    legible_text,
    parallel_frame_hz,
    pull_up_limits_ohm,
    serial_frame_hz,
    text_working,
    two_wire_frame_hz,
)
from loquet.core.pins.needing import needs_of
from loquet.core.pins.schemes.ladder import ladder_windows
from loquet.core.pins.wiring import lines_for, shape_of
from tests.making import device, thing, varied
from tests.recomputing import faults_in


@pytest.mark.parametrize(("pins", "keys"), [(8, 16), (7, 12), (9, 20), (6, 9)])
def test_matrix_of_n_pins(pins: int, keys: int) -> None:
    """floor(n/2) x ceil(n/2) keys on n pins; 8 pins read 16 keys (common practice, no source)."""
    rows, columns = shape_of(keys, "best")
    assert rows + columns == pins
    assert rows * columns == (pins // 2) * ((pins + 1) // 2) == keys


@pytest.mark.parametrize(("pins", "keys"), [(3, 6), (4, 12), (5, 20), (6, 30)])
def test_charlieplexing(pins: int, keys: int) -> None:
    """n(n - 1) keys on n pins (common practice, no source)."""
    assert lines_for(keys) == pins
    assert lines_for(keys + 1) == pins + 1


@pytest.mark.parametrize(("bits", "lines"), [(18, 18), (15, 15), (6, 6)])
def test_colour_bits_take_a_line_each(bits: int, lines: int) -> None:
    """Parallel colour: a line a bit, so three channels of 5 bits take 15 lines and of 2 bits 6
    (common practice, no source).
    """
    screen = thing("screen", "screen", 40, 30, part="screen-320x240-parallel")
    brief = varied(
        "dome-pod",
        things={"screen": None},
        plus=({**screen, "bus": "parallel colour", "colour_bits": bits},),
    )
    asked = [need for need in needs_of(brief) if need.thing == "screen"]
    colour = [need for need in asked if re.search(r"(colour|bit|data) ?\d+$", need.title)]
    assert len(colour) == lines, [need.title for need in asked]


def test_frame_rates() -> None:
    """40 MHz, 320 x 240, 16 bits: 32.6 a second, in practice 'about 30'; 128 x 64 over 400 kHz
    about 40, over 8 MHz about 970 (common practice).
    """
    assert serial_frame_hz(320, 240, 16, 40) == pytest.approx(32.55, abs=0.05)
    assert two_wire_frame_hz(128, 64, 1, 400) == pytest.approx(40, rel=0.1)
    assert serial_frame_hz(128, 64, 1, 8) == pytest.approx(970, rel=0.01)
    assert parallel_frame_hz(320, 240, 6_000) == pytest.approx(70, abs=1)


def test_two_wire_frame_counted_bit_by_bit() -> None:
    """1,024 bytes in 64 blocks with address and control byte each, 10 bytes of window commands:
    counted by hand from UM10204's 9 bits a byte.
    """
    bits = 64 * (9 * (16 + 2) + 2) + 9 * 10 + 2
    assert two_wire_frame_hz(128, 64, 1, 400) == pytest.approx(400_000 / bits)


@pytest.mark.parametrize(
    ("supply", "load_pf", "khz", "least", "greatest"),
    [(3.3, 100, 400, 967, 3540), (3.3, 400, 100, 967, 2950), (5.0, 200, 400, 1533, 1770)],
)
def test_pull_ups(supply: float, load_pf: float, khz: int, least: float, greatest: float) -> None:
    """UM10204 section 7.1: 967 ohm at 3.3 V; 300 ns and 100 pF give 3.54 kΩ, 1000 ns and 400 pF
    2.95 kΩ.
    """
    low, high = pull_up_limits_ohm(supply, load_pf, khz)
    assert low == pytest.approx(least, abs=1)
    assert high == pytest.approx(greatest, rel=0.003)


def test_converter_use() -> None:
    """codes = span/reference x 2^n; bits lost = log2(reference/span): a span of 1.65 V at 3.3 V
    loses one bit.
    """
    codes, lost = codes_used(1.65, 3.3, 12)
    assert (codes, lost) == (2048, pytest.approx(1))
    assert codes_used(3.3, 3.3, 10) == (1024, 0)
    assert codes_used(5.0, 3.3, 12)[1] == 0


def test_divider_from_5_v() -> None:
    """3.3/5 = 0.66, such as 10 kΩ over 19.6 kΩ (Ohm's law)."""
    assert divider_ratio(5.0, 3.3) == pytest.approx(0.66)
    assert divider_ratio(3.3, 3.3) == 1


def test_legible_rows() -> None:
    """Characters of 6 x 8 pixels, grown to 1.8 mm: 128 x 64 on 10.9 mm gives 4 rows of 10 (common
    practice, no source).
    """
    rows, columns, high = legible_text(bundled_library().screens["screen-128x64-serial"])
    assert (rows, columns) == (4, 10)
    assert high == pytest.approx(2.73, abs=0.01)


def test_ladder_values_are_preferred() -> None:
    """Equal steps of an eight-key ladder with 10 kΩ: 10 k/7 = 1.43 kΩ, 10 k/3 = 3.32 kΩ (E96 of
    IEC 60063).
    """
    windows = ladder_windows(tuple("abcdefgh"))
    assert windows[1].resistor_ohm == 1430
    assert windows[2].resistor_ohm == 3320
    assert windows[4].resistor_ohm == 10_000


@pytest.mark.parametrize(
    ("bus", "part", "hz"),
    [
        ("two-wire", "screen-128x64-two-wire", 400e3 / (9 * (1024 + 128 + 10) + 130)),
        ("one-way serial", "screen-320x240-serial", 8e6 / (320 * 240 * 16)),
        ("parallel colour", "screen-320x240-parallel", 6e6 / (320 * 240) * 0.9),
    ],
)
def test_frames_a_second_of_each_bus(bus: str, part: str, hz: float) -> None:
    """Bits on the wire by hand: 64 blocks of 18 bytes and 10 to head them; 8 MHz and 16 bits a
    pixel; a pixel a clock of 6 MHz less a tenth.
    """
    shown = device(thing("screen", "screen", 60, 30, bus=bus, part=part, serial_mhz=8)).thing(
        "screen"
    )
    display = shown.display()
    assert display is not None
    rate = frame_rate(display, bundled_library().screens[part])
    assert rate.value == pytest.approx(hz)
    assert faults_in([rate, text_working(display, bundled_library().screens[part])]) == []


def test_the_load_of_a_bus_by_hand() -> None:
    """UM10204: 10 pF for the chip's pin; 8 pF of track, 30 pF of the screen, 10 pF a sensor, 50 pF
    of a cable, 20 pF of helpers.
    """
    brief = device(
        thing("screen", "show", 60, 30),
        thing("motion", "m", 20, 30),
        thing("gauge", "g", 90, 30),
        thing("spare-bus", "far", 60, 55),
    )
    load, range_of = bus_workings(brief, bundled_library().screens, 20, 400, 3.3)
    assert load.value == 10 + 8 + 30 + 10 + 10 + 50 + 20
    assert range_of.value == pytest.approx(300e-9 / (0.8473 * 138e-12))
    assert range_of.shown.startswith("967 Ω to ")
    assert faults_in([load, range_of]) == []


@pytest.mark.parametrize(
    ("share", "supply", "reference", "bits", "codes"),
    [
        (0.8, 3.3, 3.3, 12, 3276.8),
        (0.5, 5.0, 3.3, 12, 2048),
        (1.0, 5.0, 3.3, 10, 1024),
        (0.6, 2.0, 3.0, 12, 1638.4),
    ],
)
def test_codes_of_an_axis(
    share: float, supply: float, reference: float, bits: int, codes: float
) -> None:
    """Half of 5 V behind a divider to 3.3 V is half of all codes; 60 % of 2 V is 40 % of a
    reference of 3 V.
    """
    found = axis_working("x", "x", share, supply, reference, bits)
    assert found.value == pytest.approx(codes)
    assert ("divider" in found.formula) == (supply > reference)
    assert faults_in([found]) == []
