"""Openings are as wide as the cutter that cuts them."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source

CUTTER_MM = 1.0


def run(subject: Subject) -> Outcome:
    """Compare the width of every opening with the cutter; the brief keeps their corners round
    enough.
    """
    view = subject.view
    assert view is not None
    things = [(t, o) for t in view.brief.on(view.board.name) if (o := t.opening()) is not None]
    if not things:
        return NotApplicable("the board has no opening")
    found = [
        RULE.finding(
            f"'{owner.name}' is {narrow:.2f} mm wide, and a cutter of {CUTTER_MM:g} mm cuts it.",
            "Make it wider.",
            (thing(owner.name),),
        )
        for owner, opening in things
        if (narrow := min(opening.width_mm, opening.height_mm)) < CUTTER_MM
    ]
    return outcome(found, len(things))


RULE = Rule(
    "slot-width",
    "board",
    "look",
    "A house cuts with a round cutter: a narrower slot comes wider, or not at all.",
    Source(kind="common practice", text="cutters of 1 mm and more; no source"),
    run,
    ("view",),
)
