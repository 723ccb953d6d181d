"""Ways pulled straight: small boards with answers known by hand, and laws on finished ones."""

import pytest
from shapely.geometry import Polygon, box

from loquet.core.board import Routing, Track, Via
from loquet.core.board.copper import NEAR, Copper, Hole
from loquet.core.circuit import Circuit
from loquet.core.design import Design, slice_of
from loquet.core.freshness import stale_slices
from loquet.core.geometry import Box
from loquet.core.library import Library
from loquet.core.pipeline import StageRefused
from loquet.core.redoing.tidying import tidied
from loquet.core.routing import RouteInput
from loquet.core.routing.tightening import tightened, ways_between
from tests.core.laying import way
from tests.editing import edit, refused

MM = 1_000_000
Spot = tuple[float, float]


def pad(ref: str, net: str, x: float, y: float, side: str = NEAR, size: float = 1.0) -> Copper:
    nm = round(size * MM)
    return Copper(net, (side,), Box(round(x * MM), round(y * MM), nm, nm), "pad", ref, "1")


def spots_of(routing: Routing, net: str = "A") -> list[tuple[Spot, Spot]]:
    return [
        ((t.x1_nm / MM, t.y1_nm / MM), (t.x2_nm / MM, t.y2_nm / MM))
        for t in routing.tracks
        if t.net == net
    ]


class Bench:
    """An empty board of 30 x 20 mm, its pads, and what is laid on it."""

    def __init__(self, library: Library) -> None:
        self.rules = library.house("millrace").rules()
        self.area: Polygon = box(0, 0, 30 * MM, 20 * MM)

    def given(self, *pads: Copper, holes: tuple[Hole, ...] = ()) -> RouteInput:
        circuit = Circuit(components=(), nets=(), workings=())
        return RouteInput(self.area, self.area, circuit, pads, holes, self.rules)

    def pulled(
        self,
        tracks: list[Track],
        *pads: Copper,
        vias: tuple[Via, ...] = (),
        holes: tuple[Hole, ...] = (),
    ) -> Routing:
        return tightened(self.given(*pads, holes=holes), Routing(tracks=tuple(tracks), vias=vias))


@pytest.fixture
def bench(library: Library) -> Bench:
    return Bench(library)


ENDS = (pad("R1", "A", 5, 5), pad("R2", "A", 20, 5))
ROUND_ABOUT: tuple[Spot, ...] = ((5, 5), (8, 5), (10, 7), (12, 7), (14, 5), (20, 5))


def test_a_hole_an_edge_and_another_track_hold_a_way_off(bench: Bench) -> None:
    """A screw keeps its circle, the edge its distance, a track of another net its gap; a track of
    the same net none.
    """
    straight = [((5, 5), (20, 5))]
    screw = Hole(11 * MM, 5 * MM, 2 * MM, False, "", "post", 2 * MM)
    assert spots_of(bench.pulled(way(*ROUND_ABOUT), *ENDS, holes=(screw,))) != straight
    other = way((11, 4), (11, 6), net="B")
    assert spots_of(bench.pulled([*way(*ROUND_ABOUT), *other], *ENDS)) != straight
    bench.area = box(0, 0, 30 * MM, 20 * MM).difference(box(10.5 * MM, 0, 11.5 * MM, 6 * MM))
    assert spots_of(bench.pulled(way(*ROUND_ABOUT), *ENDS)) != straight


def test_what_hangs_on_a_way_keeps_hanging_on_it(bench: Bench) -> None:
    """A branch, a via, a pad under the way and a change of width hold their places."""
    branch = way((11, 7), (11, 12))
    pads = (*ENDS, pad("R3", "A", 11, 12))
    made = spots_of(bench.pulled([*way(*ROUND_ABOUT), *branch], *pads))
    assert ((11, 7), (11, 12)) in made
    assert any((12, 7) in piece or (10, 7) in piece for piece in made)
    via = Via(net="A", x_nm=12 * MM, y_nm=7 * MM)
    assert any(
        (12, 7) in piece for piece in spots_of(bench.pulled(way(*ROUND_ABOUT), *ENDS, vias=(via,)))
    )
    over = spots_of(bench.pulled(way(*ROUND_ABOUT), *ENDS, pad("R3", "A", 11, 7)))
    assert any(piece in over for piece in (((10, 7), (12, 7)), ((12, 7), (10, 7))))
    wide = [*way(*ROUND_ABOUT[:4]), *way(*ROUND_ABOUT[3:], width=0.3)]
    assert any((12, 7) in piece for piece in spots_of(bench.pulled(wide, *ENDS)))


@pytest.mark.parametrize(
    ("to", "count"), [((9, 5), 1), ((5, 1), 1), ((8, 8), 1), ((2, 8), 1), ((9, 6), 2)]
)
def test_ways_between_two_places(to: tuple[int, int], count: int) -> None:
    found = ways_between((5, 5), to)
    assert len(found) == count
    assert all(w[0] == (5, 5) and w[-1] == to for w in found)
    assert found in ([[(5, 5), to]], [[(5, 5), (6, 6), (9, 6)], [(5, 5), (8, 5), (9, 6)]])


def test_a_net_is_tidied_and_laid(finished: Design, library: Library) -> None:
    """A stub and a bump drawn by hand: tidying leaves what the net needs, and laying it keeps
    everything else.
    """
    net = "BUTTON_RED"
    before = [t for t in slice_of(finished.routing).tracks if t.net == net]
    end = (before[0].x1_nm, before[0].y1_nm)
    stub = before[0].model_copy(
        update={"x1_nm": end[0], "y1_nm": end[1], "x2_nm": end[0], "y2_nm": end[1] + 3 * MM}
    )
    drawn = edit(finished, kind="draw-tracks", board="main", tracks=[stub.model_dump(mode="json")])
    tracks, vias = tidied(drawn, library, "main", net)
    assert all((t.x2_nm, t.y2_nm) != (stub.x2_nm, stub.y2_nm) for t in tracks)
    pieces = {
        "tracks": [t.model_dump(mode="json") for t in tracks],
        "vias": [v.model_dump(mode="json") for v in vias],
    }
    laid = edit(drawn, kind="lay-net", board="main", net=net, **pieces)
    assert stale_slices(laid) == ("pour",)
    after = slice_of(laid.routing)
    assert {t for t in after.tracks if t.net == net} == {
        t.model_copy(update={"by_hand": True}) for t in tracks
    }
    assert [t for t in after.tracks if t.net != net] == [
        t for t in slice_of(finished.routing).tracks if t.net != net
    ]
    assert {t.net for t in laid.choices.wires["main"].tracks} == {net}
    with pytest.raises(StageRefused, match="no net 'MOON'"):
        tidied(drawn, library, "main", "MOON")


def test_laying_refuses_what_is_not_of_the_net(finished: Design) -> None:
    """A piece of another net, and a net that is not there; a piece without length is left out."""
    track = slice_of(finished.routing).tracks[0].model_dump(mode="json")
    with refused("is not laid by this"):
        edit(
            finished,
            kind="lay-net",
            board="main",
            net="BUTTON_RED",
            tracks=[{**track, "net": "BUTTON_DOME"}],
        )
    with refused("'MOON' is not laid"):
        edit(finished, kind="lay-net", board="main", net="MOON")
    nothing = {**track, "net": "BUTTON_RED", "x2_nm": track["x1_nm"], "y2_nm": track["y1_nm"]}
    bare = edit(finished, kind="lay-net", board="main", net="BUTTON_RED", tracks=[nothing])
    assert all(t.net != "BUTTON_RED" for t in slice_of(bare.routing).tracks)
