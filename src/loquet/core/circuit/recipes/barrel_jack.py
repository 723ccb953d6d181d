"""A barrel jack: its pin is plus, its sleeve minus."""

from loquet.core.brief.kinds.barrel_jack import BarrelJack
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import plugged
from loquet.core.circuit.model import Fragment


def recipe(thing: BarrelJack, bench: Bench) -> Fragment:
    """Plug, guard, converter."""
    return plugged(thing, bench, thing.bodies()[0].part, f"adapter {thing.adapter_v:g} V")


RECIPE = (BarrelJack, recipe)
