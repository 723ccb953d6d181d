"""A push button."""

from loquet.core.brief.kinds.button import Button
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import Fragment


def recipe(thing: Button, bench: Bench) -> Fragment:
    """The switch with its name printed beside it."""
    made = control(thing, bench, "Button")
    named = tuple(c.model_copy(update={"printed": thing.name}) for c in made.components)
    return Fragment(named, around=made.around)


RECIPE = (Button, recipe)
