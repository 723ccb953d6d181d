"""No converter gets so hot that it hurts the hand or shortens its life."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import made_of
from loquet.core.provenance import NotApplicable, Outcome, Source

WARM_C = 85.0


WAYS = {
    "linear": "Take a step-down converter, or a source with fewer volts.",
    "buck": "Let less be on at once, or feed some of it from a converter of its own.",
}
ELSE = "Let less be on at once, or take a source whose volts are nearer to those of the rail."


def run(subject: Subject) -> Outcome:
    """Look at the junction of every converter with everything on."""
    rows = [m for m in made_of(subject.brief, subject.library) if m.taken]
    if not rows:
        return NotApplicable("no rail is made by a converter")
    found = []
    for row in rows:
        assert row.taken is not None
        assert row.feeder is not None
        if row.taken.junction_c > WARM_C:
            found.append(
                RULE.finding(
                    f"The {row.taken.way.title.lower()} of {row.feeder.label} turns"
                    f" {row.taken.heat_mw:.0f} mW into heat and gets {row.taken.junction_c:.0f} °C"
                    " hot inside.",
                    WAYS.get(row.taken.way.name, ELSE),
                    (thing(row.feeder.name),),
                )
            )
    return outcome(found, len(rows))


RULE = Rule(
    "converter-heat",
    "power",
    "look",
    "A hot regulator in a closed shell warms cell and hand, and ages.",
    Source(kind="common practice", text="junction at most 85 °C in a closed shell; JESD51-2"),
    run,
)
