"""What a well-formed brief must still make sense of: outlines, names, holes, overlapping places."""

from shapely.geometry import Point, Polygon

from loquet.core.brief.keys import keys_of
from loquet.core.brief.model import Brief, Outline, PolygonOutline

OWN_CHIP = "own"
EXPANDER_ADDRESS, CONVERTER_ADDRESS = 0x20, 0x48


class BriefError(Exception):
    """A brief that cannot be used; `place` names where, `problem` what, `way_out` what to do."""

    def __init__(self, place: str, problem: str, way_out: str) -> None:
        super().__init__(f"{place} {problem}. {way_out}")
        self.place, self.problem, self.way_out = place, problem, way_out


def outline_polygon_mm(outline: Outline) -> Polygon:
    """The outline in mm with its corners as they are drawn; corners are cut into 16 chords."""
    if isinstance(outline, PolygonOutline):
        return Polygon(outline.points_mm)
    w, h, r = outline.width_mm, outline.height_mm, outline.corner_mm
    if r == 0:
        return Polygon([(0, 0), (w, 0), (w, h), (0, h)])
    core = Polygon([(r, r), (w - r, r), (w - r, h - r), (r, h - r)])
    return core.buffer(r, quad_segs=16)


def check_sense(brief: Brief) -> None:
    """Raise BriefError for the first thing that makes no sense, before any stage runs."""
    check_outline(brief.outline)
    check_names(brief)
    check_inside(brief)
    check_overlaps(brief)
    check_keys(brief)
    check_buses(brief)


def check_outline(outline: Outline) -> None:
    """The outline must be one closed line with an area, and its corners must fit."""
    if isinstance(outline, PolygonOutline):
        polygon = Polygon(outline.points_mm)
        if not polygon.is_valid:
            raise BriefError(
                "outline.points_mm",
                "crosses or touches itself",
                "Put the points in order around the board.",
            )
        if polygon.area < 100:
            raise BriefError(
                "outline.points_mm",
                "encloses less than 1 square centimetre",
                "Give the points in millimetres.",
            )
        if min(polygon.bounds[:2]) < 0:
            raise BriefError(
                "outline.points_mm",
                "has a negative coordinate",
                "Measure from the lower left corner of the board.",
            )
        return
    if 2 * outline.corner_mm >= min(outline.width_mm, outline.height_mm):
        raise BriefError(
            "outline.corner_mm",
            f"is {outline.corner_mm:g} mm, so the outline would cross itself",
            f"Choose a corner radius below {min(outline.width_mm, outline.height_mm) / 2:g} mm.",
        )


def check_names(brief: Brief) -> None:
    """No two controls, and no two holes, share a name."""
    for group, names in (
        ("controls", [c.name for c in brief.controls]),
        ("fixing_holes", [h.name for h in brief.fixing_holes]),
    ):
        seen: set[str] = set()
        for index, name in enumerate(names):
            if name.lower() in seen:
                raise BriefError(
                    f"{group}[{index}].name",
                    f"'{name}' stands twice",
                    "Give each one a name of its own.",
                )
            seen.add(name.lower())


def check_inside(brief: Brief) -> None:
    """Every control, hole and connector has its middle inside the outline."""
    outline = outline_polygon_mm(brief.outline)
    for place, x_mm, y_mm in named_places(brief):
        if not outline.contains(Point(x_mm, y_mm)):
            raise BriefError(
                place,
                f"at {x_mm:g}, {y_mm:g} mm is outside the board",
                "Move it inside the outline, or enlarge the outline.",
            )


def named_places(brief: Brief) -> list[tuple[str, float, float]]:
    """The name in the file and the mm place of everything the brief puts somewhere."""
    places = [(f"controls[{i}] '{c.name}'", c.x_mm, c.y_mm) for i, c in enumerate(brief.controls)]
    places += [
        (f"fixing_holes[{i}] '{h.name}'", h.x_mm, h.y_mm) for i, h in enumerate(brief.fixing_holes)
    ]
    for name in ("screen", "buzzer", "light", "power", "power_switch", "programming_port", "chip"):
        thing = getattr(brief, name)
        if thing is not None and thing.x_mm is not None and thing.y_mm is not None:
            places.append((name, thing.x_mm, thing.y_mm))
    return places


def check_overlaps(brief: Brief) -> None:
    """Two buttons nearer than a switch body is wide can only be a mistake; courtyards are checked later, exactly."""
    for i, a in enumerate(brief.controls):
        for j in range(i):
            b = brief.controls[j]
            if max(abs(a.x_mm - b.x_mm), abs(a.y_mm - b.y_mm)) < 4.0:
                raise BriefError(
                    f"controls[{i}] '{a.name}'",
                    f"overlaps '{b.name}'",
                    "Keep the middles of two buttons at least 8 mm apart.",
                )


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
                raise BriefError(
                    place,
                    f"names the key '{key}', which this device does not have",
                    f"Known keys: {', '.join(sorted(known)[:6])}.",
                )


def check_buses(brief: Brief) -> None:
    """No two things answer at one address of the two-wire bus."""
    taken: dict[int, str] = {}
    rows = (
        [("screen.address", brief.screen.address)]
        if brief.screen and brief.screen.bus == "two-wire"
        else []
    )
    rows += [
        (f"sensors[{i}].address", s.address)
        for i, s in enumerate(brief.sensors)
        if s.reading == "two-wire"
    ]
    rows += helper_addresses(brief)
    for place, address in rows:
        if address in taken:
            raise BriefError(
                place,
                f"0x{address:02x} is taken by {taken[address]}",
                "Choose another address, or a part that has one.",
            )
        taken[address] = place
    check_own_chip(brief)


def helper_addresses(brief: Brief) -> list[tuple[str, int]]:
    """Addresses that key expanders and an outside converter take, from the first of their usual ranges on (0x20 and 0x48)."""
    wide = {"expander 8": 8, "expander 16": 16}.get(brief.key_scheme.name)
    scanned = sum(key.duty != "power" for key in keys_of(brief))
    rows = (
        [("key_scheme", EXPANDER_ADDRESS + i) for i in range(-(-scanned // wide))] if wide else []
    )
    return [*rows, ("analogue_by", CONVERTER_ADDRESS)] if brief.analogue_by == "converter" else rows


def check_own_chip(brief: Brief) -> None:
    """An own chip has its table."""
    if brief.chip.part == OWN_CHIP and brief.pin_table is None:
        raise BriefError(
            "pin_table",
            "is missing",
            "Add the table of pads, or name a chip of the open data set at chip.part.",
        )
