"""Figures of every way to read keys and of the ways out, worked out by hand.

Scan: three time constants of 40 kΩ and 20 pF + 5 pF a key, 1 µs a read; 9 bits a byte on the bus
(UM10204). Prices are those of the bundled catalogue (3 cents a diode, 86 and 128 an expander, 24 a
register, 0.8 a resistor, 1.2 a capacitor), which are invented.
"""

from typing import Any

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief, Chords, keys_of
from loquet.core.parts import AlternateFunction, ChipPin
from loquet.core.pins.chords import chord_pairs, together_of
from loquet.core.pins.model import Need
from loquet.core.pins.options import Option
from loquet.core.pins.problem import Score, Solved
from loquet.core.pins.schemes.comparing import (
    bill_of,
    burden,
    card_of,
    compare,
    faults_in_chords,
    helpers_pf,
    reason,
    shape_words,
)
from loquet.core.pins.schemes.ladder import ladder_windows, least_gap
from loquet.core.pins.schemes.timing import bus_wait_ms, latency_ms, report_ms, scan_us
from loquet.core.pins.wiring import KeyWiring
from tests.making import device, thing
from tests.recomputing import faults_in

NINE = tuple(f"k{n}" for n in range(9))
KEYS = tuple(thing("button", f"k{n}", 10 + 12 * n, 20) for n in range(9))
PLAIN = device(*KEYS, thing("cells", "cells", 60, 45, far=True))
CELLS = tuple((key, n // 3, n % 3) for n, key in enumerate(NINE))
MATRIX = KeyWiring("diode matrix", 3, 3, CELLS, NINE)


@pytest.mark.parametrize(
    ("wiring", "micros"),
    [
        (KeyWiring("one pin each", direct=NINE), 1.0),
        (MATRIX, 3 * (3 * 40e3 * 35e-12 * 1e6 + 1)),  # three keys on a line: 35 pF, 4.2 µs
        (KeyWiring("mixed", 3, 3, CELLS, NINE, ("hot",)), 3 * (4.2 + 1) + 1),
        (KeyWiring("charlieplexed", 4, 4, CELLS, NINE), 4 * (6.0 + 1)),  # six keys: 50 pF, 6 µs
        (KeyWiring("expander 8", listed=NINE), 2 * (9 * 4 + 3) / 0.4),  # two of them, 78 bits
        (KeyWiring("expander 16", listed=NINE), 48 / 0.4),
        (KeyWiring("expander 16", listed=NINE, direct=("hot",)), 121.0),
        (KeyWiring("shift register", listed=NINE), 18.0),  # 16 clocks and two of loading at 1 MHz
        (KeyWiring("shift register", listed=NINE[:8]), 10.0),
        (KeyWiring("resistor ladder", listed=NINE), 40.0),  # two ladders of 20 µs
        (KeyWiring("resistor ladder", listed=NINE[:8], direct=("hot",)), 21.0),
    ],
)
def test_scan_times(wiring: KeyWiring, micros: float) -> None:
    assert scan_us(PLAIN, wiring).value == pytest.approx(micros)


def test_the_longest_time_from_press_to_report() -> None:
    """A loop of 1 ms or a longer scan, the scan, 5 ms of debounce, 1 ms of polling; a screen's page
    of 128 bytes on the same bus.
    """
    register = KeyWiring("shift register", listed=NINE)
    assert latency_ms(PLAIN, register, scan_us(PLAIN, register)).value == pytest.approx(6.018)
    usb = PLAIN.model_copy(update={"role": "usb-keyboard"})
    assert latency_ms(usb, register, scan_us(usb, register)).value == pytest.approx(7.018)
    assert [report_ms(b) for b in (PLAIN, usb)] == [0.0, 1.0]
    many = KeyWiring("expander 8", listed=tuple(f"k{n}" for n in range(64)))
    slow = device(*KEYS, thing("screen", "show", 60, 45, bus_khz=100))
    scan = scan_us(slow, many)
    assert scan.value == pytest.approx(8 * 39 * 10)
    assert latency_ms(slow, many, scan).value == pytest.approx(3.12 + 3.12 + 11.52 + 5)
    shown = device(*KEYS, thing("screen", "show", 60, 45))
    waits = [
        bus_wait_ms(brief, KeyWiring(name, listed=NINE))  # type: ignore[arg-type]
        for brief in (shown, PLAIN)
        for name in ("expander 8", "expander 16", "shift register")
    ]
    assert waits == [pytest.approx(2.88), pytest.approx(2.88), 0.0, 0.0, 0.0, 0.0]


def test_a_ladder_of_two_keys_code_by_code() -> None:
    """10 kΩ above; the second key's 10 kΩ reads 2047.5.

    Worst: ±1 %, 100 Ω, 1 µA (5 mV over 5 kΩ at 3 V is 6.8 codes), one code.
    """
    first, second, none = ladder_windows(("a", "b"))
    assert (first.resistor_ohm, second.resistor_ohm) == (0, 10_000)
    assert second.usual == pytest.approx(2047.5)
    low_v = (3.0 * 9_900 - 1e-6 * 9_900 * 10_100) / 20_000
    high_v = (3.0 * 10_200 + 1e-6 * 10_200 * 9_900) / 20_100
    assert second.low == pytest.approx(low_v / 3 * 4095 - 1)
    assert second.high == pytest.approx(high_v / 3 * 4095 + 1)
    assert (first.low, first.usual) == (-1, 0)
    assert first.high == pytest.approx((3.0 * 100 + 1e-6 * 100 * 9_900) / 10_000 / 3 * 4095 + 1)
    assert none.low == pytest.approx(4095 - 4095 * 0.01 / 3 - 1)
    assert least_gap((first, second, none)) == pytest.approx(second.low - first.high)


def card(name: str, brief: Brief = PLAIN) -> Any:
    library = bundled_library()
    return card_of(brief, name, library.parts, together_of(brief), lambda needs: "")


@pytest.mark.parametrize(
    ("name", "shape", "pins", "cents", "mm2", "micro_amps", "held"),
    [
        # 3.0 V over 40 kΩ inside the chip, 100 kΩ at a helper, 10 kΩ of a ladder; rows driven
        # in turn
        ("one pin each", "9 pins", 9, 0, 0, 75.0, 9),
        ("diode matrix", "3 rows x 3 columns", 6, 27, 9 * 5.06 * 2.1, 25.0, 9),
        ("bare matrix", "3 rows x 3 columns", 6, 0, 0, 25.0, 2),
        ("charlieplexed", "4 lines", 4, 27, 9 * 5.06 * 2.1, 18.75, 1),
        ("expander 8", "2 of them", 3, 174.4, 2 * (7.82 * 5.5 + 2.9 * 1.42), 32.0, 9),
        ("expander 16", "1 of them", 3, 129.2, 7.82 * 8.3 + 2.9 * 1.42, 31.0, 9),
        (
            *("shift register", "2 in a row", 3, 57.6),
            *(2 * 7.82 * 5.5 + 9 * 2.92 * 1.42 + 2 * 2.9 * 1.42, 34.0, 9),
        ),
        ("resistor ladder", "2 of up to 8 keys", 2, 8.8, 11 * 2.92 * 1.42, 300.0, 1),
    ],
)
def test_every_way_costs_what_its_parts_cost(
    name: str, shape: str, pins: int, cents: float, mm2: float, micro_amps: float, held: int
) -> None:
    found = card(name)
    assert (found.shape, found.pins, found.rollover) == (shape, pins, held)
    assert found.price_cents == pytest.approx(cents)
    assert found.area_mm2 == pytest.approx(mm2)
    assert found.current_ua == pytest.approx(micro_amps)
    shown = {w.id.rsplit(".", 1)[1]: w.value for w in found.workings}
    assert faults_in(found.workings) == []
    assert (shown["pins"], shown["held"], shown["wrong"]) == (pins, held, found.ghosts)
    assert shown["parts"] == sum(part.count for part in found.parts)
    assert burden(found) == pytest.approx(cents + 0.2 * mm2 + 5 * found.latency_ms)


def test_an_expander_shares_the_bus_of_a_screen() -> None:
    """Its clock and data are then no pins of the keys, and its 10 pF come to the bus; so does a
    converter of four channels for each four axes.
    """
    shown = device(*KEYS, thing("screen", "show", 60, 45))
    assert card("expander 16", shown).pins == 1
    parts = dict(bundled_library().parts)
    assert helpers_pf(PLAIN, KeyWiring("expander 8", listed=NINE), parts) == 20
    assert helpers_pf(PLAIN, MATRIX, parts) == 0
    sticks = tuple(thing("stick", f"s{n}", 20 + 30 * n, 45, press=False) for n in range(3))
    six = device(*sticks, analogue_by="converter")
    assert helpers_pf(six, KeyWiring("one pin each"), parts) == 20
    four = device(*sticks[:2], analogue_by="converter")
    assert helpers_pf(four, KeyWiring("expander 16", listed=NINE), parts) == 20


def test_words_and_bills_at_their_limits() -> None:
    mixed = KeyWiring("mixed", 2, 3, CELLS[:6], NINE[:6], ("hot", "wake"))
    assert shape_words(mixed) == "2 rows x 3 columns, 2 direct"
    assert bill_of(mixed) == [("diode-sod123", 6)]
    assert bill_of(KeyWiring("bare matrix", 3, 3, CELLS)) == []
    assert bill_of(KeyWiring("expander 16", listed=tuple("abcdefghijklmnop"))) == [
        ("expander-16", 1),
        ("capacitor-1608", 1),
    ]
    assert bill_of(KeyWiring("expander 16", listed=tuple("abcdefghijklmnopq")))[0][1] == 2
    assert shape_words(KeyWiring("shift register", listed=NINE[:8])) == "1 in a row"
    assert shape_words(KeyWiring("resistor ladder", listed=NINE[:8])) == "1 of up to 8 keys"


def test_two_chorded_keys_clash_on_one_ladder_and_not_on_two() -> None:
    """Nine keys are eight and one: the ninth hides nobody."""
    clashes = faults_in_chords(KeyWiring("resistor ladder", listed=NINE), lambda held: True)
    assert len(clashes) == 8 * 7 // 2
    assert all("k8" not in (c.key, *c.path) for c in clashes)
    assert (clashes[0].key, clashes[0].path) == ("k1", ("k0", "k1"))


def test_the_recommended_way_is_the_least_burden_that_fits_and_reads_all_chords() -> None:
    """Nine keys with a chip of eight plain lines: one pin each does not fit; the ladder hides
    chords, so the matrix with diodes costs least.
    """
    library = bundled_library()
    typing = PLAIN.model_copy(update={"chords": Chords(rule="typing", at_once=3)})

    def eight(needs: tuple[Need, ...]) -> str:
        return "too many" if len(needs) > 8 else ""

    cards = compare(typing, library.parts, eight)
    assert {c.name for c in cards} >= {"one pin each", "diode matrix"}
    assert "mixed" not in {c.name for c in cards}, (
        "no key would be direct, so it is the plain matrix"
    )
    (best,) = [c for c in cards if c.recommended]
    assert best.name == "diode matrix"
    assert (
        best.reason
        == "It fits, reads every chord and adds 9 x switching diode 100 V; 6.0 ms at the most from"
        " press to report. One pin each does not fit."
    )
    roomy = compare(typing, library.parts, lambda needs: "")
    (best,) = [c for c in roomy if c.recommended]
    assert best.name == "one pin each"
    assert reason(best, list(roomy)).startswith(
        "It fits, reads every chord and adds no parts; 6.0 ms"
    )
    assert not any(c.recommended for c in compare(typing, library.parts, lambda needs: "no"))


def function(text: str) -> AlternateFunction:
    peripheral, signal = text.split(".")
    return AlternateFunction(peripheral=peripheral, signal=signal, route="AF1")


def port(number: int, *functions: str, **more: Any) -> ChipPin:
    name = f"PA{number}"
    plain = {"number": str(number), "name": name, "kind": "port", "ports": (name,)}
    return ChipPin(**plain, functions=tuple(function(f) for f in functions), **more)


def solved(picks: dict[str, tuple[str, str]]) -> Solved:
    options = {signal: Option(pin, name, None, 0) for signal, (pin, name) in picks.items()}
    return Solved(options, Score(0, 0, 0, 0), True)


CHORDS = device(
    thing("pad", "left pad", 20, 30),
    thing("button", "a", 100, 30, digit="right thumb"),
    thing("button", "b", 110, 40, digit="right thumb"),
    thing("button", "f", 60, 50, digit="left finger"),
)


@pytest.mark.parametrize(
    ("chords", "pairs"),
    [
        # seven keys make 21 pairs. Two thumbs: one key each, or two neighbouring directions;
        # fingers are free
        (Chords(rule="two thumbs"), 4 + 4 * 2 + 6),
        # whole pad: two keys under each thumb, yet never opposite directions
        (Chords(rule="whole pad"), 4 + 4 * 2 + 6 + 1),
        (Chords(rule="typing", at_once=2), 21),
        (Chords(rule="own", groups=(("button:a", "button:b", "button:f"),)), 3),
    ],
)
def test_pairs_that_may_be_held(chords: Chords, pairs: int) -> None:
    brief = CHORDS.model_copy(update={"chords": chords})
    assert chord_pairs([key.id for key in keys_of(brief)], together_of(brief)) == pairs


def test_three_keys_under_the_rules() -> None:
    def may(rule: str, *keys: str, **more: Any) -> bool:
        brief = CHORDS.model_copy(update={"chords": Chords(rule=rule, **more)})
        return together_of(brief)(frozenset(keys))

    up, left, down = (f"pad:left pad:{way}" for way in ("up", "left", "down"))
    assert may("two thumbs", up, left, "button:a", "button:f")
    assert not may("two thumbs", up, down)
    assert not may("two thumbs", "button:a", "button:b")
    assert may("whole pad", "button:a", "button:b", up, left)
    assert not may("whole pad", up, down)
    assert may("typing", up, down, left, at_once=3)
    assert not may("typing", up, down, left, at_once=2)
    assert may("own", up)
    assert not may("own", up, left)
