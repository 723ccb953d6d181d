"""Pours on boards so simple that every distance is known: gaps, screws, stitches, islands; and the
widths and openings they stand on.
"""

from dataclasses import replace
from math import hypot

import pytest
import shapely
from pydantic import ValidationError
from shapely.geometry import Point, Polygon, box

from loquet.core.board import BoardView, Track, Via
from loquet.core.board.areas import areas_of
from loquet.core.board.copper import FAR, NEAR, Copper, Hole
from loquet.core.board.current import supply_width_working, track_width_mm, width_for_nm
from loquet.core.board.islands import cut_off_ground, ground_islands
from loquet.core.board.model import PourPiece
from loquet.core.board.openings import opening_lines
from loquet.core.board.outline import Arc, Line
from loquet.core.board.pouring import Free, opening, pour_ground, pour_side, thinned
from loquet.core.board.through import pins_rect, pins_under
from loquet.core.design import Design
from loquet.core.geometry import Bar, Box, Round, Seat, gap_between
from loquet.core.library import Library
from loquet.core.parts import LandPattern
from loquet.core.parts.land import Pad
from loquet.core.pipeline import board_view, bring_up_to_date
from tests.core.plain_boards import CURVE, GAP, HIGH, MM, WIDE, board, pad, track
from tests.making import device, thing


def test_the_pour_keeps_every_distance_and_no_more(plain: BoardView) -> None:
    """From a foreign pad, a track and a via the gap and 5 micrometres for curves, to a tenth of a
    micrometre beside straight sides; from the edge the house's distance; from a fiducial its ring;
    from a screw its head and 0.2 mm.
    """
    screw = Hole(30 * MM, 8 * MM, 2_200_000, False, "", "post", 2_400_000)
    mark = Copper("", (NEAR,), Round(8 * MM, 24 * MM, MM), "pad", "FM1", "1", bare_nm=700_000)
    view = board(
        plain,
        pad("A", 20, 15, 2, 1),
        mark,
        tracks=(track("B", 5, 5, 5, 20),),
        vias=(Via(net="B", x_nm=12 * MM, y_nm=6 * MM),),
        holes=(screw,),
    )
    poured = pour_side(view, NEAR).poured
    half_via = view.rules.via_nm / 2
    for shape, keep in (
        (box(19 * MM, 14.5 * MM, 21 * MM, 15.5 * MM), GAP),
        (shapely.LineString([(5 * MM, 5 * MM), (5 * MM, 20 * MM)]), GAP + 100_000),
        (Point(12 * MM, 6 * MM), GAP + half_via),
        (Point(8 * MM, 24 * MM), 500_000 + 700_000),
        (Point(30 * MM, 8 * MM), 2_400_000),
    ):
        assert keep <= poured.distance(shape) <= keep + 2 * CURVE
    edge = view.rules.edge_nm + CURVE
    assert poured.bounds == pytest.approx(
        (edge, edge, WIDE * MM - edge, HIGH * MM - edge), abs=2_500
    )
    far = pour_side(view, FAR).poured
    assert far.contains(Point(20 * MM, 15 * MM))
    assert not far.contains(Point(12 * MM, 6 * MM))
    assert not far.contains(Point(30 * MM, 8 * MM))


@pytest.mark.parametrize(
    ("shape", "across", "up"),
    [
        (Box(20 * MM, 15 * MM, 2 * MM, MM), 1.0, 0.5),
        (Round(20 * MM, 15 * MM, 2 * MM), 1.0, 1.0),
        (Bar(19 * MM, 15 * MM, 21 * MM, 15 * MM, MM), 1.5, 0.5),
        (Bar(20 * MM, 14 * MM, 20 * MM, 16 * MM, MM), 0.5, 1.5),
    ],
)
def test_a_soldered_pad_hangs_on_four_spokes(
    plain: BoardView, shape: Box | Round | Bar, across: float, up: float
) -> None:
    """A ring of 0.2 mm about it, crossed by strokes of 0.3 mm along its own sides; without leads it
    is joined as any other.
    """
    view = board(plain, Copper("GROUND", (NEAR,), shape, "pad", "J1", "1"))
    poured = pour_side(view, NEAR).poured
    for sx, sy in ((1, 0), (-1, 0), (0, 1), (0, -1)):
        x, y = 20 * MM + sx * (across + 0.1) * MM, 15 * MM + sy * (up + 0.1) * MM
        assert poured.contains(Point(x, y))
        for side in (-1, 1):
            off = side * 0.25 * MM
            assert not poured.contains(Point(x + abs(sy) * off, y + abs(sx) * off))
    full = board(plain, Copper("GROUND", (NEAR,), shape, "pad", "J1", "1", in_full=True))
    assert pour_side(full, NEAR).poured.contains(Point(20 * MM + across * MM, 15 * MM + 0.25 * MM))


@pytest.mark.parametrize("across", [1.0, 6.0])
def test_no_curve_cuts_into_the_gap(plain: BoardView, across: float) -> None:
    """The pour about a disc is a polygon: about a large one it takes more corners to keep within 10
    micrometres of the gap.
    """
    disc = Copper("A", (NEAR,), Round(20 * MM, 15 * MM, round(across * MM)), "pad", "J1", "1")
    poured = pour_side(board(plain, disc), NEAR).poured
    away = poured.distance(Point(20 * MM, 15 * MM)) - across / 2 * MM
    assert GAP <= away <= GAP + 2 * CURVE


@pytest.mark.parametrize(("left", "stands"), [(0.19, True), (0.17, False)])
def test_a_spoke_that_a_neighbour_narrows_stays_while_it_can_be_etched(
    plain: BoardView, left: float, stands: bool
) -> None:
    """Of a spoke 0.3 mm wide so much is left beside a foreign pad; from 0.18 mm it stands (common
    practice, no source).
    """
    low = 14.85 + left + (GAP + CURVE) / MM
    view = board(plain, pad("GROUND", 20, 15), pad("A", 21.3, low + 0.5, w=1.4, ref="R2"))
    poured = pour_side(view, NEAR).poured
    assert poured.contains(Point(20.65 * MM, 14.9 * MM)) == stands
    assert poured.contains(Point(19.4 * MM, 15 * MM))


def test_lines_that_would_cross_once_thinned_are_thinned_together() -> None:
    """A tip stands half a micrometre deep in a dent of 0.9: with the dent taken out alone, it would
    stick into the copper.
    """
    corners = (
        (0, 0),
        (10, 0),
        (10, 3),
        (0, 3),
        (0, 2),
        (4.9, 2),
        (5, 0.9995),
        (5.1, 2),
        (9, 2),
        (9, 1),
        (6, 1),
        (5, 0.9991),
        (4, 1),
        (0, 1),
    )
    piece = Polygon([(x * MM, y * MM) for x, y in corners])
    assert piece.is_valid
    made = thinned(piece, far=True)
    (area,) = areas_of([made])
    assert area.is_valid
    assert made.far
    assert area.symmetric_difference(piece).area < 1e-2 * MM * MM


def test_a_stitch_keeps_its_distance_from_every_hole(plain: BoardView) -> None:
    """Its copper and the house's distance of holes from the wall of a hole of 2 mm, whatever that
    hole asks of copper.
    """
    hole = Hole(20 * MM, 15 * MM, 2 * MM, False, "", "post", 0)
    view = board(plain, holes=(hole,))
    sides = {name: pour_side(view, name) for name in (NEAR, FAR)}
    whole = [box(0, 0, WIDE * MM, HIGH * MM)]
    away = [
        hypot(x - 20 * MM, y - 15 * MM) for x, y in Free(view, sides, whole, whole).spots.tolist()
    ]
    least = MM + view.rules.via_nm / 2 + view.rules.hole_gap_nm
    assert least <= min(away) < least + 500_000


def test_what_is_opened_never_grows() -> None:
    """A strip of 0.25 mm stays where it was, a hundredth narrower at the most; a corner is rounded
    inwards.
    """
    strip = box(0, 0, 5 * MM, 250_000)
    kept = opening(strip)
    assert strip.buffer(1).covers(kept)
    assert kept.bounds[3] - kept.bounds[1] > 0.98 * 250_000
    assert opening(box(0, 0, 5 * MM, 195_000)).is_empty
    both = shapely.union(box(0, 0, 5 * MM, 5 * MM), box(5 * MM, 2 * MM, 9 * MM, 2_150_000))
    assert opening(both).bounds[2] == pytest.approx(5 * MM, abs=40_000)


def test_stitches_are_spread_as_close_as_eight_millimetres(plain: BoardView) -> None:
    """None nearer to another, and no place of the half-millimetre lattice, a via and 20 micrometres
    inside both pours, is left where one more would fit.
    """
    view = board(plain, pad("GROUND", 20, 15, in_full=True))
    pour = pour_ground(view)
    spots = [(v.x_nm, v.y_nm) for v in pour.stitches]
    assert all(x % 500_000 == 0 and y % 500_000 == 0 for x, y in spots)
    away = [hypot(a[0] - b[0], a[1] - b[1]) for i, a in enumerate(spots) for b in spots[:i]]
    assert min(away) >= 8 * MM
    inset = view.rules.edge_nm + CURVE + view.rules.via_nm / 2 + 20_000 + 20_000
    for x in range(0, WIDE * MM, 500_000):
        for y in range(0, HIGH * MM, 500_000):
            inside = inset < x < WIDE * MM - inset and inset < y < HIGH * MM - inset
            if inside and max(abs(x - 20 * MM), abs(y - 15 * MM)) > 1.2 * MM:
                assert min(hypot(x - a, y - b) for a, b in spots) < 8 * MM
    assert pour.islands == 1
    (share,) = pour.workings
    area = sum(a.area for a in areas_of(pour.pieces)) / (2 * WIDE * HIGH * 1e12)
    assert share.value == pytest.approx(100 * area)
    assert [i.value for i in share.inputs][1] == "1200"
    assert float(share.inputs[0].value) == pytest.approx(area * 2400, rel=1e-3)
    assert 94 < share.value < 98


WALL = 0.3


def pocket(half: float) -> tuple[Track, ...]:
    """Four tracks of a foreign net about 20, 15 on both sides, inside them a square of so many
    millimetres each way.
    """
    a, b, c, d = 20 - half, 15 - half, 20 + half, 15 + half
    sides = ((a, b, c, b), (c, b, c, d), (c, d, a, d), (a, d, a, b))
    return tuple(track("B", *side, far=far) for side in sides for far in (False, True))


@pytest.mark.parametrize(("half", "stitched"), [(0.9, True), (0.45, False)])
def test_two_pours_in_a_pocket_are_stitched_where_a_via_fits(
    half: float, stitched: bool, plain: BoardView
) -> None:
    """A surface pad beside a small pocket: a via of 0.6 mm and its gaps fit into 1.8 mm, not into
    0.9; then what is poured behind hangs on nothing and is left out.
    """
    view = board(plain, pad("GROUND", 20, 15.0, 0.3, 0.3, in_full=True), tracks=pocket(half))
    pour = pour_ground(view)
    inside = [
        v for v in pour.stitches if max(abs(v.x_nm - 20 * MM), abs(v.y_nm - 15 * MM)) < half * MM
    ]
    behind = [
        a
        for p, a in zip(pour.pieces, areas_of(pour.pieces), strict=True)
        if p.far and a.distance(Point(20 * MM, 15 * MM)) < MM
    ]
    assert bool(inside) is bool(behind)
    for via in inside:
        keep = half * MM - 100_000 - GAP
        reach = max(abs(via.x_nm - 20 * MM), abs(via.y_nm - 15 * MM)) + view.rules.via_nm / 2
        assert reach <= keep + 1_000
    if not stitched:
        assert inside == []


def test_a_stitch_is_squeezed_off_the_lattice_where_two_pads_need_it(plain: BoardView) -> None:
    """In a pocket of 0.9 mm free ground, its middle a quarter of a millimetre off the lattice, one
    pad in front and one behind: no lattice place lies within, a via of 0.6 mm still fits between
    both and joins them.
    """
    walls = tuple(
        t.model_copy(
            update={
                "x1_nm": t.x1_nm + 250_000,
                "x2_nm": t.x2_nm + 250_000,
                "y1_nm": t.y1_nm + 250_000,
                "y2_nm": t.y2_nm + 250_000,
            }
        )
        for t in pocket(0.7)
    )
    near = pad("GROUND", 19.85, 14.85, 0.1, 0.1, ref="R1", in_full=True)
    far = pad("GROUND", 20.65, 15.65, 0.1, 0.1, FAR, ref="R2", in_full=True)
    pour = pour_ground(board(plain, near, far, tracks=walls))
    inside = [
        v for v in pour.stitches if hypot(v.x_nm - 20.25 * MM, v.y_nm - 15.25 * MM) < 0.6 * MM
    ]
    (stitch,) = inside
    assert abs(stitch.x_nm - 20.25 * MM) + 300_000 <= 450_000 + 1_000
    assert abs(stitch.y_nm - 15.25 * MM) + 300_000 <= 450_000 + 1_000
    for p in (near, far):
        assert gap_between(p.shape, Round(stitch.x_nm, stitch.y_nm, 600_000)) >= 60_000
    assert pour.islands == 1


def test_a_screw_keeps_copper_away_by_its_head(library: Library) -> None:
    """ISO 7045: the head of an M2 pan head screw is 4.0 mm wide, of an M3 5.6 mm; half of it and
    0.2 mm.
    """
    things = (thing("hole", "a", 20, 20, screw="M2"), thing("hole", "b", 60, 20, screw="M3"))
    brief = device(thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads"), *things)
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    keep = {h.owner: h.keep_nm for h in board_view(design, library).holes if not h.plated}
    assert (keep["a"], keep["b"]) == (2_200_000, 3_000_000)


def test_the_working_of_supply_tracks_says_what_the_largest_current_needs() -> None:
    """1 A and 10 K: 0.300 mm (NUMBERS, IPC-2221), 0.35 up to the next 0.05; 2 A: 0.300 x 2^1.379 =
    0.781. Half an ampere would do with 0.115, less than the house's least.
    """
    working = supply_width_working(300_000, {"A": 0.5, "B": 2.0})
    assert (working.shown, working.value) == ("0.80 mm", 0.8)
    assert [i.value for i in working.inputs[:2]] == ["2000", "10"]
    assert supply_width_working(300_000, {"A": 0.5}).shown == "0.30 mm"
    assert supply_width_working(300_000, {}).shown == "0.30 mm"
    assert [width_for_nm(a) for a in (0.0, 0.5, 2.0)] == [0, 150_000, 800_000]


def piece(x1: float, y1: float, x2: float, y2: float, far: bool = False) -> PourPiece:
    corners = ((x1, y1), (x2, y1), (x2, y2), (x1, y2))
    return PourPiece(far=far, outer=tuple((round(x * MM), round(y * MM)) for x, y in corners))


def test_what_is_cut_off_is_named_with_the_pieces_about_it(plain: BoardView) -> None:
    """Three pads in one piece, one in another; a third piece behind hangs on the second by a
    via.
    """
    pads = [pad("GROUND", x, 15, ref=f"R{x}") for x in (4, 8, 12, 30)]
    view = board(plain, *pads)
    pieces = (piece(2, 10, 20, 20), piece(25, 10, 35, 20), piece(28, 12, 38, 18, far=True))
    stitch = (Via(net="GROUND", x_nm=33 * MM, y_nm=15 * MM),)
    assert ground_islands(view, pieces, stitch) == 2
    cut = cut_off_ground(view, pieces, stitch)
    assert cut.contacts == {"R30 pad 1"}
    assert [(far, area.bounds[0] / MM) for far, area in cut.pieces] == [(False, 25), (True, 28)]
    assert ground_islands(view, pieces, ()) == 3
    whole = (*stitch, Via(net="GROUND", x_nm=33 * MM, y_nm=15 * MM))
    joined = (piece(2, 10, 35, 20), pieces[2])
    assert ground_islands(view, joined, whole) == 1
    assert cut_off_ground(view, joined, whole).contacts == frozenset()


# What the pour stands on


@pytest.mark.parametrize("house", ["millrace", "saltmarsh", "ropewalk"])
def test_widths_and_vias_are_no_smaller_than_is_drawn(house: str, library: Library) -> None:
    """By hand: every house makes finer tracks than 0.2 and 0.3 mm; a hole of 0.3 mm with two rings
    of 0.13, 0.1 and 0.15 mm is 0.6 mm at the most, which is the least.
    """
    rules = library.house(house).rules()
    assert (rules.signal_width_nm, rules.supply_width_nm) == (200_000, 300_000)
    assert (rules.via_hole_nm, rules.via_nm, rules.drawn_gap_nm) == (300_000, 600_000, 150_000)
    coarse = replace(rules, track_nm=400_000, gap_nm=250_000, hole_nm=500_000, ring_nm=200_000)
    assert (coarse.signal_width_nm, coarse.supply_width_nm) == (400_000, 400_000)
    assert (coarse.via_hole_nm, coarse.via_nm, coarse.drawn_gap_nm) == (500_000, 900_000, 250_000)


@pytest.mark.parametrize(
    ("amps", "kelvin", "um", "outer", "mm"),
    [
        (1.0, 10, 35, True, 0.300),
        (2.0, 10, 35, True, 0.781),
        (1.0, 20, 35, True, 0.197),
        (1.0, 10, 70, True, 0.150),
        (1.0, 10, 35, False, 0.781),
    ],
)
def test_widths_for_a_current(
    amps: float, kelvin: float, um: float, outer: bool, mm: float
) -> None:
    """IPC-2221A 6.2, worked by hand: 1 A, 10 K, outer: (1 / (0.048 x 2.754))^(1/0.725) = 16.3
    square mil, of 1.378 mil copper 11.8 mil. Twice the current, or inner copper, 2^1.379 = 2.60
    times; twice the rise 2^(-0.607).
    """
    assert track_width_mm(amps, kelvin, um, outer) == pytest.approx(mm, abs=0.0015)


@pytest.mark.parametrize("wrong", [(0, 10, 35), (1, 0, 35), (1, 10, 0)])
def test_no_current_no_width(wrong: tuple[float, float, float]) -> None:
    with pytest.raises(ValueError, match="must be positive"):
        track_width_mm(*wrong)


@pytest.mark.parametrize(("turn", "size"), [(0, (10, 4)), (90, (4, 10)), (180, (10, 4))])
def test_an_opening_is_cut_where_it_stands(turn: int, size: tuple[float, float]) -> None:
    """A cut-out of 10 x 4 mm at 60, 30: its line closes, turns with it, and has the corners that
    were asked.
    """
    brief = device(
        thing("cut-out", "gap", 60, 30, turn_deg=turn, width_mm=10, height_mm=4, corner_mm=1)
    )
    lines = opening_lines(brief, brief.things[0])
    ends = [((p.x1, p.y1), (p.x2, p.y2)) for p in lines]
    assert all(a[1] == b[0] for a, b in zip(ends, (*ends[1:], ends[0]), strict=True))
    xs, ys = [x for (x, _), _ in ends], [y for (_, y), _ in ends]
    assert (min(xs) / MM, max(xs) / MM) == (60 - size[0] / 2, 60 + size[0] / 2)
    assert (min(ys) / MM, max(ys) / MM) == (30 - size[1] / 2, 30 + size[1] / 2)
    arcs = [p for p in lines if isinstance(p, Arc)]
    assert len(arcs) == 4
    assert {hypot(p.x1 - p.cx, p.y1 - p.cy) for p in arcs} == {MM}
    corners = {(sx * (size[0] / 2 - 1), sy * (size[1] / 2 - 1)) for sx in (-1, 1) for sy in (-1, 1)}
    assert {(p.cx / MM - 60, p.cy / MM - 30) for p in arcs} == corners
    assert len([p for p in lines if isinstance(p, Line)]) == 4


@pytest.mark.parametrize(("x", "under"), [(3.79, True), (3.81, False)])
def test_pins_come_out_under_a_body_within_their_room(x: float, under: bool) -> None:
    """A body 6 mm wide on the far side ends at 3 mm; a lead of 1 mm and 0.3 mm of room keep 0.8
    mm.
    """
    lead = LandPattern(
        "l",
        (Pad("1", Round(0, 0, 1_600_000), MM),),
        Box(0, 0, 2 * MM, 2 * MM),
        Box(0, 0, 2 * MM, 2 * MM),
    )
    cell = LandPattern("c", (), Box(0, 0, 6 * MM, 6 * MM), Box(0, 0, 6 * MM, 6 * MM))
    at, over = Seat(round(x * MM), 0), Seat(0, 0, 0, True)
    assert bool(pins_under(lead, at, cell, over)) is under
    assert pins_under(lead, at, cell, Seat(0, 0)) == []
    assert pins_rect(lead, at) == (
        round(x * MM) - 800_000,
        -800_000,
        round(x * MM) + 800_000,
        800_000,
    )
    assert pins_rect(cell, at) is None


def test_names_of_nets_are_no_longer_than_eighty_letters() -> None:
    ends = {"x1_nm": 0, "y1_nm": 0, "x2_nm": 1, "y2_nm": 1, "width_nm": 200_000, "far": False}
    assert Track(net="A" * 80, **ends).net == "A" * 80
    for name in ("", "A" * 81):
        with pytest.raises(ValidationError):
            Track(net=name, **ends)


def test_what_a_piece_encloses() -> None:
    """A square of 4 mm with a square hole of 2 mm: 12 square millimetres, made once."""
    ring = piece(0, 0, 4, 4)
    holed = ring.model_copy(update={"holes": (piece(1, 1, 3, 3).outer,)})
    pieces = (ring, holed)
    assert [a.area / 1e12 for a in areas_of(pieces)] == [16, 12]
    assert areas_of(pieces) is areas_of(pieces)
    assert isinstance(areas_of(pieces)[0], Polygon)


def test_a_slit_thinner_than_a_micrometre_is_no_hole() -> None:
    """A hole of 0.4 µm by 2 µm thins to a line, which has no area; a hole of 1 mm stays, and a
    piece that is such a sliver itself is none.
    """
    square = [(0, 0), (10 * MM, 0), (10 * MM, 10 * MM), (0, 10 * MM)]
    slit = [
        (5 * MM, 5 * MM),
        (5 * MM + 2_000, 5 * MM),
        (5 * MM + 2_000, 5 * MM + 400),
        (5 * MM, 5 * MM + 400),
    ]
    hole = [(2 * MM, 2 * MM), (3 * MM, 2 * MM), (3 * MM, 3 * MM), (2 * MM, 3 * MM)]
    made = thinned(Polygon(square, [slit, hole]), far=False)
    assert [sorted(ring) for ring in made.holes] == [sorted(hole)]
    assert len(thinned(Polygon(slit), far=False).outer) < 3
    triangle = [(4 * MM, 4 * MM), (6 * MM, 4 * MM), (5 * MM, 6 * MM)]
    kept = thinned(Polygon(square, [triangle]), far=False)
    assert [len(h) for h in kept.holes] == [3]
    assert len(thinned(Polygon(triangle), far=True).outer) == 3
