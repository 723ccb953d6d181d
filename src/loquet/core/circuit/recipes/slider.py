"""A slide or a thumb-wheel."""

from loquet.core.brief.kinds.slider import Slider
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import Fragment


def recipe(thing: Slider, bench: Bench) -> Fragment:
    """A divider between rail and ground."""
    return control(thing, bench, "Slider", ("level",))


RECIPE = (Slider, recipe)
