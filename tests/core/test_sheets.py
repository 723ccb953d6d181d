"""Drawn sheets: what they show is the circuit, pad for pad and wire for wire, and words can be
read.
"""

import io
import random

import pytest
from pypdf import PdfReader
from shapely import LineString, STRtree, box

from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of, run_rules
from loquet.core.circuit import Circuit, Component, Net, RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Choices
from loquet.core.library import Library
from loquet.core.lookup.curving import curves_for
from loquet.core.sheets import Area, Mark, areas_of, write_sheets
from loquet.core.sheets.drawn import text_width
from loquet.core.sheets.making import PAGE, SCREEN
from loquet.core.sheets.packing import pack
from loquet.demo.scenario import demo_brief
from tests.core.benches import bench_for
from tests.core.test_random_devices import random_brief
from tests.making import device, thing


def circuit_of(*rows: tuple[str, str, str, str, dict[str, str]], supply: str = "SUPPLY") -> Circuit:
    """A circuit of components (reference, part, value, block, pads)."""
    components = tuple(
        Component(
            role=ref,
            ref=ref,
            part=part,
            value=value,
            block=where,
            purpose="x",
            pads=pads,
            board="main",
        )
        for ref, part, value, where, pads in rows
    )
    names = sorted({net for c in components for net in c.pads.values()})
    kinds = {"GROUND": "ground", supply: "supply"}
    nets = tuple(
        Net(
            name=name,
            kind=kinds.get(name, "signal"),
            pads=tuple((c.ref, p) for c in components for p, n in c.pads.items() if n == name),
        )
        for name in names
    )
    return Circuit(components=components, nets=nets, workings=())


def boxes_of(area: Area) -> list[tuple[Mark, object]]:
    """Words with the room that they take."""
    found = []
    for mark in area.marks:
        if mark.text:
            (x, y), wide = mark.points[0], text_width(mark.text, mark.size_mm)
            left = x - {"start": 0, "middle": wide / 2, "end": wide}[mark.anchor]
            found.append((mark, box(left, y - 0.72 * mark.size_mm, left + wide, y)))
    return found


def crossings(area: Area) -> list[tuple[str, str]]:
    """Pairs of nets whose wires touch on a sheet."""
    wires = [(m.net, LineString(m.points)) for m in area.marks if m.net and not m.text]
    tree = STRtree([line for _, line in wires])
    found = []
    for net, line in wires:
        for index in tree.query(line.buffer(0.05), predicate="intersects"):
            other = wires[int(index)][0]
            if net < other:
                found.append((net, other))
    return found


def test_sheets_show_every_pad_once_and_join_nothing_else(library: Library) -> None:
    made = 0
    for seed in range(60):
        brief = random_brief(random.Random(seed))
        try:
            circuit = assemble(bench_for(brief)) if brief else None
        except RecipeNotPossible:
            circuit = None
        if circuit is None:
            continue
        made += 1
        areas = areas_of(circuit, library, (SCREEN, PAGE)[seed % 2])
        shown = [pad for area in areas for pad in area.pads]
        assert len(shown) == len(set(shown)), seed
        assert set(shown) == {(c.ref, pad) for c in circuit.components for pad in c.pads}, seed
        for area in areas:
            assert crossings(area) == [], (seed, area.block)
            room = box(-0.1, -0.1, area.width_mm + 0.1, area.height_mm + 0.1)
            words = boxes_of(area)
            outside = [m.text for m, where in words if not room.contains(where)]
            assert outside == [], (seed, area.block)
            tree = STRtree([where for _, where in words])
            over = [
                (mark.text, words[int(i)][0].text)
                for index, (mark, where) in enumerate(words)
                for i in tree.query(where.buffer(-0.15), predicate="intersects")
                if i > index
            ]
            assert over == [], (seed, area.block)
    assert made > 20


def strokes(area: Area, ref: str) -> list[Mark]:
    return [m for m in area.marks if m.ref == ref and not m.text]


def test_a_diode_is_drawn_the_way_it_stands(library: Library) -> None:
    """IEC 60617 05-03-01: the bar is at the cathode.

    Pad 1 of the catalogue's diode is its cathode.
    """
    for cathode, anode in (("LEFT", "RIGHT"), ("RIGHT", "LEFT")):
        circuit = circuit_of(
            ("D1", "diode-sod123", "100 V", "x", {"1": cathode, "2": anode}),
            ("TP1", "test-point-round", "x", "y", {"1": "LEFT"}),
            ("TP2", "test-point-round", "x", "y", {"1": "RIGHT"}),
        )
        area = next(a for a in areas_of(circuit, library) if a.block == "x")
        ends = {m.net: m.points[0][0] for m in area.marks if m.net and m.text}
        bar = next(m for m in strokes(area, "D1") if m.bold)
        middle = (
            min(p[0] for m in strokes(area, "D1") for p in m.points)
            + max(p[0] for m in strokes(area, "D1") for p in m.points)
        ) / 2
        assert (bar.points[0][0] > middle) == (ends[cathode] > ends[anode])


def test_a_cell_has_its_long_plate_at_plus(library: Library) -> None:
    """IEC 60617 06-15-01: the longer line is the positive pole."""
    circuit = circuit_of(
        ("BT1", "coin-holder-20", "coin", "x", {"1": "SUPPLY", "2": "GROUND", "3": "SUPPLY"}),
        ("C1", "capacitor-1608", "100 nF", "x", {"1": "SUPPLY", "2": "GROUND"}),
    )
    (area,) = areas_of(circuit, library)
    plates = [
        m for m in strokes(area, "BT1") if len(m.points) == 2 and m.points[0][1] == m.points[1][1]
    ]
    tall = sorted(plates, key=lambda m: -abs(m.points[0][0] - m.points[1][0]))
    ground = max(m.points[0][1] for m in area.marks if m.net == "GROUND")
    assert tall[0].points[0][1] < tall[1].points[0][1] < ground


def test_unused_pins_and_joined_legs_are_named(library: Library) -> None:
    circuit = circuit_of(
        ("S1", "button-6x6-surface", "up", "x", {"1": "KEY", "4": "GROUND"}),
        (
            "U1",
            "regulator-linear-low",
            "3.3 V",
            "x",
            {"1": "SUPPLY", "2": "GROUND", "3": "SUPPLY", "5": "KEY"},
        ),
    )
    (area,) = areas_of(circuit, library)
    texts = [m.text for m in area.marks if m.text]
    assert {"in", "enable", "ground", "out"} <= set(texts)
    assert any(text.startswith("not used: 4") for text in texts)


def test_rails_hang_their_capacitors_and_chains_stay_whole(library: Library) -> None:
    circuit = circuit_of(
        *(
            (f"C{i}", "capacitor-1608", "100 nF", "x", {"1": "SUPPLY", "2": "GROUND"})
            for i in range(1, 9)
        ),
        ("R1", "resistor-1608", "680 Ω", "x", {"1": "DRIVE", "2": "ANODE"}),
        ("D1", "light-2012-amber", "amber", "x", {"2": "ANODE", "1": "GROUND"}),
        ("TP1", "test-point-round", "x", "y", {"1": "DRIVE"}),
    )
    area = next(a for a in areas_of(circuit, library) if a.block == "x")
    texts = [m.text for m in area.marks if m.text]
    # six capacitors on one strand, two on the next; the light and its resistor between DRIVE and
    # ground without the name between
    assert texts.count("SUPPLY") == 2
    assert texts.count("DRIVE") == 1
    assert "ANODE" not in texts


def test_pages_hold_every_reference_and_are_the_same_again(library: Library) -> None:
    circuit = assemble(bench_for(demo_brief("pocket-lamp")))
    data = write_sheets(circuit, library, "Larkfield")
    assert data == write_sheets(circuit, library, "Larkfield")
    assert all(a.height_mm <= 165.0 for a in areas_of(circuit, library, PAGE))
    assert len({(a.board, a.block) for a in areas_of(circuit, library)}) == len(
        areas_of(circuit, library)
    )
    pages = [page.extract_text() for page in PdfReader(io.BytesIO(data)).pages]
    words = set(" ".join(pages).split())
    assert {c.ref for c in circuit.components} <= words
    assert f"sheet {len(pages)} of {len(pages)}; drawn by Loquet, not to scale" in pages[-1]
    for working in circuit.workings:
        assert working.title.replace("Ω", "ohm")[:40] in pages[-1].replace("\n", " ")


@pytest.mark.parametrize("seed", range(4))
def test_packed_rectangles_lie_apart_and_inside(seed: int) -> None:
    rng = random.Random(seed)
    sizes = [(rng.uniform(1, 30), rng.uniform(1, 20)) for _ in range(60)]
    places = pack(sizes, 60, 90)
    put = [
        box(x, y, x + w, y + h)
        for p, (w, h) in zip(places, sizes, strict=True)
        if p
        for x, y in [p]
    ]
    assert len(put) > 20
    for index, one in enumerate(put):
        assert one.bounds[0] >= 0
        assert one.bounds[2] <= 60 + 1e-6
        assert one.bounds[3] <= 90 + 1e-6
        assert all(one.buffer(-1e-6).disjoint(other) for other in put[index + 1 :])
    # what was left out has no room above everything that was put
    assert max(b.bounds[3] for b in put) > 60


def test_packing_fills_from_the_top() -> None:
    assert pack([(10, 5), (10, 3), (10, 4), (20, 2)], 20, 12) == [(0, 0), (10, 0), (10, 3), (0, 7)]
    assert pack([(30, 1)], 20, 12) == [None]


@pytest.mark.parametrize("seed", range(12))
def test_whatever_is_cut_by_hand_is_still_drawn(seed: int, library: Library) -> None:
    """Pins cut and joined at random: sheets and curves come, with every pad that is left."""
    rng = random.Random(seed)
    keys = tuple(thing("button", f"k{i}") for i in range(4))
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("lithium-cell", "cell", charge_light=True),
        thing("usb-charge", "usb"),
        thing("speaker", "speaker"),
        thing("buzzer", "buzzer"),
        *keys,
        key_scheme={"name": "resistor ladder"},
    )
    circuit = assemble(bench_for(brief))
    nets = [n.name for n in circuit.nets]
    components = tuple(
        c.model_copy(
            update={
                "pads": {
                    pad: rng.choice(nets) if rng.random() < 0.1 else net
                    for pad, net in c.pads.items()
                    if rng.random() < 0.75
                }
            }
        )
        for c in circuit.components
    )
    cut = circuit.model_copy(update={"components": components})
    shown = [pad for area in areas_of(cut, library) for pad in area.pads]
    assert sorted(shown) == sorted((c.ref, pad) for c in components for pad in c.pads)
    curves_for(brief, cut, library)
    seen = Subject(brief, Choices(), library.house("millrace"), library, circuit=cut)
    rules = tuple(r for r in RULES if set(r.needs) <= {"circuit"})
    assert len(rules) > 25
    outcomes = run_rules(rules, seen)
    assert [f for f in findings_of(outcomes) if f.rule == "open-pins"]
    assert write_sheets(cut, library, "Larkfield").startswith(b"%PDF")
