"""What such a device usually has and this one lacks."""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Notes on fixing, light and sound."""
    brief, found = subject.brief, []
    if len(brief.fixing_holes) < 2:
        found.append(RULE.finding("The board has fewer than two fixing holes.", "Add holes, or say how the shell holds it.", ("brief:fixing_holes",)))
    if brief.light is None:
        found.append(
            RULE.finding("There is no indicator light, so nobody sees whether the device is on.", "Add one at the Brief station.", ("brief:light",))
        )
    found.append(
        RULE.finding(
            "There is no low-battery sign.", "Let the firmware measure its own supply and show it on the screen or the light.", ("brief:power",)
        )
    )
    return outcome(found, 3)


RULE = Rule(
    "companions", "brief", "note", "Things forgotten in the brief come back as a second revision.",
    Source(kind="common practice", text="what such devices usually have, no source"), run,
)  # fmt: skip
