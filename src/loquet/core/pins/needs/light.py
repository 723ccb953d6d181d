"""What an indicator light asks."""

from loquet.core.brief.kinds.light import Light
from loquet.core.pins.asking import Asking, net_of
from loquet.core.pins.model import Need


def needs(thing: Light, ask: Asking) -> list[Need]:
    """A plain output, but for one that shows its rail."""
    if thing.lit_by == "its rail":
        return []
    net, title = net_of(thing.role("drive")), thing.name
    title = "indicator light" if thing.name == thing.WORD else title
    return [ask.need("", "output", title, net=net, extra=True, load="light")]


NEEDS = (Light, needs)
