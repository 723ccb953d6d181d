"""A two-axis stick."""

from loquet.core.brief.kinds.stick import Stick
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import Fragment


def recipe(thing: Stick, bench: Bench) -> Fragment:
    """Both axes at the rail, and the press."""
    return control(thing, bench, "Stick", ("x", "y"))


RECIPE = (Stick, recipe)
