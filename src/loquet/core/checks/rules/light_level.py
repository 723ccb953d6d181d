"""A light lights as long as its source lasts."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.power import rail_of
from loquet.core.provenance import NotApplicable, Outcome, Source

LEAST_V = 0.1


def run(subject: Subject) -> Outcome:
    """Compare the volts of every light with those of its rail when its source is empty."""
    parts = subject.library.parts
    lights = [
        (t, parts[t.part].figure("forward_v"))
        for t in subject.brief.group("shows")
        if t.part in parts and parts[t.part].kind == "light"
    ]
    if not lights:
        return NotApplicable("there is no light")
    found = []
    for light, forward in lights:
        rail = rail_of(subject.brief, light)
        if forward + LEAST_V > rail.empty_v:
            found.append(
                RULE.finding(
                    f"{light.label} wants {forward:g} V, and its rail ({rail.words}) ends at"
                    f" {rail.empty_v:g} V: it goes dark before the source is empty.",
                    "Take a red light, or do not use it as the low-battery sign.",
                    (thing(light.name),),
                )
            )
    return outcome(found, len(lights))


RULE = Rule(
    "light-level",
    "power",
    "note",
    "A low-battery sign that goes dark with the battery says nothing.",
    Source(kind="part drawing", text="forward volts of the light; volts of the empty source"),
    run,
)
