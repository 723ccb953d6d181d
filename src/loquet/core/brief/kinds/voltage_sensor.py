"""A voltage to be measured."""

from typing import Literal

from loquet.core.brief.thing import Body, Thing


class VoltageSensor(Thing):
    """A sensor that gives a plain voltage."""

    GROUP = "senses"
    TITLE = "Voltage sensor"
    WORD = "sensor"
    MARK = "sensor"

    kind: Literal["voltage-sensor"] = "voltage-sensor"

    def bodies(self) -> tuple[Body, ...]:
        """A small chip."""
        return (Body(part="voltage-sensor-3"),)
