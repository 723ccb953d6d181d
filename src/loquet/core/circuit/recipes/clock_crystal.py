"""The slow crystal with its two load capacitors."""

from loquet.core.brief.kinds.clock_crystal import ClockCrystal
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.crystals import crystal
from loquet.core.circuit.model import Fragment

STRAY_PF = 2.5


def recipe(thing: ClockCrystal, bench: Bench) -> Fragment:
    """Two ends."""
    return crystal(thing, bench, STRAY_PF)


RECIPE = (ClockCrystal, recipe)
