"""A sensor on the two-wire bus."""

from loquet.core.brief.kinds.bus_sensor import BusSensor
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Fragment
from loquet.core.circuit.senses import on_bus


def recipe(thing: BusSensor, bench: Bench) -> Fragment:
    """The sensor on the bus."""
    return on_bus(thing, bench, thing.interrupt)


RECIPE = (BusSensor, recipe)
