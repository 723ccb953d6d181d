"""What the header of a host computer asks."""

from loquet.core.brief.kinds.host_header import HostHeader
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: HostHeader, ask: Asking) -> list[Need]:
    """Plain lines."""
    return ask.lines(thing.lines)


NEEDS = (HostHeader, needs)
