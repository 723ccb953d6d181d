"""What goes through the shell: screws, openings and plugs of boards known by hand."""

from dataclasses import replace
from math import radians, tan

import pytest
from shapely.geometry import box

from loquet.core.brief.stack_choices import OwnScrew, StackChoices
from loquet.core.checks.rules import (
    plug_room,
    screw_fits,
)
from loquet.core.library import Library
from loquet.core.pipeline import board_view
from loquet.core.stack.model import Walls
from loquet.core.stack.openings import openings_of
from loquet.core.stack.plugging import meets, plugs_of
from loquet.core.stack.screw_sizes import SCREWS, screw_of
from loquet.core.stack.screws import screw_fit
from tests.making import made, thing
from tests.stacks import (
    PLAIN,
    WALLS,
    block,
    piece,
    placed,
    plugged,
    said,
    stacked,
)


@pytest.mark.parametrize(
    ("thread", "fixing", "far", "near", "length", "least", "most"),
    [
        ("M2", "posts", 6.0, 9.0, 6, 5.6, 8.8),
        ("M2.5", "posts", 6.0, 9.0, 8, 6.6, 8.8),
        ("M3", "posts", 6.0, 9.0, 8, 7.6, 8.8),
        ("M4", "posts", 6.0, 9.0, None, 9.6, 8.8),
        ("M2", "through", 6.0, 9.0, 16, 13.6, 19.8),
        ("M2", "through", 6.0, 1.0, None, 13.6, 11.8),
    ],
)
def test_screws_hold_by_two_diameters_and_stay_inside(
    thread: str, fixing: str, far: float, near: float, length: int | None, least: float, most: float
) -> None:
    """Board 1.6 mm, walls 2 mm, 0.8 mm of the last wall stay: posts hold t + 2d and have t + room +
    2 - 0.8; through the device 2 + 6 + 1.6 + 2d. Lengths of ISO 7045: 6, 8, 10, 12, 16.
    """
    walls = Walls(near, far, True, True, 2.0, 0.5, 1.6)
    fit = screw_fit("post", thread, SCREWS[thread], walls, StackChoices(fixing=fixing))
    assert fit.length_mm == length
    assert (fit.least_mm, fit.most_mm) == pytest.approx((least, most))


def test_heads_are_those_of_the_standards() -> None:
    """ISO 7045 (pan) and ISO 7046-1 (countersunk): largest diameter and height; from memory, M2 to
    M3 also in NUMBERS.
    """
    assert {name: (s.pan_mm, s.sunk_mm) for name, s in SCREWS.items()} == {
        "M1.6": ((3.2, 1.3), (3.0, 1.0)),
        "M2": ((4.0, 1.6), (3.8, 1.2)),
        "M2.5": ((5.0, 2.1), (4.7, 1.5)),
        "M3": ((5.6, 2.4), (5.5, 1.65)),
        "M4": ((8.0, 3.1), (8.4, 2.7)),
    }


def test_a_screw_without_room_and_a_head_too_high_are_stops(library: Library) -> None:
    """M4: 9.6 mm to hold and 1.6 + 3 + 2 - 0.8 = 5.8 mm to the skin; its countersunk head of 2.7 mm
    is higher than the board.
    """
    design = placed(library, thing("hole", "post", 10, 30, screw="M4"))
    boards = (design.brief.boards[0].model_copy(update={"far_room_mm": 3.0}),)
    tight = design.model_copy(update={"brief": design.brief.model_copy(update={"boards": boards})})
    (finding,) = said(screw_fits.RULE, tight, library)
    assert "9.6 mm" in finding.sentence
    assert "5.8 mm" in finding.sentence
    assert said(screw_fits.RULE, design, library) == []
    (head,) = said(screw_fits.RULE, design, library, heads="countersunk")
    assert "2.70 mm" in head.sentence


def test_screws_through_the_device_have_bosses_and_no_heads_inside(library: Library) -> None:
    """A boss of 2.5 diameters from the board to the front wall; a hole without a screw has neither
    post nor boss.
    """
    holes = (
        thing("hole", "a", 20, 30, screw="M2"),
        thing("hole", "peg", 80, 30, screw="none", diameter_mm=2.0),
    )
    design = placed(library, *holes)
    posts, through = (
        stacked(design, library),
        stacked(design, library, StackChoices(fixing="through")),
    )
    assert {p.name for p in posts.pieces if p.thing in ("a", "peg")} == {"screw at a", "post at a"}
    assert {p.name for p in through.pieces if p.thing in ("a", "peg")} == {"post at a", "boss at a"}
    boss = piece(through, "boss at a")
    assert (boss.low_mm, boss.high_mm) == pytest.approx((1.6, through.walls.near_mm))
    assert boss.area.bounds == pytest.approx((17.5, 27.5, 22.5, 32.5), abs=0.02)


def test_a_stick_leans_in_its_opening(library: Library) -> None:
    """12.5 mm high, about a point 5 mm over the board: at the outside of a wall 10 + 2 mm over the
    board it leans 7 mm x tan 25.
    """
    design = placed(library, thing("stick", "left", 50, 30))
    (one,) = openings_of(board_view(design, library), library, WALLS, PLAIN)
    assert one.needed_mm[0] == pytest.approx(5 + 2 * 7 * tan(radians(25)), abs=0.01)


@pytest.mark.parametrize(("inside", "size"), [(0.0, (12.35, 6.5)), (2.0, (8.94, 3.2))])
def test_a_deep_socket_wants_an_opening_for_the_grip(
    inside: float, size: tuple[float, float], library: Library
) -> None:
    """Behind 2 mm of wall and 0.5 mm of gap the grip of a USB-C plug has to go in (12.35 x 6.5 mm,
    USB Type-C specification); standing out 2 mm it need not.
    """
    design = placed(library, thing("usb-device", "usb", 50, 60 - 3.65 + inside, turn_deg=180))
    (one,) = openings_of(board_view(design, library), library, WALLS, PLAIN)
    assert one.wall == "side"
    assert one.needed_mm == pytest.approx(size, abs=0.02)
    assert one.z_mm == pytest.approx(1.6 + 1.6)


def test_a_screen_wants_an_opening_as_large_as_its_lit_area(library: Library) -> None:
    """The lit area of the module as its drawing has it, 0.2 mm more on each side by filament and no
    play; its glass of 4 mm ends at the wall.
    """
    module = library.screens["screen-128x64-serial"]
    design = placed(library, thing("screen", "dial", 60, 30, part=module.id, bus=module.bus))
    view = board_view(design, library)
    (one,) = openings_of(view, library, WALLS, PLAIN)
    wide, high = module.active_mm
    assert one.needed_mm == pytest.approx((wide, high), abs=0.01)
    assert one.drawn_mm == pytest.approx((wide + 0.4, high + 0.4), abs=0.01)
    assert one.wall == "front wall"
    glass = next(p for p in stacked(design, library).pieces if p.sort == "module")
    assert glass.high_mm - glass.low_mm == pytest.approx(4)
    middle = glass.area.centroid
    assert (one.x_mm, one.y_mm) == pytest.approx((middle.x, middle.y), abs=0.01)


def test_a_plug_stands_before_its_socket(library: Library) -> None:
    """A USB-C socket of 8.94 x 7.3 mm flush with the upper edge of a board of 60 mm: the grip of
    12.35 mm begins 0.8 mm before the edge and is 35 mm long with its bend; its middle lies at that
    of the socket, 1.6 + 1.6 mm.
    """
    design = placed(library, thing("usb-device", "usb", 50, 60 - 3.65, turn_deg=180))
    (plug,) = plugs_of(board_view(design, library), library, 1.6)
    assert plug.area.bounds == pytest.approx((50 - 6.175, 60.8, 50 + 6.175, 95.0), abs=0.02)
    assert (plug.low_mm, plug.high_mm) == pytest.approx((3.2 - 3.25, 3.2 + 3.25))
    assert plug.way == pytest.approx((0, 1), abs=1e-6)
    assert plug.beyond_mm == pytest.approx(0, abs=0.02)


def test_a_socket_behind_the_board_has_its_plug_behind(library: Library) -> None:
    """3.2 mm high on the far side: its middle, and that of the grip of 6.5 mm, lies 1.6 mm behind
    the far face.
    """
    design = placed(library, thing("usb-device", "usb", 50, 60 - 3.65, turn_deg=180, far=True))
    view = board_view(design, library)
    (plug,) = plugs_of(view, library, 1.6)
    assert (plug.low_mm, plug.high_mm) == pytest.approx((-1.6 - 3.25, -1.6 + 3.25))
    (one,) = openings_of(view, library, WALLS, PLAIN)
    assert (one.x_mm, one.y_mm, one.z_mm) == pytest.approx((50, 60, -1.6), abs=0.02)


@pytest.mark.parametrize(("apart", "severity"), [(14.3, "look"), (14.4, None), (12.0, "stop")])
def test_plugs_leave_room_for_fingers(apart: float, severity: str | None, library: Library) -> None:
    """K35: two grips of 12.35 mm: 14.35 from middle to middle leave 2 mm; at 12 they are in one
    another.
    """
    ports = (
        thing("usb-device", "a", 30, 56.35, turn_deg=180),
        thing("usb-charge", "b", 30 + apart, 56.35, turn_deg=180),
    )
    found = said(plug_room.RULE, placed(library, *ports), library)
    assert [f.severity for f in found] == ([severity] if severity else [])


def test_a_plug_that_runs_into_a_part_is_a_stop(library: Library) -> None:
    """K35: a USB socket that looks into the board, with a button before it."""
    design = placed(library, thing("usb-device", "usb", 50, 40), thing("button", "go", 50, 25))
    sentences = [f.sentence for f in said(plug_room.RULE, design, library)]
    assert any("does not go in" in s and "Button go" in s for s in sentences)


def test_a_plug_meets_what_is_not_its_own_socket() -> None:
    """Its own body, leads and whatever belongs to its thing let it in; another reference that ends
    alike does not.
    """
    plug, way = plugged(), block("wall", 0, 10, 2, 6)
    assert meets(plug, way)
    for own in ("J1", "leads of J1"):
        assert not meets(plug, replace(way, name=own, thing=""))
    assert not meets(plug, replace(way, thing="usb"))
    assert meets(plug, replace(way, name="leads of XJ1", thing=""))
    assert meets(replace(plug, thing=""), replace(way, thing=""))
    assert not meets(plug, replace(way, low_mm=5.0))
    assert not meets(plug, replace(way, area=box(10, 0, 20, 10)))


def test_a_screw_of_ones_own_is_measured_by_its_own_head(library: Library) -> None:
    """A thread of 2.2 mm in plastic: board 1.6 mm and two diameters give 6.0 mm at least; it wants
    a hole of 2.3 mm, and M2 keeps 4.0 mm free for its head.
    """
    own = OwnScrew(thread_mm=2.2, head_mm=4.0, head_high_mm=1.9)
    choices = StackChoices(heads="own", own_screw=own)
    hole = made("hole", "post", screw="M2")
    name, screw = screw_of(hole, choices) or ("", SCREWS["M2"])
    assert (name, screw.d_mm, screw.pan_mm, screw.sunk_mm) == (
        *("of 2.2 mm", 2.2),
        *((4.0, 1.9), (4.0, 1.9)),
    )
    assert choices.head_words == "head 4 x 1.9 mm"
    walls = Walls(9.0, 6.0, True, True, 2.0, 0.5, 1.6)
    assert screw_fit("post", name, screw, walls, choices).least_mm == pytest.approx(6.0)
    assert screw_of(made("hole", "peg", screw="none"), choices) is None
    assert screw_of(hole, StackChoices()) == ("M2", SCREWS["M2"])


@pytest.mark.parametrize(
    ("screw", "own", "words"),
    [
        ("M2", {"thread_mm": 2.2, "head_mm": 4.0}, []),  # ISO 273 medium for M2: 2.4 mm
        ("M2", {"thread_mm": 2.4, "head_mm": 4.0}, ["does not go through post"]),
        ("M2", {"thread_mm": 2.2, "head_mm": 4.1}, ["is 4.1 mm wide, and 4 mm are kept free"]),
        ("M3", {"thread_mm": 2.4, "head_mm": 5.6}, []),
    ],
)
def test_a_screw_of_ones_own_fits_its_holes(
    screw: str, own: dict[str, float], words: list[str], library: Library
) -> None:
    design = placed(library, thing("hole", "post", 20, 20, screw=screw))
    choices = StackChoices(heads="own", own_screw=OwnScrew(**own))
    found = list(screw_fits.own_screws(board_view(design, library), choices))
    assert len(found) == len(words)
    assert all(said in f.sentence for said, f in zip(words, found, strict=True))
    assert list(screw_fits.own_screws(board_view(design, library), StackChoices())) == []
