"""What a power button with its latch asks."""

from loquet.core.brief.kinds.power_button import PowerButton
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: PowerButton, ask: Asking) -> list[Need]:
    """A line that holds the power on, and one that reads the button."""
    return [
        ask.need("hold", "output", f"{thing.name} hold"),
        ask.need("pressed", "input", f"{thing.name} pressed"),
    ]


NEEDS = (PowerButton, needs)
