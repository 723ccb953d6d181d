"""Areas of other nets and tear-drops: on boards so simple that every distance is known, then on a
true one through the files and the proof.
"""

from dataclasses import replace
from math import asin, pi, sqrt

import pytest
import shapely
from gerbonara import GerberFile
from shapely.geometry import Point, box

from loquet.core.board import BoardView, PourArea, PourChoice, Track, Via
from loquet.core.board.areas import area_of, areas_of
from loquet.core.board.copper import Copper
from loquet.core.board.linking import open_links
from loquet.core.board.pouring import pour_areas, pour_ground
from loquet.core.board.tear_drops import tear_drops
from loquet.core.comparing.boards import compare_boards
from loquet.core.design import Design
from loquet.core.freshness import stale_slices
from loquet.core.geometry import Round, polygon_of
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.release import prove_package, release
from loquet.core.reviewing import review
from loquet.core.stack.pieces import in_mm
from tests.core.plain_boards import CURVE, GAP, MM, board, pad, track
from tests.editing import edit, refused
from tests.foreign_reader import as_shapely


def area(
    net: str, left: float, bottom: float, right: float, top: float, far: bool = False
) -> PourArea:
    corners = ((left, bottom), (right, bottom), (right, top), (left, top))
    return PourArea(
        net=net, far=far, ring=tuple((round(x * MM), round(y * MM)) for x, y in corners)
    )


LAID = ("pads", "holes", "outline", "wiring_area")


def with_areas(view: BoardView, *areas: PourArea, drops: bool = False) -> BoardView:
    made = replace(view, pour_choice=PourChoice(areas=areas, tear_drops=drops))
    made.__dict__.update({name: view.__dict__[name] for name in LAID})
    return made


def test_an_area_keeps_its_line_its_gaps_and_its_relief(plain: BoardView) -> None:
    """10 x 10 mm about a pad of its own: up to its line; from a foreign pad, and ground from it,
    the gap and 5 micrometres; about its own pad 0.2 mm free but for spokes of 0.3 mm; nothing on
    the other side.
    """
    pads = (pad("V", 14, 15, ref="C1"), pad("A", 18, 18, ref="R1"), pad("GROUND", 30, 15, ref="J1"))
    view = with_areas(board(plain, *pads), area("V", 10, 10, 20, 20))
    poured = pour_ground(view)
    (piece,) = poured.areas
    (shape,) = areas_of(poured.areas)
    assert (piece.net, piece.far) == ("V", False)
    assert shape.bounds == pytest.approx((10 * MM, 10 * MM, 20 * MM, 20 * MM), abs=2_500)
    foreign = box(17.5 * MM, 17.5 * MM, 18.5 * MM, 18.5 * MM)
    assert GAP <= shape.distance(foreign) <= GAP + 2 * CURVE
    for x, y, copper in (
        (14.6, 15.0, True),
        (14.6, 15.3, False),
        (14.0, 15.6, True),
        (14.8, 15.3, True),
    ):
        assert shape.contains(Point(x * MM, y * MM)) is copper, (x, y)
    near = [a for p, a in zip(poured.pieces, areas_of(poured.pieces), strict=True) if not p.far]
    apart = [a.distance(shape) for a in near]
    assert GAP <= min(apart) <= GAP + 3 * CURVE
    far = shapely.union_all([area_of(p) for p in poured.pieces if p.far])
    assert far.contains(Point(12 * MM, 12 * MM))
    assert all(p.net == "GROUND" for p in poured.pieces)


def test_of_two_areas_the_first_has_its_way(plain: BoardView) -> None:
    """Both reach over 14 to 16 mm: the first one keeps it, the second ends the gap before it; on
    different sides neither minds the other; of one net they join.
    """
    pads = (pad("V", 12, 15, ref="C1"), pad("W", 18, 15, ref="C2"))
    one, other = area("V", 10, 10, 16, 20), area("W", 14, 10, 20, 20)
    for first, second, right, left in ((one, other, 16.0, 16.155), (other, one, 13.845, 14.0)):
        view = with_areas(board(plain, *pads), first, second)
        made = pour_areas(view)
        found = {p.net: a.bounds for p, a in zip(made, areas_of(made), strict=True)}
        assert found["V"][2] == pytest.approx(right * MM, abs=2 * CURVE)
        assert found["W"][0] == pytest.approx(left * MM, abs=2 * CURVE)
    through = (
        pad("V", 12, 15, ref="C1"),
        Copper(
            "W",
            ("near", "far"),
            Round(18 * MM, 15 * MM, MM),
            "pad",
            "J1",
            "1",
            600_000,
            18 * MM,
            15 * MM,
        ),
    )
    behind = with_areas(board(plain, *through), one, area("W", 14, 10, 20, 20, far=True))
    assert [area_of(p).bounds[0] for p in pour_areas(behind)] == pytest.approx(
        [10 * MM, 14 * MM], abs=CURVE
    )
    same = with_areas(board(plain, *pads), one, area("V", 14, 8, 17.5, 12))
    assert len(pour_areas(same)) == 1 + 1
    assert shapely.union_all(areas_of(pour_areas(same))).geom_type == "Polygon"


def test_an_area_without_its_net_is_left_out_and_none_passes_the_edge(plain: BoardView) -> None:
    view = board(plain, pad("V", 12, 15, ref="C1"))
    assert pour_areas(with_areas(view, area("V", 20, 10, 30, 20))) == ()
    (piece,) = pour_areas(with_areas(view, area("V", -5, 10, 15, 20)))
    edge = plain.rules.edge_nm + CURVE
    assert area_of(piece).bounds[0] == pytest.approx(edge, abs=CURVE)


def test_a_line_that_crosses_itself_is_poured_in_parts(plain: BoardView) -> None:
    """Two triangles that meet in a point, as only a file from elsewhere can hold them: 10 mm wide,
    5 mm high each.
    """
    view = board(plain, pad("V", 14, 11, 0.6, 0.6, ref="C1"), pad("V", 14, 19, 0.6, 0.6, ref="C2"))
    corners = tuple((x * MM, y * MM) for x, y in ((9, 10), (19, 10), (9, 20), (19, 20)))
    found = pour_areas(with_areas(view, PourArea(net="V", ring=corners)))
    assert sorted(round(area_of(p).centroid.y / MM) for p in found) == [12, 18]
    assert all(area_of(p).is_valid for p in found)


def test_an_area_joins_what_lies_in_it(plain: BoardView) -> None:
    """Two pads of a net without a track are a link that is open; under an area of their net it is
    made, under one that holds one of them it is not.
    """
    view = board(plain, pad("V", 12, 15, ref="C1"), pad("V", 18, 15, ref="C2"))

    def links(*areas: PourArea) -> int:
        made = with_areas(view, *areas)
        poured = replace(made, pour=pour_ground(made))
        poured.__dict__.update({name: view.__dict__[name] for name in LAID})
        return len(open_links(poured))

    assert links() == 1
    assert links(area("V", 10, 10, 20, 20)) == 0
    assert links(area("V", 10, 10, 16, 20)) == 1


def land(net: str, x: float, y: float, d: float = 1.0) -> Copper:
    at = (round(x * MM), round(y * MM))
    return Copper(net, ("near", "far"), Round(*at, round(d * MM)), "pad", "J1", "1", 500_000, *at)


def hull_mm2(one: float, other: float, apart: float) -> float:
    """The area about two circles: both sectors and the trapezium between their tangents (plane
    geometry).
    """
    turn = asin((one - other) / apart)
    sectors = (pi / 2 + turn) * one**2 + (pi / 2 - turn) * other**2
    return sectors + (one + other) * sqrt(apart**2 - (one - other) ** 2)


def test_a_tear_drop_by_hand(plain: BoardView) -> None:
    """A land of 1 mm, a track of 0.2 mm to the right: 0.8 mm wide at its middle, its tip with the
    width of the track 1 mm away.
    """
    view = board(plain, land("A", 10, 10), tracks=(track("A", 10, 10, 15, 10, far=True),))
    (drop,) = tear_drops(view, ())
    shape = area_of(drop)
    assert (drop.net, drop.far) == ("A", True)
    assert shape.bounds == pytest.approx((9.6 * MM, 9.6 * MM, 11.1 * MM, 10.4 * MM), abs=10)
    assert shape.area / MM**2 == pytest.approx(hull_mm2(0.4, 0.1, 1.0), rel=3e-3)


@pytest.mark.parametrize(
    ("tracks", "others", "count"),
    [
        ((track("A", 15, 10, 10, 10),), (), 1),  # the other way round
        ((track("A", 10, 10, 10.54, 10),), (), 0),  # 0.04 mm out of its land
        ((track("A", 10, 10, 10.56, 10),), (), 1),
        ((track("A", 10, 10, 15, 10).model_copy(update={"width_nm": 800_000}),), (), 0),
        ((track("A", 10, 10, 15, 10).model_copy(update={"width_nm": 790_000}),), (), 1),
        ((track("B", 10, 10, 15, 10),), (), 0),
        ((track("A", 10.2, 10, 15, 10),), (), 0),  # begins beside its middle
        ((track("A", 10, 10, 10, 15), track("A", 10, 10, 15, 10)), (), 2),
        # a pad's edge at 10.6: drop at 10.4 - 0.2 more than the gap of 0.15; at 10.54 less
        ((track("A", 10, 10, 15, 10),), (pad("B", 10, 11.1),), 1),
        ((track("A", 10, 10, 15, 10),), (pad("B", 10, 11.04),), 0),
        ((track("A", 10, 10, 15, 10),), (pad("A", 10, 11.04),), 1),
        ((track("A", 10, 10, 15, 10),), (pad("B", 10, 11.04, side="far"),), 1),
    ],
)
def test_where_a_tear_drop_stands(
    plain: BoardView, tracks: tuple[Track, ...], others: tuple[Copper, ...], count: int
) -> None:
    assert len(tear_drops(board(plain, land("A", 10, 10), *others, tracks=tracks), ())) == count


def test_tear_drops_keep_off_the_edge_and_areas(plain: BoardView) -> None:
    """At the edge and beside an area of another net there is none; a via has one of its own size,
    ground none.
    """
    tracks = (track("A", 10, 10, 15, 10),)
    edge = plain.rules.edge_nm / MM
    for x, count in ((edge + 0.39, 0), (edge + 0.41, 1)):
        near = board(plain, land("A", x, 10), tracks=(track("A", x, 10, x + 5, 10),))
        assert len(tear_drops(near, ())) == count
    alone = board(plain, land("A", 10, 10), tracks=tracks)
    beside = pour_areas(with_areas(board(plain, pad("W", 10, 12)), area("W", 8, 10.54, 12, 14)))
    assert tear_drops(alone, beside) == ()
    assert len(tear_drops(alone, tuple(p.model_copy(update={"far": True}) for p in beside))) == 1
    via = board(plain, tracks=tracks, vias=(Via(net="A", x_nm=10 * MM, y_nm=10 * MM),))
    (drop,) = tear_drops(via, ())
    d = plain.rules.via_nm
    assert area_of(drop).bounds[2] == pytest.approx(10 * MM + d + 100_000, abs=10)
    ground = board(plain, land("GROUND", 10, 10), tracks=(track("GROUND", 10, 10, 15, 10),))
    assert tear_drops(ground, ()) == ()


@pytest.fixture(scope="module")
def poured(finished: Design, library: Library) -> Design:
    """The demo remote with its supply poured left of the chip on the near side, its far side about
    the cells, and tear-drops.
    """
    wanted = area("SUPPLY", 31, 17, 37, 26)
    design = edit(finished, kind="add-pour-area", board="main", area=wanted.model_dump())
    assert stale_slices(design) == ("pour",)
    design = edit(design, kind="set-tear-drops", board="main", wanted=True)
    made = bring_up_to_date(design, library)
    apart = [f.rule for f in review(made, library) if f.severity == "stop"]
    assert apart == ["ground-island"]  # routed as if all around it were ground
    design = design.model_copy(update={"routing": {}})
    return bring_up_to_date(design, library)


def test_areas_go_through_the_files_and_the_proof(poured: Design, library: Library) -> None:
    """No stop; another reader finds regions of the supply, with the area that was poured; a region
    under another net's name is noticed, and one that is left out.
    """
    made = release(poured, library)
    assert [f.sentence for f in made.findings if f.severity == "stop"] == []
    files = dict(made.files)
    assert prove_package(files, poured, library).faults == ()
    view = board_view(poured, library)
    assert view.pour is not None
    supply = [p for p in view.pour.areas if p.net == "SUPPLY"]
    drops = [p for p in view.pour.areas if p.net != "SUPPLY"]
    assert len(supply) >= 1
    assert len(drops) >= 4
    name = "fabrication/copper-near.gbr"
    text = files[name].decode()
    dark = as_shapely(GerberFile.from_string(text))
    own = [
        polygon_of(c.shape)
        for c in (*view.pads, *view.wiring)
        if "near" in c.sides and c.net == "SUPPLY"
    ]
    copper = in_mm(shapely.union_all([*own, *(area_of(p) for p in supply)]))
    assert dark.intersection(copper).area == pytest.approx(copper.area, rel=1e-4)
    ring = copper.buffer(0.14).difference(copper.buffer(0.01))
    assert dark.intersection(ring).area < 1e-3
    at = text.index("%TO.N,SUPPLY*%", text.index("%TO.N,GROUND*%"))
    for wrong in (
        text[:at] + "%TO.N,RESET*%" + text[at + len("%TO.N,SUPPLY*%") :],
        text[:at] + text[text.index("%TD*%", at) :],
    ):
        assert prove_package({**files, name: wrong.encode()}, poured, library).faults


def test_areas_are_chosen_put_in_order_and_taken_out(finished: Design, library: Library) -> None:
    """A net of the board, a line that does not cross itself, over the board; the last one goes
    first when it is preferred; a board's name takes them along.
    """
    one, other = area("SUPPLY", 31, 17, 37, 26), area("RESET", 10, 10, 12, 12)
    design = finished
    for wanted in (one, other):
        design = edit(design, kind="add-pour-area", board="main", area=wanted.model_dump())
    assert design.choices.pours["main"].areas == (one, other)
    (said,) = [
        f for f in review(bring_up_to_date(design, library), library) if f.rule == "poured-areas"
    ]
    assert said.sentence.startswith("The area drawn for RESET on the near side holds no copper")
    assert (said.severity, said.x_mm, said.y_mm) == ("look", 11, 11)
    first = edit(design, kind="prefer-pour-area", board="main", index=1)
    assert first.choices.pours["main"].areas == (other, one)
    renamed = edit(first, kind="rename-board", name="main", new_name="top")
    assert renamed.choices.pours["top"].areas == (other, one)
    left = edit(
        edit(first, kind="drop-pour-area", board="main", index=0),
        kind="drop-pour-area",
        board="main",
        index=0,
    )
    assert left.choices == finished.choices
    assert stale_slices(left) == ()
    twice = finished.choices.model_copy(update={"pours": {"main": PourChoice(areas=(one, one))}})
    same = finished.model_copy(update={"choices": twice})
    once = edit(same, kind="drop-pour-area", board="main", index=1)
    assert once.choices.pours["main"].areas == (one,)
    for wrong, why in (
        (area("GROUND", 10, 10, 20, 20), "poured wherever"),
        (area("NOTHING", 10, 10, 20, 20), "no net 'NOTHING' on main"),
        (area("SUPPLY", 10, 10, 10.9, 11), "less than 1 square mm"),
        (area("SUPPLY", 80, 10, 90, 20), "beside the board"),
        (
            one.model_copy(
                update={"ring": ((0, 0), (9_000_000, 9_000_000), (9_000_000, 0), (0, 8_000_000))}
            ),
            "crosses itself",
        ),
    ):
        with refused(why):
            edit(finished, kind="add-pour-area", board="main", area=wrong.model_dump())
    with refused("very area is poured already"):
        edit(design, kind="add-pour-area", board="main", area=one.model_dump())
    with refused("no area 3 on main"):
        edit(design, kind="drop-pour-area", board="main", index=2)
    with refused("40 areas"):
        full = design.choices.model_copy(
            update={"pours": {"main": PourChoice(areas=(other,) * 40)}}
        )
        edit(
            design.model_copy(update={"choices": full}),
            kind="add-pour-area",
            board="main",
            area=one.model_dump(),
        )


def test_two_versions_differ_by_their_areas(finished: Design) -> None:
    """One area went, one came on the other side, one stayed; tear-drops came; the other way round
    all of it turns round.
    """
    stays, goes = area("SUPPLY", 31, 17, 37, 26), area("SUPPLY", 10, 10, 20, 20)
    comes = area("RESET", 10, 10, 12, 13, far=True)

    def version(*areas: PourArea, drops: bool) -> Design:
        choice = PourChoice(areas=areas, tear_drops=drops)
        choices = finished.choices.model_copy(update={"pours": {"main": choice}})
        return finished.model_copy(update={"choices": choices})

    before, after = version(stays, goes, drops=False), version(stays, comes, drops=True)
    found = compare_boards(before, after, "main")
    assert [(a.what, a.net, a.far) for a in found.areas] == [
        ("went", "SUPPLY", False),
        ("came", "RESET", True),
    ]
    assert found.areas[1].ring == ((10, 10), (12, 10), (12, 13), (10, 13))
    back = compare_boards(after, before, "main")
    assert [a.what for a in back.areas] == ["went", "came"]
    assert (found.tear_drops, back.tear_drops) == ("came", "went")
    assert compare_boards(before, before, "main").tear_drops is None
    assert found.parts == found.tracks == ()
