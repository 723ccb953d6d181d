"""Everything in the brief has a circuit recipe; what has none is said at once, not when the circuit is made."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.assembling import refuse_without_recipe, waiting
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Ask the recipes themselves what they refuse."""
    try:
        refuse_without_recipe(subject.brief)
    except RecipeNotPossible as refused:
        names = [thing(t.name) for t in subject.brief.things if t.label in waiting(subject.brief)]
        sentence = f"{refused.limit[0].upper()}{refused.limit[1:]}."
        return outcome([RULE.finding(sentence, refused.nearest, tuple(names))], 1)
    return outcome([], 1)


RULE = Rule(
    "circuit-recipes",
    "circuit",
    "stop",
    "A thing without a recipe would be missing from the board.",
    Source(kind="computed", text="the recipes"),
    run,
)
