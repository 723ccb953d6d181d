"""Ghosting against a plain graph search (networkx), the proof for chords, and the least cures
against trying everything.
"""

import itertools
import random

import networkx
import pytest

from loquet.core.brief import Chords
from loquet.core.pins.chords import together_of
from loquet.core.pins.ghosting import (
    Together,
    chain_ghosts,
    ghosts,
    least_diodes,
    least_direct,
    read_as_pressed,
    rollover,
    up_to,
)
from loquet.core.pins.wiring import KeyWiring, lines_for, shape_of, wire
from loquet.demo.scenario import demo_brief

MATRICES, A_BATCH = 1000, 100


def random_matrix(chance: random.Random, rows: int, columns: int) -> KeyWiring:
    places = [(r, c) for r in range(rows) for c in range(columns)]
    chance.shuffle(places)
    keys = [
        (f"k{i}", r, c) for i, (r, c) in enumerate(places[: chance.randrange(2, len(places) + 1)])
    ]
    share = chance.choice([0.0, 0.3, 0.7, 1.0])
    return KeyWiring(
        "bare matrix",
        rows,
        columns,
        tuple(keys),
        tuple(k for k, _, _ in keys if chance.random() < share),
    )


def by_graph_search(wiring: KeyWiring, pressed: tuple[str, ...]) -> frozenset[str]:
    """Lines as nodes, pressed keys as edges from column to row, and back where there is no diode; a
    key reads as pressed where a way exists.
    """
    graph = networkx.DiGraph()
    for key, row, column in wiring.cells:
        graph.add_nodes_from([("r", row), ("c", column)])
        if key in pressed:
            graph.add_edge(("c", column), ("r", row))
            if key not in wiring.diodes:
                graph.add_edge(("r", row), ("c", column))
    return frozenset(k for k, r, c in wiring.cells if networkx.has_path(graph, ("c", c), ("r", r)))


@pytest.mark.parametrize("batch", range(MATRICES // A_BATCH))
def test_every_combination_of_up_to_three_keys_agrees_with_a_graph_search(batch: int) -> None:
    for seed in range(batch * A_BATCH, (batch + 1) * A_BATCH):
        chance = random.Random(seed)
        wiring = random_matrix(chance, chance.randrange(2, 4), chance.randrange(2, 4))
        keys = [k for k, _, _ in wiring.cells]
        ghosted: set[frozenset[str]] = set()
        for size in (1, 2, 3):
            for pressed in itertools.combinations(keys, size):
                read = read_as_pressed(wiring, pressed)
                assert read == by_graph_search(wiring, pressed), (seed, pressed)
                if read != set(pressed):
                    ghosted.add(frozenset(pressed))
        ways = {frozenset(g.path) for g in ghosts(wiring, up_to(3))}
        assert ways == ghosted, seed


def test_long_ways_are_found_where_short_ones_have_no_key() -> None:
    """Five keys along a staircase without the corners: no rectangle, yet a ghost at the far end."""
    cells = (("a", 0, 0), ("b", 0, 1), ("c", 1, 1), ("d", 1, 2), ("e", 2, 2), ("ghost", 2, 0))
    wiring = KeyWiring("bare matrix", 3, 3, cells)
    assert ghosts(wiring, up_to(3)) == []
    assert {(g.key, len(g.path)) for g in ghosts(wiring, up_to(5))} >= {("ghost", 5)}
    assert read_as_pressed(wiring, "abcde") == frozenset(("a", "b", "c", "d", "e", "ghost"))
    assert rollover(wiring) == 4


def cured(wiring: KeyWiring, together: Together) -> bool:
    return not ghosts(wiring, together)


@pytest.mark.parametrize("seed", range(40))
def test_the_least_cures_are_the_least(seed: int) -> None:
    chance = random.Random(seed)
    wiring = random_matrix(chance, 3, 3)
    together = up_to(3)
    keys = [k for k, _, _ in wiring.cells]
    diodes, direct = least_diodes(wiring, together), least_direct(wiring, together)

    def with_diodes(more: tuple[str, ...]) -> KeyWiring:
        return KeyWiring(wiring.scheme, 3, 3, wiring.cells, (*wiring.diodes, *more))

    def without_keys(gone: tuple[str, ...]) -> KeyWiring:
        return KeyWiring(
            wiring.scheme, 3, 3, tuple(c for c in wiring.cells if c[0] not in gone), wiring.diodes
        )

    assert cured(with_diodes(diodes), together)
    assert cured(without_keys(direct), together)
    if diodes:
        assert not any(
            cured(with_diodes(some), together)
            for some in itertools.combinations(keys, len(diodes) - 1)
        )
    if direct:
        assert not any(
            cured(without_keys(some), together)
            for some in itertools.combinations(keys, len(direct) - 1)
        )


def test_three_corners_of_a_rectangle_close_the_fourth() -> None:
    """The textbook case (common practice): without diodes the fourth key appears, with them it does
    not.
    """
    cells = (("a", 0, 0), ("b", 0, 1), ("c", 1, 1), ("d", 1, 0))
    bare = KeyWiring("bare matrix", 2, 2, cells)
    assert read_as_pressed(bare, "abc") == frozenset("abcd")
    assert read_as_pressed(
        KeyWiring("diode matrix", 2, 2, cells, tuple("abcd")), "abc"
    ) == frozenset("abc")
    assert rollover(bare) == 2


def test_chained_keys_of_a_charlieplexed_matrix_cannot_be_trusted() -> None:
    wiring = KeyWiring(
        "charlieplexed", 3, 3, (("ab", 0, 1), ("bc", 1, 2), ("ac", 0, 2)), ("ab", "bc", "ac")
    )
    assert [(g.key, g.path) for g in chain_ghosts(wiring, up_to(2))] == [("ac", ("ab", "bc"))]
    assert rollover(wiring) == 1


@pytest.mark.parametrize(
    ("count", "lines"), [(2, 2), (3, 3), (6, 3), (7, 4), (12, 4), (13, 5), (20, 5)]
)
def test_charlieplexing_reads_n_times_n_minus_one(count: int, lines: int) -> None:
    """n(n - 1) keys on n lines (common practice)."""
    assert lines_for(count) == lines


@pytest.mark.parametrize(
    ("count", "shape"), [(16, (4, 4)), (12, (3, 4)), (20, (4, 5)), (2, (1, 2)), (9, (3, 3))]
)
def test_a_matrix_of_n_lines_reads_floor_times_ceiling(count: int, shape: tuple[int, int]) -> None:
    """floor(n/2) x ceil(n/2); 8 lines read 16 keys (common practice)."""
    rows, columns = shape_of(count, "best")
    assert (min(rows, columns), max(rows, columns)) == shape


@pytest.mark.parametrize("shape", ["best", "few rows", "left and right"])
def test_every_shape_gives_each_key_a_cell_of_its_own(shape: str) -> None:
    brief = demo_brief("log-key-pad")
    scheme = brief.key_scheme.model_copy(update={"shape": shape})
    brief = brief.model_copy(update={"key_scheme": scheme})
    wiring = wire(brief, "diode matrix")
    places = {(r, c) for _, r, c in wiring.cells}
    assert len(places) == len(wiring.cells) == 20
    assert all(0 <= r < wiring.rows and 0 <= c < wiring.columns for r, c in places)


@pytest.mark.parametrize(
    ("rule", "held", "allowed"),
    [
        ("two thumbs", ("pad:left pad:up", "pad:left pad:right"), True),
        ("two thumbs", ("pad:left pad:up", "pad:left pad:down"), False),
        ("two thumbs", ("button:right north", "button:right south"), False),
        ("whole pad", ("button:right north", "button:right south"), True),
        ("whole pad", ("button:right north", "button:right south", "button:right west"), False),
        (
            "two thumbs",
            (
                "pad:left pad:up",
                "button:right north",
                "button:left shoulder",
                "button:right shoulder",
            ),
            True,
        ),
        (
            "typing",
            (
                "button:menu",
                "button:mark",
                "button:right north",
                "button:right south",
                "pad:left pad:up",
                "pad:left pad:down",
            ),
            True,
        ),
        ("own", ("button:menu", "button:mark"), True),
        ("own", ("button:menu", "button:right north"), False),
    ],
)
def test_chord_rules(rule: str, held: tuple[str, ...], allowed: bool) -> None:
    groups = (("button:menu", "button:mark"),) if rule == "own" else ()
    brief = demo_brief("ridge-handset").model_copy(
        update={"chords": Chords(rule=rule, groups=groups)}
    )  # type: ignore[arg-type]
    assert together_of(brief)(frozenset(held)) is allowed


def test_a_ghost_over_nine_keys_is_found() -> None:
    """A ring of ten keys in a matrix of five by five: nine of them held make the tenth appear, and
    no fewer do.
    """
    ring = [(i, i) for i in range(5)] + [((i + 1) % 5, i) for i in range(5)]
    cells = tuple((f"k{n}", r, c) for n, (r, c) in enumerate(ring))
    wiring = KeyWiring("bare matrix", 5, 5, cells)
    assert rollover(wiring) == 8
    assert ghosts(wiring, up_to(8)) == []
    assert {len(g.path) for g in ghosts(wiring, up_to(9))} == {9}


def test_pins_of_their_own_leave_no_ghost() -> None:
    """After the cure nothing is read wrongly, by an independent search over all that may be
    held.
    """
    for seed in range(150):
        chance = random.Random(seed)
        wiring = random_matrix(chance, 3, 3)
        cut = least_direct(wiring, up_to(5))
        rest = KeyWiring(
            "bare matrix", 3, 3, tuple(c for c in wiring.cells if c[0] not in cut), wiring.diodes
        )
        left = [k for k, _, _ in rest.cells]
        for size in range(1, min(5, len(left)) + 1):
            for pressed in itertools.combinations(left, size):
                assert by_graph_search(rest, pressed) == frozenset(pressed), (seed, pressed)
