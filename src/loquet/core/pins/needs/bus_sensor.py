"""What a sensor on the two-wire bus asks beside the bus."""

from loquet.core.brief.kinds.bus_sensor import BusSensor
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: BusSensor, ask: Asking) -> list[Need]:
    """Its interrupt line."""
    if not thing.interrupt:
        return []
    return [ask.need("interrupt", "interrupt", f"{thing.name} interrupt", extra=True)]


NEEDS = (BusSensor, needs)
