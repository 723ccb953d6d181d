"""A directional pad."""

from loquet.core.brief.kinds.pad import Pad
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import Fragment


def recipe(thing: Pad, bench: Bench) -> Fragment:
    """Four switches, or one five-way part."""
    return control(thing, bench, "Pad")


RECIPE = (Pad, recipe)
