"""Keys scanned on finished netlists: what was made wrong anywhere before cannot be called
proven.
"""

from dataclasses import replace
from typing import Any

import pytest

from loquet.core.brief import Brief
from loquet.core.circuit import Circuit
from loquet.core.design import Design, plans_of, slice_of
from loquet.core.library import Library
from loquet.core.pipeline import bring_up_to_date
from loquet.core.proof.scanning import Fabricated, reach, scan
from loquet.demo.scenario import demo_brief
from tests.making import varied

Changes = dict[tuple[str, str], str]


def made(brief: Brief, library: Library) -> tuple[Design, Fabricated]:
    """A device up to its circuit, as its netlist has it."""
    design = bring_up_to_date(Design(brief=brief), library, "circuit")
    circuit: Circuit = slice_of(design.circuit)
    nets = {(c.ref, pad): net for c in circuit.components for pad, net in c.pads.items()}
    return design, Fabricated(circuit.components, library.parts, nets)


def scheme(name: str, brief: str = "step-pad", **more: Any) -> Brief:
    found = demo_brief(brief)
    keys = found.key_scheme.model_copy(update={"name": name, **more})
    return found.model_copy(update={"key_scheme": keys})


LISTED = ("expander 8", "expander 16", "shift register", "resistor ladder")
SCHEMES = ("one pin each", "diode matrix", "bare matrix", "charlieplexed", *LISTED)


@pytest.mark.parametrize("name", SCHEMES)
def test_every_key_reads_as_itself(name: str, library: Library) -> None:
    design, device = made(scheme(name), library)
    assert scan(design.brief, plans_of(design), device) == (9, ())


@pytest.mark.parametrize(
    ("brief", "keys"),
    [("dusk-remote", 6), ("slew-carrier", 4), ("dew-panel", 4), ("filter-dial", 3)],
)
def test_examples_scan_clean(brief: str, keys: int, library: Library) -> None:
    """Boards with a link, two brains, an encoder: all keys at their own brain, over the link as
    well.
    """
    design, device = made(demo_brief(brief), library)
    assert scan(design.brief, plans_of(design), device) == (keys, ())


def broken(device: Fabricated, **swaps: tuple[str, str]) -> Fabricated:
    """The device with nets of two pads exchanged."""
    nets = dict(device.nets)
    for one, other in swaps.values():
        a, b = (tuple(place.split(".")) for place in (one, other))
        nets[a], nets[b] = nets[b], nets[a]  # type: ignore[index]
    return replace(device, nets=nets)


def ref_of(device: Fabricated, role: str) -> str:
    return next(c.ref for c in device.components if c.role == role)


def test_a_diode_turned_round_is_found(library: Library) -> None:
    design, device = made(scheme("diode matrix"), library)
    ref = ref_of(device, "diode button:north west")
    _, faults = scan(design.brief, plans_of(design), broken(device, d=(f"{ref}.1", f"{ref}.2")))
    assert faults == ("While button:north west is held, button:north west is not read.",)


def test_two_pins_exchanged_and_a_key_on_no_net_are_found(library: Library) -> None:
    design, device = made(demo_brief("dusk-remote"), library)
    plan = plans_of(design)["chip"]
    chip = ref_of(device, "chip")
    a, b = (
        next(r.pin for r in plan.assignments if r.signal == s)
        for s in ("button:red", "button:white")
    )
    _, faults = scan(
        design.brief, plans_of(design), broken(device, p=(f"{chip}.{a}", f"{chip}.{b}"))
    )
    assert len(faults) == 2
    ref = ref_of(device, "button:red")
    open_end = {place: net for place, net in device.nets.items() if place != (ref, "4")}
    _, faults = scan(design.brief, plans_of(design), replace(device, nets=open_end))
    assert faults[0] == "The key button:red has an end that is on no net."


def test_a_ghost_in_a_listed_chord_is_found(library: Library) -> None:
    """Three corners of a rectangle held in a matrix without diodes: the fourth reads as pressed."""
    brief = scheme("bare matrix")
    held = ("button:north west", "button:north mid", "button:middle west")
    chords = brief.chords.model_copy(update={"rule": "own", "groups": (held,)})
    design, device = made(brief.model_copy(update={"chords": chords}), library)
    _, faults = scan(design.brief, plans_of(design), device)
    (fault,) = faults
    assert fault.endswith("is held, button:middle mid reads as pressed.")


def test_current_goes_one_way_through_a_diode() -> None:
    assert reach("a", [("a", "b"), ("b", "c"), ("d", "a")]) == {"a", "b", "c"}
    assert reach("c", [("a", "b"), ("b", "c")]) == {"c"}


def test_a_matrix_at_the_second_brain_is_scanned_over_its_own_lines(library: Library) -> None:
    """All four keys of the panel at its other chip, in a matrix; a diode turned round there is
    found.
    """
    keys = ("warmer", "cooler", "hold", "quiet")
    brief = varied(
        "dew-panel",
        things={name: {"brain": "show chip"} for name in keys},
        key_scheme={"name": "diode matrix"},
    )
    design, device = made(brief, library)
    assert any(net.startswith("SHOW_CHIP_ROW") for net in device.nets.values())
    assert scan(design.brief, plans_of(design), device) == (4, ())
    diode = next(
        c.ref for c in device.components if c.part == "diode-schottky-sod123" and c.block != "power"
    )
    turned = broken(device, ends=(f"{diode}.1", f"{diode}.2"))
    assert scan(design.brief, plans_of(design), turned)[1] != ()


@pytest.mark.parametrize("name", LISTED)
def test_two_listed_keys_exchanged_are_found(name: str, library: Library) -> None:
    """The legs of two keys exchanged on the netlist: each reads as the other."""
    design, device = made(scheme(name), library)
    one, other = ref_of(device, "button:north west"), ref_of(device, "button:north mid")
    _, faults = scan(design.brief, plans_of(design), broken(device, d=(f"{one}.1", f"{other}.1")))
    assert len(faults) >= 2
    assert "north mid reads as pressed" in faults[0]


def test_an_expander_at_another_address_is_found(library: Library) -> None:
    """Two expanders of eight lines with both at address 0: their keys cannot be told apart."""
    design, device = made(scheme("expander 8"), library)
    second = ref_of(device, "key expander 2")
    nets = {**device.nets, (second, "1"): "GROUND"}
    _, faults = scan(design.brief, plans_of(design), replace(device, nets=nets))
    assert faults


def test_a_broken_chain_of_registers_is_found(library: Library) -> None:
    """The ninth key sits on the second register; with the chain open it is not read."""
    design, device = made(scheme("shift register"), library)
    first = ref_of(device, "key register 1")
    nets = {**device.nets, (first, "10"): "GROUND"}
    _, faults = scan(design.brief, plans_of(design), replace(device, nets=nets))
    assert faults == ("While button:south east is held, button:south east is not read.",)


def test_a_ladder_with_a_wrong_resistor_is_found(library: Library) -> None:
    """A resistor ten times too large: the voltage of its key falls into another window, or into
    none.
    """
    design, device = made(scheme("resistor ladder"), library)
    wrong = tuple(
        c.model_copy(update={"value": "100 kΩ"}) if c.role == "ladder button:north east" else c
        for c in device.components
    )
    _, faults = scan(design.brief, plans_of(design), replace(device, components=wrong))
    assert any(fault.startswith("While button:north east is held") for fault in faults)
