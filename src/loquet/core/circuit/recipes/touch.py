"""A touch electrode."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.touch import Touch
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import BLOCK
from loquet.core.circuit.model import Component, Fragment


def recipe(thing: Touch, bench: Bench) -> Fragment:
    """The electrode on its line."""
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block=BLOCK,
                value=thing.name,
                purpose=f"Touch electrode {thing.name}",
                pads={"1": plain_name(thing.role())},
            ),
        )
    )


RECIPE = (Touch, recipe)
