"""Faults of a brief that need the catalogue to be seen: unknown parts, overlapping bodies, more needs than pins."""

from itertools import combinations

import shapely

from loquet.core.board.outline import polygon_nm
from loquet.core.brief import Brief, BriefError
from loquet.core.brief.keys import part_kind, role_of
from loquet.core.brief.seats import fixed_seats
from loquet.core.geometry import Round, Seat
from loquet.core.library import Library
from loquet.core.parts import LandPattern, PartError
from loquet.core.parts.patterns import extent
from loquet.core.pins.needs import needs_of
from loquet.core.pipeline import chip_for, part_of_role, screw_circles
from loquet.core.placement.seating import courtyard_rect


def brief_faults(brief: Brief, library: Library) -> list[BriefError]:
    """All faults, each with its place in the file, what is wrong and the way out; empty for a brief that can be built."""
    faults = part_faults(brief, library)
    if faults:
        return faults
    return pin_faults(brief, library) + place_faults(brief, library)


def part_faults(brief: Brief, library: Library) -> list[BriefError]:
    """Parts that are not in the catalogue, or of the wrong kind."""
    faults = []
    wanted = [(f"controls[{i}].part", c.part, part_kind(c)) for i, c in enumerate(brief.controls)]
    wanted += [("buzzer.part", brief.buzzer.part, "buzzer")] if brief.buzzer else []
    wanted += [("light.part", brief.light.part, "light")] if brief.light else []
    for place, part, kind in wanted:
        try:
            library.part(part, kind)
        except PartError as error:
            faults.append(BriefError(place, f"'{part}' {error.problem}", error.way_out))
    try:
        if brief.screen and library.screen(brief.screen.part).bus != brief.screen.bus:
            spoken = library.screen(brief.screen.part).bus
            faults.append(
                BriefError(
                    "screen.bus",
                    f"is {brief.screen.bus}, and '{brief.screen.part}' speaks {spoken}",
                    "Change the bus or the part.",
                )
            )
    except PartError as error:
        faults.append(BriefError("screen.part", f"'{error.part}' {error.problem}", error.way_out))
    try:
        chip = chip_for(brief, library)
        if chip.uncovered:
            library.pattern(f"chip:{chip.name}")
    except PartError as error:
        faults.append(BriefError("chip.part", f"'{error.part}' {error.problem}", error.way_out))
    return faults


def pin_faults(brief: Brief, library: Library) -> list[BriefError]:
    """More signals than the chip has usable pins."""
    chip = chip_for(brief, library)
    usable = sum(pin.kind == "port" and not pin.is_reset for pin in chip.pins)
    needed = len(needs_of(brief))
    if needed <= usable:
        return []
    return [
        BriefError(
            "controls",
            f"and the rest need {needed} pins, and {chip.name} has {usable}",
            f"Take out {needed - usable} buttons, or choose a chip with more pins at chip.part; the Pins station ranks the ways out.",
        )
    ]


def place_faults(brief: Brief, library: Library) -> list[BriefError]:
    """Bodies that overlap each other or a screw, and pads beyond the outline."""
    faults = []
    roles = [
        (role, library.pattern(part_of_role(brief, role)), seat)
        for role, seat in fixed_seats(brief).items()
        if role != "chip"
    ]
    outline = polygon_nm(brief.outline).buffer(1)
    for role, pattern, seat in roles:
        if not all(
            outline.contains(shapely.box(*extent(seat.shape(pad.shape)))) for pad in pattern.pads
        ):
            faults.append(
                BriefError(
                    place_name(brief, role),
                    "has pads outside the board",
                    "Move it inwards, or enlarge the outline.",
                )
            )
        for hole, (x, y, radius) in zip(brief.fixing_holes, screw_circles(brief), strict=True):
            disc = shapely.Point(x, y).buffer(radius)
            shapes = (pattern.body, *(pad.shape for pad in pattern.pads))
            if any(disc.intersects(shapely.box(*extent(seat.shape(shape)))) for shape in shapes):
                faults.append(
                    BriefError(
                        place_name(brief, role),
                        f"lies under the screw of '{hole.name}'",
                        "Move one of them.",
                    )
                )
    for (role_a, pattern_a, seat_a), (role_b, pattern_b, seat_b) in combinations(roles, 2):
        if collide(pattern_a, seat_a, pattern_b, seat_b):
            faults.append(
                BriefError(
                    place_name(brief, role_b),
                    f"overlaps {place_name(brief, role_a)}",
                    "Move one of them until their courtyards part.",
                )
            )
    return faults


def collide(pattern_a: LandPattern, seat_a: Seat, pattern_b: LandPattern, seat_b: Seat) -> bool:
    """Courtyards of one side, or plated holes of one part in the pads of the other."""
    if seat_a.far == seat_b.far:
        a, b = courtyard_rect(pattern_a, seat_a), courtyard_rect(pattern_b, seat_b)
        return min(a[2], b[2]) > max(a[0], b[0]) and min(a[3], b[3]) > max(a[1], b[1])
    return any(
        shapely.box(*extent(seat_a.shape(p.shape))).distance(
            shapely.box(*extent(seat_b.shape(q.shape)))
        )
        < 200_000
        for p in pattern_a.pads
        for q in pattern_b.pads
        if p.drill_nm or q.drill_nm
    ) or pegs_in_pads(pattern_a, seat_a, pattern_b, seat_b)


def pegs_in_pads(
    pattern_a: LandPattern, seat_a: Seat, pattern_b: LandPattern, seat_b: Seat
) -> bool:
    """Unplated holes of one part in the pads of the other."""
    for holes, seat_of_holes, pads, seat_of_pads in (
        (pattern_a.holes, seat_a, pattern_b.pads, seat_b),
        (pattern_b.holes, seat_b, pattern_a.pads, seat_a),
    ):
        for hole in holes:
            x, y = seat_of_holes.point(hole.x, hole.y)
            disc = shapely.box(*extent(Round(x, y, hole.d + 500_000)))
            if any(
                disc.intersects(shapely.box(*extent(seat_of_pads.shape(pad.shape)))) for pad in pads
            ):
                return True
    return False


def place_name(brief: Brief, role: str) -> str:
    """The place in the file of a role: `controls[2] 'dome'`, `power_switch`."""
    kind = role.partition(":")[0]
    for index, control in enumerate(brief.controls):
        if role_of(control) == ":".join(role.split(":")[:2]):
            return f"controls[{index}] '{control.name}'"
    return {"switch": "power_switch", "port": "programming_port", "cell": "power"}.get(kind, kind)
