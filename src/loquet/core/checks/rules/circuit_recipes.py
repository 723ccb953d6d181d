"""Everything in the brief has a circuit recipe; what has none is said at once, not when the circuit is made."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.assembling import refuse_without_recipe
from loquet.core.circuit.recipes.controls import refuse_without_recipe as refuse_controls
from loquet.core.pins.wiring import wiring_of
from loquet.core.provenance import Finding, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Ask the recipes themselves what they refuse."""
    brief = subject.brief
    found: list[Finding] = []
    try:
        refuse_without_recipe(brief)
    except RecipeNotPossible as refused:
        found.append(
            RULE.finding(
                f"{refused.limit[0].upper()}{refused.limit[1:]}.", refused.nearest, ("brief",)
            )
        )
    try:
        refuse_controls(brief, wiring_of(brief))
    except RecipeNotPossible as refused:
        found.append(
            RULE.finding(
                f"{refused.limit[0].upper()}{refused.limit[1:]}.",
                refused.nearest,
                ("brief:controls",),
            )
        )
    return outcome(found, 1)


RULE = Rule(
    "circuit-recipes",
    "circuit",
    "stop",
    "A thing without a recipe would be missing from the board.",
    Source(kind="computed", text="the recipes"),
    run,
)
