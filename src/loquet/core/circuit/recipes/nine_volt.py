"""A nine-volt block on a plug for its leads."""

from loquet.core.brief.kinds.nine_volt import NineVolt
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import plugged
from loquet.core.circuit.model import Fragment
from loquet.core.parts.choosing import plug

PITCH_MM = 2.5


def recipe(thing: NineVolt, bench: Bench) -> Fragment:
    """Plug, guard, converter."""
    return plugged(thing, bench, plug(bench.parts, 2, PITCH_MM), "nine-volt block")


RECIPE = (NineVolt, recipe)
