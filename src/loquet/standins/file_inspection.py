"""What a simulated board house reads in the files it is sent, knowing nothing of the design, and
what it complains of.
"""

from collections.abc import Iterable
from dataclasses import dataclass

from loquet.core.geometry import Bar, Box, Round
from loquet.core.ordering.house import House
from loquet.core.proof.drill_reader import ReadHole, read_drill
from loquet.core.proof.gerber_reader import FileFault, ReadLayer, read_gerber
from loquet.core.proof.table_reader import read_csv
from loquet.core.quantities.lengths import MM, UM

LAYERS = (
    "copper-near.gbr",
    "copper-far.gbr",
    "mask-near.gbr",
    "mask-far.gbr",
    "legend-near.gbr",
    "legend-far.gbr",
    "profile.gbr",
)
DRILLS = ("holes-plated.drl", "holes-unplated.drl")
PASTES = ("paste-near.gbr", "paste-far.gbr")
LEAST_ASPECT, LEAST_AREA_RATIO = 1.5, 0.66


@dataclass(frozen=True)
class Plate:
    """What is made in one piece: its size in mm, copper layers, how many copies of the board are on
    it, and how they are parted (empty for a single board).
    """

    width_mm: float
    height_mm: float
    copper_layers: int = 2
    copies: int = 1
    parting: str = ""

    @property
    def area_mm2(self) -> float:
        """The area of the rectangle about it."""
        return self.width_mm * self.height_mm

    def needed(self, boards: int) -> int:
        """How many have to be made for so many boards."""
        return -(-boards // self.copies)


@dataclass(frozen=True)
class Inspection:
    """What the house finds in the files: every plate of a device, narrowest stroke and smallest
    hole in mm, the number of holes, complaints about the boards, complaints about a stencil cut
    from them.
    """

    plates: tuple[Plate, ...]
    narrowest_mm: float
    smallest_hole_mm: float
    holes: int
    complaints: tuple[str, ...]
    stencil: tuple[str, ...] = ()


@dataclass(frozen=True)
class Seen:
    """One board of the package as it was read; places in nm."""

    plate: Plate
    strokes: tuple[int, ...]
    holes: tuple[ReadHole, ...]
    complaints: tuple[str, ...]
    stencil: tuple[str, ...]


def inspect(files: dict[str, bytes], house: House) -> Inspection:
    """Read the files as they came; each folder with a `fabrication` in it is a board, made on a
    panel where it has one.
    """
    folders = sorted(
        {path.rpartition("fabrication/")[0] for path in files if "fabrication/" in path}
    )
    seen = [inspect_board(files, folder, house) for folder in folders or [""]]
    strokes = [width for one in seen for width in one.strokes]
    holes = [hole.d for one in seen for hole in one.holes]
    return Inspection(
        tuple(one.plate for one in seen),
        min(strokes, default=0) / MM,
        min(holes, default=0) / MM,
        len(holes),
        tuple(complaint for one in seen for complaint in one.complaints),
        tuple(complaint for one in seen for complaint in one.stencil),
    )


def inspect_board(files: dict[str, bytes], folder: str, house: House) -> Seen:
    """One board of the package, or the panel that it is made on."""
    on_panel = any(path.startswith(f"{folder}panel/") for path in files)
    before = f"{folder}panel/" if on_panel else f"{folder}fabrication/"
    inner = sorted(
        path.removeprefix(before) for path in files if path.startswith(f"{before}copper-inner")
    )
    complaints: list[str] = []
    layers: dict[str, ReadLayer] = {}
    holes: list[ReadHole] = []
    for name in (*LAYERS, *inner, *DRILLS, *(p for p in PASTES if f"{before}{p}" in files)):
        try:
            if name in DRILLS:
                holes += read_drill(files[f"{before}{name}"], name)
            else:
                layers[name] = read_gerber(files[f"{before}{name}"], name)
        except KeyError:
            complaints.append(f"{folder}{name} is missing.")
        except FileFault as problem:
            complaints.append(f"{folder}{problem}.")
    width, height = profile_size(layers.get("profile.gbr"))
    strokes = tuple(bar.w for name in LAYERS[:2] if name in layers for bar in bars_of(layers[name]))
    smallest = min((h.d for h in holes), default=0)
    complaints += limits(house, width, height, min(strokes, default=0), smallest)
    if (count := 2 + len(inner)) not in house.copper_layers:
        complaints.append(f"Boards of {count} layers are not made here.")
    plate = Plate(width / MM, height / MM, count)
    if on_panel:
        parting = "score" if f"{before}score.gbr" in files else "tabs"
        plate = Plate(width / MM, height / MM, count, copies_in(files, before), parting)
        if parting not in house.panel_cents:
            complaints.append(f"Panels parted by {parting} are not made here.")
    cut = [layers[name] for name in PASTES if name in layers]
    return Seen(plate, strokes, tuple(holes), tuple(complaints), stencil_limits(house, cut))


def copies_in(files: dict[str, bytes], before: str) -> int:
    """How many copies a panel's own list names; one where it cannot be read."""
    try:
        return max(1, len(read_csv(files[f"{before}copies.csv"], "copies.csv")))
    except (KeyError, FileFault):
        return 1


def stencil_limits(house: House, layers: Iterable[ReadLayer]) -> tuple[str, ...]:
    """What keeps paste in the stencil of this house: an opening too narrow for its sheet (aspect
    ratio under 1.5), or with too much wall for its area (area ratio under 0.66), by IPC-7525.
    """
    thick = house.stencil_um * UM
    shapes = [item.shape for layer in layers for item in layer.objects]
    sizes = [sides_of(shape) for shape in shapes]
    if not thick or not sizes:
        return ()
    aspect = min(narrow / thick for narrow, _ in sizes)
    area = min(narrow * wide / (2 * thick * (narrow + wide)) for narrow, wide in sizes)
    found = []
    if aspect < LEAST_ASPECT:
        found.append(
            f"An opening of the stencil is {min(n for n, _ in sizes) / MM:.2f} mm narrow; a sheet"
            f" of {house.stencil_um / 1000:.2f} mm asks {LEAST_ASPECT * thick / MM:.2f} mm."
        )
    if area < LEAST_AREA_RATIO:
        found.append(
            f"An opening of the stencil has an area ratio of {area:.2f} in a sheet of"
            f" {house.stencil_um / 1000:.2f} mm; {LEAST_AREA_RATIO} is the least."
        )
    return tuple(found)


def sides_of(shape: Bar | Box | Round) -> tuple[int, int]:
    """The narrow and the wide side of an opening, in nm."""
    match shape:
        case Round():
            return shape.d, shape.d
        case Box():
            return min(shape.w, shape.h), max(shape.w, shape.h)
        case Bar():
            length = abs(shape.x2 - shape.x1) + abs(shape.y2 - shape.y1)
            return shape.w, shape.w + length


def bars_of(layer: ReadLayer) -> list[Bar]:
    """The strokes of a layer."""
    return [item.shape for item in layer.objects if isinstance(item.shape, Bar)]


def profile_size(profile: ReadLayer | None) -> tuple[int, int]:
    """Width and height of the outline in nm."""
    if profile is None:
        return 0, 0
    xs = [x for bar in bars_of(profile) for x in (bar.x1, bar.x2)] + [
        x for a in profile.arcs for x in (a.x1, a.x2)
    ]
    ys = [y for bar in bars_of(profile) for y in (bar.y1, bar.y2)] + [
        y for a in profile.arcs for y in (a.y1, a.y2)
    ]
    return (max(xs) - min(xs), max(ys) - min(ys)) if xs else (0, 0)


def limits(house: House, width: int, height: int, narrowest: int, smallest: int) -> list[str]:
    """Complaints where the files ask more than the house can do."""
    found = []
    size, most, least = (
        sorted((width / 1e6, height / 1e6)),
        sorted(house.largest_mm),
        sorted(house.smallest_mm),
    )
    if not width or not height:
        found.append("The outline is not closed or missing.")
    elif size[0] > most[0] or size[1] > most[1] or size[0] < least[0] or size[1] < least[1]:
        found.append(f"A board of {size[1]:.2f} x {size[0]:.2f} mm cannot be made here.")
    if narrowest and narrowest < house.track_um * 1000:
        found.append(
            f"Tracks of {narrowest / 1e6:.2f} mm are too narrow; the limit is"
            f" {house.track_um / 1000:.2f} mm."
        )
    if smallest and smallest < house.hole_um * 1000:
        found.append(
            f"Holes of {smallest / 1e6:.2f} mm are too small; the limit is"
            f" {house.hole_um / 1000:.2f} mm."
        )
    return found
