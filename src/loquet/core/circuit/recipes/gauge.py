"""A gauge that watches a lithium cell."""

from loquet.core.brief.kinds.gauge import Gauge
from loquet.core.brief.kinds.lithium_cell import LithiumCell
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Fragment, RecipeNotPossible
from loquet.core.circuit.recipes.lithium_cell import cell_side
from loquet.core.circuit.senses import on_bus


def recipe(thing: Gauge, bench: Bench) -> Fragment:
    """The gauge fed by the cell that it watches, so that it goes on counting; raises
    RecipeNotPossible where there is none.
    """
    cell = next((t for t in bench.brief.things if isinstance(t, LithiumCell)), None)
    if cell is None:
        limit = "there is no lithium cell that it could watch"
        raise RecipeNotPossible(thing.name, limit, "Add a lithium cell, or take the gauge out.")
    return on_bus(thing, bench, thing.interrupt, {"cell": cell_side(cell, bench)})


RECIPE = (Gauge, recipe)
