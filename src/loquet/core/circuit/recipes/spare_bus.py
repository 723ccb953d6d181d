"""A spare two-wire port."""

from loquet.core.brief.kinds.spare_bus import SpareBus
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.line_ports import port
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.two_wire import LINES, bus_net


def recipe(thing: SpareBus, bench: Bench) -> Fragment:
    """Supply, clock, data, ground."""
    lines = [bus_net(bench.desk(thing), line) for line in LINES]
    return Fragment((port(thing, [bench.rail(thing).net, *lines, GROUND], bench),))


RECIPE = (SpareBus, recipe)
