"""What a sounder asks."""

from loquet.core.brief.kinds.buzzer import Buzzer
from loquet.core.pins.asking import Asking, net_of
from loquet.core.pins.model import Need


def needs(thing: Buzzer, ask: Asking) -> list[Need]:
    """A tone of a timer."""
    net = net_of(thing.role("drive"))
    return [ask.need("", "timer", thing.name, net=net, rate="tone", extra=True, load="sounder")]


NEEDS = (Buzzer, needs)
