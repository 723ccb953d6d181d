"""Everything that is worked has a place in the USB report, and as many keys as are held at once."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.handover.report import KEYS_AT_ONCE, STICK_AXES, has_report
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Count sticks against pairs of axes, and chords against the places of a keyboard."""
    brief = subject.brief
    if not has_report(brief):
        return NotApplicable("the role has no USB report")
    found: list[Finding] = []
    if brief.role == "usb-keyboard":
        held = brief.chords.at_once if brief.chords.rule == "typing" else 0
        held = max([held, *(len(group) for group in brief.chords.groups)])
        if held > KEYS_AT_ONCE:
            found.append(
                RULE.finding(
                    f"{held} keys are to be held at once, and the report of a keyboard has"
                    f" {KEYS_AT_ONCE} places beside the modifiers.",
                    "Ask for fewer at once, or make some of them modifiers.",
                )
            )
    else:
        sticks = [
            t for t in brief.group("controls") if any(a.report == "stick x" for a in t.axes())
        ]
        for stick in sticks[len(STICK_AXES) :]:
            found.append(
                RULE.finding(
                    f"{stick.label} has no axes in the report, which has {len(STICK_AXES)} pairs.",
                    "Take it out, or let the firmware report it in its own way.",
                    (thing(stick.name),),
                )
            )
    return outcome(found, len(brief.group("controls")))


RULE = Rule(
    "usb-places",
    "brief",
    "look",
    "What has no place in the report is never seen by the host.",
    Source(
        kind="standard",
        text="HID usage tables, pages 0x01 and 0x07; keyboard report of HID 1.11 appendix B",
    ),
    run,
)
