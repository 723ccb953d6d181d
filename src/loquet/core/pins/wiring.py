"""How the keys are wired: which line of a matrix each one joins, or which pin, input or resistor it
has to itself.
"""

from dataclasses import dataclass, replace
from math import ceil, isqrt

from loquet.core.brief import Brief, Key, SchemeName, keys_of


@dataclass(frozen=True)
class KeyWiring:
    """The wiring of a scheme.

    `cells` maps a key to its (row, column); in a charlieplexed matrix both are lines of the same
    set. `diodes` are the keys with a diode in series. `direct` keys have a pin each. `listed` keys
    follow one another on an expander, shift register or ladder.
    """

    scheme: SchemeName
    rows: int = 0
    columns: int = 0
    cells: tuple[tuple[str, int, int], ...] = ()
    diodes: tuple[str, ...] = ()
    direct: tuple[str, ...] = ()
    listed: tuple[str, ...] = ()

    def cell(self, key: str) -> tuple[int, int] | None:
        """Row and column of a key, or None."""
        return next(((row, column) for name, row, column in self.cells if name == key), None)


def wiring_of(brief: Brief) -> KeyWiring:
    """The wiring of the brief's own scheme."""
    return wire(brief, brief.key_scheme.name)


def wire(brief: Brief, scheme: SchemeName) -> KeyWiring:
    """The wiring of any scheme for this brief; a power button always has a pin of its own, since it
    wakes the chip.
    """
    keys = keys_of(brief)
    own = tuple(key.id for key in keys if key.duty == "power")
    scanned = tuple(key for key in keys if key.duty != "power")
    match scheme:
        case "one pin each":
            return KeyWiring(scheme, direct=tuple(key.id for key in keys))
        case "diode matrix":
            return matrix(
                scheme, scanned, brief.key_scheme.shape, tuple(k.id for k in scanned), own
            )
        case "bare matrix":
            kept = tuple(k for k in brief.key_scheme.diodes if brief.key_scheme.name == scheme)
            singles = tuple(
                k.id
                for k in scanned
                if k.id in brief.key_scheme.direct and brief.key_scheme.name == scheme
            )
            whole = matrix(
                scheme,
                scanned,
                brief.key_scheme.shape,
                tuple(k for k in kept if k not in singles),
                (*own, *singles),
            )
            return closed_up(whole, tuple(cell for cell in whole.cells if cell[0] not in singles))
        case "mixed":
            singles = direct_of_mixed(brief, scanned)
            rest = tuple(k for k in scanned if k.id not in singles)
            return matrix(
                scheme, rest, brief.key_scheme.shape, tuple(k.id for k in rest), (*own, *singles)
            )
        case "charlieplexed":
            return charlieplexed(scanned, own)
        case "expander 8" | "expander 16" | "shift register" | "resistor ladder":
            return KeyWiring(scheme, direct=own, listed=tuple(k.id for k in scanned))


def closed_up(wiring: KeyWiring, cells: tuple[tuple[str, int, int], ...]) -> KeyWiring:
    """The wiring with fewer keys: the others keep their neighbours, so what was proven of them
    still holds; empty lines go.
    """
    rows, columns = sorted({r for _, r, _ in cells}), sorted({c for _, _, c in cells})
    moved = tuple((key, rows.index(r), columns.index(c)) for key, r, c in cells)
    return replace(wiring, rows=len(rows), columns=len(columns), cells=moved)


def direct_of_mixed(brief: Brief, scanned: tuple[Key, ...]) -> tuple[str, ...]:
    """Keys with a pin of their own in a mixed scheme: as chosen, else hot keys and what the fingers
    hold.
    """
    if brief.key_scheme.name == "mixed" and brief.key_scheme.direct:
        return tuple(k.id for k in scanned if k.id in brief.key_scheme.direct)
    return tuple(k.id for k in scanned if k.duty == "hot key" or k.digit.endswith("finger"))


def matrix(
    scheme: SchemeName,
    keys: tuple[Key, ...],
    shape: str,
    diodes: tuple[str, ...],
    direct: tuple[str, ...],
) -> KeyWiring:
    """A matrix of the wanted shape; keys keep their neighbours, so that rows and columns stay
    short.
    """
    if not keys:
        return KeyWiring(scheme, direct=direct)
    if shape == "left and right":
        return two_halves(scheme, keys, diodes, direct)
    rows, columns = shape_of(len(keys), shape)
    return KeyWiring(scheme, rows, columns, laid_out(keys, rows, columns), diodes, direct)


def shape_of(count: int, shape: str) -> tuple[int, int]:
    """Rows and columns: `best` has the fewest lines, the squarest of those; `few rows` halves the
    scan time for a few more lines.
    """
    if shape == "few rows":
        rows = max(1, isqrt(count) // 2)
        return rows, ceil(count / rows)
    rows = max(1, isqrt(count))
    best = min(
        range(1, count + 1),
        key=lambda r: (r + ceil(count / r), abs(r - ceil(count / r)), r > rows, r),
    )
    return best, ceil(count / best)


def laid_out(keys: tuple[Key, ...], rows: int, columns: int) -> tuple[tuple[str, int, int], ...]:
    """Keys from top to bottom into rows, each row from left to right into columns."""
    falling = sorted(keys, key=lambda k: (-k.y, k.x, k.id))
    cells = {}
    for row in range(rows):
        members = sorted(
            falling[row * columns : (row + 1) * columns], key=lambda k: (k.x, -k.y, k.id)
        )
        for column, key in enumerate(members):
            cells[key.id] = (row, column)
    return tuple((key.id, *cells[key.id]) for key in keys)


def two_halves(
    scheme: SchemeName, keys: tuple[Key, ...], diodes: tuple[str, ...], direct: tuple[str, ...]
) -> KeyWiring:
    """Rows of the left and of the right hand apart, columns shared; few wires cross the middle."""
    left = tuple(k for k in keys if k.digit.startswith("left"))
    right = tuple(k for k in keys if not k.digit.startswith("left"))
    bigger = max(len(left), len(right), 1)
    _, columns = shape_of(bigger, "best")
    cells: tuple[tuple[str, int, int], ...] = ()
    rows = 0
    for half in (left, right):
        own = ceil(len(half) / columns) if half else 0
        cells += tuple(
            (key, row + rows, column) for key, row, column in laid_out(half, own, columns)
        )
        rows += own
    order = {key.id: index for index, key in enumerate(keys)}
    return KeyWiring(
        scheme, rows, columns, tuple(sorted(cells, key=lambda cell: order[cell[0]])), diodes, direct
    )


def charlieplexed(keys: tuple[Key, ...], direct: tuple[str, ...]) -> KeyWiring:
    """Each ordered pair of n lines is a key: n(n - 1) keys, every one with its diode."""
    lines = lines_for(len(keys))
    pairs = [(a, b) for a in range(lines) for b in range(lines) if a != b]
    cells = tuple((key.id, *pair) for key, pair in zip(keys, pairs, strict=False))
    return KeyWiring("charlieplexed", lines, lines, cells, tuple(k.id for k in keys), direct)


def lines_for(count: int) -> int:
    """The fewest lines n with n(n - 1) >= count."""
    lines = 2
    while lines * (lines - 1) < count:
        lines += 1
    return lines
