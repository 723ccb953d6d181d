"""Ghosting: which keys a scan believes to be pressed, proof for the chords that matter, and the
least cure.

A matrix is scanned by pulling one row low and reading the columns, which are held high. A pressed
key joins its row and its column; with a diode (anode at the column) current runs from column to row
only. A column reads low where some way leads from it to the driven row. A key that is not pressed
and whose column so reads low while its row is driven is a ghost.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from loquet.core.pins.wiring import KeyWiring

Together = Callable[[frozenset[str]], bool]


@dataclass(frozen=True)
class Ghost:
    """A way through pressed keys that makes `key` appear: from its column to its row."""

    key: str
    path: tuple[str, ...]


def read_as_pressed(wiring: KeyWiring, pressed: Iterable[str]) -> frozenset[str]:
    """All matrix keys that a scan reports while `pressed` are held down."""
    cells = {key: (row, column) for key, row, column in wiring.cells}
    held = [key for key in pressed if key in cells]
    seen = set()
    for key, (row, column) in cells.items():
        if column in columns_low(row, held, cells, wiring):
            seen.add(key)
    return frozenset(seen)


def columns_low(
    row: int, held: list[str], cells: dict[str, tuple[int, int]], wiring: KeyWiring
) -> set[int]:
    """Columns from which a way leads to the driven row, spread backwards from that row."""
    low_rows, low_columns = {row}, set[int]()
    changed = True
    while changed:
        changed = False
        for key in held:
            r, c = cells[key]
            if r in low_rows and c not in low_columns:
                low_columns.add(c)
                changed = True
            if c in low_columns and r not in low_rows and key not in wiring.diodes:
                low_rows.add(r)
                changed = True
    return low_columns


def ghosts(wiring: KeyWiring, together: Together) -> list[Ghost]:
    """Every shortest ghost way whose keys may be held together; none means that the chords are
    proven free of ghosts.

    Chords are closed downwards (fewer keys are always allowed), so it is enough to look at the ways
    themselves. A way visits no row and no column twice, since any longer one holds a shorter one.
    """
    cells = {key: (row, column) for key, row, column in wiring.cells}
    by_row: dict[int, list[str]] = {}
    by_column: dict[int, list[str]] = {}
    for key, (row, column) in cells.items():
        by_row.setdefault(row, []).append(key)
        by_column.setdefault(column, []).append(key)
    at = {cell: key for key, cell in cells.items()}
    found: list[Ghost] = []

    def grow(
        path: tuple[str, ...], start: int, columns: frozenset[int], rows: frozenset[int]
    ) -> None:
        row = cells[path[-1]][0]
        key = at.get((row, start))
        if len(path) >= 3 and key is not None and key not in path:
            found.append(Ghost(key, path))
            return
        for back in by_row[row]:
            column = cells[back][1]
            if (
                back in path
                or back in wiring.diodes
                or column in columns
                or not together(frozenset((*path, back)))
            ):
                continue
            for onward in by_column[column]:
                if (
                    onward in path
                    or cells[onward][0] in rows
                    or not together(frozenset((*path, back, onward)))
                ):
                    continue
                grow((*path, back, onward), start, columns | {column}, rows | {cells[onward][0]})

    for first in cells:
        row, column = cells[first]
        if together(frozenset((first,))):
            grow((first,), column, frozenset((column,)), frozenset((row,)))
    return found


def least_diodes(wiring: KeyWiring, together: Together) -> tuple[str, ...]:
    """The fewest further diodes that stop every ghost of the chords, proven by CP-SAT; each way is
    cut at a key it runs through backwards.
    """
    return least_cut(wiring, [back_keys(g) for g in ghosts(wiring, together)])


def least_direct(wiring: KeyWiring, together: Together) -> tuple[str, ...]:
    """The fewest keys that must leave the matrix for pins of their own so that no ghost is left,
    proven by CP-SAT.

    A way ends at the first key that it makes appear; where that key leaves, the way may go on to
    another one. So the ways of what is left are added, until nothing is left of them.
    """
    ways: list[tuple[str, ...]] = []
    cut: tuple[str, ...] = ()
    while found := ghosts(without(wiring, cut), together):
        ways += [(*g.path, g.key) for g in found]
        cut = least_cut(wiring, ways)
    return cut


def without(wiring: KeyWiring, keys: tuple[str, ...]) -> KeyWiring:
    """The matrix without some keys."""
    return replace(wiring, cells=tuple(cell for cell in wiring.cells if cell[0] not in keys))


def back_keys(ghost: Ghost) -> tuple[str, ...]:
    """Keys that a ghost way runs through from row to column, where a diode would stop it."""
    return ghost.path[1::2]


def least_cut(wiring: KeyWiring, ways: list[tuple[str, ...]]) -> tuple[str, ...]:
    """The smallest set of keys that meets every way; ties by the order of the keys."""
    if not ways:
        return ()
    from ortools.sat.python import cp_model  # loaded when first asked for

    model = cp_model.CpModel()
    picks = {key: model.new_bool_var(key) for key, _, _ in wiring.cells}
    for way in {frozenset(way) for way in ways}:
        model.add_at_least_one(picks[key] for key in sorted(way))
    order = {key: index for index, (key, _, _) in enumerate(wiring.cells)}
    model.minimize(sum((1000 + order[key]) * var for key, var in picks.items()))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_time_in_seconds = 10
    if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return tuple(key for key, _, _ in wiring.cells)
    return tuple(key for key, var in picks.items() if solver.boolean_value(var))


def rollover(wiring: KeyWiring) -> int:
    """The most keys k for which any k keys held together are read rightly."""
    count = len(wiring.cells)
    if wiring.scheme == "charlieplexed":
        return 1 if chain_ghosts(wiring, lambda keys: len(keys) <= 2) else count
    shortest = min(
        (steps for key, _, _ in wiring.cells if (steps := steps_to(wiring, key))), default=0
    )
    return shortest - 1 if shortest else count


def steps_to(wiring: KeyWiring, ghost: str) -> int:
    """How many other keys it takes at the least to make a key appear, line by line from its column
    to its row; 0 where none can.
    """
    cells = {key: (row, column) for key, row, column in wiring.cells}
    goal, start = cells[ghost]
    columns, rows = {start}, set[int]()
    edge, steps = {start}, 0
    while edge:
        steps += 1
        onward = {r for key, (r, c) in cells.items() if c in edge and key != ghost} - rows
        if goal in onward:
            return steps
        rows |= onward
        back = {
            c for key, (r, c) in cells.items() if r in onward and key not in wiring.diodes
        } - columns
        columns |= back
        edge, steps = back, steps + 1
    return 0


def up_to(size: int) -> Together:
    """Any keys, so many at once."""
    return lambda held: len(held) <= size


def chain_ghosts(wiring: KeyWiring, together: Together) -> list[Ghost]:
    """Ghosts of a charlieplexed matrix: two keys in a chain (a, b), (b, c) pull line c towards line
    a over two diodes, as key (a, c) would.

    Two diode drops leave the level between low and high, so the reading cannot be trusted; that
    counts as a ghost.
    """
    at = {(a, b): key for key, a, b in wiring.cells}
    return [
        Ghost(at[a, c], (first, second))
        for (a, b), first in at.items()
        for (b2, c), second in at.items()
        if b2 == b and c != a and (a, c) in at and together(frozenset((first, second)))
    ]
