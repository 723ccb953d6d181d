"""The chip runs on what the cells give, from fresh to empty."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit.supply import TWO_AAA
from loquet.core.provenance import NotApplicable, Outcome, Source, Undetermined


def run(subject: Subject) -> Outcome:
    """Compare the chip's limits with the pair of cells."""
    chip = subject.chip
    assert chip is not None
    if subject.brief.power.kind != "two-aaa-cells":
        return NotApplicable("the chip's rail is made by a regulator")
    fresh, empty = TWO_AAA.fresh_v * 1000, TWO_AAA.empty_v * 1000
    if chip.supply_min_mv is None or chip.supply_max_mv is None:
        return Undetermined(
            (
                RULE.finding(
                    f"The supply limits of {chip.name} are not known here.",
                    f"Check in its data sheet that it runs from {empty / 1000:.1f} to {fresh / 1000:.1f} V.",
                    ("part:chip",),
                    severity="look",
                ),
            )
        )
    found = []
    if fresh > chip.supply_max_mv:
        found.append(
            RULE.finding(
                f"Two fresh cells give {fresh / 1000:.1f} V and {chip.name} takes {chip.supply_max_mv / 1000:.1f} V at most ({chip.supply_source}).",
                "Choose another chip.",
                ("part:chip",),
            )
        )
    if chip.supply_min_mv > empty:
        share = f"{chip.supply_min_mv / 1000:.2f} V"
        found.append(
            RULE.finding(
                f"{chip.name} stops below {share} ({chip.supply_source}), before the cells are empty at {empty / 1000:.1f} V.",
                "Accept a shorter run time, or choose a chip for lower voltage.",
                ("part:chip",),
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
