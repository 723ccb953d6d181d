"""Edits on the Board: where a person puts parts.

A part of a thing that has a place moves the thing: there is one place for each.
"""

from typing import Annotated, Literal

from pydantic import Field, ValidationError

from loquet.core.board.model import PlacedPart
from loquet.core.brief import Place, Thing
from loquet.core.brief.counted import Counted
from loquet.core.brief.places import PlaceMm
from loquet.core.brief.seats import seat_of_thing
from loquet.core.design import Design, Made, PartSeat
from loquet.core.edits.applying import EditRefused, with_choices
from loquet.core.edits.fitting import fitting
from loquet.core.geometry import Seat
from loquet.core.quantities.lengths import nm_from_mm

Role = Annotated[str, Field(max_length=80)]


class SeatPart(Counted):
    """Put a part somewhere by hand; it stays there until it is released."""

    kind: Literal["seat-part"] = "seat-part"
    role: Role
    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: int = 0
    far: bool | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Put {self.role} at {self.x_mm:.2f}, {self.y_mm:.2f} mm"

    def apply(self, design: Design) -> Design:
        """Keep the seat and move the part in the placement.

        A placement that fitted before is then exactly what the person wants, and fits still: all
        else stays where it is, and its rules speak at once.
        """
        board, part = placed_part(design, self.role)
        before = design
        seat = Seat(
            nm_from_mm(round(self.x_mm, 3)),
            nm_from_mm(round(self.y_mm, 3)),
            self.turn_deg % 360,
            part.far if self.far is None else self.far,
        )
        design = moved_in_placement(design, board, self.role, seat)
        owner = owner_of(design, self.role)
        if owner is not None:
            return moved_thing(design, owner, part.seat, seat)
        chosen = PartSeat(
            role=self.role,
            x_mm=seat.x / 1e6,
            y_mm=seat.y / 1e6,
            turn_deg=seat.turn_deg,
            far=seat.far,
        )
        seats = {**design.choices.part_seats, self.role: chosen}
        after = with_choices(design, part_seats=seats)
        return fitting(before, after, "placement", board)


class ReleasePart(Counted):
    """Let Loquet place a part again."""

    kind: Literal["release-part"] = "release-part"
    role: Role

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Let {self.role} be placed again"

    def apply(self, design: Design) -> Design:
        """Drop the seat."""
        seats = {r: s for r, s in design.choices.part_seats.items() if r != self.role}
        return with_choices(design, part_seats=seats)


def placed_part(design: Design, role: str) -> tuple[str, PlacedPart]:
    """The board and the placed part of a role; raises EditRefused."""
    for board, made in design.placement.items():
        for part in made.value.parts:
            if part.role == role:
                return board, part
    raise EditRefused(f"There is no part '{role}' on the board.", "Place the board first.")


def moved_in_placement(design: Design, board: str, role: str, seat: Seat) -> Design:
    """The placement with one part elsewhere."""
    made = design.placement[board]
    update = {"x_nm": seat.x, "y_nm": seat.y, "turn_deg": seat.turn_deg, "far": seat.far}
    parts = tuple(
        p.model_copy(update={**update, "locked": True}) if p.role == role else p
        for p in made.value.parts
    )
    value = made.value.model_copy(update={"parts": parts})
    return design.with_made("placement", board, Made(made_from=made.made_from, value=value))


def owner_of(design: Design, role: str) -> Thing | None:
    """The thing that the brief places and whose piece has this role."""
    return next(
        (
            thing
            for thing in design.brief.things
            if thing.place and any(thing.role(body.piece) == role for body in thing.bodies())
        ),
        None,
    )


def moved_thing(design: Design, thing: Thing, before: Seat, after: Seat) -> Design:
    """The thing moved and turned as its piece was; what else it is made of follows when the board
    is placed again.
    """
    seat = seat_of_thing(design.brief, thing)
    turn = (seat.turn_deg + after.turn_deg - before.turn_deg) % 360
    try:
        place = Place(
            x_mm=round((seat.x + after.x - before.x) / 1e6, 3),
            y_mm=round((seat.y + after.y - before.y) / 1e6, 3),
            turn_deg=turn,
            far=after.far,
        )
    except ValidationError:
        raise EditRefused(
            f"'{thing.name}' would lie beyond any board.", "Put it nearer to the others."
        ) from None
    moved = thing.model_copy(update={"place": place})
    return design.model_copy(update={"brief": design.brief.with_things(moved)})
