"""A line between two brains: nothing but the two nets at their pins."""

from loquet.core.brief.kinds.brain_talk import BrainTalk
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import Fragment, RecipeNotPossible


def recipe(thing: BrainTalk, bench: Bench) -> Fragment:
    """No parts; raises RecipeNotPossible where it does not join two brains."""
    ends = set(thing.read_by())
    first = bench.brief.brain
    named = {name or (first.name if first else "") for name in ends}
    if len(named) < 2:
        raise RecipeNotPossible(
            "line between brains",
            f"{thing.name} has one brain at both ends",
            "Say which brain is at its other end, or take it out.",
        )
    return Fragment(())


RECIPE = (BrainTalk, recipe)
