"""Parts of a board put in a pattern by hand: rows at even steps, and one half as the mirror of the
other.
"""

from math import dist
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.brief.keys import middle_of_outline
from loquet.core.design import Design, slice_of
from loquet.core.edits.applying import EditRefused
from loquet.core.edits.part_arranging import Roles, parts_of, seated, spot_of

StepMm = Annotated[float, Field(ge=-200, le=200)]


class ArrayParts(Counted):
    """Put parts in rows at even steps, in the order in which they are named; the first one stays
    and gives the turn.
    """

    kind: Literal["array-parts"] = "array-parts"
    roles: Roles
    columns: Annotated[int, Field(ge=1, le=100)]
    step_x_mm: StepMm
    step_y_mm: StepMm

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Put {len(self.roles)} parts in rows of {self.columns}"

    def apply(self, design: Design) -> Design:
        """Seat each of them; raises EditRefused where they lie on several boards, or two would fall
        on one place.
        """
        _, parts = parts_of(design, self.roles)
        rows = -(-len(parts) // self.columns)
        if (self.columns > 1 and not self.step_x_mm) or (rows > 1 and not self.step_y_mm):
            raise EditRefused("Parts would lie on top of each other.", "Give a step above 0 mm.")
        x, y, turn = spot_of(parts[0])
        spots = {}
        for index, part in enumerate(parts):
            row, column = divmod(index, self.columns)
            spots[part.role] = (x + column * self.step_x_mm, y + row * self.step_y_mm, turn)
        return seated(design, parts, spots)


class MirrorParts(Counted):
    """Put parts of one half at the mirrored places of the same parts on the other half; the half of
    the first one named leads.
    """

    kind: Literal["mirror-parts"] = "mirror-parts"
    roles: Roles

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Mirror {len(self.roles)} parts"

    def apply(self, design: Design) -> Design:
        """Seat those that follow: at the mirrored place of every leader the like part that is
        nearest to it. Upright parts keep the turn of their leader, so that like parts are turned
        alike; slanted ones slant the other way.

        Raises EditRefused where the halves do not hold the same parts, or the parts lie on several
        boards.
        """
        board, parts = parts_of(design, self.roles)
        middle = middle_of_outline(design.brief, board)
        left = parts[0].x_nm / 1e6 < middle
        leaders = [p for p in parts if (p.x_nm / 1e6 < middle) == left]
        followers = [p for p in parts if p not in leaders]
        sorts = {c.role: c.part for c in slice_of(design.circuit).components}
        spots = {}
        for leader in leaders:
            x, y, turn = spot_of(leader)
            spot = (2 * middle - x, y, turn if turn % 90 == 0 else -turn)
            alike = [p for p in followers if sorts[p.role] == sorts[leader.role]]
            if not alike:
                raise EditRefused(
                    f"No part like {leader.ref} is picked on the other half.",
                    "Pick the same parts on both halves; that of the first one leads.",
                )
            nearest = min(alike, key=lambda p: (dist(spot_of(p)[:2], spot[:2]), p.ref))
            followers.remove(nearest)
            spots[nearest.role] = spot
        if followers:
            raise EditRefused(
                f"{followers[0].ref} has no part like it to follow.",
                "Pick the same parts on both halves; that of the first one leads.",
            )
        return seated(design, parts, spots)
