"""Pours on boards so simple that every distance is known: gaps, screws, stitches, islands; and the
widths and openings they stand on.
"""

from math import hypot

import pytest
import shapely
from pydantic import ValidationError
from shapely.geometry import Point, Polygon, box

from loquet.core.board import BoardView, Track, Via
from loquet.core.board.copper import FAR, NEAR, Copper, Hole
from loquet.core.board.current import track_width_mm
from loquet.core.board.islands import cut_off_ground, ground_islands
from loquet.core.board.model import PourPiece
from loquet.core.board.openings import opening_lines
from loquet.core.board.outline import Arc, Line
from loquet.core.board.pouring import Free, opening, pour_side, thinned
from loquet.core.board.through import pins_rect, pins_under
from loquet.core.geometry import Bar, Box, Round, Seat
from loquet.core.parts import LandPattern
from loquet.core.parts.land import Pad
from tests.core.plain_boards import CURVE, GAP, HIGH, MM, WIDE, board, pad, track
from tests.making import device, thing


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


def pocket(half: float) -> tuple[Track, ...]:
    """Four tracks of a foreign net about 20, 15 on both sides, inside them a square of so many
    millimetres each way.
    """
    a, b, c, d = 20 - half, 15 - half, 20 + half, 15 + half
    sides = ((a, b, c, b), (c, b, c, d), (c, d, a, d), (a, d, a, b))
    return tuple(track("B", *side, far=far) for side in sides for far in (False, True))


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
