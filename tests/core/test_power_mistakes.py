"""K22 to K32, and K40, of docs/mistakes.md: for each, designs that have the mistake with their
finding, and the same without it, which have none.
"""

from dataclasses import replace
from typing import Any

import pytest

from loquet.core.brief import Brief
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import ReadBy, Subject, findings_of
from loquet.core.circuit import Circuit
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Choices
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.lookup.powering import power_of
from loquet.core.provenance import Finding
from tests.core.benches import bench_for
from tests.making import Plain, as_made, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
LITHIUM = thing("lithium-cell", "cell", 60, 30, far=True)
PACK, JACK = thing("series-pack", "pack"), thing("barrel-jack", "jack")
FIVE = thing("converter", "five", gives_v=5.0)


def subject(brief: Brief, library: Library, circuit: Circuit | None = None) -> Subject:
    house = library.house(Choices().house)
    plan = bench_for(brief).desks[brief.brain.name].plan if circuit and brief.brain else None
    read = ReadBy(brief, chip_for(brief, library), plan)
    return Subject(brief, Choices(), house, library, brains=(read,), circuit=circuit)


def found(rule: str, seen: Subject) -> list[Finding]:
    """What one rule finds."""
    one = next(r for r in RULES if r.id == rule)
    return findings_of([(one, one.run(seen))])


def in_brief(rule: str, library: Library, *things: Plain, **wishes: Any) -> list[str]:
    """The sentences of a rule about a device."""
    return [f.sentence for f in found(rule, subject(device(CHIP, *things, **wishes), library))]


def on_board(
    rule: str, library: Library, brief: Brief, joined: dict[str, str] | None = None
) -> list[Finding]:
    """The findings of a rule about a finished circuit in which some nets were joined to others by
    mistake.
    """
    made = assemble(bench_for(brief))
    names = joined or {}
    components = tuple(
        c.model_copy(update={"pads": {p: names.get(n, n) for p, n in c.pads.items()}})
        for c in made.components
    )
    return found(rule, subject(brief, library, made.model_copy(update={"components": components})))


def test_k22_a_rail_that_nothing_makes(library: Library) -> None:
    high = in_brief("power-made", library, thing("barrel-jack", "jack", adapter_v=24.0))
    assert len(high) == 1
    assert high[0].startswith("Nothing makes 3.3 V of jack: ")
    wrong = thing("barrel-jack", "jack", adapter_v=5.0, converter="boost")
    assert "only steps up" in in_brief("power-made", library, wrong)[0]
    (finding,) = found("power-made", subject(device(CHIP, wrong), library))
    assert [r.edit["changes"] for r in finding.repairs] == [{"converter": "auto"}]
    itself = in_brief("power-made", library, JACK, {**FIVE, "rail": "five"})
    assert itself == ["Nothing makes 5 V of five: it would be made of itself."]
    assert in_brief("power-made", library, JACK) == []
    assert in_brief("power-made", library, LITHIUM, FIVE) == []


def test_k23_a_missing_diode_feeds_one_source_from_another(library: Library) -> None:
    """The power path's diode bridged, and the diode that keeps a port from being fed bridged."""
    charged = device(
        CHIP, LITHIUM, thing("usb-device", "usb"), thing("power-switch", "off", 60, 50)
    )
    assert on_board("back-feed", library, charged) == []
    bridged = on_board("back-feed", library, charged, {"CELL_GUARDED": "LINK_USB_5V"})
    # the cell pushes into the port through its transistor, and the port straight into the cell
    # through the body of it
    assert any("mA flow from cell into usb, through" in f.sentence for f in bridged)
    both = device(CHIP, JACK, thing("host-feed", "feed"))
    assert on_board("back-feed", library, both) == []
    joined = on_board(
        "back-feed", library, both, {"SUPPLY_JACK": "SUPPLY", "SUPPLY_FEED": "SUPPLY"}
    )
    assert {f.sentence.split("mA ")[1].split(",")[0] for f in joined} == {
        "flow from jack into feed",
        "flow from feed into jack",
    }


def test_k25_a_coin_cell_cannot_hold_up_a_screen(library: Library) -> None:
    """2032: 20 Ω inside. At 60 mA it loses 1.2 V of 2.88 V."""
    coin = thing("coin-cell", "cell", 60, 30)
    chain = thing("light-chain", "lights", 30, 30, count=1)
    sagging = in_brief("cell-sag", library, coin, chain)
    assert len(sagging) == 1
    # 8 mA of the chip and 60 mA of one light: 2.88 V - 68 mA x 20 Ω = 1.52 V; the chip stops at
    # 2.0 V, where the cell is empty
    assert "sags to 1.52 V, and the device stops at 2.00 V" in sagging[0]
    assert in_brief("power-budget", library, coin, chain) == [
        "With everything on, cell has to give 68 mA, and it gives 15 mA."
    ]
    lamps = tuple(thing("light", f"lamp {i}", 20 + 9 * i, 30, light_ma=10.0) for i in range(5))
    assert len(in_brief("cell-sag", library, coin, *lamps)) == 1
    assert in_brief("cell-sag", library, coin) == []
    assert in_brief("power-budget", library, coin) == []


def test_k27_a_rail_stepped_up_and_burnt_down_again(library: Library) -> None:
    """5 V from one AA and 1.8 V of it by a linear regulator: 1.8 / 5 x 0.88 = 32 % arrives. Beside
    lamps of 1 W 18 mW are no waste that counts.
    """
    low = thing("converter", "low", gives_v=1.8, converter="linear", rail="five")
    lamp = thing("light", "lamp", 30, 30, light_ma=10.0, rail="low")
    large = thing("light-chain", "large", count=10, rail="five")
    wasted = in_brief("power-waste", library, thing("leads", "leads"), FIVE, low, lamp)
    assert wasted == [
        (
            "low is stepped up to 5 V and then burnt down to 1.8 V: 32% of the energy arrives, and "
            "88% would with one converter."
        )
    ]
    assert in_brief("power-waste", library, LITHIUM, FIVE, low, lamp) != []
    assert in_brief("power-waste", library, LITHIUM, FIVE, low, lamp, large) == []
    own = thing("converter", "low", gives_v=1.8, converter="linear")
    assert in_brief("power-waste", library, LITHIUM, FIVE, own, lamp) == []


def test_k29_a_stick_on_5_v_is_divided_and_one_that_is_not_is_found(library: Library) -> None:
    for name in ("stick", "trigger"):
        at = thing(name, "axis", 30, 30, supply="5 V")
        brief = device(CHIP, thing("leads", "leads"), FIVE, at)
        assert on_board("levels", library, brief) == []
        line = next(a for a in brief.thing("axis").axes())
        net = brief.thing("axis").role(line.piece).upper().replace(":", "_")
        (finding,) = on_board("levels", library, brief, {f"{net}_FULL": net})
        assert "up to 5.0 V" in finding.sentence
        assert (finding.severity, "takes 3.6 V" in finding.sentence) == ("stop", True)


def test_a_pin_that_is_known_to_take_5_v_or_not_to_decides(library: Library) -> None:
    """A part of one's own on 5 V and a chip on 3.3 V: a line that the chip reads may come to 5 V;
    one that takes it is no finding, one of which nobody knows a stop as well.
    """
    own = thing("own-part", "it", 60, 30, rail="five", lines=1)
    brief = device(CHIP, thing("leads", "leads"), FIVE, own)
    made = assemble(bench_for(brief))
    chip = next(c for c in made.components if c.is_chip)
    pad = next(p for p, n in chip.pads.items() if n == "PART_IT_1")
    seen = subject(brief, library, made)
    (read,) = seen.brains
    assert read.chip is not None
    rows = ((True, []), (False, ["takes 3.6 V"]), (None, ["is not known to take that"]))
    for takes, words in rows:
        pins = tuple(replace_five(pin, takes, pad) for pin in read.chip.pins)
        known = replace(seen, brains=(replace(read, chip=replace_pins(read.chip, pins)),))
        said = found("levels", known)
        assert [f.severity for f in said] == ["stop"] * len(words)
        assert all(word in f.sentence for word, f in zip(words, said, strict=True))


def replace_five(pin: Any, takes: bool | None, pad: str) -> Any:
    return pin.model_copy(update={"five_volt": takes}) if pin.number == pad else pin


def replace_pins(chip: Any, pins: Any) -> Any:
    return chip.model_copy(update={"pins": pins})


def test_k30_series_cells_without_balancing(library: Library) -> None:
    for cells in (2, 4):
        (sentence,) = in_brief("pack-balance", library, {**PACK, "cells": cells})
        assert f"balances the {cells} cells of pack" in sentence
        assert "missing are balancing" in sentence
    assert in_brief("pack-balance", library, LITHIUM) == []


def test_k31_lights_that_draw_more_than_the_port_gives(library: Library) -> None:
    """12 lights of 60 mA and the chip's 8 mA on a 5 V port of 500 mA; 8 lights are 488 mA."""
    port = thing("usb-charge", "plug", feeds=True, gives_v=3.3)

    def lit(count: int) -> list[Finding]:
        lights = thing("light-chain", "lights", 60, 30, count=count)
        return found("power-budget", subject(device(CHIP, port, lights), library))

    (finding,) = lit(12)
    # the rail gives 728 mA; a step-up and step-down converter cannot, so a linear one would have
    # to, which passes it on
    assert "mA, and it gives 500 mA" in finding.sentence
    assert "of full white or less" in finding.way_out
    (twenty,) = lit(20)
    assert "of full white or less" in twenty.way_out
    assert lit(2) == []


def test_k32_a_linear_regulator_that_gets_hot(library: Library) -> None:
    """9.6 V to 3.3 V at 108 mA: 680 mW + 48 mW of its own x 60 K/W + 40 °C = 84 °C; at 128 mA 92
    °C.
    """
    block = thing("nine-volt", "block", 60, 30, far=True, converter="linear")

    def hot(light_ma: float) -> list[str]:
        lamps = tuple(
            thing("light", f"lamp {i}", 20 + 9 * i, 30, light_ma=light_ma) for i in range(10)
        )
        return in_brief("converter-heat", library, block, *lamps)

    assert hot(10.0) == []
    (sentence,) = hot(12.0)
    assert "854 mW into heat and gets 91 °C hot" in sentence
    lamps = tuple(thing("light", f"lamp {i}", 20 + 9 * i, 30, light_ma=12.0) for i in range(10))
    (told,) = found("converter-heat", subject(device(CHIP, block, *lamps), library))
    assert told.way_out == "Take a step-down converter, or a source with fewer volts."
    jack = thing("barrel-jack", "jack", adapter_v=12.0, converter="linear")
    warm = tuple(thing("light", f"lamp {i}", 20 + 9 * i, 30, light_ma=10.0) for i in range(8))
    assert len(in_brief("converter-heat", library, jack, *warm)) == 1
    cool = {**jack, "converter": "auto"}
    assert in_brief("converter-heat", library, {**cool, "adapter_v": 5.0}, *warm) == []


@pytest.mark.parametrize("kind", ["cells", "coin-cell", "lithium-cell", "usb-charge"])
def test_a_quiet_device_has_no_power_finding(kind: str, library: Library) -> None:
    more = {"feeds": True} if kind == "usb-charge" else {}
    brief = device(CHIP, thing(kind, "it", 60, 30, far=kind != "usb-charge", **more))
    seen = subject(brief, library, assemble(bench_for(brief)))
    power = [r.id for r in RULES if r.station == "power"]
    assert len(power) == 21
    quiet = (
        []
        if kind != "lithium-cell"
        else ["Nothing on these boards charges it: no port brings 5 V."]
    )
    assert [f.sentence for rule in power for f in found(rule, seen)] == quiet


def test_k24_how_long_a_capacitor_holds_the_device_up(library: Library) -> None:
    """10 µF from 5.0 V to 4.4 V at 8 mA and 4 µA: 10e-6 x (25 - 19.36) / (2 x 0.04002) = 705 µs.

    Ten times the load, a tenth of it.
    """

    def held(*things: Plain) -> float:
        brief = device(CHIP, thing("host-feed", "feed"), *things)
        figures = power_of(brief, library).workings
        return next(w.value for w in figures if w.id == "power.feed.hold_up")

    assert held() == pytest.approx(704.6, rel=1e-3)
    lamps = tuple(thing("light", f"lamp {i}", 20 + 9 * i, 30, light_ma=9.0) for i in range(8))
    assert held(*lamps) == pytest.approx(70.5, rel=0.01)


@pytest.mark.parametrize(
    ("things", "words"),
    [
        # 3.65 V with a fifth left, less 0.7 V in the diode and some hundredths: 2.9 V at a
        # converter of sound that wants 3.0 V
        # in play 8 mA of the chip and 12 mA: 20 mA over 0.3 s with 0.2 V to lose are 30 mF
        ((thing("sound-converter", "out"),), "A capacitor that bridges this would be 30 mF"),
        ((thing("sound-converter", "out"),), "the rail falls to 2.9"),
        ((thing("sound-converter", "out"),), "for some 300 ms:"),
        # and at a pair of cells' worth of load 0.2 V more are lost: a sensor that wants 2.7 V
        (
            (
                thing("trigger", "pull"),
                *(thing("light", f"lamp {i}", light_ma=20.0) for i in range(13)),
            ),
            "stops below 2.70 V",
        ),
    ],
)
def test_k24_a_plug_that_is_pulled(things: tuple[Plain, ...], words: str, library: Library) -> None:
    """While its path opens, the cell feeds the device through a diode; a converter that steps up as
    well bridges it, and so does a part that runs on less.
    """

    def said(*more: Plain, **cell: Any) -> list[str]:
        fed = (thing("lithium-cell", "cell", **cell), *more)
        return [f.sentence for f in on_board("switch-over", library, device(CHIP, *fed))]

    plug = thing("usb-charge", "plug")
    sentences = said(plug, *things, converter="linear")
    assert len(sentences) == 1
    assert words in sentences[0]
    assert said(plug, *things, converter="buck-boost") == []
    assert said(plug, thing("motion", "level"), converter="linear") == []
    assert said(*things, converter="linear") == []


@pytest.mark.parametrize(
    "bare",
    [
        thing("button", "key", 30, 30, part="button-carbon-fingers"),
        thing("edge-contacts", "edge", lines=2),
    ],
)
def test_k40_solder_under_bare_contacts(bare: Plain, library: Library) -> None:
    brief = device(CHIP, thing("leads", "leads"), bare)
    circuit = assemble(bench_for(brief))
    seen = subject(brief, library, circuit)
    (finding,) = found("contact-finish", seen)
    assert "ordered with lead-free solder" in finding.sentence
    (repair,) = finding.repairs
    assert repair.edit["making"]["finish"] == "gold"
    assert found("contact-finish", replace(seen, brief=as_made(brief, finish="gold"))) == []
    plain = device(CHIP, thing("leads", "leads"), thing("button", "key", 30, 30))
    assert found("contact-finish", subject(plain, library, assemble(bench_for(plain)))) == []


def test_charging_and_playing_together_ask_too_much_of_a_port(library: Library) -> None:
    """500 mA into the cell and 8 mA of the chip; 490 mA fit, for which 2.2 kΩ sets 455 mA.

    Nothing is cut in silence: what is asked is what is reckoned with.
    """
    port, cell = thing("usb-charge", "plug"), {**LITHIUM, "charge_ma": 500}
    (sentence,) = in_brief("port-budget", library, cell, port)
    assert "has to give 508 mA, and it gives 500 mA" in sentence
    (finding,) = found("port-budget", subject(device(CHIP, cell, port), library))
    assert [r.edit["changes"] for r in finding.repairs] == [{"charge_ma": 490}]
    assert finding.working is not None
    assert finding.working.value == pytest.approx(508.0, abs=0.01)
    assert in_brief("port-budget", library, {**LITHIUM, "charge_ma": 490}, port) == []
    assert in_brief("port-budget", library, LITHIUM) == []


def test_k31_what_a_port_is_asked_for_counts_and_is_said(library: Library) -> None:
    """30 lights take 1.08 A at full white: too much for 500 mA, fine for 3 A at 5 V, where the
    charger must be named; at 12 V no cell is charged from 5 V.
    """
    lights = thing("light-chain", "ring", count=20, rail="plug")

    def said(asks: str, rule: str) -> list[str]:
        port = thing("usb-charge", "plug", feeds=True, gives_v=5.0, asks=asks)
        return in_brief(rule, library, port, lights)

    assert said("500 mA", "port-offer") == []
    assert ["counts on 3 A at 5 V" in s for s in said("3 A", "port-offer")] == [True]
    assert ["asks for 12 V" in s for s in said("12 V", "port-offer")] == [True]
    cell = thing("lithium-cell", "cell")
    for asks, charged in (("500 mA", True), ("3 A", True), ("12 V", False)):
        brief = device(CHIP, cell, thing("usb-charge", "plug", asks=asks))
        (row,) = power_of(brief, library).rails
        assert (row.plugged is not None) == charged
        assert (
            any("Charges the cell" in c.purpose for c in assemble(bench_for(brief)).components)
            == charged
        )


@pytest.mark.parametrize(
    ("asks", "low", "high", "most"),
    [("1.5 A", 4.4, 5.5, 1500), ("9 V", 8.55, 9.45, 3000), ("20 V", 19.0, 21.0, 3000)],
)
def test_a_port_as_a_source_is_what_the_standard_says(
    asks: str, low: float, high: float, most: float, library: Library
) -> None:
    """USB Power Delivery 3.1: fixed supplies within 5 %, 3 A without a marked cable."""
    port = thing("usb-charge", "plug", feeds=True, asks=asks)
    (source,) = power_of(device(CHIP, port), library).sources
    assert (source.empty_v, source.fresh_v) == pytest.approx((low, high))
    assert (source.most_ma, source.stays) == (most, True)


def test_what_is_on_a_switched_rail_sleeps_without_current_and_is_not_fed_through_its_inputs(
    library: Library,
) -> None:
    """A sensor on the two-wire bus, whose resistors stand on the main rail: fed through its inputs
    while it is off. A screen has lines that the firmware holds low. Both draw nothing in sleep, and
    what they draw in play comes from the main rail.
    """
    switch, leads = thing("load-switch", "quiet"), thing("leads", "leads")

    def dark(*things: Plain) -> list[tuple[str, str]]:
        found_here = on_board("dark-lines", library, device(CHIP, leads, switch, *things))
        return [(f.severity, f.sentence) for f in found_here]

    (held,) = dark(thing("bus-sensor", "air", rail="quiet"))
    assert held[0] == "look"
    assert "BUS_CLOCK, BUS_DATA" in held[1]
    face = {"part": "screen-128x64-serial", "bus": "one-way serial", "rail": "quiet"}
    (driven,) = dark(thing("screen", "face", **face))
    assert driven[0] == "note"
    assert "SCREEN_FACE_CLOCK" in driven[1]
    assert dark(thing("bus-sensor", "air")) == []
    brief = device(CHIP, leads, switch, thing("motion", "level", rail="quiet"))
    plan = power_of(brief, library)
    load = next(row for row in plan.loads if row.thing == "level")
    assert (load.currents.sleep, load.rail) == (0.0, "quiet")
    main, quiet = plan.rails
    assert (quiet.parent, quiet.load.play) == ("leads", load.currents.play)
    assert main.load.play == pytest.approx(8.0 + load.currents.play)


def test_k29_a_divider_that_loads_its_track_moves_its_middle(library: Library) -> None:
    """Two halves of 10 kohm are 2.5 kohm inside; 15.6 kohm on them leave 2.5 V x 15.6 / 18.1 =
    2.155 V of 5 V: 43 %. On the chip's own rail nothing loads it.
    """
    leads = thing("leads", "leads")
    stick = thing("stick", "axis", 30, 30, supply="5 V")
    found = on_board("loaded-track", library, device(CHIP, leads, FIVE, stick))
    assert len(found) == 2
    assert all("reads 43 % at pin" in f.sentence for f in found)
    assert {f.severity for f in found} == {"look"}
    own = device(CHIP, leads, thing("stick", "axis", 30, 30))
    assert on_board("loaded-track", library, own) == []
