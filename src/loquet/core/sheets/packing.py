"""Rectangles put on a sheet one after the other, each as high up as it goes, then as far left."""

from collections.abc import Sequence

Place = tuple[float, float]


def pack(sizes: Sequence[tuple[float, float]], width: float, height: float) -> list[Place | None]:
    """The upper left corner of every rectangle, or None where there is no room left; `sizes` are
    widths and heights.

    The line below what is placed already is kept as steps (x, y) from left to right; a rectangle
    goes where its top comes highest.
    """
    line: list[tuple[float, float]] = [(0.0, 0.0)]
    places: list[Place | None] = []
    for wide, tall in sizes:
        best: Place | None = None
        for x, _ in line:
            if x + wide > width + 1e-6:
                continue
            y = lowest(line, x, x + wide)
            if y + tall <= height + 1e-6 and (best is None or y < best[1] - 1e-9):
                best = (x, y)
        places.append(best)
        if best is not None:
            line = raised(line, best[0], best[0] + wide, best[1] + tall)
    return places


def lowest(line: Sequence[tuple[float, float]], start: float, end: float) -> float:
    """How far down what is placed reaches between two x."""
    ends = [x for x, _ in line[1:]] + [float("inf")]
    return max(y for (x, y), stop in zip(line, ends, strict=True) if x < end and stop > start)


def raised(
    line: Sequence[tuple[float, float]], start: float, end: float, y: float
) -> list[tuple[float, float]]:
    """The line after a rectangle was placed."""
    behind = [step for x, step in line if x <= end][-1]
    kept = [step for step in line if step[0] < start] + [(start, y)]
    after = [step for step in line if step[0] > end]
    return kept + [(end, behind)] + [step for step in after if step[0] != end]
