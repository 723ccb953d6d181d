"""What lies on which pin of a chip has been compared with the maker's drawing where it was written
down from memory.
"""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at how we know the chip's pins, and whether somebody has compared them."""
    chip, brain = subject.chip, subject.brief.brain
    assert chip is not None
    if brain is None or chip.pins_from in ("data set", "own table") or brain.compared_with():
        return outcome([], len(chip.pins))
    known = "from memory" if chip.pins_from == "memory" else "measured once"
    return outcome(
        [
            RULE.finding(
                f"The pin order of {chip.name} is {known}, and nobody has compared it with its"
                " drawing.",
                f"Compare it, and write at {brain.name} which drawing that was, with page and"
                " date.",
                (thing(brain.name),),
            )
        ],
        1,
    )


RULE = Rule(
    "pin-order",
    "pins",
    "look",
    "A chip laid out from a wrong pin order has to be thrown away.",
    Source(kind="from memory", text="package maps of catalogue/data/package_maps.toml"),
    run,
    ("chip",),
)
