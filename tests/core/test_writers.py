"""The writers: what is in the files, in which order, and that nothing depends on chance."""

import csv
import io
import json
import re

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from loquet.core.board.copper import FAR, NEAR
from loquet.core.board.model import PourPiece
from loquet.core.board.outline import Corner, Line, polygon_nm, profile_of
from loquet.core.brief import PolygonOutline, RoundedRectangle
from loquet.core.design import Design
from loquet.core.fabrication.gerber import write_layer, write_profile
from loquet.core.fabrication.layers import Drawn, Layer, drawing_order, stencil_openings
from loquet.core.fabrication.legend import legend_of, text_lines
from loquet.core.fabrication.tables import table
from loquet.core.geometry import Bar, Box, Round, polygon_of
from loquet.core.library import Library
from loquet.core.pipeline import board_view
from loquet.core.proof.gerber_reader import read_gerber
from loquet.core.release import Release, release

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


def test_an_island_in_a_hole_is_drawn_after_the_hole() -> None:
    def square(half: int) -> tuple[tuple[int, int], ...]:
        return ((-half, -half), (half, -half), (half, half), (-half, half))

    outer = PourPiece(far=False, outer=square(9_000_000), holes=(square(6_000_000),))
    island = PourPiece(far=False, outer=square(3_000_000))
    assert drawing_order((island, outer)) == [outer, island]
    read = read_gerber(
        write_layer(Layer("a.gbr", "f", (), (island, outer), "GROUND"), "p", "i"), "a.gbr"
    )
    assert [(r.dark, abs(r.ring[0][0])) for r in read.regions] == [
        (True, 9_000_000),
        (False, 6_000_000),
        (True, 3_000_000),
    ]


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
        (p.x2, p.y2, p.cx, p.cy) for p in pieces if isinstance(p, Corner)
    ]
    assert polygon_nm(outline).is_valid


def test_the_area_of_a_rounded_rectangle() -> None:
    # w h - (4 - pi) r^2, from plane geometry; 24 chords a quarter lose less than 0.1 %
    area = polygon_nm(RoundedRectangle(width_mm=64, height_mm=42, corner_mm=4)).area / 1e12
    assert area == pytest.approx(64 * 42 - (4 - 3.14159265) * 16, rel=1e-3)


def test_legend_never_lies_on_openings_or_over_the_edge(finished: Design, library: Library) -> None:
    view = board_view(finished, library)
    legend = legend_of(view)
    for side in (NEAR, FAR):
        ink = shapely.union_all([polygon_of(s) for s in legend.strokes[side]])
        openings = shapely.union_all(
            [polygon_of(c.shape, view.rules.mask_grow_nm) for c in view.pads if side in c.sides]
        )
        assert not ink.is_empty
        assert ink.intersection(openings).area == 0
        assert view.outline.contains(ink)


def test_every_button_is_named_on_the_board(finished: Design, library: Library) -> None:
    left_out = legend_of(board_view(finished, library)).left_out
    assert not {c.name.upper() for c in finished.brief.group("controls")} & set(left_out)


@pytest.mark.parametrize("text", ["BRIGHTER", "+", "R12", "Dusk remote far side"])
def test_texts_stand_about_their_middle(text: str) -> None:
    points = [p for line in text_lines(text, 1_000_000) for p in line]
    assert abs(min(x for x, _ in points) + max(x for x, _ in points)) < 2
    assert abs(min(y for _, y in points) + max(y for _, y in points)) < 2
    assert max(y for _, y in points) - min(y for _, y in points) < 1_400_000


def test_paste_windows_leave_a_third_of_an_exposed_pad_free() -> None:
    windows = stencil_openings(Box(0, 0, 5_600_000, 5_600_000))
    assert len(windows) == 4
    assert sum(w.w * w.h for w in windows if isinstance(w, Box)) / 5_600_000**2 == pytest.approx(
        0.64, abs=0.01
    )
    assert stencil_openings(Box(1, 2, 900_000, 800_000)) == (Box(1, 2, 900_000, 800_000),)


def test_lists_have_our_own_headings_with_units(released: Release) -> None:
    parts = list(csv.DictReader(io.StringIO(released.files["assembly/parts.csv"].decode())))
    seats = list(csv.DictReader(io.StringIO(released.files["assembly/places.csv"].decode())))
    assert sum(int(row["Count per board"]) for row in parts) == len(seats) == 32
    assert all(
        "inch" in row["Size"] and "metric" in row["Size"]
        for row in parts
        if row["What"].startswith("Thick film")
    )
    assert {row["Board side"] for row in seats} == {"near", "far"}


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


def test_a_second_release_has_the_same_bytes(
    finished: Design, released: Release, library: Library
) -> None:
    assert release(finished, library).files == released.files
