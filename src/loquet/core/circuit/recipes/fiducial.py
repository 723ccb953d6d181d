"""A fiducial."""

from loquet.core.brief.kinds.fiducial import Fiducial
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Component, Fragment


def recipe(thing: Fiducial, bench: Bench) -> Fragment:
    """A dot on no net."""
    dot = Component(
        role=thing.role(),
        part=thing.part,
        block="service",
        purpose="Mark for a placing machine",
        pads={},
        bare=True,
    )
    return Fragment((dot,))


RECIPE = (Fiducial, recipe)
