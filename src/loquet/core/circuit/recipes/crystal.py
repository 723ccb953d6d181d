"""The fast crystal with its two load capacitors."""

from loquet.core.brief.kinds.crystal import Crystal
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.crystals import crystal
from loquet.core.circuit.model import Fragment

STRAY_PF = 3.0


def recipe(thing: Crystal, bench: Bench) -> Fragment:
    """Four pads: the crystal across the corners, its can at ground."""
    return crystal(thing, bench, STRAY_PF)


RECIPE = (Crystal, recipe)
