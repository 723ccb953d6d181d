"""Every rail is made: some way between its source and its volts fits."""

from loquet.core.brief.regulated import OFFERS
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.powering import made_of
from loquet.core.power.budget import Made
from loquet.core.provenance import Finding, NotApplicable, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Look at what was taken for each rail that a converter makes."""
    made = [m for m in made_of(subject.brief, subject.library) if m.feeder and m.feeder.made_by()]
    if not made:
        return NotApplicable("no rail is made by a converter")
    return outcome([finding_of(subject, m) for m in made if m.taken is None], len(made))


def asking_less(subject: Subject, made: Made) -> tuple[Repair, ...]:
    """What a port could ask for instead, so that a converter fits: the highest that does."""
    brief, name = subject.brief, made.rail.fed_by
    for offer in reversed(OFFERS) if getattr(brief.thing(name), "asks", "") in OFFERS else ():
        changed = brief.with_things(brief.thing(name).model_copy(update={"asks": offer}))
        rows = made_of(changed, subject.library)
        if any(m.rail.fed_by == name and m.taken is not None for m in rows):
            edit = {"kind": "change-thing", "name": name, "changes": {"asks": offer}}
            return (Repair(label=f"Ask for {offer}", edit=edit),)
    return ()


def finding_of(subject: Subject, made: Made) -> Finding:
    """What every way lacks, and the way that would fit where another was chosen."""
    feeder = made.feeder
    assert feeder is not None
    wish = feeder.made_by()
    looked = [c for c in made.found if wish in ("auto", c.way.name)]
    lacks = "; ".join(f"the {c.way.title.lower()} {c.why_not}" for c in looked)
    lacks = lacks or "it would be made of itself"
    fitting = any(c.fits for c in made.found)
    edit = {"kind": "change-thing", "name": feeder.name, "changes": {"converter": "auto"}}
    chosen = (Repair(label="Let Loquet choose", edit=edit),)
    repairs = chosen if fitting else asking_less(subject, made)
    asks_less = f"{repairs[0].label} instead." if repairs else ""
    return RULE.finding(
        f"Nothing makes {made.rail.usual_v:g} V of {feeder.label}: {lacks}.",
        (
            "Let Loquet choose the way."
            if fitting
            else asks_less or "Change the rail's volts, its load, or the source."
        ),
        (thing(feeder.name),),
        repairs=repairs,
    )


RULE = Rule(
    "power-made",
    "power",
    "stop",
    "A rail with loads and no source is a forgotten regulator.",
    Source(kind="computed", text="limits of the converters of the catalogue"),
    run,
)
