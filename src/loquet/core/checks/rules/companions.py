"""What such a device usually has and this one lacks, each with the addition at one press where Loquet can make it."""

from loquet.core.brief import Brief, Button, Potentiometer
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Finding, Outcome, Repair, Source


def run(subject: Subject) -> Outcome:
    """Notes on mounting, lights, sound, power and programming."""
    brief = subject.brief
    return outcome([*mounting_and_power(brief), *screen_and_sound(brief)], 8)


def mounting_and_power(brief: Brief) -> list[Finding]:
    """Holes, lights, batteries, reset."""
    found = []
    if len(brief.fixing_holes) < 2:
        add = Repair(label="Add four holes at the corners", edit={"kind": "add-corner-holes"})
        sentence = "The board has fewer than two fixing holes."
        found.append(
            RULE.finding(
                sentence,
                "Add holes, or say how the shell holds it.",
                ("brief:fixing_holes",),
                repairs=(add,),
            )
        )
    if brief.light is None:
        add = Repair(
            label="Add an indicator light",
            edit={"kind": "set-extra", "extra": "light", "present": True},
        )
        sentence = "There is no indicator light, so nobody sees whether the device is on."
        found.append(
            RULE.finding(
                sentence, "Add one at the Brief station.", ("brief:light",), repairs=(add,)
            )
        )
    if brief.power.kind == "lithium-cell":
        if not brief.power.sense:
            measure = Repair(
                label="Measure the cell", edit={"kind": "set-battery-sense", "sense": True}
            )
            found.append(
                RULE.finding(
                    "There is no low-battery sign: the cell is not measured.",
                    "Measure it.",
                    ("brief:power",),
                    repairs=(measure,),
                )
            )
        found.append(
            RULE.finding(
                "A charge light is not in the brief.",
                "Most chargers have an output for one; plan it at the Power station.",
                ("brief:power",),
            )
        )
    elif brief.power.kind != "from-host":
        way = "Let the firmware measure its own supply and show it on the screen or the light."
        found.append(RULE.finding("There is no low-battery sign.", way, ("brief:power",)))
    if (
        brief.role == "stand-alone"
        and len(brief.controls) > 8
        and not any(isinstance(c, Button) and c.duty == "menu" for c in brief.controls)
    ):
        found.append(
            RULE.finding(
                "No control is a menu key.",
                "Give one button that duty, or do without.",
                ("brief:controls",),
            )
        )
    return found


def screen_and_sound(brief: Brief) -> list[Finding]:
    """Brightness, volume, headphones."""
    found = []
    if (
        brief.screen
        and brief.screen.bus == "parallel colour"
        and not any(isinstance(c, Potentiometer) for c in brief.controls)
    ):
        found.append(
            RULE.finding(
                "Nothing sets the brightness of the screen.",
                "Add a thumb-wheel, or set it from a menu.",
                ("brief:screen",),
            )
        )
    if (
        brief.speaker
        and not brief.speaker.volume
        and not any(isinstance(c, Potentiometer) for c in brief.controls)
    ):
        found.append(
            RULE.finding(
                "Nothing sets the volume of the speaker.",
                "Add a thumb-wheel, or set it from a menu.",
                ("brief:speaker",),
            )
        )
    if brief.speaker and brief.headphones is None:
        add = Repair(
            label="Add a headphone socket",
            edit={"kind": "set-extra", "extra": "headphones", "present": True},
        )
        found.append(
            RULE.finding(
                "There is a speaker and no headphone socket.",
                "Add one, or do without.",
                ("brief:headphones",),
                repairs=(add,),
            )
        )
    return found


RULE = Rule(
    "companions",
    "brief",
    "note",
    "Things forgotten in the brief come back as a second revision.",
    Source(kind="common practice", text="what such devices usually have, no source"),
    run,
)
