"""A voltage to be measured."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import ALWAYS_ON, Body, Thing


class VoltageSensor(Thing):
    """A sensor that gives a plain voltage."""

    GROUP = "senses"
    TITLE = "Voltage sensor"
    WORD = "sensor"
    MARK = "sensor"
    DUTY = ALWAYS_ON

    kind: Literal["voltage-sensor"] = "voltage-sensor"
    part: PartId = "voltage-sensor-3"

    def bodies(self) -> tuple[Body, ...]:
        """A small chip."""
        return (Body(part=self.part, kinds=("voltage sensor",)),)
