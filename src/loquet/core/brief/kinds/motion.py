"""A motion sensor."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.kinds.bus_sensor import BusSensor


class Motion(BusSensor):
    """A motion sensor on the two-wire bus; it wakes the chip over its interrupt line."""

    TITLE = "Motion sensor"
    MARK = "sensor"
    PART = "motion-sensor-10"

    kind: Literal["motion"] = "motion"  # type: ignore[assignment]
    address: Annotated[int, Field(ge=8, le=119)] = 0x68
    interrupt: bool = True
