"""What each part is to a meter and on power, part by part: values of the catalogue's drawings,
orientation by the names of its pins; and where symptoms begin.
"""

from dataclasses import replace
from types import SimpleNamespace

import numpy as np
import pytest

from loquet.core.board import BoardView, Copper
from loquet.core.build import faults
from loquet.core.build.elements import Desk, desk_of, fed_by, network_of, poles
from loquet.core.build.faults import GOOD, Fault
from loquet.core.build.finding import SPREAD_F, label, likely
from loquet.core.build.measuring import Faulty, Probe
from loquet.core.build.network import Battery, Network, Regulator, Resistance, Solver
from loquet.core.circuit import Circuit, Component
from loquet.core.design import Design, slice_of
from loquet.core.library import Library
from loquet.core.pipeline import bring_up_to_date
from tests.core.plain_boards import board, pad
from tests.making import device, thing

G = "GROUND"


@pytest.fixture(scope="module")
def bare(finished: Design, library: Library) -> Desk:
    """A bench with nothing on it, and no rail."""
    circuit = slice_of(finished.circuit).model_copy(update={"components": ()})
    return Desk(finished.brief, circuit, library.parts, (), (), "")


def one(
    bare: Desk, part: str, pads: dict[str, str], powered: bool = True, **more: object
) -> Network:
    """The network of one part alone; every lead is at its net."""
    component = Component(role="x", ref="X1", part=part, block="b", purpose="p", pads=pads, **more)
    circuit: Circuit = bare.circuit.model_copy(update={"components": (component,)})
    return network_of(replace(bare, circuit=circuit), lambda _, pad: pads[pad], powered=powered)


def joined(network: Network) -> dict[tuple[str, str], float]:
    return {(r.a, r.b): r.ohm for r in network.resistances}


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
    bare: Desk, part: str, pads: dict[str, str], value: str, ohms: dict[tuple[str, str], float]
) -> None:
    """Coil 42 ohm, choke 0.06, tracks of 10 k in the middle, a trigger at 5 % of its way."""
    found = joined(one(bare, part, pads, powered=False, value=value))
    assert found == {pair: pytest.approx(ohm) for pair, ohm in ohms.items()}


def test_both_tracks_of_a_stick_hang_at_their_own_supply_and_ground(bare: Desk) -> None:
    """Its drawing: 1 supply, 2 y, 3 ground, 4 supply, 5 x, 6 ground."""
    pads = {"1": "S1", "2": "Y", "3": "G1", "4": "S2", "5": "X", "6": "G2"}
    found = joined(one(bare, "stick-resistive-13", pads, powered=False))
    assert found == dict.fromkeys((("S1", "Y"), ("Y", "G1"), ("S2", "X"), ("X", "G2")), 5000)


def test_a_slide_switch_joins_where_its_slider_stands(bare: Desk) -> None:
    pads = {"1": "A", "2": "C", "3": "B"}
    for on, end in (("3", "B"), ("1", "A"), ("", "B")):
        found = joined(one(bare, "switch-slide-surface", pads, powered=False, on_pad=on))
        assert found == {("C", end): 0.05}


@pytest.mark.parametrize(
    ("part", "pads", "way", "volts", "ohm"),
    [
        ("light-2012-amber", {"1": "K", "2": "A"}, ("A", "K"), 2.0, 0.5),
        ("diode-schottky-sod123", {"1": "K", "2": "A"}, ("A", "K"), 0.4, 0.5),
        ("transistor-npn-sot23", {"1": "B", "2": "E", "3": "C"}, ("B", "E"), 0.65, 100.0),
        ("transistor-pmos-sot23", {"1": "g", "2": "S", "3": "D"}, ("D", "S"), 0.65, 0.5),
        (
            "ideal-diode-5",
            {"1": "I", "2": G, "3": "EN", "4": "ST", "5": "O"},
            ("I", "O"),
            0.03,
            0.08,
        ),
    ],
)
def test_current_goes_the_way_that_the_pins_say(
    bare: Desk, part: str, pads: dict[str, str], way: tuple[str, str], volts: float, ohm: float
) -> None:
    """Anode to cathode, base to emitter, the body diode of a p-channel transistor from drain to
    source; nothing of it with the power off. Slopes by common practice, no source.
    """
    (valve,) = one(bare, part, pads).valves
    assert ((valve.a, valve.b), valve.volts, valve.ohm) == (way, volts, ohm)
    assert one(bare, part, pads, powered=False).valves == ()


def test_a_transistor_has_its_own_threshold(bare: Desk) -> None:
    (gate,) = one(bare, "transistor-pmos-sot23", {"1": "g", "2": "S", "3": "D"}).gates
    assert (gate.gate, gate.source, gate.drain, gate.volts) == ("g", "S", "D", 0.9)


def component(pads: dict[str, str]) -> Component:
    return Component(role="x", ref="X1", part="p", block="b", purpose="p", pads=pads)


def test_plus_and_minus_of_a_source_are_known_by_name() -> None:
    assert poles(component({"1": "V", "2": G}), {"plus": ["1"], "minus": ["2"]}) == ("1", "2")
    assert poles(component({"1": G, "2": "V"}), {"supply": ["2"], "ground": ["1"]}) == ("2", "1")
    assert poles(component({"1": "V", "2": G}), {"way 1": ["1"], "way 2": ["2"]}) == ("1", "2")
    assert poles(component({"1": "U", "2": "V"}), {"one": ["1"], "other": ["2"]}) == ("", "")


FED = device(
    thing("chip", "chip", part="stm32l433rct6"),
    thing("cells", "cell", 50, 30, far=True),
    thing("button", "go", 20, 20),
    thing("light", "light"),
)


@pytest.fixture(scope="module")
def fed(library: Library) -> Desk:
    """Two AAA cells of 1.5 V in a row and a chip on them."""
    design = bring_up_to_date(Design(brief=FED), library, "circuit")
    return desk_of(FED, slice_of(design.circuit), library)


def powered(desk: Desk, **more: object) -> Network:
    nets = {(c.ref, pad): net for c in desk.circuit.components for pad, net in c.pads.items()}
    return network_of(desk, lambda ref, pad: nets[ref, pad], powered=True, **more)


def test_an_unpowered_chip_shows_200_k_and_its_pins_are_joined_inside(fed: Desk) -> None:
    chip = next(c for c in fed.circuit.components if c.is_chip)
    pads = [p for p, n in chip.pads.items() if n == G]
    alone = replace(fed, circuit=fed.circuit.model_copy(update={"components": (chip,)}))
    found = network_of(alone, lambda ref, pad: f"{ref}.{pad}")
    assert sorted({r.ohm for r in found.resistances}) == [2.0, 200_000.0]
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
    design = bring_up_to_date(Design(brief=brief), library, "circuit")
    desk = desk_of(brief, slice_of(design.circuit), library)
    made = powered(desk).regulators
    rails = {m.rail.net: m.rail.usual_v for m in desk.made}
    assert made
    for regulator in made:
        assert rails.get(regulator.out) in (regulator.volts, None)
        assert regulator.ground == G
        part = next(
            p for p in library.parts.values() if p.values.get("input_min_v") == regulator.least
        )
        assert regulator.most_a == pytest.approx(part.values["current_ma"] / 1000)


@pytest.mark.parametrize(("lift", "volts"), [(0.45, 3.75), (0.55, 0.0)])
def test_a_regulator_whose_ground_is_lifted_gives_up(lift: float, volts: float) -> None:
    """It makes 3.3 V over its own ground; half a volt over the true one it is taken for off."""
    network = Network(
        G,
        (Resistance("R", G, 1e4), Resistance("E", "P", 1.0)),
        batteries=(Battery("P", G, 6.0, 0.01), Battery("L", G, lift, 0.001)),
        regulators=(Regulator("P", "R", "L", "E", 3.3, 2.0, 0.3, ohm=0.001),),
    )
    assert Solver(network).on_power()["R"] == pytest.approx(volts, abs=0.03)


@pytest.mark.parametrize(("ohm", "hot"), [(20.0, False), (12.0, True)])
def test_it_draws_far_too_much_from_a_fifth_of_an_ampere_on(
    fed: Desk, ohm: float, hot: bool, monkeypatch: pytest.MonkeyPatch
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


def test_a_part_with_one_lead_joined_conducts_nothing(bare: Desk) -> None:
    assert one(bare, "light-2012-amber", {"2": "A"}).valves == ()
    assert one(bare, "light-2012-amber", {"1": "K"}).valves == ()
    assert one(bare, "transistor-npn-sot23", {"1": "B", "3": "C"}).valves == ()
    assert one(bare, "transistor-pmos-sot23", {"1": "g", "2": "S"}).gates == ()


def test_a_converter_draws_by_the_volts_over_its_own_ground() -> None:
    """3.3 V into 33 ohm at 0.9 from 5.0 - 0.4 V: 0.33 / 0.9 / 4.6 = 79.7 mA."""
    network = Network(
        G,
        (Resistance("R", "L", 33.0), Resistance("E", "P", 1.0)),
        batteries=(Battery("P", G, 5.0, 0.1), Battery("L", G, 0.4, 0.001)),
        regulators=(Regulator("P", "R", "L", "E", 3.3, 2.0, 1.0, efficiency=0.9, ohm=0.001),),
    )
    volts = Solver(network).on_power()
    assert (5.0 - volts["P"]) / 0.1 == pytest.approx(0.33 / 0.9 / 4.6, abs=0.0015)


@pytest.mark.parametrize(("before", "share"), [(0.11, 0.3 / (0.11 * 0.5)), (0.09, 1.0)])
def test_a_converter_without_volts_before_it_draws_what_it_gives(
    before: float, share: float
) -> None:
    """Below 0.1 V a power at an efficiency would ask for amperes without end (common practice, no
    source).
    """
    made = Regulator("P", "R", G, "P", 0.3, 0.0, 1.0, efficiency=0.5)
    network = Network(G, (Resistance("P", "R", 1.0), Resistance("R", G, 1.0)), regulators=(made,))
    solver = Solver(network)
    volts = np.zeros(len(solver.at))
    volts[solver.at["P"]] = before
    assert solver.drawn(made, volts, 0.2) == pytest.approx(0.2 * share)


def test_the_diode_test_has_a_right_way_round(fed: Desk) -> None:
    """The light of 2.0 V from anode to cathode; the other way nothing conducts, which a meter shows
    as 2 and more.
    """
    light = next(c for c in fed.circuit.components if fed.kind(c) == "light")
    anode, cathode = (light.ref, "2"), (light.ref, "1")
    drop = fed.parts[light.part].values["forward_v"]
    part = fed.parts[light.part]
    odd = part.model_copy(update={"values": {**part.values, "forward_v": 1.8}})
    other = replace(fed, parts={**fed.parts, light.part: odd})
    good = Faulty(other, GOOD)
    assert drop == 2.0
    unnamed = part.model_copy(
        update={"values": {k: v for k, v in part.values.items() if k != "forward_v"}}
    )
    plain = Faulty(replace(fed, parts={**fed.parts, light.part: unnamed}), GOOD)
    # where no drop is named, that of a silicon junction (common practice, no source)
    assert plain.measured(Probe("diode", anode, cathode)) == 0.65
    assert good.measured(Probe("diode", anode, cathode)) == pytest.approx(1.8)
    assert good.measured(Probe("diode", cathode, anode)) == 2.0


def test_likely_faults_weigh_more(fed: Desk) -> None:
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


def test_sticks_drift_and_are_turned_round(bare: Desk) -> None:
    pads = {"1": "S1", "2": "Y", "3": "G1", "4": "S2", "5": "X", "6": "G2"}
    stick = Component(
        role="x", ref="RV1", part="stick-resistive-13", block="b", purpose="p", pads=pads
    )
    alone = replace(bare, circuit=bare.circuit.model_copy(update={"components": (stick,)}))
    found = {f.sort: f.weight for f in faults.possible_faults(alone, ())}
    assert found == {"open": 1.0, "missing": 0.4, "swapped": 0.8, "drift": 0.8}
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


def test_near_pads_are_bridged_more_often(fed: Desk, plain: BoardView) -> None:
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


def test_a_rail_is_fed_by_what_gives_it() -> None:
    """By the net of its output, not of its input."""
    desk = SimpleNamespace(named=lambda c: c.named)
    regulator = SimpleNamespace(
        named={"in": ["1"], "out": ["3"]}, pads={"1": "CELLS", "3": "SUPPLY"}
    )
    for net, fed in (("SUPPLY", True), ("CELLS", False)):
        made = SimpleNamespace(rail=SimpleNamespace(net=net))
        assert fed_by(desk, made, regulator) is fed  # type: ignore[arg-type]
    plain = SimpleNamespace(named={"anode": ["1"]}, pads={"1": "SUPPLY"})
    assert not fed_by(desk, SimpleNamespace(rail=SimpleNamespace(net="SUPPLY")), plain)
