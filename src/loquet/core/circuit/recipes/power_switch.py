"""The slide switch between the guarded cells and the rail."""

from loquet.core.brief.kinds.cells import Cells
from loquet.core.brief.kinds.power_switch import PowerSwitch
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Component, Fragment, RecipeNotPossible
from loquet.core.circuit.recipes.cells import nets_of


def recipe(thing: PowerSwitch, bench: Bench) -> Fragment:
    """From the guarded net of the cells to their rail; raises RecipeNotPossible where there are no cells to switch."""
    cells = next((t for t in bench.brief.things if isinstance(t, Cells)), None)
    if cells is None:
        limit = "there is nothing that it could switch yet"
        raise RecipeNotPossible(thing.name, limit, "Add cells, or take the switch off.")
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block="power",
                value="on and off",
                purpose="Power switch",
                pads={"2": nets_of(cells)[1], "3": bench.rail_fed_by(cells).net},
            ),
        )
    )


RECIPE = (PowerSwitch, recipe)
