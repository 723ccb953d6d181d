"""A motion sensor."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.kinds.bus_sensor import BusSensor
from loquet.core.brief.places import PartId


class Motion(BusSensor):
    """A motion sensor on the two-wire bus; it wakes the chip over its interrupt line."""

    TITLE = "Motion sensor"
    MARK = "sensor"
    PART_KIND = "motion sensor"

    kind: Literal["motion"] = "motion"  # type: ignore[assignment]
    part: PartId = "motion-sensor-10"
    address: Annotated[int, Field(ge=8, le=119)] = 0x68
    interrupt: bool = True
