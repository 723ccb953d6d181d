"""A cell gauge."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.kinds.bus_sensor import BusSensor
from loquet.core.brief.places import PartId
from loquet.core.brief.thing import ALWAYS_ON


class Gauge(BusSensor):
    """A gauge on the two-wire bus that counts what goes into and out of the cell."""

    TITLE = "Cell gauge"
    MARK = "sensor"
    DUTY = ALWAYS_ON
    PART_KIND = "cell gauge"
    GAUGES = True

    kind: Literal["gauge"] = "gauge"  # type: ignore[assignment]
    part: PartId = "gauge-8"
    address: Annotated[int, Field(ge=8, le=119)] = 0x36
