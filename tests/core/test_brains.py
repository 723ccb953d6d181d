"""Several brains, ready modules, sockets, and package maps of families that the data set has no
maps for.
"""

import re

import pytest

from loquet.catalogue.library import bundled_library
from loquet.catalogue.mapped import functions_by_port, mapped_names
from loquet.core.brief import Brief
from loquet.core.brief.shares import share_of
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, plans_of, slice_of
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.library import Library
from loquet.core.parts import Chip
from loquet.core.pins.model import Need, NeedKind
from loquet.core.pins.needing import needs_of
from loquet.core.pins.options import options_of
from loquet.core.pipeline import bring_up_to_date, run_stage
from loquet.core.power import rail_of, rails_of
from loquet.core.reviewing import review
from loquet.demo.scenario import demo_brief

# the dual-core chip of the RP family, by its whole name in the data set
DUAL = next(name for name in mapped_names() if name.startswith("rp"))


@pytest.fixture(scope="module")
def library() -> Library:
    return bundled_library()


@pytest.fixture(scope="module")
def panel(library: Library) -> Design:
    """The Dew panel with pins and circuit."""
    return bring_up_to_date(Design(brief=demo_brief("dew-panel")), library, "circuit")


def able(chip: Chip, kind: NeedKind) -> dict[str, str]:
    """Port by pin number of all that can carry a kind."""
    return {o.pin: o.port for o in options_of(Need("", kind, "", ""), chip)}


@pytest.mark.parametrize(
    ("name", "facts"),
    [
        # From memory of the makers' data sheets: package pin, port, and what is known to be there
        ("attiny85v-10pu", {"1": "PB5", "4": "GND", "5": "PB0", "7": "PB2", "8": "VCC"}),
        ("attiny84a-pu", {"1": "VCC", "4": "PB3", "14": "GND", "13": "PA0"}),
        ("atmega168pa-au", {"29": "PC6", "30": "PD0", "17": "PB5", "18": "AVCC", "28": "PC5"}),
        ("atmega168pa-pu", {"1": "PC6", "7": "VCC", "28": "PC5", "19": "PB5"}),
        (DUAL, {"2": "GPIO0", "46": "USB_DM", "47": "USB_DP", "26": "RUN", "41": "GPIO29"}),
        ("samd21e18a-au", {"1": "PA00", "26": "RESETN", "29": "VDDCORE", "31": "PA30"}),
        ("samd21g18a-au", {"40": "RESETN", "33": "PA24", "34": "PA25", "43": "VDDCORE"}),
    ],
)
def test_pins_lie_where_the_data_sheets_have_them(
    name: str, facts: dict[str, str], library: Library
) -> None:
    chip = library.find_chip(name)
    assert {number: chip.pin(number).name for number in facts} == facts
    assert len(chip.pins) == int(re.sub(r"\D", "", chip.package))
    assert chip.pins_from == "memory"


def test_every_port_of_a_full_package_is_bonded_once(library: Library) -> None:
    """The data set's ports against our maps: a package that brings out all ports has each of them
    once.
    """
    for name in ("attiny85v-10pu", "attiny84a-pu", "atmega168pa-au", DUAL):
        chip = library.find_chip(name)
        ports = [pin.name for pin in chip.pins if pin.kind in ("port", "reset") or pin.functions]
        listed = {p for p in functions_by_port(name) if not p.startswith("QSPI")}
        extra = {"RUN", "SWCLK", "SWDIO", "USB_DM", "USB_DP", "XIN", "XOUT"}
        assert sorted(set(ports) - extra) == sorted(listed)
        assert len(ports) == len(set(ports))
    assert len(mapped_names()) == len(set(mapped_names()))


def test_every_mapped_part_carries_a_small_brief_or_says_why_not(library: Library) -> None:
    """Two buttons and a light on each of them: no pin twice, none of them reset or supply."""
    brief = demo_brief("finder-lamp").without("wheel")
    for name in mapped_names():
        chip = library.find_chip(name)
        if chip.module:
            continue
        assert brief.brain is not None
        changed = brief.with_things(brief.brain.model_copy(update={"part": name}))
        plan = plans_of(run_stage(Design(brief=changed), "pins", library))["chip"]
        pins = [row.pin for row in plan.assignments]
        assert len(pins) == len(set(pins)) == 3
        assert {chip.pin(pin).kind for pin in pins} == {"port"}


def test_a_serial_block_keeps_to_one_combination_of_its_pads(library: Library) -> None:
    """SAM D21 data sheet, SERCOM SPI, DOPO (from memory): out on pad 0 goes with clock on pad 1,
    out on 2 with clock on 3.
    """
    chip = library.find_chip("samd21e18a-au")
    groups = {
        kind: {o.group: o.function for o in options_of(Need("", kind, "", ""), chip)}
        for kind in ("serial out", "serial clock")
    }
    assert set(groups["serial out"]) == set(groups["serial clock"])
    assert all("out 0 clock 1" in g or "out 2 clock 3" in g for g in groups["serial out"])


def test_each_brain_reads_its_own(panel: Design) -> None:
    """Keys at one chip, light and sounder at the other; every signal once."""
    brief = panel.brief
    own = {b.name: {n.signal for n in needs_of(brief, b.name)} for b in brief.brains}
    assert own["key chip"] == {
        "button:warmer",
        "button:cooler",
        "button:hold",
        "button:quiet",
        "talk:send",
        "talk:hear",
        "debug:key port:data",
        "debug:key port:clock",
    }
    assert not own["key chip"] & own["show chip"]
    assert {n.signal for n in needs_of(brief)} == own["key chip"] | own["show chip"]
    share = share_of(brief, "show chip")
    assert {t.name for t in share.things if t.contacts()} == set()
    assert [t.name for t in share.brains] == ["show chip"]
    assert rail_of(share, share.brains[0]) == rail_of(brief, brief.brains[1])


def test_a_matrix_at_each_brain_keeps_its_rows_apart(library: Library) -> None:
    """Two keys moved to the second brain, all in a matrix: no row or column is shared."""
    brief = demo_brief("dew-panel")
    things = [
        t.model_copy(update={"brain": "show chip"}) if t.name in ("hold", "quiet") else t
        for t in brief.things
    ]
    scheme = brief.key_scheme.model_copy(update={"name": "diode matrix"})
    changed = brief.model_copy(update={"things": tuple(things), "key_scheme": scheme})
    design = bring_up_to_date(Design(brief=changed), library, "circuit")
    circuit = slice_of(design.circuit)
    lines = {
        net.name: {circuit.component(ref).thing for ref, _ in net.pads} - {"key chip", "show chip"}
        for net in circuit.nets
        if "ROW" in net.name or "COLUMN" in net.name
    }
    first = set().union(*(v for n, v in lines.items() if not n.startswith("SHOW_CHIP_")))
    second = set().union(*(v for n, v in lines.items() if n.startswith("SHOW_CHIP_")))
    assert (first, second) == ({"warmer", "cooler"}, {"hold", "quiet"})


def test_a_module_makes_a_rail_of_its_own(library: Library) -> None:
    """Cells feed the module, the module feeds the screen; its own rail never comes first."""
    brief = demo_brief("chart-module")
    assert [(r.name, r.net, r.usual_v) for r in rails_of(brief)][1] == (
        "module",
        "SUPPLY_MODULE",
        3.3,
    )
    design = bring_up_to_date(Design(brief=brief), library, "circuit")
    circuit = slice_of(design.circuit)
    module = next(c for c in circuit.components if c.thing == "module" and c.is_chip)
    chip = library.find_chip("fellbeck-c20")
    by_name = {p.name: module.pads.get(p.number) for p in chip.pins}
    assert (by_name["VIN"], by_name["3V3"], by_name["RUN"]) == ("SUPPLY", "SUPPLY_MODULE", None)
    screen = next(c for c in circuit.components if c.role == "screen")
    assert screen.pads["2"] == "SUPPLY_MODULE"
    alone = brief.without("cell").without("switch")
    assert [r.fed_by for r in rails_of(alone)] == ["", "module"]


def test_a_socket_is_bought_and_lifts_the_chip(library: Library) -> None:
    design = bring_up_to_date(Design(brief=demo_brief("finder-lamp")), library, "circuit")
    chip = next(c for c in slice_of(design.circuit).components if c.is_chip)
    assert chip.sits_in == ("socket-two-rows-8",)
    assert library.height_mm(chip) == pytest.approx(4.2 + 4.6)


def test_no_socket_for_a_flat_package(library: Library) -> None:
    brief = demo_brief("dusk-remote")
    assert brief.brain is not None
    flat = brief.with_things(brief.brain.model_copy(update={"socket": True}))
    with pytest.raises(RecipeNotPossible, match="no socket"):
        bring_up_to_date(Design(brief=flat), library, "circuit")


@pytest.mark.parametrize(("said", "asked"), [("", 1), ("data sheet page 2, 2026-11-02", 0)])
def test_pins_from_memory_are_to_be_compared(said: str, asked: int, library: Library) -> None:
    brief = demo_brief("finder-lamp")
    assert brief.brain is not None
    changed = brief.with_things(brief.brain.model_copy(update={"compared": said}))
    found = [f for f in review(Design(brief=changed), library) if f.rule == "pin-order"]
    assert len(found) == asked
    assert all(f.severity == "look" and f.about == ("thing:chip",) for f in found)


def edited(brief: Brief, **edit: object) -> Design:
    return apply(Design(brief=brief), EDITS.validate_python(edit))


def test_edits_keep_brains_and_readers_together(library: Library) -> None:
    """A renamed brain is still named; a removed one leaves its things to the first; locks belong to
    a brain.
    """
    brief = demo_brief("dew-panel")
    renamed = edited(brief, kind="rename-thing", name="show chip", new_name="light chip").brief
    talk = renamed.thing("talk")
    assert talk.read_by() == ("key chip", "light chip")
    assert renamed.thing("lamp").brain == "light chip"
    gone = edited(brief, kind="remove-things", names=["show chip", "show port"]).brief
    assert (gone.thing("lamp").brain, gone.thing("talk").read_by()) == ("", ("key chip", ""))
    with pytest.raises(RecipeNotPossible, match="one brain at both ends"):
        bring_up_to_date(Design(brief=gone), library, "circuit")
    locked = edited(brief, kind="lock-pin", signal="button:warmer", pin="10")
    both = apply(
        locked, EDITS.validate_python({"kind": "lock-pin", "signal": "light:lamp", "pin": "10"})
    )
    assert both.choices.pin_locks == {"button:warmer": "10", "light:lamp": "10"}
    with pytest.raises(EditRefused, match="locked to button:warmer"):
        apply(
            both, EDITS.validate_python({"kind": "lock-pin", "signal": "button:hold", "pin": "10"})
        )
    other = apply(
        both,
        EDITS.validate_python(
            {"kind": "change-thing", "name": "show chip", "changes": {"part": "stm32l051c8t6"}}
        ),
    )
    assert other.choices.pin_locks == {"button:warmer": "10"}


def test_both_chips_lie_on_the_board_and_are_locked_pins_kept(library: Library) -> None:
    locked = edited(demo_brief("dew-panel"), kind="lock-pin", signal="light:lamp", pin="10")
    planned = run_stage(locked, "pins", library)
    assert plans_of(planned)["show chip"].of("light:lamp").pin == "10"  # type: ignore[union-attr]
    placed = bring_up_to_date(planned, library, "placement")
    chips = [c.role for c in slice_of(placed.circuit).components if c.is_chip]
    seats = {s.role: s for s in slice_of(placed.placement).parts if s.role in chips}
    assert set(seats) == {"chip:key chip", "chip:show chip"}
