"""Letters of strokes."""

from functools import cache

from HersheyFonts import HersheyFonts
from shapely.geometry import LineString

CAPITAL_UNITS = 21.0


@cache
def font() -> HersheyFonts:
    """The stroke font (public domain)."""
    loaded = HersheyFonts()
    loaded.load_default_font("futural")
    return loaded


def text_lines(text: str, height_nm: int) -> list[list[tuple[float, float]]]:
    """Strokes of a text of that capital height, its middle at the origin; x right, y up, in nm."""
    scale = height_nm / CAPITAL_UNITS
    lines = [[(x * scale, y * scale) for x, y in line] for line in font().strokes_for_text(text)]
    xs = [x for line in lines for x, _ in line] or [0.0]
    ys = [y for line in lines for _, y in line] or [0.0]
    middle_x, middle_y = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2
    return [[(x - middle_x, middle_y - y) for x, y in line] for line in lines]


def placed(
    line: list[tuple[float, float]], x: float, y: float, far: bool, upright: bool
) -> LineString:
    """A stroke about a place; `upright` turns it so that it reads from the right."""
    points = []
    for px, py in line:
        if upright:
            px, py = -py, px
        points.append((round(x + (-px if far else px)), round(y + py)))
    return LineString(points if len(points) > 1 else [points[0], (points[0][0] + 1, points[0][1])])
