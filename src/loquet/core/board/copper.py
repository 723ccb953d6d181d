"""Every piece of copper and every hole of a board, with its net and its owner."""

from dataclasses import dataclass
from functools import cached_property, partial

from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.model import (
    GROUND_ALONE,
    PlacedPart,
    Placement,
    Pour,
    PourChoice,
    PourPiece,
    Routing,
    Track,
    Via,
)
from loquet.core.board.openings import board_area, board_profile, wiring_area
from loquet.core.board.outline import Piece
from loquet.core.board.rules import BoardRules
from loquet.core.brief import Board, Brief
from loquet.core.brief.seats import seat_of_thing
from loquet.core.circuit import Circuit
from loquet.core.geometry import Bar, Box, Round, Seat, Shape, polygon_of
from loquet.core.parts import LandPattern
from loquet.core.plain.remembering import Remembered
from loquet.core.quantities.lengths import MM

NEAR, FAR = "near", "far"
HEAT_HOLE_NM = 400_000
FIELD_RIM_NM = 100_000
"""Wiring keeps its usual gap from a field this much smaller than the pill, so that it can reach the
contacts at its rim.
"""


@dataclass(frozen=True)
class Copper:
    """A shape of copper on the sides `near`, `far` or both; `net` is empty where it belongs to
    none, a `covered` pad stays under the mask, a fiducial has a bare ring `bare_nm` wide, and a pad
    with heat holes is joined to a pour in full.
    """

    net: str
    sides: tuple[str, ...]
    shape: Shape
    kind: str
    ref: str = ""
    pad: str = ""
    drill_nm: int = 0
    drill_x: int = 0
    drill_y: int = 0
    paste: bool = False
    covered: bool = False
    bare_nm: int = 0
    in_full: bool = False

    @property
    def owner(self) -> str:
        """What it is, for a sentence: `R1 pad 2`, `track`, `via`."""
        return f"{self.ref} pad {self.pad}" if self.ref else self.kind


@dataclass(frozen=True)
class Hole:
    """A hole; `keep_nm` is the radius around its middle in which no copper may lie (a screw
    head).
    """

    x: int
    y: int
    d: int
    plated: bool
    net: str
    owner: str
    keep_nm: int = 0


def pads_of(pattern: LandPattern, seat: Seat, ref: str, nets: dict[str, str]) -> tuple[Copper, ...]:
    """The pads of one seated part."""
    found = []
    hot = {pad.number for pad in pattern.pads if 0 < pad.drill_nm <= HEAT_HOLE_NM}
    for pad in pattern.pads:
        sides = (NEAR, FAR) if pad.drill_nm else (FAR if seat.far else NEAR,)
        x, y = seat.point(pad.drill_x_nm, pad.drill_y_nm)
        found.append(
            Copper(
                nets.get(pad.number, ""),
                sides,
                seat.shape(pad.shape),
                "pad",
                ref,
                pad.number,
                pad.drill_nm,
                x,
                y,
                pad.paste,
                pad.covered,
                pad.bare_nm,
                pad.number in hot,
            )
        )
    return tuple(found)


PADS: Remembered[tuple[Copper, ...]] = Remembered(4096)
BODIES: Remembered[Polygon] = Remembered(4096)
OUTLINES: Remembered[Polygon] = Remembered(64)


@dataclass(frozen=True)
class BoardView:
    """A board as geometry: brief, circuit, patterns by reference, what the stages have made so far,
    and what is to be poured beside ground.

    What hangs on the place of one part alone is worked out once for each part and place, so that a
    part that moves costs what it is and not what the board is.
    """

    brief: Brief
    board: Board
    circuit: Circuit
    patterns: dict[str, LandPattern]
    heights_mm: dict[str, float]
    rules: BoardRules
    placement: Placement
    routing: Routing | None = None
    pour: Pour | None = None
    pour_choice: PourChoice = GROUND_ALONE

    @cached_property
    def outline(self) -> Polygon:
        """The board in nm, its openings cut out."""
        return OUTLINES.of((self.brief, self.board), lambda: board_area(self.brief, self.board))

    @cached_property
    def wiring_area(self) -> BaseGeometry:
        """Where wiring and pour may lie, but for their distance from its edge."""
        return wiring_area(self.brief, self.board)

    @cached_property
    def profile(self) -> tuple[Piece, ...]:
        """All lines and arcs along which the board is cut."""
        return board_profile(self.brief, self.board)

    @cached_property
    def placed(self) -> dict[str, PlacedPart]:
        """Placed part by reference."""
        return {part.ref: part for part in self.placement.parts}

    @cached_property
    def seats(self) -> dict[str, Seat]:
        """Seat by reference."""
        return {part.ref: part.seat for part in self.placement.parts}

    @cached_property
    def pads(self) -> tuple[Copper, ...]:
        """All pads of all parts."""
        return tuple(pad for pads in self.pads_by_part for pad in pads)

    @cached_property
    def pads_by_part(self) -> tuple[tuple[Copper, ...], ...]:
        """The pads of every part, in the order of the circuit."""
        return tuple(
            PADS.of(
                (component, self.patterns[component.ref], self.placed[component.ref]),
                partial(
                    pads_of,
                    self.patterns[component.ref],
                    self.seats[component.ref],
                    component.ref,
                    component.pads,
                ),
            )
            for component in self.circuit.components
        )

    @cached_property
    def fields(self) -> tuple[Copper, ...]:
        """The round fields that fingers and pills touch, as copper of no net: nothing of anybody's
        lies in them on their side.
        """
        return tuple(
            Copper("", (FAR if seat.far else NEAR,), Round(seat.x, seat.y, wide), "field", ref)
            for ref, seat in self.seats.items()
            if (wide := self.patterns[ref].touched_nm - 2 * FIELD_RIM_NM) > 0
        )

    @cached_property
    def obstacles(self) -> tuple[Copper, ...]:
        """What wiring keeps away from before there is any: pads, and fields that are touched."""
        return (*self.pads, *self.fields)

    @cached_property
    def pads_by_contact(self) -> dict[tuple[str, str], list[Copper]]:
        """Pads by reference and number."""
        found: dict[tuple[str, str], list[Copper]] = {}
        for pad in self.pads:
            found.setdefault((pad.ref, pad.pad), []).append(pad)
        return found

    def body(self, ref: str) -> Polygon:
        """The body of a part as it stands, in nm."""
        return self.drawn(ref, "body", self.patterns[ref].body)

    def courtyard(self, ref: str) -> Polygon:
        """The courtyard of a part as it stands, in nm."""
        return self.drawn(ref, "courtyard", self.patterns[ref].courtyard)

    def drawn(self, ref: str, what: str, box: Box) -> Polygon:
        """A box of a part's pattern as it stands, in nm."""
        about = (self.patterns[ref], self.placed[ref])
        return BODIES.of(about, lambda: polygon_of(self.seats[ref].shape(box)), what)

    @cached_property
    def wiring(self) -> tuple[Copper, ...]:
        """All tracks and vias, stitches included."""
        if self.routing is None:
            return ()
        vias = self.routing.vias + (self.pour.stitches if self.pour else ())
        return tuple(track_copper(t) for t in self.routing.tracks) + tuple(
            via_copper(v, self.rules) for v in vias
        )

    @cached_property
    def poured(self) -> tuple[PourPiece, ...]:
        """All poured pieces of both sides, of ground first."""
        return (*self.pour.pieces, *self.pour.areas) if self.pour else ()

    @cached_property
    def holes(self) -> tuple[Hole, ...]:
        """All holes: plated ones of pads and vias, unplated ones of pegs and screws."""
        found = [
            Hole(c.drill_x, c.drill_y, c.drill_nm, True, c.net, c.owner)
            for c in (*self.pads, *self.wiring)
            if c.drill_nm
        ]
        for ref, seat in self.seats.items():
            for peg in self.patterns[ref].holes:
                x, y = seat.point(peg.x, peg.y)
                found.append(
                    Hole(x, y, peg.d, False, "", f"{ref} peg", peg.d // 2 + self.rules.hole_gap_nm)
                )
        for thing in self.brief.on(self.board.name):
            hole = thing.drilled()
            if hole is not None:
                seat, d = seat_of_thing(self.brief, thing), round(hole.d_mm * MM)
                keep = round(hole.head_mm * MM) // 2 + 200_000
                found.append(Hole(seat.x, seat.y, d, False, "", thing.name, keep))
        return tuple(found)


def track_copper(track: Track) -> Copper:
    """A track as copper."""
    bar = Bar(track.x1_nm, track.y1_nm, track.x2_nm, track.y2_nm, track.width_nm)
    return Copper(track.net, (FAR if track.far else NEAR,), bar, "track")


def via_copper(via: Via, rules: BoardRules) -> Copper:
    """A via as copper."""
    disc = Round(via.x_nm, via.y_nm, rules.via_nm)
    return Copper(
        via.net,
        (NEAR, FAR),
        disc,
        "via",
        drill_nm=rules.via_hole_nm,
        drill_x=via.x_nm,
        drill_y=via.y_nm,
    )
