"""The writers: what is in the files, in which order, and that nothing depends on chance."""

import csv
import io
import itertools
import json
import re
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from loquet.core.board.copper import BoardView, Copper, Hole
from loquet.core.board.outline import Arc, Line, polygon_nm, profile_of
from loquet.core.brief import PolygonOutline, RoundedRectangle
from loquet.core.design import Design
from loquet.core.fabrication.bare_board_netlist import size
from loquet.core.fabrication.drill import drill_function
from loquet.core.fabrication.gerber import macro_lines, write_layer, write_profile
from loquet.core.fabrication.job_file import inner_rules
from loquet.core.fabrication.layers import Drawn, Layer, copper_function
from loquet.core.fabrication.tables import table, write_connectors
from loquet.core.geometry import Bar, Box, Round
from loquet.core.legend.lettering import text_lines
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.proof.gerber_reader import read_gerber
from loquet.core.release import Release
from tests.making import device, thing

places = st.integers(-60_000_000, 60_000_000)
sizes = st.integers(100_000, 4_000_000)
objects = st.lists(
    st.one_of(
        st.builds(Round, places, places, sizes),
        st.builds(Box, places, places, sizes, sizes),
        st.builds(Bar, places, places, places, places, sizes),
    ),
    max_size=12,
)
names = st.sampled_from(["", "GROUND", "SUPPLY", "BUTTON_RED"])


@settings(max_examples=60)
@given(objects, names)
def test_what_is_written_is_what_is_read(shapes: list[Round | Box | Bar], net: str) -> None:
    layer = Layer("sheet.gbr", "Copper,L1,Top", tuple(Drawn(s, "Conductor", net) for s in shapes))
    read = read_gerber(write_layer(layer, "test", "id"), "sheet.gbr")
    assert sorted(map(repr, (o.shape for o in read.objects))) == sorted(map(repr, shapes))
    assert {o.net for o in read.objects} <= {net}


@settings(max_examples=30)
@given(objects, st.randoms())
def test_the_order_of_objects_does_not_change_the_bytes(
    shapes: list[Round | Box | Bar], chance: object
) -> None:
    drawn = [Drawn(s, "Conductor", "GROUND") for s in shapes]
    mixed = list(drawn)
    chance.shuffle(mixed)  # type: ignore[attr-defined]
    assert write_layer(Layer("a", "f", tuple(drawn)), "p", "i") == write_layer(
        Layer("a", "f", tuple(mixed)), "p", "i"
    )


@pytest.mark.parametrize(
    "outline",
    [
        RoundedRectangle(width_mm=64, height_mm=42, corner_mm=4),
        RoundedRectangle(width_mm=64, height_mm=42, corner_mm=0),
        PolygonOutline(points_mm=((0, 0), (0, 30), (40, 30), (50, 10), (40, 0))),
    ],
)
def test_profiles_are_closed_anticlockwise_and_read_back(
    outline: RoundedRectangle | PolygonOutline,
) -> None:
    pieces = profile_of(outline)
    for before, after in zip(pieces, (*pieces[1:], pieces[0]), strict=True):
        assert (before.x2, before.y2) == (after.x1, after.y1)
    assert sum(p.x1 * p.y2 - p.x2 * p.y1 for p in pieces) > 0
    read = read_gerber(write_profile(pieces, "p", "i"), "profile.gbr")
    assert len(read.objects) == sum(isinstance(p, Line) for p in pieces)
    assert [(a.x2, a.y2, a.cx, a.cy) for a in read.arcs] == [
        (p.x2, p.y2, p.cx, p.cy) for p in pieces if isinstance(p, Arc)
    ]
    assert polygon_nm(outline).is_valid


def test_every_sort_of_copper_has_its_function() -> None:
    """Gerber Layer Format 2022.02, section 5.6.10: the values of .AperFunction."""
    spot, both = Round(0, 0, 600_000), ("near", "far")
    sorts = [
        (Copper("A", ("near",), Bar(0, 0, 1, 0, 200_000), "track"), "Conductor"),
        (Copper("A", both, spot, "via"), "ViaPad"),
        (Copper("A", ("near",), spot, "pad", "R1", "1"), "SMDPad,CuDef"),
        (Copper("A", both, spot, "pad", "J1", "1", drill_nm=300_000), "ComponentPad"),
        (Copper("", ("near",), spot, "pad", "F1", "1", bare_nm=500_000), "FiducialPad,Global"),
    ]
    assert [copper_function(copper) for copper, _ in sorts] == [words for _, words in sorts]


def test_the_area_of_a_rounded_rectangle() -> None:
    # w h - (4 - pi) r^2, from plane geometry; 24 chords a quarter lose less than 0.1 %
    area = polygon_nm(RoundedRectangle(width_mm=64, height_mm=42, corner_mm=4)).area / 1e12
    assert area == pytest.approx(64 * 42 - (4 - 3.14159265) * 16, rel=1e-3)


@pytest.mark.parametrize("text", ["BRIGHTER", "+", "R12", "Dusk remote far side"])
def test_texts_stand_about_their_middle(text: str) -> None:
    points = [p for line in text_lines(text, 1_000_000) for p in line]
    assert abs(min(x for x, _ in points) + max(x for x, _ in points)) < 2
    assert abs(min(y for _, y in points) + max(y for _, y in points)) < 2
    assert max(y for _, y in points) - min(y for _, y in points) < 1_400_000


def test_a_cell_that_looks_like_a_formula_is_defused() -> None:
    assert (
        table(("a",), [("=1+1",), ("@x",), ("",), ("plain",)]).decode()
        == "a\n'=1+1\n'@x\n\"\"\nplain\n"
    )


def test_the_job_file_names_every_layer(released: Release) -> None:
    job = json.loads(released.files["fabrication/board.gbrjob"])
    listed = {row["Path"] for row in job["FilesAttributes"]}
    assert listed == {
        n.removeprefix("fabrication/") for n in released.files if n.endswith((".gbr", ".drl"))
    }
    assert job["GeneralSpecs"]["Size"] == {"X": 64.0, "Y": 42.0}
    assert re.fullmatch(
        r"[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}", job["GeneralSpecs"]["ProjectId"]["GUID"]
    )
    name, guid = (job["GeneralSpecs"]["ProjectId"][key] for key in ("Name", "GUID"))
    assert name == "Dusk-remote"
    copper = released.files["fabrication/copper-near.gbr"].decode()
    assert f"%TF.ProjectId,{name},{guid},A*%" in copper


@pytest.mark.parametrize(
    ("owner", "d", "plated", "said"),
    [
        ("via", 300_000, True, "Plated,PTH,ViaDrill"),
        ("via", 500_000, True, "Plated,PTH,ViaDrill"),
        ("U1 pad 33", 300_000, True, "Plated,PTH,ViaDrill"),
        ("J1 pad 1", 900_000, True, "Plated,PTH,ComponentDrill"),
        ("post", 2_200_000, False, "NonPlated,NPTH,MechanicalDrill"),
    ],
)
def test_a_hole_says_what_it_is_for(owner: str, d: int, plated: bool, said: str) -> None:
    """Aperture functions of the Gerber layer format specification, 5.6.10: vias, heat holes among
    them, leads, screws.
    """
    assert drill_function(Hole(0, 0, d, plated, "", owner)) == said


@pytest.mark.parametrize(
    ("nm", "said"), [(300_000, "0300"), (9_999_000, "9999"), (12_000_000, "9999")]
)
def test_a_size_in_the_netlist_has_four_digits(nm: int, said: str) -> None:
    """IPC-D-356A: micrometres in four columns; what is wider than they hold is written as 9.999
    mm.
    """
    assert size(nm) == said


def test_copper_objects_carry_net_component_and_pin(released: Release) -> None:
    layer = read_gerber(released.files["fabrication/copper-near.gbr"], "copper-near.gbr")
    pads = [o for o in layer.objects if o.ref]
    assert {(o.net, o.pad) for o in pads if o.ref == "S1"} == {
        ("BUTTON_BRIGHTER", "1"),
        ("", "2"),
        ("", "3"),
        ("GROUND", "4"),
    }
    assert all(o.net for o in layer.objects if o.function in ("Conductor", "ViaPad"))
    assert layer.attributes[".FileFunction"] == "Copper,L1,Top"


def spots_of(strokes: tuple[Bar, ...], text: str, view: BoardView) -> list[tuple[float, float]]:
    """Where a text is printed, level or read from the right: where all its strokes lie about one
    place.
    """
    lines = text_lines(text, view.rules.legend_height_nm)
    level = [[(round(x), round(y)) for x, y in line] for line in lines]
    right = [[(-y, x) for x, y in line] for line in level]
    drawn = {(b.x1, b.y1) for b in strokes}
    found = []
    for wanted in (level, right):
        (ax, ay), *others = [point for line in wanted for point in line[:-1]]
        for x, y in drawn:
            near = {(x - ax + u, y - ay + v) for u, v in others}
            if all(any(abs(u - p) < 3 and abs(v - q) < 3 for p, q in drawn) for u, v in near):
                found.append((float(x - ax), float(y - ay)))
    return found


def test_every_contact_of_a_connector_is_listed_by_its_place(library: Library) -> None:
    """Four posts of a serial port with its own pin order: 1 supply, 2 transmit, 3 receive, 4
    ground, 2.54 mm apart.
    """
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("leads", "leads", 6, 30),
        thing("serial", "talk", 60, 50),
    )
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    rows = list(
        csv.DictReader(io.StringIO(write_connectors(board_view(design, library), library).decode()))
    )
    where = next(r["Where"] for r in rows if "TALK" in r["Carries"])
    talk = [r for r in rows if r["Where"] == where]
    assert [(r["Pad"], r["Carries"]) for r in talk] == [
        ("1", "SUPPLY"),
        ("2", "LINK_TALK_TRANSMIT"),
        ("3", "LINK_TALK_RECEIVE"),
        ("4", "GROUND"),
    ]
    steps = [float(b["X (mm)"]) - float(a["X (mm)"]) for a, b in itertools.pairwise(talk)]
    rises = [float(b["Y (mm)"]) - float(a["Y (mm)"]) for a, b in itertools.pairwise(talk)]
    assert [abs(x) + abs(y) for x, y in zip(steps, rises, strict=True)] == pytest.approx([2.54] * 3)


def test_a_turned_rectangle_is_a_macro_in_millimetres() -> None:
    """Gerber format specification, 4.5.1.6: centre line with exposure, width, height, centre and
    turn; each once, others than rectangles not at all.
    """
    turned = Drawn(Box(5_000_000, 3_000_000, 1_400_000, 500_000, 30), "SMDPad,CuDef")
    others = (Drawn(Box(0, 0, 1, 1), "SMDPad,CuDef"), Drawn(Round(0, 0, 600_000), "ViaPad"))
    assert macro_lines((turned, turned, *others)) == [
        "%AMTurnedW1400000H500000A30*21,1,1.400000,0.500000,0,0,30*%"
    ]


def test_planes_inside_keep_a_quarter_of_a_millimetre(finished: Design, library: Library) -> None:
    """Only a board of four layers has any (our own distance, no source)."""
    view = board_view(finished, library)
    assert inner_rules(view) == []
    four = replace(view, board=view.board.model_copy(update={"copper_layers": 4}))
    assert inner_rules(four) == [{"Layers": "Inner", "PadToRegion": 0.25}]
