"""The header of a host computer."""

from dataclasses import replace

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.host_header import HostHeader
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import plugged, plus_of
from loquet.core.circuit.line_ports import port
from loquet.core.circuit.model import GROUND, Fragment


def recipe(thing: HostHeader, bench: Bench) -> Fragment:
    """5 V of the host at way 1 where it feeds the device (ground where it does not: nothing of the
    board reaches the host's supply), ground at way 2, then the lines, ground at what is left.
    """
    lines = [plain_name(thing.role(str(i + 1))) for i in range(thing.lines)]
    if not thing.feeds:
        return Fragment((port(thing, [GROUND, GROUND, *lines], bench),))
    fed = plugged(thing, bench, thing.bodies()[0].part, "host")
    plug, *others = fed.components
    header = port(thing, [plug.pads[plus_of(plug)], GROUND, *lines], bench)
    header = header.model_copy(update={"polar": True})
    return replace(fed, components=(header, *others))


RECIPE = (HostHeader, recipe)
