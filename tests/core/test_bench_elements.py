"""What each part is to a meter and on power, part by part: values of the catalogue's drawings,
orientation by the names of its pins; and where symptoms begin.
"""

import math
from dataclasses import replace

import pytest

from loquet.core.board import BoardView, Copper
from loquet.core.build import faults
from loquet.core.build.faults import GOOD, Fault
from loquet.core.build.finding import SPREAD_F, label, likely
from loquet.core.build.measuring import Faulty, Probe
from loquet.core.circuit import Circuit, Component
from loquet.core.design import Design, slice_of
from loquet.core.energising.conditions import METERED, switched
from loquet.core.energising.device import Device, poles
from loquet.core.energising.elements import Network
from loquet.core.energising.network import network_of
from loquet.core.library import Library
from loquet.core.pipeline import bring_up_to_date
from tests.core.benches import switched_on
from tests.core.plain_boards import board, pad
from tests.making import device, thing

G = "GROUND"
VT = 0.025852  # kT/q at 300 K


@pytest.fixture(scope="module")
def bare(finished: Design, library: Library) -> Device:
    """A bench with nothing on it, and no rail."""
    circuit = slice_of(finished.circuit).model_copy(update={"components": ()})
    return Device(finished.brief, circuit, library.parts, (), (), {})


def one(bare: Device, part: str, pads: dict[str, str], **more: object) -> Network:
    """The network of one part alone; every lead is at its net."""
    component = Component(role="x", ref="X1", part=part, block="b", purpose="p", pads=pads, **more)
    circuit: Circuit = bare.circuit.model_copy(update={"components": (component,)})
    return network_of(replace(bare, circuit=circuit))


def joined(network: Network) -> dict[tuple[str, str], float]:
    """What is joined whatever is so."""
    return {(r.a, r.b): r.ohm for r in network.resistances if not r.when}


@pytest.mark.parametrize(
    ("part", "pads", "value", "ohms"),
    [
        ("resistor-1608", {"1": "A", "2": "B"}, "4.7 kΩ", {("A", "B"): 4700}),
        ("resistor-1608", {"1": "A", "2": "A"}, "4.7 kΩ", {}),
        ("inductor-4040", {"1": "A", "2": "B"}, "4.7 µH", {("A", "B"): 0.06}),
        ("fuse-3216", {"1": "A", "2": "B"}, "", {("A", "B"): 0.15}),
        ("buzzer-9x9-magnetic", {"1": "A", "2": "B"}, "", {("A", "B"): 42}),
        ("slider-20", {"1": "S", "2": "L", "3": G}, "", {("S", "L"): 5000, ("L", G): 5000}),
        ("trigger-slide", {"1": "S", "2": "L", "3": G}, "", {("S", "L"): 9500, ("L", G): 500}),
    ],
)
def test_parts_are_what_their_drawings_say(
    bare: Device, part: str, pads: dict[str, str], value: str, ohms: dict[tuple[str, str], float]
) -> None:
    """Coil 42 ohm, choke 0.06, tracks of 10 k in the middle, a trigger at 5 % of its way."""
    found = joined(one(bare, part, pads, value=value))
    assert found == {pair: pytest.approx(ohm) for pair, ohm in ohms.items()}


def test_both_tracks_of_a_stick_hang_at_their_own_supply_and_ground(bare: Device) -> None:
    """Its drawing: 1 supply, 2 y, 3 ground, 4 supply, 5 x, 6 ground."""
    pads = {"1": "S1", "2": "Y", "3": "G1", "4": "S2", "5": "X", "6": "G2"}
    found = joined(one(bare, "stick-resistive-13", pads))
    assert found == dict.fromkeys((("S1", "Y"), ("Y", "G1"), ("S2", "X"), ("X", "G2")), 5000)


def test_a_slide_switch_joins_where_its_slider_stands(bare: Device) -> None:
    """Pad 2 is common; where no end is marked, `on` is the one that its drawing calls so."""
    brief = device(thing("power-switch", "main"))
    pads = {"1": "A", "2": "C", "3": "B"}
    for on, end, other in (("3", "B", "A"), ("1", "A", "B"), ("", "B", "A")):
        alone = replace(bare, brief=brief)
        network = one(alone, "switch-slide-surface", pads, on_pad=on, thing="main")
        found = {(r.a, r.b): (r.ohm, r.when) for r in network.resistances}
        assert found[("C", end)] == (0.05, switched("main", True))
        assert found[("C", other)] == (0.05, switched("main", False))


@pytest.mark.parametrize(
    ("part", "pads", "way", "volts", "amperes"),
    [
        # its forward volts at 5 mA, as lights are specified (common practice)
        ("light-2012-amber", {"1": "K", "2": "A"}, ("A", "K"), 2.0, 0.005),
        # at its rated ampere
        ("diode-schottky-sod123", {"1": "K", "2": "A"}, ("A", "K"), 0.4, 1.0),
        ("diode-sod123", {"1": "K", "2": "A"}, ("A", "K"), 0.8, 0.15),
        # a body diode (from memory)
        ("transistor-pmos-sot23", {"1": "g", "2": "S", "3": "D"}, ("D", "S"), 0.75, 0.5),
    ],
)
def test_current_goes_the_way_that_the_pins_say(
    bare: Device,
    part: str,
    pads: dict[str, str],
    way: tuple[str, str],
    volts: float,
    amperes: float,
) -> None:
    """Anode to cathode, the body diode of a P-channel transistor from drain to source."""
    (found,) = one(bare, part, pads).junctions
    assert (found.a, found.b) == way
    wanted = found.ideality * VT * math.log(amperes / found.saturation_a + 1)
    assert wanted == pytest.approx(volts, abs=1e-3)


def test_a_controller_acts_as_a_diode_of_some_forty_millivolts(bare: Device) -> None:
    found = one(bare, "ideal-diode-5", {"1": "I", "2": G, "3": "EN", "4": "ST", "5": "O"})
    (junction,), (ohm,) = found.junctions, [r for r in found.resistances if r.b == "O"]
    assert (junction.a, junction.b, ohm.ohm) == ("I", ohm.a, 0.08)
    assert junction.ideality * VT * math.log(1.0 / junction.saturation_a) < 0.05


def test_a_transistor_has_its_own_threshold_and_resistance(bare: Device) -> None:
    """0.9 V; 0.09 ohm at 1.8 V: k = 1 / (0.09 x 0.9) = 12.3 A/V^2."""
    (found,) = one(bare, "transistor-pmos-sot23", {"1": "g", "2": "S", "3": "D"}).channels
    assert (found.gate, found.source, found.drain, found.sign) == ("g", "S", "D", -1)
    assert (found.threshold_v, found.k) == (0.9, pytest.approx(12.35, abs=0.01))
    (npn,) = one(bare, "transistor-npn-sot23", {"1": "B", "2": "E", "3": "C"}).bipolars
    assert (npn.base, npn.collector, npn.emitter, npn.gain) == ("B", "C", "E", 100)


def test_a_guard_array_leads_lines_to_its_supply(bare: Device) -> None:
    pads = {"1": "P", "2": G, "3": "M", "4": "M", "5": "V", "6": "P"}
    ways = {(d.a, d.b) for d in one(bare, "guard-array", pads).junctions}
    assert ways == {("P", "V"), ("M", "V"), (G, "P"), (G, "M"), (G, "V")}


def test_a_linear_regulator_turned_round_leads_through_its_body(bare: Device) -> None:
    pads = {"1": "IN", "2": G, "3": "IN", "5": "OUT"}
    ways = {(d.a, d.b) for d in one(bare, "regulator-linear-low", pads, value="3.3 V").junctions}
    assert ("OUT", "IN") in ways
    assert ("IN", "OUT") not in ways


def test_plus_and_minus_of_a_source_are_known_by_name() -> None:
    assert poles({"plus": ["1"], "minus": ["2"]}) == ("1", "2")
    assert poles({"supply": ["2"], "ground": ["1"]}) == ("2", "1")
    assert poles({"way 1": ["1"], "way 2": ["2"]}) == ("1", "2")
    assert poles({"one": ["1"], "other": ["2"]}) == ("", "")


FED = device(
    thing("chip", "chip", part="stm32l433rct6"),
    thing("cells", "cell", 50, 30, far=True),
    thing("button", "go", 20, 20),
    thing("light", "light"),
)


@pytest.fixture(scope="module")
def fed(library: Library) -> Device:
    """Two AAA cells of 1.5 V in a row and a chip on them."""
    return switched_on(bring_up_to_date(Design(brief=FED), library, "circuit"), library)


def test_an_unpowered_chip_shows_200_k_and_its_pins_are_joined_inside(fed: Device) -> None:
    chip = next(c for c in fed.circuit.components if c.is_chip)
    pads = [p for p, n in chip.pads.items() if n == G]
    circuit = fed.circuit.model_copy(update={"components": (chip,)})
    alone = replace(fed, circuit=circuit, uses={})
    found = network_of(alone, lambda ref, pad: f"{ref}.{pad}")
    assert {(r.ohm, r.when) for r in found.resistances} == {(2.0, ""), (200_000.0, METERED)}
    inner = [r for r in found.resistances if r.ohm == 2.0]
    supply = [p for p, n in chip.pads.items() if n == fed.made[0].rail.net]
    assert len(inner) == len(pads) - 1 + len(supply) - 1


def test_every_regulator_makes_its_own_rail(library: Library) -> None:
    """Nine volts, a rail of 5 V and one of 3.3 V from it: each converter with its own in, out,
    volts and limits of its drawing.
    """
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("nine-volt", "block", 50, 30, far=True),
        thing("button", "go", 20, 20),
    )
    desk = switched_on(bring_up_to_date(Design(brief=brief), library, "circuit"), library)
    made = network_of(desk).converters
    rails = {m.rail.net: m.rail.usual_v for m in desk.made}
    assert made
    for regulator in made:
        assert rails[regulator.out] == pytest.approx(regulator.volts, abs=0.06)
        assert regulator.ground == G
        part = next(
            p for p in library.parts.values() if p.values.get("input_min_v") == regulator.least_v
        )
        assert regulator.most_a == pytest.approx(part.values["current_ma"] / 1000)


@pytest.mark.parametrize(("ohm", "hot"), [(20.0, False), (12.0, True)])
def test_it_draws_far_too_much_from_a_fifth_of_an_ampere_on(
    fed: Device, ohm: float, hot: bool, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A bridge of 20 ohm across 3 V draws 0.15 A more than usual, one of 12 ohm 0.25 A; cells of
    little resistance.
    """
    stiff = Faulty(fed, GOOD)
    usual = stiff.current_a()
    rail = fed.made[0].rail.net
    monkeypatch.setattr(faults, "BRIDGE_OHM", ohm)
    fault = Fault("bridge", nets=(rail, G))
    shorted = Faulty(fed, fault)
    assert shorted.current_a() - usual == pytest.approx(3 / ohm, rel=0.1)
    assert shorted.symptom().hot is hot


def test_readings_that_a_person_takes_for_the_same() -> None:
    """An ohm-meter's spread is a share, a volt-meter's an amount; under an ohm all is a short; a
    look says what it says.
    """
    ohm, volt = Probe("ohm", ("R1", "1"), ("R1", "2")), Probe("volt", ("R1", "1"))
    look, farad = Probe("look", ("R1", "1")), Probe("farad", ("C1", "1"), ("C1", "2"))
    assert label(ohm, 10_000) == label(ohm, 10_050) != label(ohm, 20_000)
    assert label(ohm, 0.0) == label(ohm, 0.01)
    assert label(volt, 3.0) == label(volt, 3.001) != label(volt, 3.3)
    assert label(look, 2.0) == 2
    assert label(farad, 1e-7) == label(farad, 1.02e-7) != label(farad, 1.6e-7)
    assert label(farad, 1e-7) - label(farad, 1e-8) == pytest.approx(
        2.302585 / (2.5 * SPREAD_F), abs=1
    )
    for probe, expected, off in ((ohm, 1e4, 1.02e4), (volt, 3.0, 3.015), (farad, 1e-7, 1.05e-7)):
        assert likely(probe, expected, expected) > likely(probe, expected, off)
        assert likely(probe, expected, off) > likely(probe, expected, 2 * expected)
    assert likely(look, 1, 1) > 0.5 > likely(look, 1, 0)
    assert likely(look, 3, 1) == likely(look, 3, 3) > likely(look, 3, 2)
    assert likely(look, 0, 0) > 0.5 > likely(look, 0, 1)


def test_a_part_with_one_lead_joined_conducts_nothing(bare: Device) -> None:
    assert one(bare, "light-2012-amber", {"2": "A"}).junctions == []
    assert one(bare, "light-2012-amber", {"1": "K"}).junctions == []
    assert one(bare, "transistor-npn-sot23", {"1": "B", "3": "C"}).bipolars == []
    assert one(bare, "transistor-pmos-sot23", {"1": "g", "2": "S"}).channels == []


def test_the_diode_test_has_a_right_way_round(fed: Device) -> None:
    """The light of 2.0 V at 5 mA shows 2 x 25.85 mV x ln 5 = 83 mV less at the meter's 1 mA; the
    other way nothing conducts, which a meter shows as 2 and more.
    """
    light = next(c for c in fed.circuit.components if fed.kind(c) == "light")
    anode, cathode = (light.ref, "2"), (light.ref, "1")
    drop = fed.parts[light.part].values["forward_v"]
    part = fed.parts[light.part]
    odd = part.model_copy(update={"values": {**part.values, "forward_v": 1.8}})
    other = replace(fed, parts={**fed.parts, light.part: odd})
    good = Faulty(other, GOOD)
    assert drop == 2.0
    assert good.measured(Probe("diode", anode, cathode)) == pytest.approx(1.717, abs=1e-3)
    assert good.measured(Probe("diode", cathode, anode)) == 2.0


def test_likely_faults_weigh_more(fed: Device) -> None:
    """Against a plain joint of a machine (1): fine leads twice, hand-soldered holders one and a
    half times, a flat cell the same; missing, wrong, turned and stuck parts less. Common practice,
    no source.
    """
    chip = next(c.ref for c in fed.circuit.components if c.is_chip)
    holder = next(c.ref for c in fed.circuit.components if fed.kind(c) == "cell holder")
    small = next(c.ref for c in fed.circuit.components if fed.kind(c) == "resistor")
    light = next(c.ref for c in fed.circuit.components if fed.kind(c) == "light")
    key = next(c.ref for c in fed.circuit.components if fed.kind(c) == "button")
    weights = {(f.sort, f.ref): f.weight for f in faults.possible_faults(fed, ())}
    wanted = {
        ("open", chip): 2.0,
        ("open", holder): 1.5,
        ("open", small): 1.0,
        ("missing", small): 0.4,
        ("value", small): 0.6,
        ("swapped", light): 0.8,
        ("stuck", key): 0.5,
        ("flat", "cell"): 1.5,
    }
    assert {k: weights[k] for k in wanted} == wanted
    assert ("swapped", small) not in weights
    assert ("stuck", light) not in weights


def test_sticks_drift_and_are_turned_round(bare: Device) -> None:
    pads = {"1": "S1", "2": "Y", "3": "G1", "4": "S2", "5": "X", "6": "G2"}
    stick = Component(
        role="x", ref="RV1", part="stick-resistive-13", block="b", purpose="p", pads=pads
    )
    alone = replace(bare, circuit=bare.circuit.model_copy(update={"components": (stick,)}))
    found = {f.sort: f.weight for f in faults.possible_faults(alone, ())}
    assert found | {"flat": 0} == {
        **{"open": 1.0, "missing": 0.4, "swapped": 0.8, "drift": 0.8},
        "flat": 0,
    }
    diode = Component(
        role="d", ref="D1", part="diode-sod123", block="b", purpose="p", pads={"1": "K", "2": "A"}
    )
    two = replace(bare, circuit=bare.circuit.model_copy(update={"components": (diode, stick)}))
    (leak,) = faults.drifted(two, faults.Fault("drift", ref="RV1"))
    assert ({leak.a, leak.b}, leak.ohm) == ({"X", "S1"}, 9_000)
    assert faults.drifted(two, faults.Fault("drift", ref="D1")) == ()
    assert faults.turned_pads(two, faults.Fault("swapped", ref="D1")) == {
        ("D1", "1"): "2",
        ("D1", "2"): "1",
    }
    turned = faults.turned_pads(two, faults.Fault("swapped", ref="RV1"))
    assert turned == {("RV1", a): b for a, b in (("1", "3"), ("3", "1"), ("4", "6"), ("6", "4"))}


def test_near_pads_are_bridged_more_often(fed: Device, plain: BoardView) -> None:
    """Twice a plain joint where they touch, an e-th of it every 0.15 mm (common practice, no
    source); nothing beyond 0.6 mm, on other sides, or of one net.
    """

    def weights(*pads: Copper) -> list[float]:
        return [f.weight for f in faults.bridges(fed, board(plain, *pads))]

    one = pad("A", 10, 10, ref="R1")
    for gap, weight in ((0.15, 0.7358), (0.3, 0.2707), (0.59, 0.0392)):
        assert weights(one, pad("B", 11 + gap, 10, ref="R2")) == [pytest.approx(weight, abs=1e-3)]
    assert weights(one, pad("B", 11.61, 10, ref="R2")) == []
    assert weights(one, pad("A", 11.2, 10, ref="R2")) == []
    assert weights(one, pad("B", 11.2, 10, side="far", ref="R2")) == []
    two = (pad("B", 11.3, 10, ref="R2"), pad("B", 8.85, 10, ref="R3"))
    assert weights(one, *two) == [pytest.approx(0.7358, abs=1e-3)]
