"""The chip runs on what the cells give, from fresh to empty."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power import rail_of
from loquet.core.provenance import NotApplicable, Outcome, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Compare the chip's limits with the pair of cells."""
    chip = subject.chip
    assert chip is not None
    brain = subject.brief.brain
    rail = rail_of(subject.brief, brain)
    if not rail.direct:
        return NotApplicable("the chip's rail is made by a regulator")
    about = (thing(brain.name),) if brain else ()
    fresh, empty = rail.fresh_v * 1000, rail.empty_v * 1000
    if chip.supply_min_mv is None or chip.supply_max_mv is None:
        return Undetermined(
            (
                RULE.finding(
                    f"The supply limits of {chip.name} are not known here.",
                    f"Check in its data sheet that it runs from {empty / 1000:.1f} to {fresh / 1000:.1f} V.",
                    about,
                    severity="look",
                ),
            )
        )
    found = []
    if fresh > chip.supply_max_mv:
        found.append(
            RULE.finding(
                f"{rail.words[0].upper()}{rail.words[1:]} give {fresh / 1000:.1f} V and {chip.name} takes {chip.supply_max_mv / 1000:.1f} V at most ({chip.supply_source}).",
                "Choose another chip.",
                about,
            )
        )
    if chip.supply_min_mv > empty:
        share = f"{chip.supply_min_mv / 1000:.2f} V"
        found.append(
            RULE.finding(
                f"{chip.name} stops below {share} ({chip.supply_source}), before the cells are empty at {empty / 1000:.1f} V.",
                "Accept a shorter run time, or choose a chip for lower voltage.",
                about,
                severity="look",
            )
        )
    return outcome(found, 1)


RULE = Rule(
    "supply-range",
    "pins",
    "stop",
    "A chip outside its supply limits fails or resets.",
    Source(kind="from memory", text="supply limits by chip family; cell voltages of IEC 60086-2"),
    run,
    ("chip",),
)
