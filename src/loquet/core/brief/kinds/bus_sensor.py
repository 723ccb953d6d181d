"""A sensor on the two-wire bus."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, OnBus, Thing


class BusSensor(Thing):
    """A sensor on the two-wire bus at its address, with or without an interrupt line."""

    GROUP = "senses"
    TITLE = "Sensor on the bus"
    WORD = "sensor"
    MARK = "sensor"
    PART_KIND: ClassVar[str] = "bus sensor"

    kind: Literal["bus-sensor"] = "bus-sensor"
    part: PartId = "bus-sensor-6"
    address: Annotated[int, Field(ge=8, le=119)] = 0x44
    interrupt: bool = False
    bus_pf: Annotated[float, Field(ge=0, le=200)] = 10.0

    def bodies(self) -> tuple[Body, ...]:
        """A small chip."""
        return (Body(part=self.part, kinds=(self.PART_KIND,)),)

    def on_bus(self) -> OnBus:
        """Its address and load."""
        return OnBus(self.address, self.bus_pf)
