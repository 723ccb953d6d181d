"""What a port sees and feeds, and what is measured beside it while it is plugged in."""

import pytest

from loquet.core.checks.switched_on import switched_on
from loquet.core.circuit.model import GROUND, Circuit, Component
from loquet.core.circuit.port_load import farads, seen_by_port
from loquet.core.energising.energised import Energised
from loquet.core.energising.states import read_state
from loquet.core.library import Library
from loquet.core.lookup.switched_on import seen_in
from loquet.core.power.plugged import entry_value
from tests.core.benches import bench_for, seen_with
from tests.core.test_power_mistakes import found
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
CELL = thing("lithium-cell", "cell")
PORT = thing("usb-charge", "plug")
FED = {**PORT, "feeds": True}


def part(ref: str, part_id: str, value: str, **pads: str) -> Component:
    return Component(
        role=ref, ref=ref, part=part_id, block="power", value=value, purpose=ref, pads=pads
    )


def seen(*things: Plain) -> Energised:
    return switched_on(seen_with(device(CHIP, *things)))


def volts(energised: Energised, net: str, state: str) -> float:
    one = seen_in(energised, read_state(energised.device, state))
    return float(one.volt(net)[0])


@pytest.mark.parametrize(
    ("things", "total_uf"),
    [
        # USB 2.0 section 7.2.4.1 allows 10 µF; each sum by hand from the values on the sheet
        ((CELL, PORT), 4.7 + 4.7),
        ((FED,), 1.0 + 4.7),
        ((CELL, PORT, thing("usb-device", "usb")), 4.7 + 4.7),
    ],
)
def test_a_port_sees_less_than_it_may(
    things: tuple[Plain, ...], total_uf: float, library: Library
) -> None:
    subject = seen_with(device(CHIP, *things))
    assert subject.circuit is not None
    rows = seen_by_port(subject.circuit, library.parts, "CHARGE_PLUG_PLUG")
    assert sum(map(farads, rows)) * 1e6 == pytest.approx(total_uf)
    assert found("port-capacity", subject) == []


def test_more_than_that_is_said_with_every_part(library: Library) -> None:
    """The charger's 4.7 µF and 10 µF put where 4.7 µF were."""
    subject = seen_with(device(CHIP, CELL, PORT))
    assert subject.circuit is not None
    rows = [
        c.model_copy(update={"value": "10 µF"}) if c.role == "cell converter input" else c
        for c in subject.circuit.components
    ]
    larger = subject.circuit.model_copy(update={"components": tuple(rows)})
    (finding,) = found("port-capacity", seen_with(device(CHIP, CELL, PORT), circuit=larger))
    assert "sees 14.7 µF" in finding.sentence
    assert finding.severity == "look"
    assert len([about for about in finding.about if about.startswith("part:")]) == 2


def test_what_stands_behind_a_converter_or_the_other_way_round_is_not_seen(
    library: Library,
) -> None:
    """From A over a fuse, a coil, a closed switch, 0 and 1 ohm and a diode, not back through one,
    not over 1 kilohm; a capacitor between two lines fills from none.
    """
    fuse, small = "fuse-resettable-3216", "resistor-1608"
    diode, bulk = "diode-schottky-sod123", "capacitor-2012"
    coil = next(p.id for p in library.parts.values() if p.kind == "inductor")
    rows = (
        part("F1", fuse, "0.5 A", **{"1": "A", "2": "B"}),
        part("L1", coil, "4.7 µH", **{"1": "B", "2": "S"}),
        part("S1", "switch-slide-surface", "on and off", **{"2": "S", "3": "J"}),
        part("R0", small, "0 Ω", **{"1": "J", "2": "C"}),
        part("R1", small, "1 Ω", **{"1": "C", "2": "D"}),
        part("D1", diode, "Schottky", **{"1": "E", "2": "D"}),  # pad 1 is the cathode
        part("D2", diode, "Schottky", **{"1": "D", "2": "X"}),
        part("R2", small, "1 kΩ", **{"1": "D", "2": "Y"}),
        part("C1", bulk, "1 µF", **{"1": "E", "2": GROUND}),
        part("C2", bulk, "2.2 µF", **{"1": "X", "2": GROUND}),
        part("C3", bulk, "3.3 µF", **{"1": "Y", "2": GROUND}),
        part("C4", bulk, "4.7 µF", **{"1": "E", "2": "Y"}),
    )
    circuit = Circuit(components=rows, nets=(), workings=())
    assert [c.ref for c in seen_by_port(circuit, library.parts, "A")] == ["C1"]


def test_only_what_a_port_feeds_has_the_small_capacitor() -> None:
    """A joined port feeds the converter of the source that it joins; 9 V are no port of 5 V."""
    cells, jack = thing("cells", "cells"), thing("barrel-jack", "jack")
    nine, other = {**FED, "asks": "9 V"}, {**FED, "name": "port"}
    rows: dict[str, tuple[tuple[Plain, ...], ...]] = {
        "4.7 µF": ((FED,), (CELL, PORT)),
        "10 µF": ((CELL,), (jack, PORT), (nine,), (cells, other)),
    }
    for value, devices in rows.items():
        for things in devices:
            brief = device(CHIP, *things)
            assert entry_value(brief, brief.thing(things[0]["name"])) == value
    joined = device(CHIP, jack, {**FED, "rail": "jack"})
    assert entry_value(joined, joined.thing("jack")) == "4.7 µF"
    assert entry_value(joined, None) == "10 µF"


def test_a_cell_is_measured_at_itself_while_a_port_is_plugged_in() -> None:
    """Half of 3.7 V, whichever feeds the device; 1 MΩ over 1 MΩ take 2 µA of it, in the dark as
    well.
    """
    both = seen(CELL, PORT)
    for state in ("cell=usual+plug=usual,high,on", "cell=usual,high,on", "cell=usual,reset,on"):
        assert volts(both, "CELL_SENSE", state) == pytest.approx(1.85, abs=0.03)


def test_the_supply_of_usb_is_looked_at_while_the_port_is_there(library: Library) -> None:
    """2 AA cells of 0.9 V each are below 3.0 V; behind a converter from 5 V it is 3.3 V."""
    own = device(CHIP, thing("cells", "cells"), thing("usb-device", "usb"))
    (low,) = found("usb-supply", seen_with(own))
    assert low.sentence.startswith("With usb plugged in and cells nearly empty")
    assert low.state.startswith("usb=usual+cells=least")
    fed = device(CHIP, thing("usb-device", "usb", feeds=True))
    assert found("usb-supply", seen_with(fed)) == []


def test_a_converter_of_a_port_stands_what_its_diode_leaves() -> None:
    """A port may give 4.4 V (USB 2.0 section 7.2.2), and fuse and diode take up to 0.5 V of them: a
    regulator that wants 4.0 V is not taken, one for 3.4 V is.
    """
    made = bench_for(device(CHIP, FED)).rails_made[0]
    why = {row.part.id: row.why_not for row in made.found}
    high = next(text for name, text in why.items() if "needs 4.00 V" in text or "high" in name)
    assert "may give 3.90 V" in high
    assert made.taken is not None
    assert made.taken.part.id == "regulator-linear-low"
