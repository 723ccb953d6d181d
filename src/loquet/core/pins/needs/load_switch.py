"""A switched rail."""

from loquet.core.brief.kinds.load_switch import LoadSwitch
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: LoadSwitch, ask: Asking) -> list[Need]:
    """The line that turns it on."""
    return [ask.need("on", "output", f"{thing.name} on")]


NEEDS = (LoadSwitch, needs)
