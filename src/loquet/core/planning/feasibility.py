"""Faults of a brief that need the catalogue to be seen: unknown parts, overlapping bodies, more
needs than pins.
"""

from dataclasses import dataclass
from itertools import combinations

import shapely
from shapely.geometry import Polygon

from loquet.core.board.openings import board_area, kept_free, openings_of
from loquet.core.board.outline import polygon_nm
from loquet.core.board.through import pins_under
from loquet.core.brief import Board, Brief, BriefError, Thing
from loquet.core.brief.seats import seat_of_body
from loquet.core.brief.sense import named, place_of_thing
from loquet.core.circuit.model import CHIP_PART
from loquet.core.geometry import Round, Seat, polygon_of
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.lookup.covers import screw_circles
from loquet.core.parts import LandPattern, PartError
from loquet.core.parts.patterns import extent
from loquet.core.pins.needing import needs_of

LEAST_NM2 = 1e6
LEAST_BESIDE_NM = 1_000_000  # what a cutter leaves standing; common practice, no source


def brief_faults(brief: Brief, library: Library) -> list[BriefError]:
    """All faults, each with its place in the file, what is wrong and the way out; empty for a brief
    that can be built.
    """
    faults = part_faults(brief, library)
    if faults:
        return faults
    return pin_faults(brief, library) + place_faults(brief, library)


def part_faults(brief: Brief, library: Library) -> list[BriefError]:
    """Parts that are not in the catalogue, or of the wrong kind."""
    faults = []
    for place, thing in named(brief):
        try:
            library.check_parts(thing)
        except PartError as error:
            problem = f"'{error.part}' {error.problem}"
            faults.append(BriefError(f"{place} part", problem, error.way_out, thing.name))
            continue
        display = thing.display()
        spoken = library.screens[display.part].bus if display else None
        if display and spoken != display.bus:
            problem = f"is {display.bus}, and '{display.part}' speaks {spoken}"
            way = "Change the bus or the part."
            faults.append(BriefError(f"{place} bus", problem, way, thing.name))
    return [*faults, *chip_faults(brief, library)]


def chip_faults(brief: Brief, library: Library) -> list[BriefError]:
    """A chip that is unknown, or that no board can be made with."""
    faults = []
    for brain in brief.brains:
        try:
            chip = chip_for(brief, library, brain.name)
            if chip.uncovered:
                library.pattern(f"{CHIP_PART}{chip.name}")
        except PartError as error:
            place = f"{place_of_thing(brief, brain.name)} part"
            problem = f"'{error.part}' {error.problem}"
            faults.append(BriefError(place, problem, error.way_out, brain.name))
    return faults


def pin_faults(brief: Brief, library: Library) -> list[BriefError]:
    """More signals than the chip has usable pins."""
    faults = []
    for brain in brief.brains:
        chip = chip_for(brief, library, brain.name)
        usable = sum(pin.kind == "port" and not pin.is_reset for pin in chip.pins)
        needed = len(needs_of(brief, brain.name))
        if needed > usable:
            fault = BriefError(
                "things",
                f"cannot carry everything: the device needs {needed} pins, and {chip.name} has"
                f" {usable}",
                f"Take out {needed - usable} buttons, or choose a chip with more pins; the Pins"
                " station ranks the ways out.",
                brain.name,
            )
            faults.append(fault)
    return faults


@dataclass(frozen=True)
class Standing:
    """A piece of a thing where it stands."""

    thing: Thing
    pattern: LandPattern
    seat: Seat
    height_mm: float


def standing(brief: Brief, library: Library, board: str) -> list[Standing]:
    """All pieces with a part that the brief places on a board."""
    return [
        Standing(
            thing,
            library.pattern(body.part),
            seat_of_body(brief, thing, body),
            library.parts[body.part].height_mm,
        )
        for thing in brief.on(board)
        if thing.place is not None and not thing.BRAIN
        for body in thing.bodies()
        if body.part
    ]


def place_faults(brief: Brief, library: Library) -> list[BriefError]:
    """Bodies that overlap each other or a screw, and pads beyond the outline, on every board."""
    return [f for board in brief.boards for f in faults_on(brief, library, board)]


def faults_on(brief: Brief, library: Library, board: Board) -> list[BriefError]:
    """The faults of one board."""
    pieces = standing(brief, library, board.name)
    openings, kept = openings_of(brief, board), kept_free(brief, board)
    outline = board_area(brief, board).buffer(1)
    drilled = [t for t in brief.on(board.name) if t.drilled() is not None]
    circles = screw_circles(brief, board.name)
    faults = mark_faults(brief, board, openings)
    for piece in pieces:
        place, name = place_of_thing(brief, piece.thing.name), piece.thing.name
        boxes = [shapely.box(*extent(piece.seat.shape(p.shape))) for p in piece.pattern.pads]
        if not all(outline.contains(box) for box in boxes):
            over = next((n for n, o in openings.items() if any(o.intersects(b) for b in boxes)), "")
            problem = f"has pads over '{over}'" if over else "has pads outside the board"
            way = "Move one of them." if over else "Move it inwards, or enlarge the outline."
            faults.append(BriefError(place, problem, way, name))
        boxes.append(shapely.box(*extent(piece.seat.shape(piece.pattern.body))))
        for area in kept:
            meets = any(area.area.intersects(b) for b in boxes)
            if meets and area.bars(piece.seat.far, piece.height_mm):
                problem = f"stands in '{area.thing}', which is kept free of {area.words}"
                faults.append(BriefError(place, problem, "Move one of them.", name))
        for hole, (x, y, radius) in zip(drilled, circles, strict=True):
            disc = shapely.Point(x, y).buffer(radius)
            if any(disc.intersects(box) for box in boxes):
                problem = f"lies under the screw of '{hole.name}'"
                faults.append(BriefError(place, problem, "Move one of them.", name))
    for a, b in combinations(pieces, 2):
        place = place_of_thing(brief, b.thing.name)
        if collide(a.pattern, a.seat, b.pattern, b.seat):
            way = "Move one of them until their courtyards part."
            faults.append(BriefError(place, f"overlaps '{a.thing.name}'", way, b.thing.name))
        elif (b.height_mm and pins_under(a.pattern, a.seat, b.pattern, b.seat)) or (
            a.height_mm and pins_under(b.pattern, b.seat, a.pattern, a.seat)
        ):
            problem = (
                f"lies across the board from '{a.thing.name}', and pins of one come out under the"
                " other"
            )
            way = "Move one of them, or take a part that is soldered on the surface."
            faults.append(BriefError(place, problem, way, b.thing.name))
    return faults


def mark_faults(brief: Brief, board: Board, openings: dict[str, Polygon]) -> list[BriefError]:
    """Marks without a place, and openings that leave no board beside them."""
    faults = []
    for place, thing in named(brief):
        needs_place = thing.drilled() or thing.opening() or thing.keeps()
        if thing.board == board.name and needs_place and thing.place is None:
            way = "Put it on its board, or take it out."
            faults.append(BriefError(place, "has no place", way, thing.name))
    room = polygon_nm(board.outline).buffer(-LEAST_BESIDE_NM)
    grown = {name: area.buffer(LEAST_BESIDE_NM) for name, area in openings.items()}
    for name, area in openings.items():
        place = place_of_thing(brief, name)
        if not room.contains(area):
            problem = "leaves less than 1 mm of the board beside it, or reaches beyond it"
            way = "Move it inwards; draw a notch at the edge into the outline."
            faults.append(BriefError(place, problem, way, name))
        for other in openings:
            if other < name and grown[other].intersects(area):
                problem = f"is less than 1 mm from '{other}'"
                way = "Move one of them, or make one opening of both."
                faults.append(BriefError(place, problem, way, name))
    return faults


def collide(pattern_a: LandPattern, seat_a: Seat, pattern_b: LandPattern, seat_b: Seat) -> bool:
    """Courtyards of one side, or plated holes of one part in the pads of the other."""
    if seat_a.far == seat_b.far:
        a, b = (
            polygon_of(seat.shape(pattern.courtyard))
            for pattern, seat in ((pattern_a, seat_a), (pattern_b, seat_b))
        )
        return a.intersects(b) and a.intersection(b).area > LEAST_NM2
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
