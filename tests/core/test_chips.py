"""Chips of the open data set: packages, free routing, the index, the simulated supplier, places of
pins.
"""

import pytest

from loquet.catalogue.chip_index import row_of
from loquet.catalogue.chips import find_chip
from loquet.core.geometry import Seat
from loquet.core.library import Library
from loquet.core.parts import AlternateFunction, ChipPin, PartError, pattern_of
from loquet.core.parts.listing import soldering_of
from loquet.core.pins import Need, places_of
from loquet.core.pins.model import NeedKind
from loquet.core.pins.options import Option, hardware_of, interrupt_line, options_of
from loquet.core.pins.package_map import package_places
from loquet.core.pins.sharing import SHARING, kind_of_load, sharing_rule
from loquet.core.pins.spares import short_of


def pins_of(options: tuple[Option, ...]) -> set[str]:
    return {o.pin for o in options}


def test_a_chip_with_free_routing_has_its_blocks_on_every_pin() -> None:
    chip = find_chip("nrf52840-xxaa")
    clocks = options_of(Need("", "two-wire clock", "", ""), chip)
    ports = [p for p in chip.pins if p.kind == "port" and not p.is_reset]
    assert pins_of(clocks) == {p.number for p in ports}
    assert {o.hardware for o in clocks} == {"serial block 0", "serial block 1"}
    assert len(pins_of(options_of(Need("", "analogue", "", ""), chip))) == 8
    assert len(pins_of(options_of(Need("", "debug data", "", ""), chip))) == 1


def test_serial_and_two_wire_of_one_number_are_one_block_there() -> None:
    assert hardware_of("spim1") == hardware_of("twim1") == "serial block 1"
    assert hardware_of("spi2") == hardware_of("i2s2") == "spi2"
    assert hardware_of("usart1") == "usart1"


@pytest.mark.parametrize(
    ("port", "named", "line"),
    [
        ("PA3", "", "interrupt line 3"),
        ("PC13", "", "interrupt line 13"),
        ("P0.03", "", "interrupt P0.03"),
        ("GP4", "", "interrupt GP4"),
        ("PA27", "extint15", "interrupt extint15"),
    ],
)
def test_interrupt_lines(port: str, named: str, line: str) -> None:
    function = AlternateFunction(peripheral="exint", signal=named, route="fixed")
    pin = ChipPin(
        number="1", name=port, kind="port", ports=(port,), functions=(function,) if named else ()
    )
    assert interrupt_line(pin) == line


@pytest.mark.parametrize(
    ("name", "package", "soldering"),
    [
        ("stm32l051c8t6", "LQFP48", "hand iron"),
        ("stm32g030f6p6", "TSSOP20", "hand iron"),
        ("stm32c011j4m6", "SO8N", "hand iron"),
        ("stm32l431cbu6", "QFN48", "hot plate"),
        ("stm32f072rbh6", "UFBGA64", "assembly house"),
        ("stm32f042t6y6", "WLCSP36", "assembly house"),
        ("nrf52840-xxaa", "WLCSP", "assembly house"),
        ("stm32c071r8t6n", "LQFP64", "hand iron"),
    ],
)
def test_packages_and_what_it_takes_to_solder_them(name: str, package: str, soldering: str) -> None:
    chip = find_chip(name)
    assert chip.package.startswith(package)
    assert soldering_of(chip.package) == soldering


def test_chips_without_a_pattern_say_so_and_can_be_planned() -> None:
    assert find_chip("stm32l051c8t6").uncovered == ""
    assert "land-pattern family" in find_chip("stm32f072rbh6").uncovered
    assert "radio" in find_chip("stm32wb55cgu6").uncovered
    with pytest.raises(PartError, match="no package pin map"):
        find_chip("nrf51422-xxaa")


@pytest.mark.parametrize(
    "name", ["stm32l051c8t6", "stm32f103c8t6", "nrf52833-xxaa", "stm32f042k6t6", "stm32h745xgh6@m4"]
)
def test_the_index_counts_what_the_chip_has(name: str, library: Library) -> None:
    row = next(r for r in library.list_chips() if r.name == name)
    assert row == row_of(find_chip(name))
    assert row.analogue == len(pins_of(options_of(Need("", "analogue", "", ""), find_chip(name))))


def test_the_index_is_whole(library: Library) -> None:
    rows = library.list_chips()
    assert len(rows) > 2000
    assert len({r.name for r in rows}) == len(rows)
    assert sum(r.covered for r in rows) > 500


def test_the_simulated_supplier_says_the_same_each_time_and_who_it_is(library: Library) -> None:
    rows = [library.stock_of(r) for r in library.list_chips()[::20]]
    assert rows == [library.stock_of(r) for r in library.list_chips()[::20]]
    assert all("simulated" in s.supplier for s in rows)
    assert 0.5 < sum(s.pieces > 0 for s in rows) / len(rows) < 0.95
    assert all(s.days > 30 for s in rows if s.pieces == 0)


def test_the_sketch_of_a_quad_package_agrees_with_its_land_pattern(library: Library) -> None:
    """Every pin lies on the same side and in the same order as in the pattern by IPC-7351B."""
    chip = find_chip("stm32l051c8t6")
    seat = Seat(0, 0)
    exact = places_of(pattern_of(library.package(chip.package).body), seat)
    sketch = package_places(chip, seat)
    for number, (x, y) in sketch.items():
        true_x, true_y = exact[number]
        assert (abs(x) > abs(y)) == (abs(true_x) > abs(true_y)), number
        assert (x > 0) == (true_x > 0), number
        assert (y > 0) == (true_y > 0), number


def need(kind: str, load: str = "") -> Need:
    return Need("x", kind, "X", "x", load=load)  # type: ignore[arg-type]


def test_every_sharing_verdict_has_its_reason() -> None:
    assert len({(r.pin, r.hangs) for r in SHARING}) == len(SHARING)
    assert all(len(r.why) > 10 for r in SHARING)
    assert sharing_rule("programming", kind_of_load(need("input", "key"))).verdict == "stop"
    assert sharing_rule("reset", "key").verdict == "safe"  # type: ignore[union-attr]
    assert sharing_rule("programming", kind_of_load(need("output", "light"))).verdict == "look"
    assert kind_of_load(need("timer", "sounder")) == "sounder"
    assert kind_of_load(need("timer")) == "output"
    assert kind_of_load(need("interrupt")) == "input"
    assert sharing_rule("moon", "key") is None


def test_spares_are_counted() -> None:
    chip = find_chip("stm32l051c8t6")
    assert short_of(chip, set(), set()) == ()
    everything = {p.number for p in chip.pins}
    assert dict(short_of(chip, everything, set())) == {
        "two plain pins": 2,
        "two analogue channels": 2,
        "a serial port": 1,
        "a two-wire bus": 1,
    }
    assert dict(short_of(chip, set(), {"i2c1", "i2c2"})) == {"a two-wire bus": 1}


@pytest.mark.parametrize(
    ("name", "port"),
    # From memory of the product specifications: pin reset is P0.18 on the nRF52840, nRF52833 and
    # nRF52820
    [("nrf52840-xxaa", "P0.18"), ("nrf52833-xxaa", "P0.18"), ("nrf52820-xxaa", "P0.18")],
)
def test_the_reset_pin_is_kept_though_the_data_set_does_not_say_it(name: str, port: str) -> None:
    chip = find_chip(name)
    (reset,) = (pin for pin in chip.pins if pin.is_reset)
    assert reset.ports == (port,)
    taken = {o.port for o in options_of(Need("k", "input", "K", "k"), chip)}
    assert port not in taken
    assert "P0.05" in taken


def test_crystals_have_pins_of_their_own(library: Library) -> None:
    """STM32F072 in 48 pins, data sheet table 13 (from memory): OSC32 on pins 3 and 4, OSC on 5 and
    6.
    """
    chip = library.find_chip("stm32f072c8t6")
    kinds: dict[NeedKind, str] = {
        "slow crystal in": "3",
        "slow crystal out": "4",
        "crystal in": "5",
        "crystal out": "6",
    }
    for kind, pin in kinds.items():
        assert [o.pin for o in options_of(Need("", kind, "", ""), chip)] == [pin]
        assert options_of(Need("", kind, "", ""), chip)[0].risk == 0
