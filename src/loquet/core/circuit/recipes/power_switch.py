"""The slide switch between a source and its rail or converter."""

from loquet.core.brief.kinds.cells import Cells
from loquet.core.brief.kinds.power_switch import PowerSwitch
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import feed_way, switched_by
from loquet.core.circuit.model import Component, Fragment, RecipeNotPossible
from loquet.core.circuit.recipes.cells import nets_of


def recipe(thing: PowerSwitch, bench: Bench) -> Fragment:
    """From the guarded net of the first source to what stands behind; raises RecipeNotPossible where there is nothing to switch."""
    source = next((t for t in bench.brief.things if switched_by(bench.brief, t) is thing), None)
    if source is None:
        limit = "there is nothing that it could switch yet"
        raise RecipeNotPossible(thing.name, limit, "Add cells, or take the switch off.")
    way = feed_way(bench, source)
    guarded = nets_of(source)[1] if isinstance(source, Cells) else way.guarded
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block="power",
                value="on and off",
                purpose="Power switch",
                pads={"2": guarded, "3": way.behind},
            ),
        )
    )


RECIPE = (PowerSwitch, recipe)
