"""Thumb keys lie where a small hand's thumb reaches."""

from loquet.core.brief.reach import SOURCE, out_of_reach
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """A note on keys beyond the arc; a key pad that lies on a table is left alone."""
    if subject.brief.role == "usb-keyboard" or subject.brief.chords.rule == "typing":
        return NotApplicable("it is typed on, not held")
    beyond = out_of_reach(subject.brief)
    far = [words for _, words in beyond]
    if not far:
        return outcome([], 1)
    names = ", ".join(far[:4]) + (f" and {len(far) - 4} more" if len(far) > 4 else "")
    sentence = f"A small hand's thumb does not reach {names} without shifting its grip."
    return outcome(
        [
            RULE.finding(
                sentence,
                "Move it nearer to its side, or give it to another finger.",
                tuple(thing(n) for n in dict.fromkeys(name for name, _ in beyond)),
            )
        ],
        1,
    )


RULE = Rule(
    "thumb-reach",
    "brief",
    "note",
    "Keys out of reach are pressed late or not at all.",
    Source(kind="from memory", text=SOURCE),
    run,
)
