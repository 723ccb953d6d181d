"""A converter that makes another rail."""

from loquet.core.brief.kinds.converter import Converter
from loquet.core.circuit import feeding
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Fragment


def recipe(thing: Converter, bench: Bench) -> Fragment:
    """From the rail that it takes to the rail that it makes."""
    return feeding.converter(bench, thing, bench.rail(thing).net)


RECIPE = (Converter, recipe)
