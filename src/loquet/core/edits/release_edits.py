"""Edits of the release: house and what is ordered there, and how many boards lie on a panel."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.brief.making import USUAL_COPPER_UM, Making
from loquet.core.brief.panel_choice import PanelChoice
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, with_brief, with_choices
from loquet.core.ordering.house import OWN_HOUSE, House
from loquet.core.shelf.faults import house_faults


class ChooseHouse(Counted):
    """House and shipping, with what is ordered there."""

    kind: Literal["choose-house"] = "choose-house"
    house: Annotated[str, Field(max_length=64)]
    shipping: Annotated[str, Field(max_length=80)]
    making: Making
    own: House | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        name = self.own.name if self.own else self.house
        return f"Order at {name}: {said(self.making)}"

    def apply(self, design: Design) -> Design:
        """Change the choices; a rule says what the house does not offer. Raises EditRefused where a
        house of one's own does not come with the choice, or cannot be.
        """
        own = self.own if self.house.startswith(OWN_HOUSE) else None
        if self.house.startswith(OWN_HOUSE) and (own is None or own.id != self.house):
            raise EditRefused(f"{self.house} comes without what it is.", "Choose it once more.")
        if own and (faults := house_faults(own)):
            raise EditRefused(f"{own.name}: {faults[0].problem}.", faults[0].way_out)
        asked = with_choices(design, house=self.house, own_house=own, shipping=self.shipping)
        return with_brief(asked, making=self.making)


class SetMaking(Counted):
    """How the boards are made and soldered."""

    kind: Literal["set-making"] = "set-making"
    making: Making

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Boards in {said(self.making)}"

    def apply(self, design: Design) -> Design:
        """Keep it in the brief; rules say what the house does not offer."""
        return with_brief(design, making=self.making)


def said(making: Making) -> str:
    """How boards are made, in a few words."""
    copper = f", copper {making.copper_um} µm" if making.copper_um != USUAL_COPPER_UM else ""
    return f"{making.finish}, {making.colour}, {making.thickness_mm:.1f} mm{copper}"


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
