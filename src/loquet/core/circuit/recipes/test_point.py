"""A test point."""

from loquet.core.brief.kinds.test_point import TestPoint
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Component, Fragment


def recipe(thing: TestPoint, bench: Bench) -> Fragment:
    """A bare pad on the net that it names."""
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block="service",
                value=thing.net,
                purpose=f"Test point of {thing.net}",
                pads={"point": thing.net},
                bare=True,
            ),
        )
    )


RECIPE = (TestPoint, recipe)
