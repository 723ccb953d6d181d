"""A two-axis stick."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import ALWAYS_ON, Axis, Body, Contact, FilterHz, Worked


class Stick(Worked):
    """A two-axis stick, resistive or magnetic, with or without a press."""

    GROUP = "controls"
    TITLE = "Stick"
    WORD = "stick"
    MARK = "stick"
    DUTY = ALWAYS_ON

    kind: Literal["stick"] = "stick"
    sensing: Literal["resistive", "magnetic"] = "resistive"
    press: bool = True
    supply: Literal["rail", "5 V"] = "rail"
    filter_hz: FilterHz = 0.0
    part: PartId = "stick-resistive-13"

    def bodies(self) -> tuple[Body, ...]:
        """One stick."""
        return (Body(part=self.part, kinds=(f"{self.sensing} stick",)),)

    def contacts(self) -> tuple[Contact, ...]:
        """Its press, where it has one."""
        if not self.press:
            return ()
        return (Contact("press", f"{self.name} press", ends=("press", "common")),)

    def axes(self) -> tuple[Axis, ...]:
        """Both of them."""
        volts = 5.0 if self.supply == "5 V" else 0.0
        return (
            Axis("x", f"{self.name} x", volts, "stick x", self.filter_hz),
            Axis("y", f"{self.name} y", volts, "stick y", self.filter_hz),
        )
