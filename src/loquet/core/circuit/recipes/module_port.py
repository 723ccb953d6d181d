"""The USB socket on a module: its 5 V are on the board at the module's supply pin."""

from loquet.core.brief.kinds.module_port import ModulePort
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import supplies
from loquet.core.circuit.model import Fragment


def recipe(thing: ModulePort, bench: Bench) -> Fragment:
    """No part: the rail alone."""
    return Fragment((), supplies(bench.rail_fed_by(thing).net))


RECIPE = (ModulePort, recipe)
