"""Parts on rails that fall or rise beyond their limits, backlights that a pin cannot feed, and
exposed pads whose holes take no paste.
"""

import pytest
import shapely

from loquet.catalogue.bundled import parts
from loquet.core.board.copper import FAR, NEAR
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import ReadBy, Subject, findings_of
from loquet.core.checks.switched_on import switched_on
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Choices, Design
from loquet.core.energising.meant import highest_volts
from loquet.core.fabrication.bare_board_netlist import write_test_netlist
from loquet.core.fabrication.layers import mask_layer, paste_layer
from loquet.core.geometry import polygon_of
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.reviewing import review
from tests.core.benches import bench_for, seen_with
from tests.core.netlists import netlist, written
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
# Kinds that only pass their supply on, or are resistors.
PASSIVE = {
    *("resistive stick", "slide trigger", "slider", "USB-C socket", "USB socket"),
    *("guard array", "stick port", "card socket"),
}


def said(library: Library, *things: Plain, severity: str = "") -> list[str]:
    brief = device(*things)
    bench = bench_for(brief)
    circuit = assemble(bench)
    desk = next(iter(bench.desks.values()))
    rule = next(r for r in RULES if r.id == "part-supply")
    subject = Subject(
        brief,
        Choices(),
        library.house("millrace"),
        library,
        circuit=circuit,
        brains=(ReadBy(brief, desk.chip, desk.plan),),
    )
    found = findings_of([(rule, rule.run(subject))])
    return [f.sentence for f in found if severity in ("", f.severity)]


def test_every_part_that_is_fed_says_on_what_it_runs() -> None:
    fed = [
        p for p in parts().values() if "supply" in p.pin_names.values() and p.kind not in PASSIVE
    ]
    assert len(fed) > 12
    assert [
        p.id for p in fed if not 0 < p.values.get("input_min_v", 0) < p.values.get("input_max_v", 0)
    ] == []


@pytest.mark.parametrize(
    ("things", "words"),
    [
        # two AAA: 1.8 to 3.3 V (IEC 60086-2); the sensor of the trigger wants 2.7 V, the module 2.8
        # V
        ((thing("cells", "cell"), thing("trigger", "pull")), "stops below 2.7 V"),
        ((thing("cells", "cell"), thing("screen", "face")), "stops below 2.8 V"),
        # three: 4.95 V fresh
        ((thing("cells", "cell", count=3), thing("motion", "level")), "takes 3.6 V at the most"),
        # one rail of 1.8 V
        ((thing("leads", "leads", volts=1.8), thing("trigger", "pull")), "wants 2.7 V"),
        (
            (thing("leads", "leads", volts=5.0), thing("memory-card", "card")),
            "takes 3.6 V at the most",
        ),
    ],
)
def test_a_part_beyond_its_limits_is_named(
    things: tuple[Plain, ...], words: str, library: Library
) -> None:
    assert any(words in s for s in said(library, CHIP, *things))


def test_within_their_limits_nothing_is_said(library: Library) -> None:
    things = (thing("trigger", "pull"), thing("screen", "face"), thing("motion", "level"))
    assert said(library, CHIP, thing("leads", "leads"), *things) == []


def test_a_converter_that_needs_more_than_the_cells_end_with(library: Library) -> None:
    """F0: 2.4 V for its converter (maker's data sheet, from memory); the L4 measures down to 1.62
    V.
    """
    slider = thing("slider", "dim")
    low = thing("chip", "chip", part="stm32f072rbt6")
    words = "measures nothing below 2.4 V"
    assert any(words in s for s in said(library, low, thing("cells", "cell"), slider))
    assert not any(
        "measures nothing" in s for s in said(library, CHIP, thing("cells", "cell"), slider)
    )
    assert not any("measures nothing" in s for s in said(library, low, thing("cells", "cell")))


def test_a_backlight_of_40_ma_is_fed_from_the_rail() -> None:
    """3.3 V over 10 kΩ pull the gate with 0.33 mA; a twentieth of that for the base: (3.3 - 0.4 -
    0.7) / 16.5 µA = 133 kΩ, E24 130 kΩ.
    """
    brief = device(
        CHIP,
        thing("leads", "leads"),
        thing("screen", "face", part="screen-240x240-serial", bus="one-way serial"),
    )
    face = netlist(brief, "face")
    head = next(line for line in face if line.startswith("header-8-way"))
    assert head.endswith("8=SCREEN_FACE_LIT")
    assert face - {head} == written("""
    capacitor-1608 1 µF: 1=SUPPLY 2=GROUND
    transistor-pmos-sot23 P-channel: 1=SCREEN_FACE_GATE 2=SUPPLY 3=SCREEN_FACE_LIT
    resistor-1608 10 kΩ: 1=SUPPLY 2=SCREEN_FACE_GATE
    transistor-npn-sot23 NPN: 1=SCREEN_FACE_BASE 2=GROUND 3=SCREEN_FACE_GATE
    resistor-1608 130 kΩ: 1=SCREEN_FACE_BACKLIGHT 2=SCREEN_FACE_BASE
    resistor-1608 100 kΩ: 1=SCREEN_FACE_BASE 2=GROUND
    """)


def test_heat_holes_lie_between_the_paste_and_under_the_mask(library: Library) -> None:
    """A chip without leads: five holes under its pad, none under paste; on the far side mask covers
    them, on the near side the pad is open.
    """
    brief = device(
        thing("chip", "chip", 60, 30, part="stm32l432kcu6"),
        thing("leads", "leads", 6, 30),
        thing("touch", "dial", 110, 40),
    )
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    view = board_view(design, library)
    holes = [c for c in view.pads if c.covered and c.drill_nm and c.ref == "U1"]
    assert len(holes) == 5
    paste = [polygon_of(o.shape) for o in paste_layer(view, NEAR, "").objects if o.ref == "U1"]
    for hole in holes:
        disc = shapely.Point(hole.drill_x, hole.drill_y).buffer(hole.drill_nm / 2)
        assert not any(disc.intersects(window) for window in paste)
    opened = [o.pad for o in mask_layer(view, FAR, "").objects if o.ref == "U1"]
    assert holes[0].pad not in opened
    assert holes[0].pad in [o.pad for o in mask_layer(view, NEAR, "").objects if o.ref == "U1"]


def test_netlist_records_have_one_length(library: Library) -> None:
    """IPC-D-356A: fixed columns; the electrode of 10 mm at x = 110 mm: 10,000 µm do not fit the
    four digits of a size.
    """
    brief = device(CHIP, thing("leads", "leads", 6, 30), thing("touch", "dial", 110, 40))
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    lines = write_test_netlist(board_view(design, library)).decode().splitlines()
    records = [line for line in lines if line.startswith(("317", "327"))]
    assert {len(line) for line in records} == {len(records[0])}
    assert any("X9999" in line for line in records)
    assert review(design, library)


@pytest.mark.parametrize(
    ("feed", "part", "smaller", "words"),
    [
        # 12 V of a port within 5 %: 12.6 V on capacitors of 10 V and a transistor of 12 V
        (
            thing("usb-charge", "plug", feeds=True, asks="12 V"),
            "capacitor-3216",
            "capacitor-2012",
            "made for 10 V, and",
        ),
        (
            thing("usb-charge", "plug", feeds=True, asks="12 V"),
            "transistor-pmos-30v",
            "transistor-pmos-sot23",
            "made for 12 V, and",
        ),
        # a pack of three: 12.6 V full
        (
            thing("series-pack", "pack", cells=3),
            "capacitor-3216",
            "capacitor-2012",
            "comes to 12.60 V",
        ),
        # an adapter of 9 V within 5 %: 9.45 V is more than 85 % of 10 V
        (
            thing("barrel-jack", "jack", adapter_v=9.0),
            "capacitor-3216",
            "capacitor-2012",
            "comes to 9.45 V",
        ),
    ],
)
def test_a_part_for_fewer_volts_than_its_source_gives_is_found(
    feed: Plain, part: str, smaller: str, words: str, library: Library
) -> None:
    brief = device(CHIP, feed)
    whole = assemble(bench_for(brief))
    rule = next(r for r in RULES if r.id == "part-rating")

    def found_with(changed: dict[str, str]) -> list[str]:
        components = tuple(
            c.model_copy(update={"part": changed.get(c.part, c.part)}) for c in whole.components
        )
        circuit = whole.model_copy(update={"components": components})
        seen = Subject(brief, Choices(), library.house("millrace"), library, circuit=circuit)
        return [f.sentence for f in findings_of([(rule, rule.run(seen))])]

    assert found_with({}) == []
    assert any(words in sentence for sentence in found_with({part: smaller}))


def test_volts_go_through_what_lets_current_through_and_stop_at_a_converter(
    library: Library,
) -> None:
    """Plug, fuse, switch and diode of a port at 12 V see 12.6 V; behind the regulator the rail sees
    its own 3.3 V; the brain's lines see no more than the rail.
    """
    brief = device(
        CHIP, thing("usb-charge", "plug", feeds=True, asks="12 V"), thing("serial", "talk")
    )
    volts = highest_volts(switched_on(seen_with(brief)))
    for net in ("PLUG", "FUSED", "5V"):
        assert volts[f"CHARGE_PLUG_{net}"] == pytest.approx(12.6, abs=0.02)
    assert 12.2 < volts["CHARGE_PLUG_IN"] < 12.5  # behind a Schottky diode
    assert volts["SUPPLY"] == pytest.approx(3.3, abs=0.03)
    assert volts["LINK_TALK_TRANSMIT"] <= volts["SUPPLY"] + 0.01
