"""The slide switch between a source and its rail or converter."""

from loquet.core.brief.kinds.power_switch import PowerSwitch
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Component, Fragment
from loquet.core.circuit.switching import switched_way


def recipe(thing: PowerSwitch, bench: Bench) -> Fragment:
    """From the guarded net of the first source to what stands behind; raises RecipeNotPossible
    where there is nothing to switch.
    """
    _, guarded, behind = switched_way(thing, bench)
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block="power",
                value="on and off",
                purpose="Power switch",
                pads={"common": guarded, "on": behind},
                on_pad="on",
            ),
        )
    )


RECIPE = (PowerSwitch, recipe)
