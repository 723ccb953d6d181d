"""What a cell gauge asks: what any sensor on the bus does."""

from loquet.core.brief.kinds.gauge import Gauge
from loquet.core.pins.needs.bus_sensor import needs

NEEDS = (Gauge, needs)
