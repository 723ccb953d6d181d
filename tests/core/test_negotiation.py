"""Ways found, shared and polished on boards known by hand: windows, prices of vias, pairs."""

import numpy as np

from loquet.core.geometry import Box, Round
from loquet.core.library import Library
from loquet.core.routing.negotiation import (
    polish,
    settle_rest,
)
from loquet.core.routing.pairs import drawn_to_its_mate, mate_of
from loquet.core.routing.router import NetState, Router, Terms
from tests.core.small_grids import given, nm, pad


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
