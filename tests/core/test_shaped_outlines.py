"""Outlines shaped by calipers, against sizes worked out by hand; what is shaped is cut as it was
shaped.
"""

from math import hypot, pi

import pytest
from gerbonara import GerberFile
from pydantic import ValidationError
from shapely.geometry import Polygon

from loquet.catalogue.library import bundled_library
from loquet.core.board.openings import board_area, board_profile
from loquet.core.board.outline import Arc
from loquet.core.brief import (
    Brief,
    BriefError,
    PolygonOutline,
    brief_from_plain,
    outline_polygon_mm,
)
from loquet.core.brief.kinds.hole import Hole
from loquet.core.design import Design
from loquet.core.edits import EditRefused
from loquet.core.library import Library
from loquet.core.outlining import find_outline, outline_as_dxf, outline_as_svg
from loquet.core.outlining.shaping import side_lengths
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import Release, release
from tests.editing import edit
from tests.making import device, plain_of, thing, varied

MM = 1_000_000
L_SHAPE = ((0, 0), (60, 0), (60, 20), (30, 20), (30, 50), (0, 50))


def shaped(points: tuple[tuple[float, float], ...], bulges: tuple[float, ...] = ()) -> Design:
    """A device of nothing but a board."""
    brief = brief_from_plain(
        {
            "format": "loquet-brief-2",
            "name": "plate",
            "boards": [{"outline": {"kind": "polygon", "points_mm": points, "bulges": bulges}}],
            "quantity": 1,
            "wanted_by": "2027-01-01",
        }
    )
    return Design(brief=brief)


def by(design: Design, **change: object) -> Design:
    """The design with its outline shaped."""
    return edit(design, kind="shape-outline", board="main", by=change)


def points(design: Design) -> tuple[tuple[float, float], ...]:
    """The corners."""
    outline = design.brief.board().outline
    assert isinstance(outline, PolygonOutline)
    return outline.points_mm


def area(design: Design) -> float:
    """Square mm."""
    return float(outline_polygon_mm(design.brief.board().outline).area)


def test_a_side_is_made_as_long_as_calipers_say_and_takes_along_what_lies_beyond() -> None:
    """The lower side of an L from 60 to 64: the foot grows, the leg stays; the leg's top from 30 to
    28: all to its right comes nearer.
    """
    assert points(by(shaped(L_SHAPE), kind="make-side", side=0, length_mm=64)) == (
        (0, 0),
        (64, 0),
        (64, 20),
        (30, 20),
        (30, 50),
        (0, 50),
    )
    narrow = by(shaped(L_SHAPE), kind="make-side", side=3, length_mm=25)
    assert points(narrow) == ((0, 0), (60, 0), (60, 20), (30, 20), (30, 45), (0, 45))
    leftwards = by(shaped(L_SHAPE), kind="make-side", side=4, length_mm=32)
    assert points(leftwards) == ((0, 0), (62, 0), (62, 20), (32, 20), (32, 50), (0, 50))


def test_a_rounded_rectangle_keeps_its_corners_when_a_side_is_measured() -> None:
    """60 x 40 with corners of 5: its lower side is 50 long; made 54, the whole is 64 wide, corners
    still 5.
    """
    design = edit(
        shaped(L_SHAPE),
        kind="set-outline",
        outline={"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 40, "corner_mm": 5},
    )
    assert side_lengths(design.brief.board().outline) == pytest.approx(
        [50, 5 * pi / 2, 30, 5 * pi / 2] * 2
    )
    wide = by(design, kind="make-side", side=0, length_mm=54)
    assert outline_polygon_mm(wide.brief.board().outline).bounds == pytest.approx((0, 0, 64, 40))
    assert area(wide) == pytest.approx(64 * 40 - (4 - pi) * 25, abs=0.3)


def test_corners_come_go_and_move() -> None:
    """And the lower left corner stays the origin, from which everything is measured."""
    more = by(shaped(L_SHAPE), kind="add-corner", side=1, x_mm=70, y_mm=10)
    assert points(more)[2] == (70, 10)
    assert points(by(more, kind="remove-corner", index=2)) == L_SHAPE
    moved = by(shaped(L_SHAPE), kind="move-corner", index=0, x_mm=-4, y_mm=2)
    assert points(moved)[:2] == ((0, 2), (64, 0))


def test_a_corner_is_cut_round_both_ways() -> None:
    """Radius r takes (1 - pi/4) r^2 from a corner outwards and adds it to one inwards; its sides
    end r before the corner.
    """
    outer = by(shaped(L_SHAPE), kind="round-corner", index=1, radius_mm=8)
    assert points(outer)[1:3] == ((52, 0), (60, 8))
    assert area(outer) == pytest.approx(area(shaped(L_SHAPE)) - (1 - pi / 4) * 64, abs=0.2)
    inner = by(shaped(L_SHAPE), kind="round-corner", index=3, radius_mm=8)
    assert area(inner) == pytest.approx(area(shaped(L_SHAPE)) + (1 - pi / 4) * 64, abs=0.2)


def test_sides_bend_out_and_in() -> None:
    """A rise h over a chord c has the radius (c^2 / 4 + h^2) / 2h; half the chord is half a
    circle.
    """
    out = by(shaped(((0, 0), (60, 0), (60, 40), (0, 40))), kind="bend-side", side=1, rise_mm=20)
    assert area(out) == pytest.approx(2400 + pi * 200, rel=2e-3)
    inwards = by(
        shaped(((0, 40), (60, 40), (60, 0), (0, 0))), kind="bend-side", side=1, rise_mm=-20
    )
    assert area(inwards) == pytest.approx(2400 - pi * 200, rel=2e-3)


def test_a_notch_by_its_three_measures() -> None:
    """10 from the corner, 6 wide, 4 deep, into the board whichever way it is drawn."""
    cut = by(shaped(L_SHAPE), kind="cut-notch", side=0, from_mm=10, width_mm=6, depth_mm=4)
    assert points(cut)[:6] == ((0, 0), (10, 0), (10, 4), (16, 4), (16, 0), (60, 0))
    other_way = by(
        shaped(tuple(reversed(L_SHAPE))),
        kind="cut-notch",
        side=4,
        from_mm=44,
        width_mm=6,
        depth_mm=4,
    )
    assert set(points(other_way)) == set(points(cut))
    corner = by(shaped(L_SHAPE), kind="cut-notch", side=0, from_mm=0, width_mm=6, depth_mm=4)
    assert points(corner)[:4] == ((0, 4), (6, 4), (6, 0), (60, 0))
    end = by(shaped(L_SHAPE), kind="cut-notch", side=0, from_mm=54, width_mm=6, depth_mm=4)
    assert points(end)[:5] == ((0, 0), (54, 0), (54, 4), (60, 4), (60, 20))


@pytest.mark.parametrize(
    ("change", "why"),
    [
        ({"kind": "remove-corner", "index": 17}, "6 sides"),
        ({"kind": "bend-side", "side": 0, "rise_mm": 31}, "30.00 mm at the most"),
        ({"kind": "round-corner", "index": 1, "radius_mm": 21}, "radius of 20.00"),
        (
            {"kind": "cut-notch", "side": 0, "from_mm": 56, "width_mm": 6, "depth_mm": 4},
            "60.00 mm long",
        ),
        ({"kind": "cut-notch", "side": 0, "from_mm": 10, "width_mm": 6, "depth_mm": 60}, "crosses"),
        ({"kind": "move-corner", "index": 4, "x_mm": -9, "y_mm": 10}, "crosses"),
    ],
)
def test_what_an_outline_does_not_allow_is_refused_in_words(
    change: dict[str, object], why: str
) -> None:
    """And the design stays as it was."""
    with pytest.raises(EditRefused, match=why):
        by(shaped(L_SHAPE), **change)


@pytest.mark.parametrize("bulges", [(1.0,), (0, 0, 0, 0, 0, 2)])
def test_bulges_that_fit_no_side_are_refused(bulges: tuple[float, ...]) -> None:
    """One for each side, half a circle at the most."""
    with pytest.raises(BriefError):
        shaped(L_SHAPE, bulges)


@pytest.mark.parametrize("bulges", [(), (0.5,), (0.5, 0.0), (0.05, 0.5)])
def test_two_points_enclose_something_only_between_two_arcs(bulges: tuple[float, ...]) -> None:
    """Refused by the model itself, before anything is worked out of it; two halves are a circle."""
    with pytest.raises(BriefError):
        shaped(((0, 20), (40, 20)), bulges)
    with pytest.raises(ValidationError):
        edit(
            shaped(L_SHAPE),
            kind="set-outline",
            outline={"kind": "polygon", "points_mm": ((0, 20), (40, 20)), "bulges": bulges},
        )
    assert area(shaped(((0, 20), (40, 20)), (1, 1))) == pytest.approx(pi * 400, rel=5e-3)


def test_a_board_with_arcs_is_made_proven_and_cut_as_drawn() -> None:
    """A lamp of 70 x 40 mm whose right end is round and whose top is hollow; radius c (1 + b^2) /
    4b for chord and bulge. Gerber read by gerbonara has both arcs, each the right way.
    """
    made = pocket_with_arcs()
    assert made.files, [f.sentence for f in made.findings if f.severity == "stop"]
    profile = GerberFile.from_string(dict(made.files)["fabrication/profile.gbr"].decode())
    arcs = [o for o in profile.objects if type(o).__name__ == "Arc"]
    assert sorted((round(hypot(o.cx, o.cy), 3), o.clockwise) for o in arcs) == [
        (36.333, False),
        (350.875, True),
    ]


def pocket_with_arcs() -> Release:
    """Its release."""
    brief = arched(varied("finder-lamp"))
    library = bundled_library()
    return release(bring_up_to_date(Design(brief=brief), library), library)


def arched(brief: Brief) -> Brief:
    """A brief whose upright board gets a round end on the right and a hollow on top."""
    values = plain_of(brief)
    outline = values["boards"][0]["outline"]
    w, h = outline["width_mm"], outline["height_mm"]
    values["boards"][0]["outline"] = {
        "kind": "polygon",
        "points_mm": [(0, 0), (w, 0), (w, h), (0, h)],
        "bulges": [0, 0.3, -0.05, 0],
    }
    return brief_from_plain(values)


def test_what_is_written_is_read_again() -> None:
    """Outline, hole, slot and cut-out through DXF and SVG, within a hundredth."""
    design = by(shaped(L_SHAPE), kind="round-corner", index=1, radius_mm=8)
    values = plain_of(design.brief)
    values["things"] = [
        thing("hole", "post", 5, 45, screw="M3"),
        thing("slot", "strap", 40, 8, turn_deg=30),
        thing("cut-out", "window", 15, 30, width_mm=10, height_mm=6, corner_mm=1),
    ]
    brief = brief_from_plain(values)
    for data in (outline_as_dxf(brief, brief.board()), outline_as_svg(brief, brief.board())):
        found = find_outline(data)
        assert outline_polygon_mm(found.outline).symmetric_difference(
            outline_polygon_mm(brief.board().outline)
        ).area == pytest.approx(0, abs=0.2)
        assert [(h.x_mm, h.y_mm, h.d_mm) for h in found.holes] == [(5, 45, 3.4)]
        window, strap = found.openings
        assert (window.width_mm, window.height_mm, window.corner_mm) == pytest.approx(
            (10, 6, 1), abs=0.01
        )
        assert (strap.width_mm, strap.height_mm, strap.turn_deg) == pytest.approx(
            (6, 2, 30), abs=0.01
        )


def test_a_drawing_is_taken_with_its_holes_and_locked() -> None:
    """Holes before it go, the largest screw that passes (ISO 273, fine: M2 2.2, M3 3.2 mm) is
    named, the outline cannot be changed afterwards.
    """
    found = find_outline(
        b'<svg width="60mm" height="40mm" viewBox="0 0 60 40"><rect width="60" height="40"/><circle'
        b' cx="5" cy="5" r="1.1"/><circle cx="55" cy="5" r="1.65"/><circle cx="30" cy="20"'
        b' r="6"/><circle cx="5" cy="35" r="0.75"/></svg>'
    )
    square = shaped(((0, 0), (60, 0), (60, 40), (0, 40)))
    design = edit(square, kind="add-corner-holes")
    taken = edit(
        design,
        kind="take-outline",
        board="main",
        existing=True,
        **found.model_dump(include={"outline", "holes", "openings"}),
    )
    holes = {t.name: (t.screw, t.drilled().d_mm) for t in taken.brief.things if isinstance(t, Hole)}
    assert holes == {"peg 1": ("none", 1.5), "post 1": ("M2", 2.2), "post 2": ("M3", 3.3)}
    assert [t.name for t in taken.brief.things if t.kind == "cut-out"] == ["opening 1"]
    with pytest.raises(EditRefused, match="existing shell"):
        by(taken, kind="make-side", side=0, length_mm=50)


def test_a_screw_goes_through_its_hole_and_its_head_does_not() -> None:
    """ISO 273 fine: M3 needs 3.2 mm; its pan head is 5.6 mm wide (ISO 7045)."""
    for d, wrong in ((3.1, "does not go"), (3.2, ""), (5.5, ""), (5.6, "falls through")):
        faults = [f.problem for f in Hole(name="post", screw="M3", diameter_mm=d).faults()]
        assert (wrong in faults[0]) if wrong else not faults


D_SHAPE = {"kind": "polygon", "points_mm": [[0, 0], [6, 0], [6, 8], [0, 8]], "bulges": [0, 1, 0, 0]}


def test_a_free_cut_out_is_cut_as_it_is_drawn(library: Library) -> None:
    """A D of 10 x 8 mm, turned by a quarter: its area is 6 x 8 and half a circle of 4 mm, the
    profile has its arc with the radius of 4 mm about the right place, copper keeps off it, and the
    package is proven.
    """
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("leads", "leads"),
        thing("free-cut-out", "window", 95, 40, turn_deg=90, line=D_SHAPE),
    )
    (ring,) = board_area(brief, brief.boards[0]).interiors
    area = Polygon(ring).area / 1e12
    assert area == pytest.approx(48 + 8 * pi, rel=2e-3)
    left, bottom, right, top = (v / MM for v in ring.bounds)
    assert (left, right) == pytest.approx((91, 99), abs=0.01)
    assert (bottom, top) == pytest.approx((35, 45), abs=0.01)
    arcs = [
        p
        for p in board_profile(brief, brief.boards[0])
        if isinstance(p, Arc) and abs(hypot(p.x1 - p.cx, p.y1 - p.cy) - 4 * MM) < 2
    ]
    assert [(a.cx, a.cy) for a in arcs] == [(95 * MM, 41 * MM)]
    made = release(bring_up_to_date(Design(brief=brief), library), library)
    assert [f.sentence for f in made.findings if f.severity == "stop"] == []
    assert made.proof is not None
    assert made.proof.holds


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"points_mm": [[0, 0], [8, 8], [8, 0], [0, 8]], "bulges": []}, "crosses itself"),
        ({"points_mm": [[2, 2], [9, 2], [9, 9]], "bulges": []}, "from its own corner"),
        ({"points_mm": [[0, 0], [1.5, 0], [1.5, 9], [0, 9]], "bulges": []}, "1.5 x 9.0 mm"),
    ],
)
def test_a_free_cut_out_that_cannot_be_is_refused(change: dict[str, object], words: str) -> None:
    with pytest.raises(BriefError, match=words):
        varied("dome-pod", plus=(thing("free-cut-out", "window", 35, 20, line=D_SHAPE | change),))
