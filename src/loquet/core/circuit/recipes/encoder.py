"""A knob that turns without end."""

from loquet.core.brief.kinds.encoder import Encoder
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import Fragment


def recipe(thing: Encoder, bench: Bench) -> Fragment:
    """Both contacts against ground, and the press."""
    return control(thing, bench, "Encoder", ("a", "b"))


RECIPE = (Encoder, recipe)
