"""An area for a screen: strokes of one net or one part gathered to paths, words, and the room in
which a part can be pressed.
"""

from loquet.core.plain.frozen import Frozen
from loquet.core.sheets.drawn import Anchor, Area, Mark

MARGIN_MM = 0.6


class Path(Frozen):
    """All strokes of one net or part and one look, in the letters of SVG's `d` (M and L, mm)."""

    net: str
    ref: str
    bold: bool
    filled: bool
    d: str


class Words(Frozen):
    """Words on a point in mm."""

    x: float
    y: float
    text: str
    size: float
    anchor: Anchor
    bold: bool
    quiet: bool
    net: str
    ref: str


class Spot(Frozen):
    """Where a part can be pressed: the room of its own strokes, in mm."""

    ref: str
    x: float
    y: float
    w: float
    h: float


class Gathered(Frozen):
    """What a screen draws of an area."""

    paths: tuple[Path, ...]
    words: tuple[Words, ...]
    spots: tuple[Spot, ...]


def gathered(area: Area) -> Gathered:
    """An area with its marks gathered; words stay in their order."""
    strokes = [mark for mark in area.marks if not mark.text]
    return Gathered(
        paths=paths_of(strokes),
        words=tuple(words_of(mark) for mark in area.marks if mark.text),
        spots=spots_of(strokes),
    )


def paths_of(strokes: list[Mark]) -> tuple[Path, ...]:
    """One path for all strokes that look and light alike."""
    found: dict[tuple[str, str, bool, bool], list[str]] = {}
    for mark in strokes:
        key = (mark.net, mark.ref, mark.bold, mark.filled)
        ends = " ".join(f"{x:g} {y:g}" for x, y in mark.points)
        found.setdefault(key, []).append(f"M{ends}")
    return tuple(
        Path(net=net, ref=ref, bold=bold, filled=filled, d="".join(pieces))
        for (net, ref, bold, filled), pieces in found.items()
    )


def words_of(mark: Mark) -> Words:
    """A mark of words."""
    x, y = mark.points[0]
    return Words(
        x=x,
        y=y,
        text=mark.text,
        size=mark.size_mm,
        anchor=mark.anchor,
        bold=mark.bold,
        quiet=mark.quiet,
        net=mark.net,
        ref=mark.ref,
    )


def spots_of(strokes: list[Mark]) -> tuple[Spot, ...]:
    """The room of every part's own strokes, and a little more."""
    points: dict[str, list[tuple[float, float]]] = {}
    for mark in strokes:
        if mark.ref:
            points.setdefault(mark.ref, []).extend(mark.points)
    return tuple(spot_of(ref, found) for ref, found in points.items())


def spot_of(ref: str, points: list[tuple[float, float]]) -> Spot:
    """The room of some points."""
    xs, ys = [x for x, _ in points], [y for _, y in points]
    left, top = min(xs) - MARGIN_MM, min(ys) - MARGIN_MM
    wide, tall = max(xs) + MARGIN_MM - left, max(ys) + MARGIN_MM - top
    return Spot(ref=ref, x=round(left, 2), y=round(top, 2), w=round(wide, 2), h=round(tall, 2))
