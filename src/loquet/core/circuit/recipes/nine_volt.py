"""A nine-volt block on a plug for its leads."""

from loquet.core.brief.kinds.nine_volt import NineVolt
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import plugged
from loquet.core.circuit.model import Fragment

PLUG = "wire-plug-2.5-2"


def recipe(thing: NineVolt, bench: Bench) -> Fragment:
    """Plug, guard, converter."""
    return plugged(thing, bench, PLUG, "nine-volt block")


RECIPE = (NineVolt, recipe)
