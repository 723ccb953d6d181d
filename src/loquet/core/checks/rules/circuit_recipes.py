"""What no circuit can be drawn for is said at once, not when the circuit is made."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.assembling import refuse_what_cannot_be
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Ask the recipes themselves what they refuse."""
    try:
        refuse_what_cannot_be(subject.brief)
    except RecipeNotPossible as refused:
        sentence = f"{refused.limit[0].upper()}{refused.limit[1:]}."
        return outcome([RULE.finding(sentence, refused.nearest)], 1)
    return outcome([], 1)


RULE = Rule(
    "circuit-recipes",
    "circuit",
    "stop",
    "A wish that no circuit meets would be found when all else is done.",
    Source(kind="computed", text="the recipes"),
    run,
)
