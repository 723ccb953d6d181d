"""Cells in series are balanced by something, and what is not on this board is said."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import made_of
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at every store of lithium cells in series."""
    packs = [
        m
        for m in made_of(subject.brief, subject.library)
        if m.supply and m.supply.chemistry == "lithium" and m.supply.in_series > 1
    ]
    if not packs:
        return NotApplicable("there are no lithium cells in series")
    found = []
    for row in packs:
        assert row.feeder is not None
        found.append(
            RULE.finding(
                f"Nothing on this board balances the {row.supply.in_series if row.supply else 0}"
                f" cells of {row.feeder.label}: present is the guard against reversed plugs;"
                " missing are balancing, cut-off at low volts, and cut-off at high current.",
                "Use a pack with its own protection, and charge it outside with a balancing"
                " charger; the pack maker's limits come first.",
                (thing(row.feeder.name),),
            )
        )
    return outcome(found, len(packs))


RULE = Rule(
    "pack-balance",
    "power",
    "look",
    "Cells in series drift apart, and the fullest is overcharged.",
    Source(kind="common practice", text="usual protections of series packs, no source"),
    run,
)
