"""Edits of the board: where a person puts parts."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PlaceMm, QuarterTurn
from loquet.core.design import Design, PartSeat
from loquet.core.edits.applying import EditRefused
from loquet.core.frozen import Frozen
from loquet.core.geometry import Seat
from loquet.core.quantities.lengths import nm_from_mm


class SeatPart(Frozen):
    """Put a part somewhere by hand; it stays there until it is released."""

    kind: Literal["seat-part"] = "seat-part"
    role: Annotated[str, Field(max_length=80)]
    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: QuarterTurn = 0

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Put {self.role} at {self.x_mm:.2f}, {self.y_mm:.2f} mm"

    def apply(self, design: Design) -> Design:
        """Keep the seat as a choice, and move the part in the placement as it stands so that it can be seen at once."""
        made = design.placement
        part = next((p for p in made.value.parts if p.role == self.role), None) if made else None
        if made is None or part is None:
            raise EditRefused(
                f"There is no part '{self.role}' on the board.", "Place the board first."
            )
        chosen = PartSeat(
            role=self.role,
            x_mm=round(self.x_mm, 3),
            y_mm=round(self.y_mm, 3),
            turn_deg=self.turn_deg,
            far=part.far,
        )
        seats = {**design.choices.part_seats, self.role: chosen}
        seat = Seat(nm_from_mm(chosen.x_mm), nm_from_mm(chosen.y_mm), chosen.turn_deg, part.far)
        moved = part.model_copy(
            update={"x_nm": seat.x, "y_nm": seat.y, "turn_deg": seat.turn_deg, "locked": True}
        )
        parts = tuple(moved if p.role == self.role else p for p in made.value.parts)
        placement = made.model_copy(
            update={"value": made.value.model_copy(update={"parts": parts})}
        )
        choices = design.choices.model_copy(update={"part_seats": seats})
        return design.model_copy(update={"choices": choices, "placement": placement})


class ReleasePart(Frozen):
    """Let Loquet place a part again."""

    kind: Literal["release-part"] = "release-part"
    role: Annotated[str, Field(max_length=80)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Let {self.role} be placed again"

    def apply(self, design: Design) -> Design:
        """Drop the seat."""
        seats = {r: s for r, s in design.choices.part_seats.items() if r != self.role}
        return design.model_copy(
            update={"choices": design.choices.model_copy(update={"part_seats": seats})}
        )
