"""No rail is stepped up and then burnt down again."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import made_of
from loquet.core.provenance import NotApplicable, Outcome, Source

UP = ("boost", "buck-boost")
LITTLE = 0.05
"""A rail that takes less than this of what its parent gives wastes nothing that counts, as the one
for the lines of a host on 5 V; common practice, no source.
"""


def run(subject: Subject) -> Outcome:
    """Look for a linear regulator that stands on a rail which was stepped up above it."""
    made = {m.rail.name: m for m in made_of(subject.brief, subject.library)}
    chained = [m for m in made.values() if m.parent and m.taken]
    if not chained:
        return NotApplicable("no rail is made of another one")
    found = []
    for row in chained:
        assert row.parent is not None
        assert row.taken is not None
        before = made[row.parent.name]
        if row.load.play * row.rail.usual_v < LITTLE * before.load.play * row.parent.usual_v:
            continue
        if row.taken.way.name == "linear" and before.taken and before.taken.way.name in UP:
            share = row.rail.usual_v / row.parent.usual_v * before.taken.part.figure("efficiency")
            best = before.taken.part.figure("efficiency")
            assert row.feeder is not None
            found.append(
                RULE.finding(
                    f"{row.rail.name} is stepped up to {row.parent.usual_v:g} V and then burnt down"
                    f" to {row.rail.usual_v:g} V: {share:.0%} of the energy arrives, and {best:.0%}"
                    " would with one converter.",
                    "Make this rail of the source itself.",
                    (thing(row.feeder.name),),
                )
            )
    return outcome(found, len(chained))


RULE = Rule(
    "power-waste",
    "power",
    "look",
    "Up and down again wastes the battery.",
    Source(kind="computed", text="product of the efficiencies of the chain"),
    run,
)
