"""The fault finder on a real circuit: what each fault does to readings, symptoms, and that the
causes are found by few tests.
"""

import pytest

from loquet.core.board import BoardView
from loquet.core.build.expected import first_power
from loquet.core.build.faults import GOOD, Fault, possible_faults
from loquet.core.build.finding import Finder, Suspects, entropy, likely
from loquet.core.build.measuring import Faulty, Probe, Symptom
from loquet.core.build.meter import OPEN_OHM
from loquet.core.build.protocol import ProtocolFault, answer, ask, keys, number, samples, symptom
from loquet.core.design import Design
from loquet.core.energising.device import Device
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.demo.scenario import BOARD_BRIEFS, demo_brief
from loquet.standins.bench_unit import BenchUnit
from tests.core.benches import switched_on


@pytest.fixture(scope="module")
def view(finished: Design, library: Library) -> BoardView:
    return board_view(finished, library)


@pytest.fixture(scope="module")
def desk(finished: Design, library: Library) -> Device:
    return switched_on(finished, library)


@pytest.fixture(scope="module")
def faults(desk: Device, view: BoardView) -> list[Fault]:
    return possible_faults(desk, (view,))


@pytest.fixture(scope="module")
def suspects(desk: Device, faults: list[Fault]) -> Suspects:
    return Suspects(desk, faults)


def ref(desk: Device, purpose: str) -> str:
    return next(c.ref for c in desk.circuit.components if purpose in c.purpose)


def pick(
    faults: list[Fault], sort: str, ref: str = "", pad: str = "", nets: tuple[str, ...] = ()
) -> Fault:
    return next(
        f
        for f in faults
        if f.sort == sort
        and ref in ("", f.ref)
        and (not pad or f.leads[0][1] == pad)
        and (not nets or set(f.nets) == set(nets))
    )


def test_a_good_device_works(desk: Device) -> None:
    """Two AAA cells of 1.5 V: 3.0 V at the rail less what little is lost; the supply feeds what
    Power says.
    """
    good = Faulty(desk, GOOD)
    volts, wanted = good.rail()
    assert wanted == 3.0
    assert volts == pytest.approx(3.0, abs=0.03)
    assert good.symptom() == Symptom()
    assert good.current_a() == pytest.approx(
        sum(load.currents.idle for load in desk.loads) / 1000, rel=0.25
    )


@pytest.mark.parametrize("name", BOARD_BRIEFS)
def test_every_example_works_when_nothing_is_wrong(name: str, library: Library) -> None:
    """The rail of its first brain is up within a tenth, and it draws no more than it may."""
    design = bring_up_to_date(Design(brief=demo_brief(name)), library, "circuit")
    good = Faulty(switched_on(design, library), GOOD)
    assert good.symptom() == Symptom()
    volts, wanted = good.rail()
    assert volts == pytest.approx(wanted, rel=0.1)


def test_each_sort_of_fault_shows(desk: Device, faults: list[Fault]) -> None:
    boot, red = ref(desk, "own memory"), ref(desk, "Button red")
    opened = Faulty(desk, pick(faults, "open", boot, "1"))
    chip = next(c for c in desk.circuit.components if c.is_chip)
    pin = next(p for p, n in chip.pads.items() if n == "BOOT")
    assert opened.ohm((boot, "1"), (chip.ref, pin)) >= OPEN_OHM / 2
    assert opened.ohm((boot, "1"), (boot, "2")) == pytest.approx(10_000, rel=0.01)
    missing = Faulty(desk, pick(faults, "missing", boot))
    assert missing.ohm((boot, "1"), (boot, "2")) >= OPEN_OHM / 2
    tenth = Faulty(
        desk, next(f for f in faults if f.sort == "value" and f.ref == boot and f.factor < 1)
    )
    assert tenth.ohm((boot, "1"), (boot, "2")) == pytest.approx(1000, rel=0.01)
    stuck = Faulty(desk, pick(faults, "stuck", red))
    assert stuck.ohm((red, "1"), (red, "4")) == pytest.approx(0.05, rel=0.02)
    assert stuck.symptom().manner == "always"
    flat = Faulty(desk, pick(faults, "flat"))
    assert flat.symptom().dead
    assert flat.volt((chip.ref, next(p for p, n in chip.pads.items() if n == "SUPPLY"))) < 0.1


def test_a_bridge_joins_two_nets_and_names_both_functions(
    desk: Device, faults: list[Fault]
) -> None:
    bridge = next(
        f for f in faults if f.sort == "bridge" and all(n.startswith("BUTTON") for n in f.nets)
    )
    device = Faulty(desk, bridge)
    assert device.ohm(*bridge.leads) == pytest.approx(0.2, abs=0.01)
    seen = device.symptom()
    assert seen.manner == "together"
    assert len(seen.broken) == 2
    assert device.seen(Probe("look", *bridge.leads)) == 1


def test_a_supply_shorted_to_ground_is_dead_and_draws_too_much(desk: Device) -> None:
    short = Fault("bridge", leads=(("C1", "1"), ("C1", "2")), nets=("GROUND", "SUPPLY"))
    seen = Faulty(desk, short).symptom()
    assert seen.dead
    assert seen.hot


def test_a_missing_capacitor_is_missed_by_a_meter(desk: Device, faults: list[Fault]) -> None:
    """The reset net has 100 nF to ground; without it there is nothing.

    What is seen is that it is unsteady.
    """
    quiet = ref(desk, "Keeps reset quiet")
    probe = Probe("farad", (quiet, "1"), (quiet, "2"))
    assert Faulty(desk, GOOD).reading(probe) == pytest.approx(100e-9)
    gone = Faulty(desk, pick(faults, "missing", quiet))
    assert gone.reading(probe) == 0
    assert gone.symptom().broken == frozenset({"unsteady"})


def test_a_glass_tells_which_joint(desk: Device, faults: list[Fault]) -> None:
    red = ref(desk, "Button red")
    probe = Probe("look", (red, "1"))
    assert Faulty(desk, pick(faults, "missing", red)).reading(probe) == 1
    assert Faulty(desk, pick(faults, "open", red, "1")).reading(probe) == 2
    assert Faulty(desk, pick(faults, "open", red, "4")).reading(probe) == 3
    assert Faulty(desk, GOOD).reading(probe) == 0


def test_readings_are_weighed() -> None:
    """A reading that is as expected is near certain, one a tenth off likely, one ten times off is
    not; a person who says `wrong` means any joint there.
    """
    ohm = Probe("ohm", ("R1", "1"), ("R1", "2"))
    assert likely(ohm, 1000, 1000) > 0.99
    assert 0.5 < likely(ohm, 1000, 1100) < 0.9
    assert likely(ohm, 1000, 10_000) < 0.01
    look = Probe("look", ("R1", "1"))
    assert likely(look, 3, 3) == likely(look, 3, 1) == 0.95
    assert likely(look, 3, 2) == pytest.approx(0.05)
    assert likely(look, 0, 1) == 0.02
    volt = Probe("volt", ("R1", "1"))
    assert likely(volt, 3.3, 3.3) > 0.99 > 0.01 > likely(volt, 3.3, 2.8)
    for spreads, height in ((1, 0.6065), (2, 0.1353)):  # the normal curve, tables of any handbook
        assert likely(volt, 3.3, 3.3 + 0.06 * spreads) == pytest.approx(height + 0.002, abs=2e-4)
    assert entropy([0.5, 0.5]) == pytest.approx(0.6931, abs=1e-4)


@pytest.mark.parametrize(
    ("sort", "purpose", "pad"),
    [
        ("open", "Button red", "1"),
        ("open", "Pull-up of the screen clock", "2"),
        ("flat", "", ""),
        ("open", "Blocks the cells", "2"),
        ("missing", "Current of the indicator light", ""),
        ("stuck", "Button dome", ""),
    ],
)
def test_the_cause_is_named_within_five_tests(
    sort: str, purpose: str, pad: str, desk: Device, faults: list[Fault], suspects: Suspects
) -> None:
    """K56: one test at a time, each by the line protocol from the simulated unit with the spread of
    its meter.
    """
    fault = pick(faults, sort, ref(desk, purpose) if purpose else "", pad)
    unit = BenchUnit(desk, fault, seed=7)
    finder = Finder(suspects, symptom(unit.line("SYMPTOM")))
    tests = 0
    while not finder.sure() and tests < 5:
        probe = finder.best()
        assert probe is not None
        line = ask(probe)
        finder.tell(probe, number(unit.line(line), line.split()[0]))
        tests += 1
    assert finder.sure()
    assert finder.causes()[0].name == fault.cause


def test_neighbours_are_ranked_by_how_near_they_lie(faults: list[Fault]) -> None:
    """K55: the pads of the chip lie 0.24 mm apart (0.5 mm pitch), nearer than anything else."""
    bridges = [f for f in faults if f.sort == "bridge"]
    weights = [f.weight for f in bridges]
    assert weights == sorted(weights, reverse=True)
    assert "0.24 mm" in bridges[0].words
    assert len({f.nets for f in bridges}) == len(bridges)


def test_the_table_of_the_first_power(desk: Device, faults: list[Fault]) -> None:
    """K55: 200 k of the chip between supply and ground; volts of the rail; the bench supply is
    limited to twice what waits, 50 mA at least.
    """
    table = first_power(desk, faults)
    (rail,) = table.before
    assert rail.expected == pytest.approx(200_000, rel=0.02)
    assert (rail.low, rail.high) == pytest.approx((rail.expected * 0.8, rail.expected * 1.2))
    volts = {row.words: row.expected for row in table.after}
    assert volts["SUPPLY"] == pytest.approx(3.0, abs=0.03)
    assert volts["BOOT"] == pytest.approx(0.0, abs=0.01)
    assert table.limit.value == 50
    assert table.idle.value == pytest.approx(sum(load.currents.idle for load in desk.loads))
    assert len(table.neighbours) == 12
    assert all(row.shown == "open" or row.expected > 0 for row in table.neighbours)
    open_rows = [row for row in table.neighbours if row.shown == "open"]
    assert {(row.low, row.high) for row in open_rows} == {(1e6, 1e12)}


def test_the_protocol_of_the_bench_unit(desk: Device, faults: list[Fault]) -> None:
    """Every word has its answer; what is no answer is refused with a sentence."""
    red = next(t.role("") for t in desk.brief.things if t.name == "red")
    unit = BenchUnit(desk, pick(faults, "open", ref(desk, "Button red"), "1"), seed=1)
    assert unit.line("ID").startswith("ID simulated ")
    assert symptom(unit.line("SYMPTOM")).broken == frozenset({red})
    assert keys(unit.line(f"KEYS {red}")) == frozenset()
    other = next(t.role("") for t in desk.brief.things if t.name == "dome")
    assert keys(unit.line(f"KEYS {other}")) == frozenset({other})
    boot = ref(desk, "own memory")
    assert number(unit.line(f"OHM {boot}.1 {boot}.2"), "OHM") == pytest.approx(10_000, rel=0.1)
    for line in ("OHM Q99.1 R1.1", "WHAT", "KEYS nobody", "STICK red"):
        assert unit.line(line).startswith("ERR ")
        with pytest.raises(ProtocolFault):
            answer(unit.line(line), line.split()[0])
    for bad in ("OHM nan", "OHM twelve", "VOLT 3", "OHM 1e99"):
        with pytest.raises(ProtocolFault):
            number(bad, "OHM")
    for bad in ("SYMPTOM", "SYMPTOM 1 0 loud"):
        with pytest.raises(ProtocolFault):
            symptom(bad)
    with pytest.raises(ProtocolFault):
        samples("STICK 1,2")
