"""Edits of what is poured beside ground: areas of other nets, their order, and tear-drops."""

from typing import Annotated, Literal

from pydantic import Field
from shapely.geometry import Polygon

from loquet.core.board.model import GROUND_ALONE, PourArea, PourChoice
from loquet.core.board.outline import polygon_nm
from loquet.core.brief.counted import Counted
from loquet.core.brief.places import Name
from loquet.core.circuit.model import GROUND
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, with_choices
from loquet.core.edits.board_edits import board_of
from loquet.core.edits.wire_edits import on_board

LEAST_NM2 = 1e12
MOST_AREAS = 40
Index = Annotated[int, Field(ge=0, lt=MOST_AREAS)]


class AddPourArea(Counted):
    """Pour an area of one side with a net other than ground, behind those that are there
    already.
    """

    kind: Literal["add-pour-area"] = "add-pour-area"
    board: Name
    area: PourArea

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Pour {self.area.net} on {self.board}"

    def apply(self, design: Design) -> Design:
        """Keep it; raises EditRefused where it is no area of the board, or the board has no such
        net.
        """
        outline = polygon_nm(board_of(design, self.board).outline)
        area, choice = Polygon(self.area.ring), choice_of(design, self.board)
        if self.area.net == GROUND:
            raise EditRefused("Ground is poured wherever it may lie.", "Choose another net.")
        if self.area.net not in {net.name for net in on_board(design, self.board)}:
            raise EditRefused(
                f"There is no net '{self.area.net}' on {self.board}.", "Choose a net of the board."
            )
        if not area.is_valid or area.area < LEAST_NM2:
            raise EditRefused(
                "The line of the area crosses itself, or encloses less than 1 square mm.",
                "Draw its corners one after the other.",
            )
        if not area.intersects(outline):
            raise EditRefused("The area lies beside the board.", "Draw it on the board.")
        if self.area in choice.areas:
            raise EditRefused("This very area is poured already.", "Draw it elsewhere.")
        if len(choice.areas) == MOST_AREAS:
            raise EditRefused(f"{MOST_AREAS} areas are the most.", "Take one out first.")
        return with_choice(design, self.board, areas=(*choice.areas, self.area))


class DropPourArea(Counted):
    """Pour an area no longer."""

    kind: Literal["drop-pour-area"] = "drop-pour-area"
    board: Name
    index: Index

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Take out area {self.index + 1} of the pour on {self.board}"

    def apply(self, design: Design) -> Design:
        """Take it out."""
        _, others = picked_out(design, self.board, self.index)
        return with_choice(design, self.board, areas=others)


class PreferPourArea(Counted):
    """Let an area have its way before all others."""

    kind: Literal["prefer-pour-area"] = "prefer-pour-area"
    board: Name
    index: Index

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Pour area {self.index + 1} first on {self.board}"

    def apply(self, design: Design) -> Design:
        """Put it first."""
        area, others = picked_out(design, self.board, self.index)
        return with_choice(design, self.board, areas=(area, *others))


class SetTearDrops(Counted):
    """Lead tracks into drilled lands with tear-drops, or plainly."""

    kind: Literal["set-tear-drops"] = "set-tear-drops"
    board: Name
    wanted: bool

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{'Tear-drops' if self.wanted else 'No tear-drops'} on {self.board}"

    def apply(self, design: Design) -> Design:
        """Keep the choice."""
        board_of(design, self.board)
        return with_choice(design, self.board, tear_drops=self.wanted)


def choice_of(design: Design, board: str) -> PourChoice:
    """What is to be poured beside ground on a board."""
    return design.choices.pours.get(board, GROUND_ALONE)


def picked_out(design: Design, board: str, index: int) -> tuple[PourArea, tuple[PourArea, ...]]:
    """An area by its place in the order, and all others; raises EditRefused."""
    board_of(design, board)
    areas = choice_of(design, board).areas
    if index >= len(areas):
        raise EditRefused(
            f"There is no area {index + 1} on {board}.", "It may have been taken out meanwhile."
        )
    return areas[index], (*areas[:index], *areas[index + 1 :])


def with_choice(design: Design, board: str, **changes: object) -> Design:
    """The design with another choice for the pour of a board."""
    made = choice_of(design, board).model_copy(update=changes)
    left = {name: kept for name, kept in design.choices.pours.items() if name != board}
    return with_choices(design, pours=left if made == GROUND_ALONE else {**left, board: made})
