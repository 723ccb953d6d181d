"""The pin order of what somebody brings has been read from a drawing, not assumed from a
look-alike.
"""

from loquet.core.brief.on_posts import OnPosts
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Every thing on posts of its own names the drawing that its order was compared with."""
    brought = [t for t in subject.brief.things if isinstance(t, OnPosts)]
    if not brought:
        return NotApplicable("nothing of one's own is on this device")
    found = [
        RULE.finding(
            f"Nobody has compared the pin order of {t.label} with its drawing:"
            f" {', '.join(t.posts())}.",
            f"Compare it, or measure it with a meter, and write at {t.name} which drawing that was,"
            " with page and date.",
            (thing(t.name),),
        )
        for t in brought
        if not t.compared_with()
    ]
    return outcome(found, len(brought))


RULE = Rule(
    "own-pins",
    "parts",
    "look",
    "A module that looks like another one may have supply and ground the other way round.",
    Source(kind="common practice", text="pin orders differ between makers of look-alikes"),
    run,
)
