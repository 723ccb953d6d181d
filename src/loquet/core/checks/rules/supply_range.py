"""A brain runs on what its rail gives, from fresh to empty, whatever makes that rail."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power import rail_of
from loquet.core.provenance import NotApplicable, Outcome, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Compare the brain's limits with its rail."""
    chip = subject.chip
    assert chip is not None
    brain = subject.brief.brain
    rail = rail_of(subject.brief, brain)
    if brain is not None and rail.fed_by == brain.name:
        return NotApplicable("the brain makes its rail itself")
    about = (thing(brain.name),) if brain else ()
    fresh, empty = rail.fresh_v * 1000, rail.empty_v * 1000
    if chip.supply_min_mv is None or chip.supply_max_mv is None:
        return Undetermined(
            (
                RULE.finding(
                    f"The supply limits of {chip.name} are not known here.",
                    f"Check in its data sheet that it runs from {empty / 1000:.1f} to"
                    f" {fresh / 1000:.1f} V.",
                    about,
                    severity="look",
                ),
            )
        )
    found = []
    least, most = chip.supply_min_mv, chip.supply_max_mv
    words = f"{rail.words[0].upper()}{rail.words[1:]}"
    if fresh > most:
        found.append(
            RULE.finding(
                f"{chip.name} takes {most / 1000:.1f} V at the most ({chip.supply_source}). "
                f"{words}: up to {fresh / 1000:.1f} V.",
                "Choose another chip, or a rail of fewer volts.",
                about,
            )
        )
    if least > rail.usual_v * 1000:
        found.append(
            RULE.finding(
                f"{chip.name} wants {least / 1000:.2f} V ({chip.supply_source}). "
                f"{words}: {rail.usual_v:g} V.",
                "Choose another chip, or a rail of more volts.",
                about,
            )
        )
    elif least > empty:
        found.append(
            RULE.finding(
                f"{chip.name} stops below {least / 1000:.2f} V ({chip.supply_source}), before "
                f"{rail.words} are empty at {empty / 1000:.1f} V.",
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
