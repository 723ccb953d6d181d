"""Ground is poured: it gets tracks only where its pour would not reach, and says so where nothing
leads there.
"""

import pytest
from shapely.geometry import box

from loquet.core.board import Routing
from loquet.core.board.copper import FAR, NEAR, Copper
from loquet.core.circuit import Circuit
from loquet.core.circuit.model import Net
from loquet.core.geometry import Bar, Box, Round
from loquet.core.library import Library
from loquet.core.routing import RouteInput, route
from loquet.core.routing.ground import merged

MM = 1_000_000
BOARD = box(0, 0, 30 * MM, 20 * MM)


def ground(ref: str, x: float, y: float, sides: tuple[str, ...] = (NEAR,)) -> Copper:
    return Copper("GROUND", sides, Box(int(x * MM), int(y * MM), MM, MM), "pad", ref, "1")


def fence(x: float, y: float, reach: float, sides: tuple[str, ...]) -> list[Copper]:
    """Four walls of foreign copper about a place."""
    a, b, c, d = (int(v * MM) for v in (x - reach, y - reach, x + reach, y + reach))
    walls = (Bar(a, b, c, b, MM), Bar(c, b, c, d, MM), Bar(c, d, a, d, MM), Bar(a, d, a, b, MM))
    return [Copper("", sides, wall, "pad", f"W{i}", "1") for i, wall in enumerate(walls)]


def routed(library: Library, *pads: Copper) -> Routing:
    nets = tuple(
        Net(name=name, kind="ground" if name == "GROUND" else "signal", pads=())
        for name in sorted({p.net for p in pads if p.net})
    )
    circuit = Circuit(components=(), nets=nets, workings=())
    rules = library.house("millrace").rules()
    return route(RouteInput(BOARD, BOARD, circuit, pads, (), rules))


def test_ground_in_the_open_needs_no_track(library: Library) -> None:
    made = routed(library, ground("R1", 6, 10), ground("R2", 24, 10))
    assert made == Routing(tracks=(), vias=())


def test_a_pad_behind_a_fence_hangs_on_a_stitch(library: Library) -> None:
    """Inside the fence ground is poured on both sides, and the pour stitches them: no track is
    needed.
    """
    made = routed(library, ground("R1", 6, 10), ground("R2", 24, 10), *fence(6, 10, 3, (NEAR,)))
    assert made == Routing(tracks=(), vias=())


def test_a_pad_that_fills_its_fence_has_no_way_and_that_is_said(library: Library) -> None:
    walls = fence(6, 10, 1.2, (NEAR, FAR))
    made = routed(library, ground("R1", 6, 10), ground("R2", 24, 10), ground("R3", 24, 5), *walls)
    assert [(net, label) for net, _, label in made.open_links] == [("GROUND", "R1 pad 1")]


def test_a_pad_with_holes_reaches_both_pours(library: Library) -> None:
    """It hangs on the far pour although the near side is walled in."""
    drilled = Copper(
        "GROUND", (NEAR, FAR), Round(6 * MM, 10 * MM, 2 * MM), "pad", "J1", "1", MM, 6 * MM, 10 * MM
    )
    made = routed(library, drilled, ground("R2", 24, 10), *fence(6, 10, 3, (NEAR,)))
    assert made == Routing(tracks=(), vias=())


def test_a_track_beside_a_ground_pad_leaves_its_spokes_free(library: Library) -> None:
    """A signal that could hug the pad goes round the ends of its spokes."""
    ends = [
        Copper("A", (NEAR,), Box(x * MM, 10_900_000, 500_000, 500_000), "pad", ref, "1")
        for x, ref in ((10, "S1"), (20, "S2"))
    ]
    made = routed(library, *ends, ground("R1", 15, 10), ground("R2", 25, 4))
    assert {t.net for t in made.tracks} == {"A"}
    assert made.open_links == ()


@pytest.mark.parametrize(
    ("sets", "groups"),
    [
        ([{1}, {2}, {3}], [{1}, {2}, {3}]),
        ([{1, 2}, {3, 4}, {2, 3}], [{1, 2, 3, 4}]),
        ([set(), {1}, set()], [{1}]),
    ],
)
def test_sets_that_share_one_are_put_together(sets: list[set[int]], groups: list[set[int]]) -> None:
    assert merged(sets) == groups
