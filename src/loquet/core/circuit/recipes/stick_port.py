"""A nine-way port for an outside stick: contacts to ground, and the rail for sticks with a light or
a repeat.
"""

from loquet.core.brief.kinds.stick_port import StickPort
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import GROUND, Fragment, RecipeNotPossible


def recipe(thing: StickPort, bench: Bench) -> Fragment:
    """The five contacts, supply and ground; the shell lies at ground.

    A matrix cannot carry contacts that share ground. Raises RecipeNotPossible where keys are to
    pull up against resistors to ground, since every stick of this plug closes to ground.
    """
    if bench.brief.button_reading == "pull-down-resistors":
        limit = "its stick closes contacts to ground, and the brief asks for pull-down resistors"
        raise RecipeNotPossible(thing.name, limit, "Let the keys pull down to ground.")
    made = control(thing, bench, "Port")
    (port,) = made.components
    return Fragment(
        (port.model_copy(update={"pads": {**port.pads, "shell": GROUND}}),), around=made.around
    )


RECIPE = (StickPort, recipe)
