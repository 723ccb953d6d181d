"""What a voltage asks."""

from loquet.core.brief.kinds.voltage_sensor import VoltageSensor
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: VoltageSensor, ask: Asking) -> list[Need]:
    """An analogue channel."""
    return [ask.need("", "analogue", thing.name)]


NEEDS = (VoltageSensor, needs)
