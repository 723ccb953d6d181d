"""An analogue trigger."""

from loquet.core.brief.kinds.trigger import Trigger
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import Fragment


def recipe(thing: Trigger, bench: Bench) -> Fragment:
    """Its sensor at the rail."""
    return control(thing, bench, "Trigger", ("pull",))


RECIPE = (Trigger, recipe)
