"""A simulated board house: reads the package it is sent, checks it against its abilities, quotes and makes."""

from dataclasses import asdict, dataclass
from datetime import date, timedelta
from typing import Any

from loquet.core.geometry import Bar
from loquet.core.ordering.calendar import after_open_days
from loquet.core.ordering.house import House
from loquet.core.proof.drill_reader import read_drill
from loquet.core.proof.gerber_reader import FileFault, ReadLayer, read_gerber

STATES = ("received", "files checked", "in production", "on the road", "delivered")
WAITING = "waits for an answer"
PART_STATES = ("received", "packed", "on the road", "delivered")
LAYERS = (
    "copper-near.gbr",
    "copper-far.gbr",
    "mask-near.gbr",
    "mask-far.gbr",
    "legend-near.gbr",
    "legend-far.gbr",
    "profile.gbr",
)


@dataclass(frozen=True)
class Inspection:
    """What the house finds in the files: size of the largest board in mm, narrowest stroke and smallest hole in mm, complaints, the area of all boards and how many there are, and of it the area of those with inner layers."""

    width_mm: float
    height_mm: float
    narrowest_mm: float
    smallest_hole_mm: float
    holes: int
    complaints: tuple[str, ...]
    area_mm2: float
    boards: int
    inner_mm2: float = 0.0


@dataclass(frozen=True)
class Quote:
    """A price in cents with its lines, and the simulated calendar.

    `next_break` is the next quantity at which boards cost less each, with the share of the full price; `cheaper` a larger quantity that
    costs less in all, with its price. `area_mm2`, `boards` and `inner_mm2` are those of a set, as the house measured them.
    """

    house: str
    quantity: int
    lines: tuple[tuple[str, int], ...]
    total_cents: int
    each_cents: float
    ready_on: str
    arrives_on: str
    next_break: tuple[int, float] | None
    cheaper: tuple[int, int] | None
    complaints: tuple[str, ...]
    area_mm2: float
    boards: int
    inner_mm2: float

    def plain(self) -> dict[str, Any]:
        """As JSON values."""
        return asdict(self)


def inspect(files: dict[str, bytes], house: House) -> Inspection:
    """Read the files as they came, knowing nothing of the design; each folder with a `fabrication` in it is a board."""
    folders = sorted(
        {path.rpartition("fabrication/")[0] for path in files if "fabrication/" in path}
    )
    seen = [inspect_board(files, folder, house) for folder in folders or [""]]
    largest = max(seen, key=lambda one: one.area_mm2)
    return Inspection(
        largest.width_mm,
        largest.height_mm,
        min(one.narrowest_mm for one in seen),
        min(one.smallest_hole_mm for one in seen),
        sum(one.holes for one in seen),
        tuple(complaint for one in seen for complaint in one.complaints),
        sum(one.area_mm2 for one in seen),
        len(seen),
        sum(one.inner_mm2 for one in seen),
    )


def inspect_board(files: dict[str, bytes], folder: str, house: House) -> Inspection:
    """One board of the package."""
    complaints: list[str] = []
    layers: dict[str, ReadLayer] = {}
    before = f"{folder}fabrication/"
    inner = sorted(
        path.removeprefix(before) for path in files if path.startswith(f"{before}copper-inner")
    )
    for name in (*LAYERS, *inner):
        try:
            layers[name] = read_gerber(files[f"{folder}fabrication/{name}"], name)
        except KeyError:
            complaints.append(f"{folder}{name} is missing.")
        except FileFault as problem:
            complaints.append(f"{folder}{problem}.")
    holes = []
    for name in ("holes-plated.drl", "holes-unplated.drl"):
        try:
            holes += read_drill(files[f"{folder}fabrication/{name}"], name)
        except KeyError:
            complaints.append(f"{folder}{name} is missing.")
        except FileFault as problem:
            complaints.append(f"{folder}{problem}.")
    width, height = profile_size(layers.get("profile.gbr"))
    strokes = [
        bar.w
        for name in ("copper-near.gbr", "copper-far.gbr")
        if name in layers
        for bar in bars_of(layers[name])
    ]
    narrowest, smallest = min(strokes, default=0), min((h.d for h in holes), default=0)
    complaints += limits(house, width, height, narrowest, smallest)
    if (count := 2 + len(inner)) not in house.copper_layers:
        complaints.append(f"Boards of {count} layers are not made here.")
    return Inspection(
        width / 1e6,
        height / 1e6,
        narrowest / 1e6,
        smallest / 1e6,
        len(holes),
        tuple(complaints),
        width * height / 1e12,
        1,
        width * height / 1e12 if inner else 0.0,
    )


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
            f"Tracks of {narrowest / 1e6:.2f} mm are too narrow; the limit is {house.track_um / 1000:.2f} mm."
        )
    if smallest and smallest < house.hole_um * 1000:
        found.append(
            f"Holes of {smallest / 1e6:.2f} mm are too small; the limit is {house.hole_um / 1000:.2f} mm."
        )
    return found


def quote(
    house: House,
    seen: Inspection,
    quantity: int,
    finish: str,
    colour: str,
    thickness_um: int,
    shipping: str,
    today: date,
) -> Quote:
    """Price and days for a quantity and choice; choices that are not offered become complaints."""
    complaints = list(seen.complaints)
    if finish not in house.finishes:
        complaints.append(f"The finish {finish} is not offered.")
    if colour not in house.colours:
        complaints.append(f"The colour {colour} is not offered.")
    if thickness_um not in house.thickness_um:
        complaints.append(f"Boards of {thickness_um / 1000:.1f} mm are not offered.")
    way = next((s for s in house.shipping if s.name == shipping), None)
    if way is None:
        complaints.append(f"Shipping by {shipping} is not offered.")
        way = house.shipping[0]
    boards = boards_cents(house, seen, quantity)
    several = (
        f"{quantity} sets of {seen.boards} boards" if seen.boards > 1 else f"{quantity} boards"
    )
    lines = [("set-up", house.setup_cents * seen.boards), (several, boards)]
    lines += [
        (f"finish {finish}", house.finish_cents.get(finish, 0)),
        (f"colour {colour}", house.colour_cents.get(colour, 0)),
    ]
    if thickness_um < 1600:
        lines.append((f"thickness {thickness_um / 1000:.1f} mm", house.thin_cents))
    lines.append((f"shipping by {way.name}", way.cents))
    total = sum(cents for _, cents in lines)
    ready = after_open_days(today, house.work_days, house.closed_on)
    factor = factor_of(house, quantity)
    following = next((b for b in house.breaks if b[0] > quantity and b[1] < factor), None)
    larger = [
        (total - boards + boards_cents(house, seen, n), n) for n, _ in house.breaks if n > quantity
    ]
    least = min(larger, default=None)
    return Quote(
        house.id,
        quantity,
        tuple(line for line in lines if line[1] or line[0] == "set-up"),
        total,
        round(total / quantity, 1),
        ready.isoformat(),
        (ready + timedelta(days=way.days)).isoformat(),
        following,
        (least[1], least[0]) if least and least[0] < total else None,
        tuple(complaints),
        seen.area_mm2,
        seen.boards,
        seen.inner_mm2,
    )


def factor_of(house: House, quantity: int) -> float:
    """The share of the full price that a board costs at a quantity."""
    return max((b for b in house.breaks if b[0] <= quantity), default=house.breaks[0])[1]


def boards_cents(house: House, seen: Inspection, quantity: int) -> int:
    """The price of the boards alone."""
    outer = seen.area_mm2 / 10_000 * house.area_cents_dm2
    inner = seen.inner_mm2 / 10_000 * house.inner_cents_dm2
    return round((outer + inner) * quantity * factor_of(house, quantity))


def order_state(
    house: House,
    quoted: dict[str, Any],
    placed_on: date,
    day: int,
    answer: str | None = None,
    waited: int = 0,
) -> tuple[str, str]:
    """State and a sentence for an order after so many simulated days; a house that asks back waits until it is answered, and the days that went by come on top, as does a parcel that is held."""
    today = placed_on + timedelta(days=day)
    if house.asks and answer is None and day >= 1:
        return WAITING, f"{house.name} asks: {house.asks}"
    ready = date.fromisoformat(quoted["ready_on"]) + timedelta(days=waited)
    promised = date.fromisoformat(quoted["arrives_on"]) + timedelta(days=waited)
    arrives = promised + timedelta(days=house.late_days)
    if today >= arrives:
        return STATES[4], f"Delivered on {arrives}."
    if house.late_days and today >= promised:
        return STATES[3], f"Held at customs; expected on {arrives} instead of {promised}."
    if today >= ready:
        return STATES[3], f"Left {house.name}; expected on {promised}."
    if day >= 2:
        return STATES[2], f"Being made; ready on {ready}."
    if day >= 1:
        return STATES[1], "The files were read and can be made."
    return STATES[0], "The order and its files have arrived."


def parts_state(quoted: dict[str, Any], placed_on: date, day: int) -> tuple[str, str]:
    """State and a sentence for an order of parts after so many simulated days."""
    today, arrives = placed_on + timedelta(days=day), date.fromisoformat(quoted["arrives_on"])
    if today >= arrives:
        return PART_STATES[
            3
        ], f"Delivered on {arrives}. Try the risky ones before they are soldered."
    if day >= 2:
        return PART_STATES[2], f"On the road; expected on {arrives}."
    return PART_STATES[min(day, 1)], f"Expected on {arrives}."
