"""What a motion sensor asks: what any sensor on the bus does."""

from loquet.core.brief.kinds.motion import Motion
from loquet.core.pins.needs.bus_sensor import needs

NEEDS = (Motion, needs)
