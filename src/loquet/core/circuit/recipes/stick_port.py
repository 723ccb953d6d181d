"""A nine-way port for an outside stick: contacts to ground, and the rail for sticks with a light or
a repeat.
"""

from loquet.core.brief.kinds.stick_port import StickPort
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import control
from loquet.core.circuit.model import GROUND, Fragment


def recipe(thing: StickPort, bench: Bench) -> Fragment:
    """The five contacts, supply and ground; the shell lies at ground.

    A matrix cannot carry contacts that share ground.
    """
    made = control(thing, bench, "Port")
    (port,) = made.components
    return Fragment(
        (port.model_copy(update={"pads": {**port.pads, "shell": GROUND}}),), around=made.around
    )


RECIPE = (StickPort, recipe)
