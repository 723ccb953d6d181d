"""An analogue trigger."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import ALWAYS_ON, Axis, Body, FilterHz, Worked


class Trigger(Worked):
    """An analogue trigger, read by a magnetic sensor or a slide."""

    GROUP = "controls"
    TITLE = "Trigger"
    WORD = "trigger"
    MARK = "wedge"
    DUTY = ALWAYS_ON

    kind: Literal["trigger"] = "trigger"
    sensing: Literal["magnetic", "slide"] = "magnetic"
    supply: Literal["rail", "5 V"] = "rail"
    filter_hz: FilterHz = 0.0
    part: PartId = "trigger-magnetic"

    def bodies(self) -> tuple[Body, ...]:
        """One sensor."""
        return (Body(part=self.part, kinds=(f"{self.sensing} trigger",)),)

    def axes(self) -> tuple[Axis, ...]:
        """Its pull."""
        volts = 5.0 if self.supply == "5 V" else 0.0
        return (Axis("pull", f"{self.name} pull", volts, "trigger", self.filter_hz),)
