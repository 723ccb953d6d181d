"""Ways found, shared and polished on boards known by hand: windows, prices of vias, pairs."""

from dataclasses import replace

import numpy as np
import pytest
from shapely.geometry import box

from loquet.core.geometry import Box, Round
from loquet.core.library import Library
from loquet.core.routing.negotiation import (
    POLISHED,
    PRESSURE_START,
    STRICT,
    negotiate,
    polish,
    settle_rest,
)
from loquet.core.routing.pairs import drawn_to_its_mate, mate_of
from loquet.core.routing.router import NetState, Router, Terms
from tests.core.small_grids import MM, given, nm, pad


def between(library: Library, *names: str) -> tuple[float, Router]:
    """Two nets whose pads lie 1 mm apart at both ends, with a pad between that the second may pass
    on either side; the mean distance (cells) from the second to the first.
    """
    first, second = names
    pads = [pad(first, Round(*nm(x, 5, 0.6))) for x in (2, 10)]
    pads += [pad(second, Round(*nm(x, 4, 0.6))) for x in (2, 10)]
    pads += [pad("", Box(*nm(6, 3.9, 3, 0.6)))]
    router = Router(given(library, *pads))
    for net in router.nets:
        router.route_net(net, Terms(0.0, True, 160.0))
        router.put(net)
    polish(router, lambda _: True)
    one, two = ({n.name: n.nodes for n in router.nets}[name] for name in names)
    spots = [
        np.stack(
            [
                n % router.grid.area % router.grid.columns,
                n % router.grid.area // router.grid.columns,
            ],
            1,
        )
        for n in (one, two)
    ]
    away = np.sqrt(((spots[1][:, None, :] - spots[0][None, :, :]) ** 2).sum(axis=2)).min(axis=1)
    return float(away.mean()), router


@pytest.mark.parametrize(
    ("sources", "target", "window"),
    [
        ([(10, 10)], (40, 20, 42, 22), (0, 0, 104, 90)),
        ([(10, 10), (60, 40)], (62, 45, 64, 46), (8, 0, 116, 90)),
        ([(100, 80)], (20, 70, 24, 74), (0, 0, 120, 90)),
    ],
)
def test_a_window_leaves_room_about_the_straight_way(
    library: Library,
    sources: list[tuple[int, int]],
    target: tuple[int, int, int, int],
    window: tuple[int, int, int, int],
) -> None:
    """By hand: from the source nearest along rows and columns, 50 cells and 0.4 of that distance
    about both, cut off at the board. First case: 30 + 10 away, 66 about 10..42 and 10..22; second:
    (60, 40) is 2 + 5 away, 52 about 60..64 and 40..46.
    """
    router = Router(given(library, pad("A", Round(*nm(3, 3, 0.6)))))
    nodes = np.array([y * router.grid.columns + x for x, y in sources], dtype=np.int32)
    found = router.window(nodes, np.array(target, dtype=np.int32), 1.0)
    room = {0: 66, 1: 52, 2: 80}[[(104), (116), (120)].index(window[2])]
    nearest = sources[-1]
    wanted = (
        max(0, min(nearest[0], target[0]) - room),
        max(0, min(nearest[1], target[1]) - room),
        min(120, max(nearest[0], target[2]) + room),
        min(90, max(nearest[1], target[3]) + room),
    )
    assert tuple(found.tolist()) == wanted
    wide = router.window(nodes, np.array(target, dtype=np.int32), 2.0)
    assert (wide[2] - wide[0]) >= (found[2] - found[0])


def test_negotiation_ends_with_nothing_shared(library: Library) -> None:
    """Three nets that cross in the middle of a board: each alone would take the straight way; after
    negotiation none shares a place, and each is whole.
    """
    ends = {"A": ((2, 4.5), (10, 4.5)), "B": ((6, 2), (6, 7)), "C": ((3, 2.5), (9, 6.5))}
    pads = tuple(pad(net, Round(*nm(x, y, 0.8))) for net, spots in ends.items() for x, y in spots)
    router = Router(given(library, *pads))
    for net in router.nets:
        router.route_net(net, Terms(0.0, False, 160.0))
        router.put(net)
    assert any(router.contested(net) for net in router.nets)
    rounds: list[int] = []

    def seen(progress: object) -> bool:
        rounds.append(progress.contested)  # type: ignore[attr-defined]
        return True

    for net in router.nets:
        router.take(net)
    negotiate(router, router.nets, PRESSURE_START, seen)
    assert rounds[:3] == [3, 3, 3]
    assert rounds[-1] < 3 or len(rounds) > 3
    for net in router.nets:
        assert router.contested(net) == 0
        assert net.missing == []
        (path,) = net.paths
        tips = {int(path[0]), int(path[-1])}
        assert all(tips & set(nodes.tolist()) for nodes in net.terminals)


@pytest.mark.parametrize(
    ("terms", "rows", "through"),
    [(STRICT, 38, False), (STRICT, 42, True), (POLISHED, 58, False), (POLISHED, 62, True)],
)
def test_what_a_via_costs(library: Library, terms: Terms, rows: int, through: bool) -> None:
    """Two pads with a wall between that is passed so many rows of 0.1 mm beside the straight way:
    0.8 of a cell more for each row, up and down again. Two vias cost 32 cells, and 48 when ways are
    polished; two bends 0.6.
    """
    half = rows * 0.1 - 0.05 - 0.361  # half a track, the gap and the grid's margin
    asked = given(
        library,
        pad("A", Round(*nm(4, 9, 0.8))),
        pad("A", Round(*nm(20, 9, 0.8))),
        pad("", Box(*nm(12, 9, 0.4, 2 * half))),
    )
    area = box(0, 0, 24 * MM, 18 * MM)
    router = Router(replace(asked, outline=area, area=area))
    (net,) = router.nets
    router.route_net(net, terms)
    assert net.missing == []
    assert len(net.vias) == (2 if through else 0)


def test_what_still_shares_a_place_is_routed_strictly(library: Library) -> None:
    """A in the way of B, each as if alone: after settling both are whole and share nothing."""
    ends = {"A": ((2, 4.5), (10, 4.5)), "B": ((6, 2), (6, 7))}
    pads = tuple(pad(net, Round(*nm(x, y, 0.8))) for net, spots in ends.items() for x, y in spots)
    router = Router(given(library, *pads))
    for net in router.nets:
        router.route_net(net, Terms(0.0, False, 160.0))
        router.put(net)
    assert all(router.contested(net) for net in router.nets)
    settle_rest(router)
    assert [(router.contested(net), net.missing) for net in router.nets] == [(0, []), (0, [])]


def test_a_net_that_finds_no_way_while_it_is_polished_keeps_the_one_it_had(
    library: Library,
) -> None:
    """And one that finds a way takes it, though it is another one."""
    pads = [pad(net, Round(*nm(x, y, 0.8))) for net, y in (("A", 3), ("B", 6)) for x in (3, 9)]
    router = Router(given(library, *pads))
    for net in router.nets:
        router.route_net(net, Terms(0.0, False, 160.0))
        router.put(net)
    before = {net.name: (net.paths, net.nodes.tolist()) for net in router.nets}

    def lost(net: NetState, terms: Terms) -> None:
        kept = before[net.name][0]
        net.missing = ["somewhere"] if net.name == "A" else []
        net.paths = [] if net.name == "A" else [kept[0][::-1]]

    router.route_net = lost  # type: ignore[method-assign, assignment]
    polish(router, lambda _: True)
    first, second = router.nets
    assert (first.paths, first.nodes.tolist(), first.missing) == (*before["A"], [])
    assert second.paths[0].tolist() == before["B"][0][0][::-1].tolist()


def test_a_way_is_looked_for_near_by_first_and_then_everywhere(library: Library) -> None:
    """From the tree to the terminal within the window about both; where that finds nothing, to the
    same one over the whole board; the goals are taken back.
    """
    router = Router(given(library, *(pad("A", Round(*nm(x, 4.5, 0.8))) for x in (2, 5))))
    (net,) = router.nets
    tree, target = net.terminals
    asked: list[tuple[object, ...]] = []

    def nothing(
        net: NetState,
        sources: np.ndarray,
        goal: np.ndarray,
        box: np.ndarray,
        windows: tuple[np.ndarray, ...],
        terms: Terms,
    ) -> None:  # type: ignore[type-arg]
        goals = sorted(set(np.nonzero(goal)[0].tolist()))
        asked.append((sources.tolist(), goals, box.tolist(), [w.tolist() for w in windows]))

    router.search = nothing  # type: ignore[method-assign, assignment]
    assert router.find(net, [tree], 1, [1], Terms(0.0, True, 160.0)) == (None, 1)
    near = router.window(tree, router.bounds(target), 1.0).tolist()
    wanted = (tree.tolist(), sorted(target.tolist()), router.bounds(target).tolist())
    assert asked == [(*wanted, [near]), (*wanted, [router.whole.tolist()])]
    assert near != router.whole.tolist()
    assert not router.goal.any()


def test_a_pair_runs_together(library: Library) -> None:
    """Two nets of a pair stay within the corridor, half a millimetre and the room about it; the
    same pads with other names need not.
    """
    pair, router = between(library, "USB_PLUS", "USB_MINUS")
    others, _ = between(library, "LAMP", "KEY")
    assert pair <= others
    assert pair < 8
    plus, minus = router.nets[1], router.nets[0]
    assert (plus.name, minus.name) == ("USB_PLUS", "USB_MINUS")
    assert mate_of(router, plus) is minus
    assert mate_of(router, minus) is plus
    assert not any(router.contested(net) for net in router.nets)


def test_only_a_pair_is_drawn_together_and_nothing_of_it_stays(library: Library) -> None:
    """The places beside the mate cost nothing more, all others 6, while it lasts; a net without a
    mate sees no change.
    """
    _, router = between(library, "USB_PLUS", "USB_MINUS")
    grid, plus = router.grid, router.nets[1]
    before = grid.history.copy()
    minus = router.nets[0]
    with drawn_to_its_mate(router, plus):
        more = grid.history - before
        assert set(np.unique(more).tolist()) == {0.0, 6.0}
        assert (more[minus.nodes] == 0).all()
        near = int(minus.nodes[len(minus.nodes) // 2])
        # half of both widths and the gap are 3 cells (0.35 mm), and 3 of room
        assert more[near + 6] == 0
        assert (grid.history == before).mean() < 0.2
    assert (grid.history == before).all()
    _, plain = between(library, "LAMP", "KEY")
    kept = plain.grid.history.copy()
    with drawn_to_its_mate(plain, plain.nets[0]):
        assert (plain.grid.history == kept).all()
    assert mate_of(plain, plain.nets[0]) is None
