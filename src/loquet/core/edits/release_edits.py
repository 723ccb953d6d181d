"""Edits of the release: house and what is ordered there, and how many boards lie on a panel."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.board.rules import USUAL_COPPER_UM
from loquet.core.brief.counted import Counted
from loquet.core.brief.panel_choice import PanelChoice
from loquet.core.design import Design
from loquet.core.edits.applying import with_choices

Words = Annotated[str, Field(max_length=40)]


class ChooseHouse(Counted):
    """House, finish, colour, thickness of board and copper, and shipping."""

    kind: Literal["choose-house"] = "choose-house"
    house: Words
    finish: Words
    colour: Words
    thickness_um: Annotated[int, Field(ge=400, le=3200)]
    copper_um: Annotated[int, Field(ge=18, le=210)] = USUAL_COPPER_UM
    shipping: Words

    @property
    def label(self) -> str:
        """Words for the history."""
        copper = f", copper {self.copper_um} µm" if self.copper_um != USUAL_COPPER_UM else ""
        return (
            f"Order at {self.house}: {self.finish}, {self.colour}, {self.thickness_um / 1000:.1f}"
            f" mm{copper}"
        )

    def apply(self, design: Design) -> Design:
        """Change the choices; a rule says what the house does not offer."""
        return with_choices(design, **self.model_dump(exclude={"kind"}))


class ChoosePanel(Counted):
    """Boards several on a panel, or singly where none is said."""

    kind: Literal["choose-panel"] = "choose-panel"
    panel: PanelChoice | None

    @property
    def label(self) -> str:
        """Words for the history."""
        if self.panel is None:
            return "Order boards singly"
        return f"Panels of {self.panel.columns} x {self.panel.rows}, parted by {self.panel.by}"

    def apply(self, design: Design) -> Design:
        """Keep the choice; a rule says what stands against it."""
        return with_choices(design, panel=self.panel)
