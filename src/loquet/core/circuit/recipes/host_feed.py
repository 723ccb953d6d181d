"""Power from a host over two wires."""

from loquet.core.brief.kinds.host_feed import HostFeed
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import plugged
from loquet.core.circuit.model import Fragment


def recipe(thing: HostFeed, bench: Bench) -> Fragment:
    """Plug, guard, converter."""
    return plugged(thing, bench, thing.bodies()[0].part, "5 V from the host")


RECIPE = (HostFeed, recipe)
