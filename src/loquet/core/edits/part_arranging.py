"""Several parts of a board arranged by hand at once: lined up, spread, turned alike, two of them
swapped.
"""

from typing import Annotated, Literal

from pydantic import Field, ValidationError

from loquet.core.board.model import PlacedPart
from loquet.core.brief.counted import Counted
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused
from loquet.core.edits.arranging import spread
from loquet.core.edits.seat_edits import Role, SeatPart, placed_part

Roles = Annotated[tuple[Role, ...], Field(min_length=2, max_length=100)]
How = Literal["row", "column", "spread across", "spread up", "turn alike", "swap"]
Spot = tuple[float, float, int]


class ArrangeParts(Counted):
    """Line parts up with the first one named, spread them evenly between the outer two, turn them
    like the first, or let two change places.
    """

    kind: Literal["arrange-parts"] = "arrange-parts"
    roles: Roles
    how: How

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Arrange {len(self.roles)} parts: {self.how}"

    def apply(self, design: Design) -> Design:
        """Seat each of them; raises EditRefused where they lie on several boards, or more than two
        are swapped.
        """
        _, parts = parts_of(design, self.roles)
        if self.how == "swap" and len(parts) != 2:
            raise EditRefused("Two parts change places, not more.", "Choose two.")
        spots = {part.role: spot_of(part) for part in parts}
        return seated(design, parts, arranged(spots, self.how))


def parts_of(design: Design, roles: tuple[str, ...]) -> tuple[str, list[PlacedPart]]:
    """The board on which these parts lie, and the parts in their order, each once; raises
    EditRefused where they lie on several.
    """
    found = [placed_part(design, role) for role in dict.fromkeys(roles)]
    if len({board for board, _ in found}) > 1:
        raise EditRefused("These parts lie on different boards.", "Choose parts of one board.")
    return found[0][0], [part for _, part in found]


def seated(design: Design, parts: list[PlacedPart], spots: dict[str, Spot]) -> Design:
    """The design with these parts at other spots; those that stand there already are let be."""
    for part in parts:
        x, y, turn = spots.get(part.role, spot_of(part))
        if (x, y, turn) != spot_of(part):
            design = put_there(part, (x, y, turn)).apply(design)
    return design


def put_there(part: PlacedPart, spot: Spot) -> SeatPart:
    """The edit that puts a part there; raises EditRefused where no board can reach."""
    x, y, turn = spot
    try:
        return SeatPart(role=part.role, x_mm=round(x, 3), y_mm=round(y, 3), turn_deg=turn)
    except ValidationError:
        raise EditRefused(
            f"{part.ref} would lie at {x:.0f}, {y:.0f} mm, beyond any board.", "Take smaller steps."
        ) from None


def spot_of(part: PlacedPart) -> Spot:
    """Place in mm and turn in degrees."""
    return part.x_nm / 1e6, part.y_nm / 1e6, part.turn_deg


def arranged(spots: dict[str, Spot], how: How) -> dict[str, Spot]:
    """The new spots; the first one gives the line and the turn."""
    first_x, first_y, first_turn = next(iter(spots.values()))
    match how:
        case "row":
            return {role: (x, first_y, turn) for role, (x, _, turn) in spots.items()}
        case "column":
            return {role: (first_x, y, turn) for role, (_, y, turn) in spots.items()}
        case "turn alike":
            return {role: (x, y, first_turn) for role, (x, y, _) in spots.items()}
        case "spread across":
            xs = spread({role: x for role, (x, _, _) in spots.items()})
            return {role: (xs[role], y, turn) for role, (_, y, turn) in spots.items()}
        case "spread up":
            ys = spread({role: y for role, (_, y, _) in spots.items()})
            return {role: (x, ys[role], turn) for role, (x, _, turn) in spots.items()}
        case "swap":
            (one, (ax, ay, at)), (other, (bx, by, bt)) = spots.items()
            return {one: (bx, by, at), other: (ax, ay, bt)}
