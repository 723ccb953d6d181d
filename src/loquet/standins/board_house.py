"""A board house at work: what it asks for the package that it has read, by its own list; and, of a
simulated one, how an order goes on.
"""

from dataclasses import asdict, dataclass
from datetime import date, timedelta
from typing import Any

from loquet.core.brief.making import USUAL_COPPER_UM
from loquet.core.ordering.calendar import after_open_days
from loquet.core.ordering.house import Asked, House
from loquet.standins.file_inspection import Inspection, Plate

STATES = ("received", "files checked", "in production", "on the road", "delivered")
WAITING = "waits for an answer"
PART_STATES = ("received", "packed", "on the road", "delivered")


@dataclass(frozen=True)
class Quote:
    """A price in cents with its lines, and the simulated calendar.

    `next_break` is the next quantity at which boards cost less each, with the share of the full
    price; `cheaper` a larger quantity that costs less in all, with its price. `area_mm2` and
    `inner_mm2` are of all plates that are made, as the house measured them, `plates` says how many,
    `boards` how many kinds of board a set has.
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
    plates: int

    def plain(self) -> dict[str, Any]:
        """As JSON values."""
        return asdict(self)


def quote(
    house: House,
    seen: Inspection,
    quantity: int,
    asked: Asked,
    today: date,
) -> Quote:
    """Price and days for a quantity and choice; choices that are not offered become complaints."""
    complaints = list(seen.complaints)
    finish, colour = asked.finish, asked.colour
    thickness_um, copper_um = asked.thickness_um, asked.copper_um
    if finish not in house.finishes:
        complaints.append(f"The finish {finish} is not offered.")
    if colour not in house.colours:
        complaints.append(f"The colour {colour} is not offered.")
    if thickness_um not in house.thickness_um:
        complaints.append(f"Boards of {thickness_um / 1000:.1f} mm are not offered.")
    if copper_um not in house.copper_um:
        complaints.append(f"Copper of {copper_um} µm is not offered.")
    elif copper_um > USUAL_COPPER_UM and 0 < seen.narrowest_mm * 1000 < house.heavy_least_um:
        complaints.append(
            f"Tracks of {seen.narrowest_mm:.2f} mm are too narrow in copper of {copper_um} µm; the"
            f" limit is {house.heavy_least_um / 1000:.2f} mm."
        )
    way = next((s for s in house.shipping if s.name == asked.shipping), None)
    if way is None:
        complaints.append(f"Shipping by {asked.shipping} is not offered.")
        way = house.shipping[0]
    boards = boards_cents(house, seen, quantity)
    lines: list[tuple[str, int]] = [
        ("set-up", round(house.setup_cents * len(seen.plates))),
        (words_for(seen, quantity), boards),
    ]
    lines += [(f"panel parted by {p.parting}", panel_cents(house, p)) for p in seen.plates]
    lines += [
        (f"finish {finish}", round(house.finish_cents.get(finish, 0))),
        (f"colour {colour}", round(house.colour_cents.get(colour, 0))),
    ]
    if thickness_um < 1600:
        lines.append((f"thickness {thickness_um / 1000:.1f} mm", round(house.thin_cents)))
    if copper_um > USUAL_COPPER_UM:
        heavy = area_mm2(seen, quantity) / 10_000 * house.heavy_cents_dm2
        lines.append((f"copper {copper_um} µm", round(heavy * factor_of(house, quantity))))
    lines.append((f"shipping by {way.name}", round(way.cents)))
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
        area_mm2(seen, quantity),
        len(seen.plates),
        inner_mm2(seen, quantity),
        pieces_of(seen, quantity),
    )


def factor_of(house: House, quantity: int) -> float:
    """The share of the full price that a board costs at a quantity."""
    return max((b for b in house.breaks if b[0] <= quantity), default=house.breaks[0])[1]


def boards_cents(house: House, seen: Inspection, quantity: int) -> int:
    """The price of the boards alone."""
    outer = area_mm2(seen, quantity) / 10_000 * house.area_cents_dm2
    inner = inner_mm2(seen, quantity) / 10_000 * house.inner_cents_dm2
    pieces = house.piece_cents * pieces_of(seen, quantity)
    return round((outer + inner + pieces) * factor_of(house, quantity))


def pieces_of(seen: Inspection, quantity: int) -> int:
    """How many plates are made in all."""
    return sum(plate.needed(quantity) for plate in seen.plates)


def area_mm2(seen: Inspection, quantity: int) -> float:
    """The area of all plates that are made for so many sets: whole panels, even where not every
    board on them is wanted.
    """
    return sum(plate.area_mm2 * plate.needed(quantity) for plate in seen.plates)


def inner_mm2(seen: Inspection, quantity: int) -> float:
    """Of it, what has inner layers."""
    plates = (plate for plate in seen.plates if plate.copper_layers > 2)
    return sum(plate.area_mm2 * plate.needed(quantity) for plate in plates)


def panel_cents(house: House, plate: Plate) -> int:
    """What a panel costs beside its area."""
    return round(next((c for by, c in house.panel_cents.items() if by == plate.parting), 0))


def words_for(seen: Inspection, quantity: int) -> str:
    """What is made: boards, sets of several, or panels with the boards that come on them."""
    plates = seen.plates
    if all(plate.copies == 1 for plate in plates):
        return (
            f"{quantity} sets of {len(plates)} boards" if len(plates) > 1 else f"{quantity} boards"
        )
    if len(plates) > 1:
        return f"{sum(p.needed(quantity) for p in plates)} panels for {quantity} sets"
    needed, copies = plates[0].needed(quantity), plates[0].copies
    return f"{needed} panels of {copies}: {needed * copies} boards"


def order_state(
    house: House,
    quoted: dict[str, Any],
    placed_on: date,
    day: int,
    answer: str | None = None,
    waited: int = 0,
) -> tuple[str, str]:
    """State and a sentence for an order after so many simulated days; a house that asks back waits
    until it is answered, and the days that went by come on top, as does a parcel that is held.
    """
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
        return (
            PART_STATES[3],
            f"Delivered on {arrives}. Try the risky ones before they are soldered.",
        )
    if day >= 2:
        return PART_STATES[2], f"On the road; expected on {arrives}."
    return PART_STATES[min(day, 1)], f"Expected on {arrives}."
