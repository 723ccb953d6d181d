"""What a well-formed brief must still make sense of: outlines, names, places, keys, addresses."""

import re
from collections.abc import Callable, Iterator, Sequence

from shapely.geometry import Point

from loquet.core.brief.joining import joined_by
from loquet.core.brief.keys import keys_of
from loquet.core.brief.model import Brief
from loquet.core.brief.outline_shapes import Outline, PolygonOutline
from loquet.core.brief.outlines import outline_polygon_mm
from loquet.core.brief.thing import Thing

EXPANDER_ADDRESS, CONVERTER_ADDRESS = 0x20, 0x48
TWO_THINGS_APART_MM = 4.0
RESERVED = frozenset({"GROUND", "SUPPLY", "RESET", "BOOT", "CELLS", "GUARDED"})


MOST_TOLD = 20


class BriefError(Exception):
    """A brief that cannot be used; `place` names where in the file, `problem` what, `way_out` what
    to do, `about` the thing; `more` are the other faults of the same brief.
    """

    more: tuple["BriefError", ...] = ()

    def __init__(self, place: str, problem: str, way_out: str, about: str = "") -> None:
        super().__init__(f"{place} {problem}. {way_out}")
        self.place, self.problem, self.way_out, self.about = place, problem, way_out, about

    @property
    def sentences(self) -> tuple[str, ...]:
        """All faults, a sentence each, this one first."""
        return (str(self), *(str(other) for other in self.more))


def all_at_once(faults: Sequence[BriefError]) -> BriefError:
    """The first of several faults, with the others behind it."""
    first, *others = faults
    first.more = tuple(others[: MOST_TOLD - 1])
    return first


def check_sense(brief: Brief) -> None:
    """Raise BriefError for what makes no sense, before any stage runs: of each check its first
    fault, all together. What asks for things by name waits until names and boards are right.
    """
    names = (check_boards, check_names, check_belonging)
    places = (check_inside, check_overlaps)
    for checks in (names, (check_rails, *places, check_keys, check_buses, check_things)):
        faults = [fault for check in checks if (fault := fault_of(check, brief))]
        if faults:
            raise all_at_once(faults)
    check_joining(brief)


def fault_of(check: Callable[[Brief], None], brief: Brief) -> BriefError | None:
    """What a check has against a brief, or nothing."""
    try:
        check(brief)
    except BriefError as error:
        return error
    return None


def check_joining(brief: Brief) -> None:
    """A source joins the rail of another one before its converter, never the rail itself."""
    for place, thing in named(brief):
        host = joined_by(brief, thing)
        feed = host.feed() if host else None
        if host is not None and feed is not None and feed.direct:
            problem = f"is the rail of '{host.name}', which is that source itself"
            way = "Take a source with a converter there, or give this one a rail of its own."
            raise BriefError(f"{place} rail", problem, way, thing.name)


def check_things(brief: Brief) -> None:
    """Fields of a thing that make no sense together."""
    for place, thing in named(brief):
        for fault in thing.faults():
            where = f"{place} {fault.field}"
            raise BriefError(where, fault.problem, fault.way_out, thing.name)


def check_boards(brief: Brief) -> None:
    """Boards have names of their own, also as folders of the package, and outlines that are
    closed.
    """
    seen: set[str] = set()
    for index, board in enumerate(brief.boards):
        place = "outline" if len(brief.boards) == 1 else f"boards[{index}] '{board.name}' outline"
        if board.folder in seen:
            raise BriefError(f"boards[{index}].name", f"'{board.name}' stands twice", OWN_NAME)
        seen.add(board.folder)
        check_outline(board.outline, place)


OWN_NAME = "Give each one a name of its own."


def check_outline(outline: Outline, place: str) -> None:
    """The outline must be one closed line with an area, and its corners must fit."""
    if isinstance(outline, PolygonOutline):
        place = f"{place}.points_mm"
        if any(first == last for first, last, _ in outline.sides()):
            raise BriefError(place, "holds the same point twice in a row", "Take one of them out.")
        polygon = outline_polygon_mm(outline)
        if not polygon.is_valid:
            way = "Put the points in order around the board."
            raise BriefError(place, "crosses or touches itself", way)
        if polygon.area < 100:
            way = "Give the points in millimetres."
            raise BriefError(place, "encloses less than 1 square centimetre", way)
        if min(polygon.bounds[:2]) < -0.001:
            way = "Measure from the lower left corner of the board."
            raise BriefError(place, "has a negative coordinate", way)
        return
    if 2 * outline.corner_mm >= min(outline.width_mm, outline.height_mm):
        raise BriefError(
            f"{place}.corner_mm",
            f"is {outline.corner_mm:g} mm, so the outline would cross itself",
            f"Choose a corner radius below {min(outline.width_mm, outline.height_mm) / 2:g} mm.",
        )


def check_names(brief: Brief) -> None:
    """No two things share a name, nor a name in nets and firmware, where only letters and digits
    count.
    """
    seen: dict[str, str] = {}
    said: dict[str, str] = {}
    for index, thing in enumerate(brief.things):
        place = f"things[{index}].name"
        if thing.name.lower() in seen:
            raise BriefError(place, f"'{thing.name}' stands twice", OWN_NAME)
        seen[thing.name.lower()] = thing.name
        plain = plain_name(thing.role())
        if plain in said:
            problem = f"'{thing.name}' and '{said[plain]}' would both be {plain} in the firmware"
            raise BriefError(place, problem, "Let the names differ in letters or digits.")
        if plain in RESERVED:
            problem = f"'{thing.name}' would be {plain}, which the board has already"
            raise BriefError(place, problem, "Give it another name.")
        said[plain] = thing.name


def plain_name(text: str) -> str:
    """`button:all dark` as `BUTTON_ALL_DARK`."""
    return re.sub(r"[^A-Z0-9]+", "_", text.upper()).strip("_")


def check_belonging(brief: Brief) -> None:
    """A thing lies on a board of this device, and is read by a brain of it."""
    boards = {board.name for board in brief.boards}
    brains = {thing.name for thing in brief.things if thing.BRAIN}
    for place, thing in named(brief):
        if thing.board not in boards:
            known = ", ".join(sorted(boards))
            problem = f"lies on the board '{thing.board}', which this device does not have"
            raise BriefError(place, problem, f"Known boards: {known}.")
        for name in thing.read_by():
            if name and name not in brains:
                problem = f"is read by '{name}', which is no brain of this device"
                known = ", ".join(sorted(brains)) or "none yet"
                raise BriefError(place, problem, f"Brains: {known}.")


def check_rails(brief: Brief) -> None:
    """What a thing takes is a rail of this device, or, of a source, the source that it joins."""
    makes = {t.name for t in brief.things if t.makes_rail() and joined_by(brief, t) is None}
    for place, thing in named(brief):
        if not thing.rail or thing.rail in makes:
            continue
        problem = f"takes the rail '{thing.rail}', which nothing in this device makes"
        known = ", ".join(sorted(makes)) or "none yet"
        raise BriefError(f"{place} rail", problem, f"Rails: {known}.", thing.name)


def named(brief: Brief) -> Iterator[tuple[str, Thing]]:
    """Each thing with its place in the file: `things[2] 'dome'`."""
    return ((f"things[{i}] '{thing.name}'", thing) for i, thing in enumerate(brief.things))


def place_of_thing(brief: Brief, name: str) -> str:
    """The place in the file of the thing of that name."""
    return next((place for place, thing in named(brief) if thing.name == name), name)


def check_inside(brief: Brief) -> None:
    """Everything that has a place has its middle inside its board."""
    outlines = {board.name: outline_polygon_mm(board.outline) for board in brief.boards}
    for place, thing in named(brief):
        spot = thing.place
        if spot and not outlines[thing.board].contains(Point(spot.x_mm, spot.y_mm)):
            problem = f"at {spot.x_mm:g}, {spot.y_mm:g} mm is outside the board"
            way = "Move it inside the outline, or enlarge the outline."
            raise BriefError(place, problem, way)


def check_overlaps(brief: Brief) -> None:
    """Two controls nearer than a switch body is wide can only be a mistake; courtyards are checked
    later, exactly.
    """
    rows = [(p, t) for p, t in named(brief) if t.contacts() or t.axes()]
    for i, (place, a) in enumerate(rows):
        for _, b in rows[:i]:
            if (
                a.place is None
                or b.place is None
                or (a.board, a.place.far) != (b.board, b.place.far)
            ):
                continue
            apart = max(abs(a.place.x_mm - b.place.x_mm), abs(a.place.y_mm - b.place.y_mm))
            if apart < TWO_THINGS_APART_MM:
                way = "Keep the middles of two buttons at least 8 mm apart."
                raise BriefError(place, f"overlaps '{b.name}'", way)


def check_keys(brief: Brief) -> None:
    """Keys that a scheme or a chord names must be there."""
    known = {key.id for key in keys_of(brief)}
    rows = [
        ("key_scheme.direct", brief.key_scheme.direct),
        ("key_scheme.diodes", brief.key_scheme.diodes),
    ]
    rows += [(f"chords.groups[{i}]", group) for i, group in enumerate(brief.chords.groups)]
    for place, ids in rows:
        for key in ids:
            if key not in known:
                problem = f"names the key '{key}', which this device does not have"
                way = f"Known keys: {', '.join(sorted(known)[:6])}."
                raise BriefError(place, problem, way)


def check_buses(brief: Brief) -> None:
    """No two things answer at one address of the two-wire bus of one brain."""
    taken: dict[tuple[str, int], str] = {}
    first = brief.brain.name if brief.brain else ""
    rows = [
        (f"{place} address", thing.brain or first, bus.address)
        for place, thing in named(brief)
        if (bus := thing.on_bus()) and bus.address
    ]
    rows += [(place, first, address) for place, address in helper_addresses(brief)]
    for place, brain, address in rows:
        if (brain, address) in taken:
            problem = f"0x{address:02x} is taken by {taken[brain, address]}"
            raise BriefError(place, problem, "Choose another address, or a part that has one.")
        taken[brain, address] = place


def helper_addresses(brief: Brief) -> list[tuple[str, int]]:
    """Addresses that key expanders and an outside converter take, from the first of their usual
    ranges on (0x20 and 0x48).
    """
    wide = {"expander 8": 8, "expander 16": 16}.get(brief.key_scheme.name)
    scanned = sum(key.duty != "power" for key in keys_of(brief))
    rows = (
        [("key_scheme", EXPANDER_ADDRESS + i) for i in range(-(-scanned // wide))] if wide else []
    )
    return [*rows, ("analogue_by", CONVERTER_ADDRESS)] if brief.analogue_by == "converter" else rows
